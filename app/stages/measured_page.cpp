// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/measured_page.h"
#include "app/model/said.h"

#include "app/paint/theme.h"
#include "app/stages/plot.h"
#include "core/fit/house_loss.h"
#include "core/plan/plan_json.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

QString factorText(int factor) {
  switch (factor) {
  case 0: return MeasuredPage::tr("what the covers let through");
  case 1: return MeasuredPage::tr("draughts");
  case 2: return MeasuredPage::tr("heat held by crop and benches");
  case 3: return MeasuredPage::tr("what the ground takes up");
  default: return MeasuredPage::tr("sun taken up");
  }
}

QString remarkText(const Remark& remark) {
  switch (remark.kind) {
  case RemarkKind::cannotTellApart: {
    const QString said = MeasuredPage::tr("These nights cannot tell %1 from %2").arg(factorText(remark.factor), factorText(remark.other));
    return said + (remark.factor == 0 && remark.other == 1 ? MeasuredPage::tr(": log a windy night.") : QStringLiteral("."));
  }
  case RemarkKind::saysLittle: return MeasuredPage::tr("These nights say little about %1.").arg(factorText(remark.factor));
  case RemarkKind::noHeaterMeter:
    return MeasuredPage::tr("No heater meter in the log: the plan's own thermostat heated, so that what the house loses is known only from nights without it.");
  }
  return {};
}

/// The plan that factors are found for: as entered.
Plan asEntered(Plan plan) {
  plan.calibration.reset();
  return plan;
}

} // namespace

MeasuredPage::MeasuredPage(Document& document, QWidget* parent)
    : QWidget(parent), m_document(document), m_quickText(new QLabel(this)), m_fitText(new QLabel(this)), m_plot(new Plot(document, this)),
      m_run(new QPushButton(tr("Fit the model to these nights"), this)), m_apply(new QPushButton(tr("Apply to the plan"), this)),
      m_remove(new QPushButton(tr("Take the calibration away"), this)) {
  auto* body = new QVBoxLayout(this);
  body->setContentsMargins(0, 0, 0, 0);
  body->setSpacing(6);
  for (QLabel* label : {m_quickText, m_fitText}) {
    label->setWordWrap(true);
    label->setFont(textFont(9.5));
    label->setTextFormat(Qt::RichText);
  }
  m_quickText->setToolTip(tr("the slope of the middle line through the nights, and where it lies nineteen times in twenty"));
  m_fitText->setToolTip(tr("±: two standard errors. Every other night was fitted, the others judged it"));
  connect(&document, &Document::logChanged, this, [this] { m_logIsNew = true; });
  connect(&document, &Document::planChanged, this, [this] { m_planIsNew = true; });
  m_plot->setAccessibleName(tr("Watts of each heated night against its lift"));
  m_plot->axisRect()->setRangeZoom({});
  m_plot->axisRect()->setRangeDrag({});
  body->addWidget(m_quickText);
  m_plot->setMinimumHeight(130);
  body->addWidget(m_plot, 1);
  body->addWidget(m_fitText);
  auto* row = new QHBoxLayout;
  for (QPushButton* button : {m_run, m_apply, m_remove}) row->addWidget(button);
  row->addStretch(1);
  body->addLayout(row);
  m_plot->numbers = [this] {
    QString csv = QStringLiteral("date,lift [K],heater [W],wind [m/s]\n");
    if (m_quick)
      for (const QuickNight& n : m_quick->heated)
        csv += QStringLiteral("%1,%2,%3,%4\n")
                   .arg(QString::fromStdString(isoDate(n.date)))
                   .arg(n.lift_K, 0, 'f', 2)
                   .arg(n.heater_W, 0, 'f', 0)
                   .arg(n.wind_m_s, 0, 'f', 2);
    return csv;
  };
  connect(m_run, &QPushButton::clicked, this, [this] { m_running ? void(m_job.cancel()) : startFit(); });
  connect(m_apply, &QPushButton::clicked, this, &MeasuredPage::apply);
  connect(m_remove, &QPushButton::clicked, this, [this] {
    if (auto why = m_document.edit(tr("take the calibration away"), [](Plan& p) { p.calibration.reset(); })) emit m_document.trouble(*why);
  });
}

