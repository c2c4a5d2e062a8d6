// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/failure_page.h"
#include "app/model/said.h"

#include "app/paint/theme.h"
#include "app/stages/dates.h"
#include "app/stages/heater_words.h"
#include "app/stages/plot.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QSignalBlocker>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {
constexpr double kHours[] = {1.0, 2.0, 4.0, 6.0, 8.0, 12.0, 24.0, 48.0};
constexpr int kUsualHours = 2; // of them
constexpr int kRest_ms = 120;

/// Up to two digits that count: what was found by trial bears no more.
double roundedUp(double value) {
  const double scale = std::pow(10.0, std::floor(std::log10(std::max(1e-9, value))) - 1.0);
  return std::ceil(value / scale - 1e-9) * scale;
}
} // namespace

FailurePage::FailurePage(Document& document, QWidget* parent)
    : QWidget(parent), m_document(document), m_what(new QComboBox(this)), m_hours(new QComboBox(this)),
      m_worst(new QPushButton(tr("Find the worst moment"), this)), m_words(new QLabel(this)), m_held(new QLabel(this)), m_plot(new Plot(document, this)) {
  auto* body = new QVBoxLayout(this);
  body->setContentsMargins(0, 0, 0, 0);
  body->setSpacing(6);
  auto* row = new QHBoxLayout;
  const auto label = [&](const QString& text, QWidget* buddy) {
    auto* l = new QLabel(text, this);
    l->setFont(textFont(9.5));
    row->addWidget(l);
    row->addWidget(buddy);
    buddy->setFont(textFont(9.5));
    buddy->setAccessibleName(text);
  };
  label(tr("Fails"), m_what);
  label(tr("for"), m_hours);
  for (const double h : kHours) m_hours->addItem(tr("%1 h").arg(h));
  m_hours->setCurrentIndex(kUsualHours);
  row->addStretch();
  m_worst->setFont(textFont(9.5));
  m_worst->setToolTip(tr("every hour of every logged winter is tried"));
  row->addWidget(m_worst);
  body->addLayout(row);
  for (QLabel* words : {m_words, m_held}) {
    words->setWordWrap(true);
    words->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    words->setFont(textFont(10));
  }
  body->addWidget(m_words);
  m_plot->setAccessibleName(tr("The air while it fails"));
  body->addWidget(m_plot, 1);
  body->addWidget(m_held);
  connect(m_what, &QComboBox::activated, this, [this] { ask(m_study && m_study->isWorst); });
  connect(m_hours, &QComboBox::activated, this, [this] { ask(m_study && m_study->isWorst); });
  m_soon.setSingleShot(true);
  m_soon.setInterval(kRest_ms);
  connect(&m_soon, &QTimer::timeout, this, [this] { ask(false); });
  connect(m_worst, &QPushButton::clicked, this, &FailurePage::findWorst);
}

FailurePage::~FailurePage() = default;

QString FailurePage::words() const { return m_words->text() + QLatin1Char('\n') + m_held->text(); }

void FailurePage::listThings() {
  const QSignalBlocker quiet(m_what);
  const auto before = thing();
  m_things = whatCanFail(m_document.plan());
  m_what->clear();
  int at = 0;
  for (std::size_t i = 0; i < m_things.size(); ++i) {
    m_what->addItem(HeaterWords::failing(m_things[i]));
    if (before && before->text() == m_things[i].text()) at = static_cast<int>(i);
  }
  m_what->setCurrentIndex(at);
}

std::optional<FailingThing> FailurePage::thing() const {
  const int at = m_what->currentIndex();
  return at >= 0 && at < static_cast<int>(m_things.size()) ? std::optional(m_things[static_cast<std::size_t>(at)]) : std::nullopt;
}

void FailurePage::say(const QString& text) {
  m_words->setText(text);
  m_held->clear();
  m_plot->setVisible(m_study.has_value());
}

void FailurePage::refresh() {
  if (m_isTurning) return;
  listThings();
  const bool may = m_document.readings().weather() && m_document.results().isCurrent() && m_document.view().moment();
  m_worst->setEnabled(may);
  if (!m_document.readings().weather()) {
    m_study.reset();
    return say(tr("Import a log of nights, and this page says how long the house lasts when something fails."));
  }
  if (!may) return;
  if (m_asked && !m_asked->moment && m_worstAskedAt == momentNow() && m_asked->plan == m_document.plan() &&
      m_asked->weather == m_document.readings().sharedWeather()) {
    if (m_study && !m_job.isWorking()) draw(); // until the clock is turned
    return;
  }
  m_soon.start(); // a clock that is dragged asks once it rests
}

