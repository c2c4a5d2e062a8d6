// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/sources_page.h"

#include "app/model/said.h"
#include "app/paint/theme.h"
#include "app/stages/dates.h"
#include "app/stages/number_field.h"
#include "app/stages/plot.h"
#include "app/stages/source_brush.h"
#include "app/stages/store_words.h"
#include "core/plan/names.h"
#include "core/plan/store_list.h"

#include <QLabel>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

constexpr double kAll_h = 168.0; // of a week: as many as it takes

constexpr std::size_t kWeek_h = 168;
constexpr double kLeastShown = 0.005; // of all the heat that came in

double allOf(const std::vector<HeatSource>& sources) {
  double all = 0.0;
  for (const HeatSource& s : sources) all += s.sum_kWh();
  return all;
}

} // namespace

SourcesPage::SourcesPage(Document& document, QWidget* parent)
    : QWidget(parent), m_document(document), m_words(new QLabel(this)), m_hours(new Plot(document, this)), m_weeks(new Plot(document, this)),
      m_work(new Plot(document, this)) {
  auto* body = new QVBoxLayout(this);
  body->setContentsMargins(0, 0, 0, 0);
  body->setSpacing(5);
  m_words->setWordWrap(true);
  m_words->setFont(textFont(9.5));
  body->addWidget(m_words);
  body->addWidget(m_hours, 4);
  body->addWidget(m_weeks, 4);
  body->addWidget(m_work, 2);
  m_have = new NumberField(document,
                           {tr("You have"), Quantity::hours, [](const Plan& p) { return p.ask.hoursPerWeek.value_or(kAll_h); },
                            [](Plan& p, double v) { p.ask.hoursPerWeek = v < kAll_h ? std::optional(v) : std::nullopt; }, 0.0, kAll_h, 0.5,
                            tr("hours a week for this house; weeks that ask for more are counted"), NumberField::Spec::Word{kAll_h, tr("as many as it takes")}},
                           this);
  body->addWidget(m_have);
  m_hours->setAccessibleName(tr("Where the heat of the chosen night comes from, hour by hour"));
  m_weeks->setAccessibleName(tr("Where the heat of its winter comes from, week by week"));
  m_work->setAccessibleName(tr("Hours of work by the week"));
  for (Plot* plot : {m_hours, m_weeks, m_work}) {
    plot->datesBelow(plot == m_hours ? QStringLiteral("hh:mm") : QStringLiteral("d MMM"));
    plot->setMinimumHeight(plot == m_work ? 70 : 110);
    plot->alignLeft();
    plot->yAxis->ticker()->setTickCount(3);
    plot->showAll = [this] { refresh(); };
  }
  const auto numbers = [this](const std::vector<HeatSource>& sources) {
    QString csv = QStringLiteral("piece");
    for (const HeatSource& s : sources) csv += QLatin1Char(',') + nameOf(s) + QStringLiteral(" kWh");
    csv += QLatin1Char('\n');
    for (std::size_t i = 0; !sources.empty() && i < sources.front().kWh.size(); ++i) {
      csv += QString::number(i + 1);
      for (const HeatSource& s : sources) csv += QLatin1Char(',') + QString::number(s.kWh[i], 'f', 3);
      csv += QLatin1Char('\n');
    }
    return csv;
  };
  m_hours->numbers = [this, numbers] { return numbers(m_night); };
  m_weeks->numbers = [this, numbers] { return numbers(m_winter); };
  m_work->numbers = [this] {
    QString csv = QStringLiteral("week,hours\n");
    for (std::size_t i = 0; i < m_work_h.size(); ++i) csv += QStringLiteral("%1,%2\n").arg(i + 1).arg(m_work_h[i], 0, 'f', 2);
    return csv;
  };
}

QString SourcesPage::words() const { return m_words->text(); }
QWidget& SourcesPage::hoursView() { return *m_hours; }

const NightResult* SourcesPage::night() const {
  const Simulation* run = m_document.results().simulation();
  if (!run || m_document.view().selectedNight() < 0) return nullptr;
  const NightResult& n = run->nights[static_cast<std::size_t>(m_document.view().selectedNight())];
  const bool known = n.winter < run->series.size() && !run->series[n.winter].sun_W.empty() && n.winter < run->ledgers.size();
  return known ? &n : nullptr;
}