/// What the log says alone is worked out once for each log, what it says of the plan once for each plan: a few milliseconds.
void MeasuredPage::measure() {
  const Log* const log = m_document.readings().log();
  if (m_logIsNew) {
    m_fit.reset();
    m_quick.reset();
    m_logTrouble.clear();
    if (log) {
      if (auto quick = quickFit(*log, m_document.readings().nights()))
        m_quick = *quick;
      else
        m_logTrouble = said(quick.problem(), m_document.view().units());
    }
  }
  if (m_logIsNew || m_planIsNew) {
    if (m_fit && m_fittedPlan != asEntered(m_document.plan())) m_fit.reset();
    m_parts.reset();
    m_trouble = m_logTrouble;
    if (m_quick) {
      if (auto parts = againstParts(m_document.plan(), *m_quick))
        m_parts = *parts;
      else
        m_trouble = said(parts.problem(), m_document.view().units());
    }
  }
  m_logIsNew = m_planIsNew = false;
}

QString MeasuredPage::quickText() const {
  if (!m_document.readings().log()) return tr("Import a log with the heater's watts, and what the house really loses stands here.");
  if (!m_parts) return m_trouble.toHtmlEscaped();
  const Units& u = m_document.view().units();
  const auto loss = [&](double W_K) { // a conductance reads as power for each kelvin or degree
    return u.text(Quantity::power, 1000.0 * W_K / u.show(Quantity::difference, 1000.0) * 10.0);
  };
  const QString each = u.text(Quantity::difference, 10.0 / u.show(Quantity::difference, 1.0));
  QString text = tr("<b>Measured %1, calculated %2</b> for each %3 of lift, over %4 heated nights")
                     .arg(loss(m_parts->measured_W_K), loss(m_parts->calculated_W_K), each)
                     .arg(m_quick->heated.size());
  if (m_quick->line) text += tr(", which leave room for %1 to %2").arg(loss(m_quick->line->low), loss(m_quick->line->high));
  text += QLatin1Char('.');
  if (m_parts->explains.empty()) return text + QLatin1Char(' ') + tr("The two agree.");
  QStringList would;
  for (const Explanation& e : m_parts->explains) switch (e.input) {
    case GapInput::heaterReading:
      would << tr("the heater would have to give %1 on an average night, the log has %2")
                   .arg(u.text(Quantity::power, e.needed), u.text(Quantity::power, e.entered));
      break;
    case GapInput::draughts:
      would << tr("the air would have to change %1 times an hour, you entered %2")
                   .arg(u.number(Quantity::airChanges, std::round(100.0 * e.needed) / 100.0), u.number(Quantity::airChanges, e.entered));
      break;
    case GapInput::leaks:
      would << tr("the leaks would have to be %1, you entered %2").arg(u.text(Quantity::leakArea, e.needed), u.text(Quantity::leakArea, e.entered));
      break;
    case GapInput::skin: would << tr("the covers would have to let %1 times as much through").arg(QLocale().toString(e.needed, 'f', 2)); break;
    }
  return text + QStringLiteral("<br>") + tr("One of these would explain it: %1.").arg(would.join(QStringLiteral("; ")));
}