void FailurePage::findWorst() { ask(true); }

std::optional<std::pair<std::size_t, std::size_t>> FailurePage::momentNow() const {
  const auto moment = m_document.view().moment();
  return moment ? std::optional(std::pair(moment->winter, moment->step)) : std::nullopt;
}

/// At the clock's moment in the chosen night, or at the worst of all.
void FailurePage::ask(bool worst) {
  m_soon.stop();
  const auto what = thing();
  const auto moment = momentNow();
  if (!what || !moment || !m_document.readings().weather()) return;
  Asked asked{m_document.plan(),
              m_document.readings().sharedWeather(),
              {*what, kHours[std::max(0, m_hours->currentIndex())], {setpointsConcerned(m_document.plan(), *what).hold_C}},
              {}};
  if (asked.question.lines_C.front() != 0.0) asked.question.lines_C.push_back(0.0);
  if (worst)
    m_worstAskedAt = moment;
  else
    asked.moment = moment;
  if (m_asked && m_asked->plan == asked.plan && m_asked->weather == asked.weather && m_asked->moment == asked.moment &&
      m_asked->question.what.text() == asked.question.what.text() && m_asked->question.for_h == asked.question.for_h) {
    if (m_study && !m_job.isWorking()) draw();
    return;
  }
  m_asked = asked;
  say(worst ? tr("Trying every hour of every winter.") : tr("Trying it."));
  m_job.start(
      [asked, known = m_scene](const auto&, const auto* stop) -> Result<Study> {
        Study study;
        study.scene = known && known->serves(asked.plan, asked.weather) ? known : std::make_shared<const Scene>(makeScene(asked.weather, asked.plan));
        const Scene& scene = *study.scene;
        const auto failures = Failures::prepare(asked.plan, scene, asked.question, 2, stop);
        if (!failures) return failures.problems();
        auto at = asked.moment;
        if (!at) {
          const auto found = failures->worst();
          if (!found) return found.problems();
          at = found->stepOfTime ? std::pair(*found->winterOfTime, *found->stepOfTime) : std::pair(found->winterOfLow, found->stepOfLow);
          study.isWorst = true;
          study.moments = found->moments;
        }
        auto run = failures->at(at->first, at->second);
        if (!run) return run.problems();
        study.run = std::move(*run);
        auto remedies = whatWouldHold(asked.plan, scene, asked.question, at->first, at->second, stop);
        if (!remedies) return remedies.problems();
        study.remedies = *remedies;
        return study;
      },
      [this](Result<Study> study) {
        if (!study) {
          m_study.reset();
          if (study.problem().kind != ProblemKind::cancelled) say(said(study.problem(), m_document.view().units()));
          return;
        }
        m_study = std::move(*study);
        m_scene = m_study->scene;
        if (m_study->isWorst) turnToWorst();
        draw();
      });
}

void FailurePage::turnToWorst() {
  m_isTurning = true;
  m_document.view().showMoment({m_study->run.winter, m_study->run.step});
  m_isTurning = false;
  m_worstAskedAt = momentNow();
}

QString FailurePage::clockText(UtcSeconds at) const { return QString::fromStdString(m_document.planInHand().zone().iso(at).substr(11, 5)); }