QString SourcesPage::nameOf(const HeatSource& source) const {
  const Plan& plan = m_document.plan();
  switch (source.of) {
  case HeatSource::Of::sun: return tr("sun on the house");
  case HeatSource::Of::store: {
    const auto stores = storesOf(plan);
    return source.index < stores.size() ? StoreWords::brief(plan, stores[source.index]) : QString();
  }
  case HeatSource::Of::heater: break;
  }
  return source.index < plan.heaters.size() ? said(muffle::nameOf(plan, plan.heaters[source.index])) : QString();
}

/// In the one legend that is for both drawings.
bool SourcesPage::isShown(std::size_t source) const {
  const auto counts = [source](const std::vector<HeatSource>& of) {
    return source < of.size() && of[source].sum_kWh() >= kLeastShown * allOf(of) && of[source].sum_kWh() > 0.0;
  };
  return counts(m_night) || counts(m_winter);
}

/// Bars on each other in the order of the sources.
void SourcesPage::draw(Plot& plot, const std::vector<HeatSource>& sources, double start_s, double piece_s) {
  const Theme& t = Theme::of(m_document.view().isDark());
  plot.clearPlottables();
  plot.retheme();
  if (&plot == m_hours) plot.legendAbove(); // once for both
  if (sources.empty() || sources.front().kWh.empty()) return;
  const auto pieces = static_cast<qsizetype>(sources.front().kWh.size());
  QVector<double> x;
  std::vector<double> top(sources.front().kWh.size(), 0.0);
  for (qsizetype i = 0; i < pieces; ++i) x.push_back(start_s + (static_cast<double>(i) + 0.5) * piece_s);
  QCPBars* below = nullptr;
  std::size_t stores = 0, heaters = 0;
  for (std::size_t k = 0; k < sources.size(); ++k) {
    const HeatSource& s = sources[k];
    const std::size_t among = s.of == HeatSource::Of::store ? stores++ : s.of == HeatSource::Of::heater ? heaters++ : 0;
    if (!isShown(k)) continue;
    auto* bars = new QCPBars(plot.xAxis, plot.yAxis);
    bars->setWidth(0.88 * piece_s);
    const QBrush brush = sourceBrush(s.of, among, t);
    bars->setPen(QPen(brush.color(), 0.8));
    bars->setBrush(brush);
    bars->setName(nameOf(s));
    bars->setData(x, QVector<double>(s.kWh.begin(), s.kWh.end()), true);
    if (below) bars->moveAbove(below);
    below = bars;
    for (std::size_t i = 0; i < top.size(); ++i) top[i] += s.kWh[i];
  }
  if (&plot == m_hours) plot.wrapLegend();
  plot.xAxis->setRange(start_s, start_s + static_cast<double>(pieces) * piece_s);
  plot.yAxis->setRange(0.0, 1.06 * std::max(*std::max_element(top.begin(), top.end()), 0.1));
}

void SourcesPage::drawWork(double start_s) {
  const Theme& t = Theme::of(m_document.view().isDark());
  m_work->clearPlottables();
  m_work->retheme();
  QVector<double> x;
  for (std::size_t i = 0; i < m_work_h.size(); ++i) x.push_back(start_s + (static_cast<double>(i) + 0.5) * kWeek_h * kHour_s);
  auto* bars = new QCPBars(m_work->xAxis, m_work->yAxis);
  bars->setWidth(0.88 * kWeek_h * kHour_s);
  bars->setPen(Qt::NoPen);
  bars->setBrush(t.fleece);
  bars->setData(x, QVector<double>(m_work_h.begin(), m_work_h.end()), true);
  m_work->xAxis->setRange(m_weeks->xAxis->range());
  m_work->yAxis->setRange(0.0, 1.15 * std::max(*std::max_element(m_work_h.begin(), m_work_h.end()), 0.1));
  m_work->yAxis->setLabel(tr("h of work"));
  if (const auto have = m_document.plan().ask.hoursPerWeek; have && *have < m_work->yAxis->range().upper) {
    auto* line = m_work->addGraph();
    line->setPen(QPen(t.madder, 1.2, Qt::DashLine));
    line->setData({m_work->xAxis->range().lower, m_work->xAxis->range().upper}, {*have, *have}, true);
  }
}