QString MeasuredPage::fitText() const {
  if (m_running) return tr("Running the plan over the log again and again.");
  const auto& applied = m_document.plan().calibration;
  QString text;
  if (m_fit) {
    QString rows;
    for (int f = 0; f < kFactorCount; ++f) {
      Calibration found = m_fit->found;
      // two to a row: the nights above want the room
      rows += (f % 2 == 0 ? QStringLiteral("<tr>") : QString()) +
              QStringLiteral("<td style=\"padding-right:10px; white-space:nowrap\">%1</td><td align=right style=\"white-space:nowrap\">×\u00A0%2</td><td "
                             "align=right style=\"padding-right:20px; white-space:nowrap\">±\u00A0%3</td>")
                  .arg(factorText(f), QLocale().toString(factorOf(found, f), 'f', 2),
                       QLocale().toString(2.0 * m_fit->standardError[static_cast<std::size_t>(f)], 'f', 2));
    }
    text = QStringLiteral("<table cellspacing=0 cellpadding=1>%1</table>").arg(rows) +
           tr("Lows of the %1 nights kept aside to judge it: typically %2 off, before the fit %3.")
               .arg(m_fit->heldOut)
               .arg(m_document.view().units().text(Quantity::difference, m_fit->lowAfter_K),
                    m_document.view().units().text(Quantity::difference, m_fit->lowBefore_K));
    QStringList others; // the house's own air comes first and has its sentence
    for (std::size_t k = 1; k < m_fit->sensors.size(); ++k) {
      const Units& u = m_document.view().units();
      const SensorMisfit& s = m_fit->sensors[k];
      others << tr("%1 by %2 (%3)")
                    .arg(QString::fromStdString(s.channel.substr(0, s.channel.find(" ["))).toHtmlEscaped(), u.text(Quantity::difference, s.after_K),
                         u.text(Quantity::difference, s.before_K));
    }
    if (!others.isEmpty())
      text += QLatin1Char(' ') + tr("Fitted with it, and off on those nights now (and before): %1.").arg(others.join(QStringLiteral(", ")));
    if (m_quick)
      if (const auto both = houseLoss(m_document.plan(), *m_quick, *m_fit)) {
        const Units& u = m_document.view().units();
        const auto loss = [&](double W_K) { return u.text(Quantity::power, 1000.0 * W_K / u.show(Quantity::difference, 1000.0) * 10.0); };
        text += QStringLiteral("<br>") +
                tr("<b>Measured and fitted together, the house loses %1</b> for each %2 of lift, give or take %3.")
                    .arg(loss(both->UA_W_K), u.text(Quantity::difference, 10.0 / u.show(Quantity::difference, 1.0)), loss(2.0 * both->standardError_W_K));
      }
    if (const auto storage = houseStorage(*m_fit)) {
      const Units& u = m_document.view().units();
      const auto heat = [&](double J_K) { return u.text(Quantity::energy, 10.0 * J_K / 3.6e6 / u.show(Quantity::difference, 1.0)); };
      text += QStringLiteral("<br>") +
              tr("For each %1 that its air falls it gives back %2, give or take %3.")
                  .arg(u.text(Quantity::difference, 10.0 / u.show(Quantity::difference, 1.0)), heat(storage->C_J_K), heat(2.0 * storage->standardError_J_K));
    }
    for (const Remark& remark : remarks(*m_fit)) text += QStringLiteral("<br>") + remarkText(remark);
  }
  if (applied)
    text += (text.isEmpty() ? QString() : QStringLiteral("<br>")) +
            tr("The plan carries the calibration of %1.").arg(QString::fromStdString(applied->date).toHtmlEscaped());
  return text;
}

