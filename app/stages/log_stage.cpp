// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/log_stage.h"

#include "app/stages/plot.h"
#include "core/log/read.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>

#include <algorithm>
#include <cmath>

namespace muffle {

LogStage::LogStage(Document& document, QWidget* parent)
    : StagePage(document, parent), m_pages(new PageStrip(document, this)), m_measured(new MeasuredPage(document, this)), m_traces(new Plot(document, this)),
      m_lift(new Plot(document, this)), m_faults(new QLabel(this)), m_import(new QPushButton(tr("Import a log…"), this)) {
  m_traces->setObjectName(QStringLiteral("readings"));
  m_traces->setAccessibleName(tr("Readings"));
  m_lift->setAccessibleName(tr("Lift of each night"));
  m_faults->setFont(textFont(9));
  m_faults->setWordWrap(true);
  auto* readings = new QWidget(this);
  auto* body = new QVBoxLayout(readings);
  body->setContentsMargins(0, 0, 0, 0);
  body->setSpacing(4);
  body->addWidget(m_traces, 5);
  body->addWidget(m_faults);
  auto* title = new QLabel(tr("Lift: how far the coldest inside stayed above the coldest outside"), readings);
  title->setFont(titleFont(10.5));
  body->addWidget(title);
  body->addWidget(m_lift, 4);
  auto* row = new QHBoxLayout;
  row->addWidget(m_import);
  row->addStretch();
  body->addLayout(row);
  m_body->addWidget(m_pages, 1);
  m_pages->add(tr("Nights"), readings);
  m_pages->add(tr("The house, measured"), m_measured);
  connect(m_pages, &PageStrip::turned, this, &LogStage::refresh);
  m_traces->plotLayout()->insertRow(0); // the legend above the traces, not on them
  m_traces->plotLayout()->addElement(0, 0, m_traces->legend);
  m_traces->plotLayout()->setRowStretchFactor(0, 0.001);
  m_lift->axisRect()->setRangeZoom({});
  m_lift->axisRect()->setRangeDrag({});
  QSharedPointer<QCPAxisTickerDateTime> ticker(new QCPAxisTickerDateTime);
  ticker->setDateTimeFormat(QStringLiteral("d MMM\nhh:mm"));
  ticker->setDateTimeSpec(Qt::UTC); // keys are shifted to the site's clock
  m_traces->xAxis->setTicker(ticker);
  connect(m_import, &QPushButton::clicked, this, &LogStage::importAsked);
  for (auto signal : {&Document::logChanged, &Document::viewChanged}) connect(&document, signal, this, [this] { m_redraw = true; });
  refreshOn({&Document::logChanged, &Document::planChanged, &Document::viewChanged, &Document::selectionChanged});
  connect(m_traces->xAxis, qOverload<const QCPRange&>(&QCPAxis::rangeChanged), this, &LogStage::fillTraces);
}

void LogStage::refresh() {
  if (m_pages->shown() == static_cast<int>(Page::measured)) return m_measured->refresh();
  if (m_redraw)
    rebuild();
  else
    showNight();
}

void LogStage::rebuild() {
  m_redraw = false;
  const Theme& t = theme();
  const Units& u = m_document.units();
  for (Plot* plot : {m_traces, m_lift}) {
    plot->clearPlottables();
    plot->clearItems();
    plot->retheme();
  }
  const Log* log = m_document.log();
  m_drawn.clear();
  if (!log) {
    setHeading(tr("The log"), tr("no readings yet"));
    m_faults->setText(tr("Drop a logger's CSV on the window, or import one: time, outside and inside temperature are enough. The reading is previewed before "
                         "anything is kept."));
    m_traces->hide();
    m_lift->hide();
    return;
  }
  m_traces->show();
  m_lift->show();
  const TimeZone zone = m_document.zone();
  setHeading(tr("The log"),
             tr("%1 readings, every %2 min").arg(QLocale().toString(static_cast<qlonglong>(log->time.size()))).arg(std::lround(log->step_s() / 60.0)));
  const double offset = zone.offset_s(log->time[log->time.size() / 2]);
  // nights as bands behind the traces
  for (const Night& n : m_document.logNights()) {
    auto* band = new QCPItemRect(m_traces);
    band->topLeft->setTypeY(QCPItemPosition::ptAxisRectRatio);
    band->bottomRight->setTypeY(QCPItemPosition::ptAxisRectRatio);
    band->topLeft->setCoords(static_cast<double>(n.sunset) + offset, 0);
    band->bottomRight->setCoords(static_cast<double>(n.sunrise) + offset, 1);
    band->setPen(Qt::NoPen);
    QColor shade = t.woad;
    shade.setAlpha(t.dark ? 40 : 24);
    band->setBrush(shade);
    band->setLayer(QStringLiteral("background"));
  }
  const auto trace = [&](Role role, const QColor& colour, const QString& name, Qt::PenStyle style) {
    const Channel* c = log->find(role);
    if (!c) return;
    QCPGraph* g = m_traces->line(colour, 1.7);
    QPen pen = g->pen();
    pen.setStyle(style);
    g->setPen(pen);
    g->setName(name);
    QCPGraph* f = m_traces->addGraph();
    f->removeFromLegend();
    f->setLineStyle(QCPGraph::lsNone);
    f->setScatterStyle(QCPScatterStyle(QCPScatterStyle::ssCross, t.weld, 5));
    m_drawn.push_back({static_cast<std::size_t>(c - log->channels.data()), g, f});
  };
  trace(Role::outside, t.woad, tr("outside"), Qt::SolidLine);
  trace(Role::room, t.madder, tr("house"), Qt::SolidLine);
  trace(Role::store, t.lichen, tr("barrels"), Qt::DashLine);
  trace(Role::soil, t.fleece, tr("soil"), Qt::DotLine);
  m_traces->legend->setVisible(true);
  m_traces->legend->setBrush(QColor(t.wool.red(), t.wool.green(), t.wool.blue(), 220));
  m_traces->legend->setBorderPen(Qt::NoPen);
  m_traces->legend->setFont(textFont(8.5));
  m_traces->legend->setTextColor(t.ink);
  m_traces->legend->setFillOrder(QCPLegend::foColumnsFirst);
  m_traces->legend->setRowSpacing(-2);
  m_traces->yAxis->setLabel(u.unit(Quantity::temperature));
  m_traces->showAll = [this] {
    const auto& time = m_document.log()->time;
    const double shift = m_document.zone().offset_s(time[time.size() / 2]);
    m_traces->xAxis->setRange(static_cast<double>(time.front()) + shift, static_cast<double>(time.back()) + shift);
    m_traces->yAxis->rescale();
  };
  m_traces->numbers = [this] { return QString::fromStdString(writeLogCsvText()); };

  // the lift plot: one mark a night, filled when clear, open when cloudy
  QVector<double> cx, cy, ox, oy;
  for (const Night& n : m_document.logNights()) {
    if (!n.complete || !n.lift_K()) continue;
    const double low = u.show(Quantity::temperature, n.outsideLow->value), lift = u.show(Quantity::difference, *n.lift_K());
    if (QLatin1String(n.sky()) == QLatin1String("clear"))
      cx.push_back(low), cy.push_back(lift);
    else
      ox.push_back(low), oy.push_back(lift);
  }
  const auto scatter = [&](const QVector<double>& x, const QVector<double>& y, const QCPScatterStyle& style, const QString& name) {
    QCPGraph* g = m_lift->addGraph();
    g->setLineStyle(QCPGraph::lsNone);
    g->setScatterStyle(style);
    g->setName(name);
    g->setData(x, y);
  };
  scatter(cx, cy, QCPScatterStyle(QCPScatterStyle::ssDisc, QPen(t.madder), QBrush(t.madder), 5.5), tr("clear nights"));
  scatter(ox, oy, QCPScatterStyle(QCPScatterStyle::ssTriangle, QPen(t.woad, 1.3), Qt::NoBrush, 6.5), tr("part and cloudy"));
  m_lift->legend->setVisible(true);
  m_lift->legend->setBrush(QColor(t.wool.red(), t.wool.green(), t.wool.blue(), 220));
  m_lift->legend->setBorderPen(Qt::NoPen);
  m_lift->legend->setFont(textFont(8.5));
  m_lift->legend->setTextColor(t.ink);
  m_lift->xAxis->setLabel(tr("outside low, %1").arg(u.unit(Quantity::temperature)));
  m_lift->yAxis->setLabel(tr("lift, %1").arg(u.unit(Quantity::difference)));
  m_lift->rescaleAxes();
  m_lift->xAxis->scaleRange(1.08);
  m_lift->yAxis->scaleRange(1.15);
  m_lift->reading = [this](double x, double y) -> QString {
    const Units& shown = m_document.units();
    const Night* best = nullptr;
    double nearest = 1e9;
    for (const Night& n : m_document.logNights()) {
      if (!n.complete || !n.lift_K()) continue;
      const double dx = m_lift->xAxis->coordToPixel(shown.show(Quantity::temperature, n.outsideLow->value)) - m_lift->xAxis->coordToPixel(x);
      const double dy = m_lift->yAxis->coordToPixel(shown.show(Quantity::difference, *n.lift_K())) - m_lift->yAxis->coordToPixel(y);
      if (std::hypot(dx, dy) < nearest) nearest = std::hypot(dx, dy), best = &n;
    }
    if (!best || nearest > 12) return {};
    return tr("%1, %2\noutside %3, inside %4, lift %5")
        .arg(QString::fromStdString(isoDate(best->date)), QString::fromLatin1(best->sky()), shown.text(Quantity::temperature, best->outsideLow->value),
             shown.text(Quantity::temperature, best->insideLow->value), shown.text(Quantity::difference, *best->lift_K()));
  };
  m_lift->replot();

  QStringList faults;
  for (const LogProblem& f : m_document.logProblems()) {
    if (f.kind == "gap" && f.to - f.from > 30 * 86400) continue;
    const QString when = QString::fromStdString(zone.iso(f.from).substr(0, 10));
    if (f.kind == "gap")
      faults << tr("%1: %2").arg(when, QString::fromStdString(f.why));
    else
      faults << tr("%1, %2: %3").arg(when, QString::fromStdString(f.channel), QString::fromStdString(f.kind == "unit" ? "written in °F, converted" : f.kind));
  }
  m_faults->setText(faults.isEmpty() ? tr("no faults found")
                                     : tr("Set aside, raw readings kept:  %1").arg(faults.mid(0, 8).join(QStringLiteral("  ·  "))) +
                                           (faults.size() > 8 ? tr("  and %1 more").arg(faults.size() - 8) : QString()));
  showNight();
}

/// Puts the readings in sight on the traces; of a crowd of them the lowest and the highest of each pixel's share.
void LogStage::fillTraces() {
  const Log* log = m_document.log();
  if (!log || m_filling) return;
  constexpr std::size_t kDrawnWhole = 20000;
  constexpr std::size_t kShares = 4000;
  constexpr UtcSeconds kHole_s = 7200;
  const Units& u = m_document.units();
  const double offset = m_document.zone().offset_s(log->time[log->time.size() / 2]);
  const QCPRange range = m_traces->xAxis->range();
  const auto& time = log->time;
  auto from = static_cast<std::size_t>(std::lower_bound(time.begin(), time.end(), static_cast<UtcSeconds>(range.lower - offset)) - time.begin());
  auto to = static_cast<std::size_t>(std::upper_bound(time.begin(), time.end(), static_cast<UtcSeconds>(range.upper - offset)) - time.begin());
  from = from > 0 ? from - 1 : 0; // so that lines run to the edge
  to = std::min(to + 1, time.size());
  const std::size_t share = to - from <= kDrawnWhole ? 1 : (to - from) / kShares;
  m_filling = true;
  for (const Trace& trace : m_drawn) {
    const Channel& c = log->channels[trace.channel];
    QVector<double> x, y, fx, fy;
    const auto put = [&](std::size_t i) {
      x.push_back(static_cast<double>(time[i]) + offset);
      y.push_back(u.show(Quantity::temperature, c.clean(i)));
    };
    for (std::size_t i = from; i < to; i += share) {
      if (i > from && time[i] - time[i - 1] > kHole_s) {
        x.push_back(static_cast<double>(time[i]) + offset - 1);
        y.push_back(std::nan(""));
      }
      std::size_t low = i, high = i;
      for (std::size_t k = i; k < std::min(i + share, to); ++k) {
        if (!(c.clean(low) <= c.clean(k))) low = k;
        if (!(c.clean(high) >= c.clean(k))) high = k;
        if (!c.flag[k] || fx.size() > static_cast<int>(kDrawnWhole)) continue;
        fx.push_back(static_cast<double>(time[k]) + offset);
        fy.push_back(u.show(Quantity::temperature, c.flag[k] == static_cast<std::uint8_t>(Flag::fahrenheit) ? c.clean(k) : static_cast<double>(c.raw[k])));
      }
      put(std::min(low, high));
      if (low != high) put(std::max(low, high));
    }
    trace.line->setData(x, y, true);
    trace.faults->setData(fx, fy, true);
  }
  m_filling = false;
}

std::string LogStage::writeLogCsvText() const { return m_document.log() ? writeLogCsv(*m_document.log(), m_document.zone()) : std::string(); }

void LogStage::showNight() {
  const Log* log = m_document.log();
  if (!log) return;
  const double offset = m_document.zone().offset_s(log->time[log->time.size() / 2]);
  double centre = static_cast<double>(log->time.front()) + 4 * 86400.0;
  if (m_document.result() && m_document.selectedNight() >= 0 && m_document.weather()) {
    const NightResult& n = m_document.result()->nights[static_cast<std::size_t>(m_document.selectedNight())];
    centre = static_cast<double>(m_document.weather()->winters[n.winter].time((n.from + n.to) / 2));
  }
  m_traces->xAxis->setRange(centre + offset - 3.2 * 86400.0, centre + offset + 3.2 * 86400.0);
  fillTraces(); // the range may have stayed
  bool found = false;
  QCPRange all;
  for (int i = 0; i < m_traces->graphCount(); ++i) {
    bool has = false;
    const QCPRange r = m_traces->graph(i)->getValueRange(has, QCP::sdBoth, m_traces->xAxis->range());
    if (!has) continue;
    all = found ? QCPRange(std::min(all.lower, r.lower), std::max(all.upper, r.upper)) : r;
    found = true;
  }
  if (found) m_traces->yAxis->setRange(all.lower - 0.06 * all.size(), all.upper + 0.08 * all.size());
  m_traces->replot();
}

} // namespace muffle