void FailurePage::draw() {
  const FailureRun& run = m_study->run;
  const Units& u = m_document.view().units();
  const Theme& t = Theme::of(m_document.view().isDark());
  const auto& lines = m_asked->question.lines_C;
  m_plot->show();
  m_plot->clearPlottables();
  m_plot->clearItems();
  m_plot->retheme();
  const auto course = [&](const std::vector<float>& values, double every_h, const QColor& colour, const QString& name, Qt::PenStyle style) {
    QVector<double> x, y;
    for (std::size_t i = 0; i < values.size(); ++i) {
      x.push_back(static_cast<double>(i) * every_h);
      y.push_back(u.show(Quantity::temperature, static_cast<double>(values[i])));
    }
    QCPGraph* g = m_plot->line(colour, 1.8);
    QPen pen = g->pen();
    pen.setStyle(style);
    g->setPen(pen);
    g->setName(name);
    g->setData(x, y, true);
  };
  const double minute_h = run.every_min / 60.0, step_h = run.otherwiseEvery_min / 60.0;
  course(run.otherwise_C, step_h, t.lichen, tr("if it holds"), Qt::DashLine);
  course(run.outside_C, minute_h, t.woad, tr("outside"), Qt::SolidLine);
  course(run.air_C, minute_h, t.madder, tr("if it fails"), Qt::SolidLine);
  for (const double line : lines) {
    auto* across = new QCPItemLine(m_plot);
    across->start->setCoords(0.0, u.show(Quantity::temperature, line));
    across->end->setCoords(minute_h * static_cast<double>(run.air_C.size() - 1), u.show(Quantity::temperature, line));
    across->setPen(QPen(t.fleece, 1, Qt::DotLine));
  }
  m_plot->legendAbove();
  m_plot->xAxis->setLabel(tr("hours after %1").arg(clockText(run.at)));
  m_plot->yAxis->setLabel(u.unit(Quantity::temperature));
  m_plot->rescaleAxes();
  m_plot->yAxis->scaleRange(1.1);
  m_plot->replot();

  const auto span = [](double minutes) {
    return minutes < 100.0 ? tr("%1 min").arg(std::lround(minutes)) : tr("%1 h %2 min").arg(static_cast<int>(minutes) / 60).arg(static_cast<int>(minutes) % 60);
  };
  const Date day = m_document.planInHand().zone().localDate(run.at);
  const QString said = concernsBay(m_asked->plan, m_asked->question.what) ? tr("%1 fails for %2 h from %3, %4: %5 in the bay, %6 outside.")
                                                                          : tr("%1 fails for %2 h from %3, %4: %5 in the house, %6 outside.");
  QString words =
      said.arg(HeaterWords::failing(m_asked->question.what), QLocale().toString(m_asked->question.for_h), dayText(day, QStringLiteral("d MMM yyyy")),
               clockText(run.at), u.text(Quantity::temperature, run.atAir_C), u.text(Quantity::temperature, run.atOutside_C));
  words[0] = words[0].toUpper();
  if (m_study->isWorst) words = tr("The worst of %1 moments: ").arg(QLocale().toString(static_cast<qlonglong>(m_study->moments))) + words;
  for (std::size_t i = 0; i < lines.size(); ++i)
    words += QLatin1Char(' ') + (run.minutes[i] ? tr("Below %1 %2, at %3.")
                                                      .arg(u.text(Quantity::temperature, lines[i]),
                                                           *run.minutes[i] < 0.5 ? tr("at once") : tr("after %1").arg(span(*run.minutes[i])),
                                                           clockText(run.at + static_cast<UtcSeconds>(60.0 * *run.minutes[i])))
                                                : tr("%1 holds.").arg(u.text(Quantity::temperature, lines[i])));
  words += QLatin1Char(' ') + tr("Lowest %1.").arg(u.text(Quantity::temperature, run.lowest_C));
  m_words->setText(words);

  if (!run.minutes.front()) return m_held->clear();
  QStringList held;
  const Remedies& r = m_study->remedies;
  if (*run.minutes.front() >= 1.0) held << tr("an alarm that has you there within %1").arg(span(*run.minutes.front()));
  if (r.warmer_K) held << tr("the house held %1 warmer beforehand").arg(u.text(Quantity::difference, roundedUp(*r.warmer_K)));
  if (r.backup_W) held << tr("a second heater of %1 that does not fail with it").arg(u.text(Quantity::power, roundedUp(*r.backup_W)));
  if (r.water_l) held << tr("%1 more of water in barrels").arg(u.text(Quantity::water, roundedUp(*r.water_l)));
  m_held->setText(held.empty() ? tr("Nothing that was tried would have held %1: a heater up to 100 kW, 20 000 l of water, 15 K warmer.")
                                     .arg(u.text(Quantity::temperature, lines.front()))
                               : tr("What would have held %1: %2.").arg(u.text(Quantity::temperature, lines.front()), held.join(QStringLiteral("; "))));
}

} // namespace muffle