QString SourcesPage::told() const {
  const Units& u = m_document.view().units();
  const auto shares = [&](const std::vector<HeatSource>& sources) {
    const double all = std::max(allOf(sources), 1e-9);
    QStringList parts;
    for (const HeatSource& s : sources)
      if (s.sum_kWh() >= kLeastShown * all) parts << tr("%1 %2").arg(nameOf(s), u.text(Quantity::share, s.sum_kWh() / all));
    return parts.join(QStringLiteral("; ")); // names may have commas
  };
  QString words = tr("From noon to noon about the chosen night %1 came in: %2. Over its winter %3: %4.")
                      .arg(u.text(Quantity::energy, allOf(m_night)), shares(m_night), u.text(Quantity::energy, allOf(m_winter)), shares(m_winter));
  if (!m_work_h.empty()) {
    const auto most = std::max_element(m_work_h.begin(), m_work_h.end());
    words += QLatin1Char(' ') + tr("Work takes up to %1 a week.").arg(u.text(Quantity::hours, std::round(10.0 * *most) / 10.0));
    if (const auto there = m_document.plan().ask.hoursPerWeek) {
      const auto over = std::count_if(m_work_h.begin(), m_work_h.end(), [&](double h) { return h > *there; });
      words += QLatin1Char(' ') + (over > 0 ? tr("On %Ln week(s) of this winter it is more than you have.", nullptr, static_cast<int>(over))
                                            : tr("You have as much on every week of this winter."));
    }
  }
  return words;
}

void SourcesPage::drawNight() {
  const NightResult& n = *night();
  const Simulation& run = *m_document.results().simulation();
  const Winter& w = m_document.readings().weather()->winters[n.winter];
  const auto half = static_cast<std::size_t>(0.5 * kDay_s / w.step_s), middle = (n.from + n.to) / 2; // noon to noon by the sun
  const std::size_t from = middle - std::min(middle, half);
  m_night = heatBySource(m_document.plan(), run.series[n.winter], run.ledgers[n.winter], w.step_s, from, middle + half, 1);
  draw(*m_hours, m_night, static_cast<double>(w.time(from)) + m_document.planInHand().zone().offset_s(w.time(from)), kHour_s);
  m_hours->yAxis->setLabel(tr("kWh an hour"));
  m_hours->replot(QCustomPlot::rpQueuedReplot);
  m_words->setText(told());
}

void SourcesPage::followNight() {
  const NightResult* n = night();
  if (n && n->winter == m_drawnWinter && !m_winter.empty())
    drawNight();
  else
    refresh();
}

void SourcesPage::refresh() {
  const NightResult* n = night();
  for (Plot* plot : {m_hours, m_weeks}) plot->setVisible(n);
  m_work->setVisible(false);
  m_have->setVisible(false);
  m_night.clear(), m_winter.clear(), m_work_h.clear();
  if (!n) {
    m_words->setText(m_document.results().simulation() ? tr("Working it out.") : tr("Import a log to see where the heat comes from."));
    return;
  }
  const Simulation& run = *m_document.results().simulation();
  const Winter& w = m_document.readings().weather()->winters[n->winter];
  const WinterSeries& series = run.series[n->winter];
  const Ledger& ledger = run.ledgers[n->winter];
  m_drawnWinter = n->winter;
  m_winter = heatBySource(m_document.plan(), series, ledger, w.step_s, 0, series.sun_W.size() - 1, kWeek_h);
  m_work_h = workByPiece_h(ledger, kWeek_h);
  if (std::all_of(m_work_h.begin(), m_work_h.end(), [](double h) { return h < 0.05; })) m_work_h.clear();
  const double offset = m_document.planInHand().zone().offset_s(w.start);
  draw(*m_weeks, m_winter, static_cast<double>(w.start) + offset, kWeek_h * kHour_s);
  m_weeks->yAxis->setLabel(tr("kWh a week"));
  m_work->setVisible(!m_work_h.empty());
  m_have->setVisible(!m_work_h.empty());
  if (!m_work_h.empty()) drawWork(static_cast<double>(w.start) + offset);
  drawNight();
  for (Plot* plot : {m_weeks, m_work}) plot->replot(QCustomPlot::rpQueuedReplot);
}

} // namespace muffle
