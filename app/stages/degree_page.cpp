// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/degree_page.h"
#include "app/model/said.h"

#include "app/paint/theme.h"
#include "app/stages/dates.h"
#include "app/stages/plot.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

struct CurveOf {
  QString name;
  Quantity quantity;
  std::function<double(const DegreePoint&)> value;
  bool isMoney = false;
};

std::vector<CurveOf> curves() {
  return {{DegreePage::tr("power and fuel a winter"), Quantity::money, [](const DegreePoint& p) { return p.energy; }, true},
          {DegreePage::tr("heat bought a winter"), Quantity::energy, [](const DegreePoint& p) { return p.heater_kWh; }},
          {DegreePage::tr("growth, in days of the best"), Quantity::count, [](const DegreePoint& p) { return p.growth_d; }},
          {DegreePage::tr("nights missed"), Quantity::count, [](const DegreePoint& p) { return static_cast<double>(p.nights - p.held); }},
          {DegreePage::tr("most heat given at once"), Quantity::power, [](const DegreePoint& p) { return p.peak_W; }},
          {DegreePage::tr("hours of work a winter"), Quantity::hours, [](const DegreePoint& p) { return p.hours; }}};
}

/// One of those that are shown.
double degree_K(const Units& units) { return units.fahrenheit ? 1.0 / 1.8 : 1.0; }

/// Where the schools keep theirs at night.
struct School {
  double night_C;
  QString name;
};
std::vector<School> schools() { return {{2.0, DegreePage::tr("frost-free")}, {7.0, DegreePage::tr("middling")}, {16.0, DegreePage::tr("best growth")}}; }

} // namespace

DegreePage::DegreePage(Document& document, QWidget* parent)
    : QWidget(parent), m_document(document), m_words(new QLabel(this)), m_what(new QComboBox(this)), m_plot(new Plot(document, this)) {
  auto* body = new QVBoxLayout(this);
  body->setContentsMargins(0, 0, 0, 0);
  auto* head = new QHBoxLayout;
  for (const CurveOf& c : curves()) m_what->addItem(c.name);
  m_what->setFont(textFont(9.5));
  m_what->setAccessibleName(tr("What is drawn over the setpoint"));
  head->addWidget(m_what);
  head->addStretch();
  body->addLayout(head);
  m_plot->setAccessibleName(tr("What a degree more buys"));
  body->addWidget(m_plot, 1);
  m_words->setFont(textFont(9.5));
  m_words->setWordWrap(true);
  m_words->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  body->addWidget(m_words);
  connect(m_what, &QComboBox::currentIndexChanged, this, [this] { draw(); });
}

bool DegreePage::isAsked() const {
  return m_weather == m_document.readings().sharedWeather() && m_asked == m_document.plan() && m_step_K == degree_K(m_document.view().units());
}

bool DegreePage::isCurrent() const { return !m_points.empty() && isAsked(); }

QString DegreePage::words() const { return m_words->text(); }

void DegreePage::showEvent(QShowEvent* e) {
  QWidget::showEvent(e);
  refresh();
}

void DegreePage::refresh() {
  const bool may = m_document.readings().weather() != nullptr;
  m_plot->setVisible(may && !m_points.empty());
  m_what->setVisible(may && !m_points.empty());
  if (!may)
    m_words->setText(tr("Import a log of nights, and warmer and cooler setpoints are tried over them here."));
  else if (isCurrent())
    draw();
  else if (isVisible() && m_document.results().isCurrent())
    start();
}

void DegreePage::start() {
  if (m_job.isWorking() && isAsked()) return;
  m_step_K = degree_K(m_document.view().units());
  m_asked = m_document.plan();
  m_weather = m_document.readings().sharedWeather();
  m_points.clear();
  m_plot->hide();
  m_what->hide();
  m_words->setText(tr("Trying warmer and cooler night setpoints over all logged nights."));
  m_job.start([plan = m_document.plan(), weather = m_weather,
               step_K = m_step_K](const auto& progress, const auto* stop) { return degreeMore(plan, weather, countedBy(progress, stop), step_K); },
              [this](Result<std::vector<DegreePoint>> points) {
                if (!points) {
                  m_words->setText(muffle::said(points.problem(), m_document.view().units()));
                  return;
                }
                m_points = std::move(*points);
                refresh();
              },
              [this](std::size_t done, std::size_t of) { m_words->setText(tr("Trying night setpoints: %1 of %2.").arg(done).arg(of)); });
}