void MeasuredPage::draw() {
  const Theme& t = Theme::of(m_document.view().isDark());
  const Units& u = m_document.view().units();
  m_plot->clearPlottables();
  m_plot->retheme();
  m_plot->setVisible(m_quick && !m_quick->heated.empty());
  if (!m_plot->isVisibleTo(this)) return;
  QVector<double> x, y;
  double most_K = 1.0;
  for (const QuickNight& n : m_quick->heated) {
    x.push_back(u.show(Quantity::difference, n.lift_K));
    y.push_back(u.show(Quantity::power, n.heater_W));
    most_K = std::max(most_K, n.lift_K);
  }
  QCPGraph* nights = m_plot->addGraph();
  nights->setLineStyle(QCPGraph::lsNone);
  nights->setScatterStyle(QCPScatterStyle(QCPScatterStyle::ssDisc, QPen(t.madder), QBrush(t.madder), 5.0));
  nights->setName(tr("heated nights"));
  nights->setData(x, y);
  if (m_parts) {
    double lift = 0.0, watts = 0.0; // both lines pass the middle of the nights
    for (const QuickNight& n : m_quick->heated) lift += n.lift_K / static_cast<double>(x.size()), watts += n.heater_W / static_cast<double>(x.size());
    const auto line = [&](double W_K, const QColor& colour, Qt::PenStyle style, const QString& name) {
      QCPGraph* g = m_plot->line(colour, 1.8);
      QPen pen = g->pen();
      pen.setStyle(style);
      g->setPen(pen);
      g->setName(name);
      QVector<double> lx, ly;
      for (const double at : {std::max(lift - watts / W_K, 0.0), most_K * 1.05}) {
        lx.push_back(u.show(Quantity::difference, at));
        ly.push_back(u.show(Quantity::power, watts + W_K * (at - lift)));
      }
      g->setData(lx, ly);
    };
    line(m_parts->measured_W_K, t.madder, Qt::SolidLine, tr("measured"));
    line(m_parts->calculated_W_K, t.woad, Qt::DashLine, tr("calculated"));
  }
  m_plot->legendAbove();
  m_plot->xAxis->setLabel(tr("mean lift of the night, %1").arg(u.unit(Quantity::difference)));
  m_plot->yAxis->setLabel(tr("mean heater, %1").arg(u.unit(Quantity::power)));
  m_plot->rescaleAxes();
  m_plot->yAxis->setRangeLower(0.0);
  m_plot->xAxis->scaleRange(1.06);
  m_plot->yAxis->setRangeUpper(1.08 * m_plot->yAxis->range().upper);
  m_plot->reading = [this](double px, double py) -> QString {
    const Units& shown = m_document.view().units();
    for (const QuickNight& n : m_quick->heated) {
      const double dx = m_plot->xAxis->coordToPixel(shown.show(Quantity::difference, n.lift_K)) - m_plot->xAxis->coordToPixel(px);
      const double dy = m_plot->yAxis->coordToPixel(shown.show(Quantity::power, n.heater_W)) - m_plot->yAxis->coordToPixel(py);
      if (std::hypot(dx, dy) < 8)
        return tr("%1\nlift %2, heater %3")
            .arg(QString::fromStdString(isoDate(n.date)), shown.text(Quantity::difference, n.lift_K), shown.text(Quantity::power, n.heater_W));
    }
    return {};
  };
  m_plot->replot();
}

void MeasuredPage::refresh() {
  measure();
  draw();
  m_quickText->setText(quickText());
  m_fitText->setText(fitText());
  m_run->setText(m_running ? tr("Stop") : tr("Fit the model to these nights"));
  m_run->setVisible(m_document.readings().log() != nullptr);
  m_apply->setVisible(m_fit && !m_running && !(m_document.plan().calibration == std::optional(m_fit->found)));
  m_remove->setVisible(m_document.plan().calibration.has_value() && !m_running);
}

void MeasuredPage::startFit() {
  if (!m_document.readings().log() || !m_document.readings().sharedWeather()) return;
  m_running = true;
  m_fit.reset();
  refresh();
  const Plan plan = m_document.plan();
  m_job.start(
      [plan, log = *m_document.readings().log(), weather = m_document.readings().sharedWeather()](const auto& goOn, const auto* stop) {
        return calibrate(plan, log, weather, {0, [&](int round) { return goOn(static_cast<std::size_t>(round), 0); }, stop});
      },
      [this, entered = asEntered(plan), weather = m_document.readings().sharedWeather()](Result<Calibrated> fit) {
        m_running = false;
        const bool isStale = weather != m_document.readings().sharedWeather() || entered != asEntered(m_document.plan());
        if (fit && !isStale) {
          m_fittedPlan = entered;
          m_fit = *fit;
          m_fit->found.date = isoDate(m_document.planInHand().zone().localDate(m_document.readings().log()->time.back()));
        } else if (!fit && fit.problem().kind != ProblemKind::cancelled) {
          emit m_document.trouble(said(fit.problem(), m_document.view().units()));
        }
        refresh();
      },
      [this](std::size_t round, std::size_t) { m_fitText->setText(tr("Running the plan over the log again and again: round %1.").arg(round)); });
}

void MeasuredPage::apply() {
  if (!m_fit) return;
  if (auto why =
          m_document.edit(tr("calibrate by %1").arg(QString::fromStdString(m_fit->found.date)), [found = m_fit->found](Plan& p) { p.calibration = found; }))
    emit m_document.trouble(*why);
}

} // namespace muffle