/// From the plan's setpoint to a degree more.
QString DegreePage::said() const {
  const Units& u = m_document.view().units();
  const QString currency = QString::fromStdString(m_document.plan().prices.currency);
  const double now_C = nightSetpoint_C(m_document.plan());
  const auto mine = std::find_if(m_points.begin(), m_points.end(), [&](const DegreePoint& p) { return std::abs(p.night_C - now_C) < 1e-6; });
  if (mine == m_points.end()) return {};
  const auto number = [](double value, int decimals) { return QLocale().toString(value, 'f', decimals); };
  const auto days = [](double d) { return tr("%Ln day(s)", nullptr, static_cast<int>(std::lround(d))); };
  QString words = tr("At %1 by night the house takes %2 and %3 %4 a winter; the crop has %5 of the best growth, and on %6 light is what it lacks.")
                      .arg(u.text(Quantity::temperature, now_C), u.text(Quantity::energy, mine->heater_kWh), u.number(Quantity::money, mine->energy), currency,
                           days(mine->growth_d), days(mine->lightShort_d));
  const auto more = mine + 1;
  if (more == m_points.end()) return words + QLatin1Char(' ') + tr("Warmer setpoints would meet the vents.");
  const double money = more->energy - mine->energy, growth_d = more->growth_d - mine->growth_d;
  constexpr double kShown_d = 0.05;
  words += QLatin1Char(' ') + tr("%1 more: %2 and %3 %4 a winter more")
                                  .arg(u.text(Quantity::difference, more->night_C - mine->night_C),
                                       u.text(Quantity::energy, more->heater_kWh - mine->heater_kWh), u.number(Quantity::money, money), currency);
  words += growth_d > kShown_d && money > 0.0
               ? tr(" for %1 days of the best growth, each at %2 %3").arg(number(growth_d, 1), u.number(Quantity::money, money / growth_d), currency)
               : tr(" for no growth that shows");
  const int missed = (more->nights - more->held) - (mine->nights - mine->held);
  return words + (missed < 0   ? tr("; %1 fewer missed.").arg(tr("%Ln night(s)", nullptr, static_cast<int>(-missed)))
                  : missed > 0 ? tr("; %1 more missed.").arg(tr("%Ln night(s)", nullptr, static_cast<int>(missed)))
                               : tr("; as many nights held."));
}

void DegreePage::draw() {
  if (m_points.empty()) return;
  const Units& u = m_document.view().units();
  const Theme& t = Theme::of(m_document.view().isDark());
  const CurveOf what = curves()[static_cast<std::size_t>(std::max(m_what->currentIndex(), 0))];
  m_plot->clearPlottables();
  m_plot->clearItems();
  m_plot->retheme();
  m_plot->xAxis->grid()->setZeroLinePen(Qt::NoPen); // an upright there would be taken for a mark
  QVector<double> x, y;
  double most = 0.0;
  for (const DegreePoint& p : m_points) {
    x << u.show(Quantity::temperature, p.night_C);
    y << u.show(what.quantity, what.value(p));
    most = std::max(most, y.back());
  }
  QCPGraph* line = m_plot->addGraph();
  line->setName(what.name);
  line->setPen(QPen(t.ink, 1.8));
  line->setScatterStyle(QCPScatterStyle(QCPScatterStyle::ssDisc, t.ink, 6));
  line->setData(x, y, true);
  const auto upright = [&](double at_C, const QPen& pen) {
    auto* mark = new QCPItemStraightLine(m_plot);
    mark->point1->setCoords(u.show(Quantity::temperature, at_C), 0.0);
    mark->point2->setCoords(u.show(Quantity::temperature, at_C), 1.0);
    mark->setPen(pen);
  };
  upright(nightSetpoint_C(m_document.plan()), QPen(t.madder, 1.4));
  m_plot->xAxis->setLabel(tr("night setpoint, %1 (red: yours; dashed: where the schools keep theirs)").arg(u.unit(Quantity::temperature)));
  m_plot->yAxis->setLabel(what.isMoney ? QStringLiteral("%1 (%2)").arg(what.name, QString::fromStdString(m_document.plan().prices.currency))
                          : what.quantity == Quantity::count ? what.name
                                                             : QStringLiteral("%1 (%2)").arg(what.name, u.unit(what.quantity)));
  m_plot->rescaleAxes();
  m_plot->xAxis->scaleRange(1.08);
  m_plot->yAxis->setRange(0.0, std::max(most * 1.18, 1.0));
  for (const School& school : schools()) {
    const double at = u.show(Quantity::temperature, school.night_C);
    if (!m_plot->xAxis->range().contains(at)) continue;
    upright(school.night_C, QPen(t.woad, 1.2, Qt::DashLine));
    auto* name = new QCPItemText(m_plot);
    name->position->setCoords(at, m_plot->yAxis->range().upper);
    name->setPositionAlignment(Qt::AlignTop | Qt::AlignHCenter);
    name->setText(school.name);
    name->setFont(textFont(8.5));
    name->setColor(t.fleece);
    name->setBrush(t.wool);
    name->setPadding(QMargins(3, 1, 3, 1));
  }
  m_plot->replot();
  m_words->setText(said());
}

} // namespace muffle
