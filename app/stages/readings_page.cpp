// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/readings_page.h"

#include "app/paint/theme.h"
#include "app/stages/plot.h"
#include "core/log/read.h"

#include <QHBoxLayout>
#include <QMenu>
#include <QPushButton>
#include <QSplitter>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace muffle {

ReadingsPage::ReadingsPage(Document& document, QWidget* parent)
    : QWidget(parent), m_document(document), m_traces(new Plot(document, this)), m_faults(new FaultsList(document, this)),
      m_setAside(new QPushButton(tr("Set aside what is in sight…"), this)), m_setAsideMenu(new QMenu(this)) {
  m_traces->setObjectName(QStringLiteral("readings"));
  m_traces->setAccessibleName(tr("Readings"));
  auto* body = new QVBoxLayout(this);
  body->setContentsMargins(0, 0, 0, 0);
  body->setSpacing(4);
  auto* halves = new QSplitter(Qt::Vertical, this);
  halves->addWidget(m_traces);
  halves->addWidget(m_faults);
  halves->setChildrenCollapsible(false);
  halves->setStretchFactor(0, 1);
  halves->setSizes({230, 170});
  body->addWidget(halves, 1);
  auto* row = new QHBoxLayout;
  const auto button = [&](const QString& text, const QString& tip, auto signal) {
    auto* b = new QPushButton(text, this);
    b->setToolTip(tip);
    connect(b, &QPushButton::clicked, this, signal);
    row->addWidget(b);
  };
  button(tr("Import a log…"), tr("a logger's file, of any habit; it is previewed before anything is kept"), &ReadingsPage::importAsked);
  button(tr("By hand…"), tr("readings written down beside the thermometer, or a max/min thermometer's"), &ReadingsPage::byHandAsked);
  button(tr("Follow a file…"), tr("a file that a logger keeps writing: what is new comes in by itself"), &ReadingsPage::followAsked);
  m_setAside->setMenu(m_setAsideMenu);
  m_setAside->setToolTip(tr("the stretch the traces show, of one sensor or of all; zoom to it first"));
  row->addStretch();
  body->addLayout(row);
  m_faults->addButton(m_setAside);
  m_traces->datesBelow(QStringLiteral("d MMM\nhh:mm"));
  for (auto signal : {&Document::logChanged, &Document::viewChanged}) connect(&document, signal, this, [this] { m_redraw = true; });
  connect(m_traces->xAxis, qOverload<const QCPRange&>(&QCPAxis::rangeChanged), this, &ReadingsPage::fillTraces);
  connect(m_setAsideMenu, &QMenu::aboutToShow, this, &ReadingsPage::fillSetAside);
  connect(m_faults, &FaultsList::pointed, this, [this](UtcSeconds from, UtcSeconds to) {
    const Log* log = m_document.readings().log();
    if (!log || log->time.empty()) return;
    const double offset = m_document.planInHand().zone().offset_s(log->time[log->time.size() / 2]);
    showAround(static_cast<double>(from + to) / 2.0 + offset, std::max(1.2, static_cast<double>(to - from) / 86400.0));
  });
}

void ReadingsPage::refresh() {
  if (m_redraw)
    rebuild();
  else
    showNight();
}

void ReadingsPage::fillSetAside() {
  m_setAsideMenu->clear();
  const Log* log = m_document.readings().log();
  if (!log) return;
  const double offset = m_document.planInHand().zone().offset_s(log->time[log->time.size() / 2]);
  const auto from = static_cast<UtcSeconds>(m_traces->xAxis->range().lower - offset), to = static_cast<UtcSeconds>(m_traces->xAxis->range().upper - offset);
  const auto add = [&](const QString& text, int channel) {
    m_setAsideMenu->addAction(text, this, [this, channel, from, to] {
      m_document.readings().decide(tr("set readings aside"), {{Verdict::setAside, Flag::byHand, channel, from, to}});
    });
  };
  for (std::size_t c = 0; c < log->channels.size(); ++c) add(QString::fromStdString(log->channels[c].name), static_cast<int>(c));
  m_setAsideMenu->addSeparator();
  add(tr("all sensors"), -1);
}

void ReadingsPage::rebuild() {
  m_redraw = false;
  const Theme& t = Theme::of(m_document.view().isDark());
  const Units& u = m_document.view().units();
  m_traces->clearPlottables();
  m_traces->clearItems();
  m_traces->retheme();
  const Log* log = m_document.readings().log();
  m_drawn.clear();
  m_traces->setVisible(log);
  m_faults->setVisible(log);
  m_setAside->setVisible(log);
  if (!log) return;
  const TimeZone zone = m_document.planInHand().zone();
  const double offset = zone.offset_s(log->time[log->time.size() / 2]);
  // nights as bands behind the traces
  for (const Night& n : m_document.readings().nights()) {
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
  const auto trace = [&](const Channel* c, const QColor& colour, const QString& name, Qt::PenStyle style) {
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
    if (c->statistic != Statistic::moment) { // one reading a day: its marks, not a line between them
      g->setScatterStyle(QCPScatterStyle(c->statistic == Statistic::lowest ? QCPScatterStyle::ssTriangleInverted : QCPScatterStyle::ssTriangle, colour, 6));
      g->setLineStyle(QCPGraph::lsNone);
    }
    m_drawn.push_back({static_cast<std::size_t>(c - log->channels.data()), g, f});
  };
  trace(log->find(Role::outside), t.woad, tr("outside"), Qt::SolidLine);
  trace(log->find(Role::room), t.madder, tr("house"), Qt::SolidLine);
  for (const auto& [statistic, word] : {std::pair{Statistic::lowest, tr("low")}, std::pair{Statistic::highest, tr("high")}}) {
    trace(log->find(Role::outside, {}, statistic), t.woad, tr("outside, %1").arg(word), Qt::SolidLine);
    trace(log->find(Role::room, {}, statistic), t.madder, tr("house, %1").arg(word), Qt::SolidLine);
  }
  trace(log->find(Role::store), t.lichen, tr("barrels"), Qt::DashLine);
  trace(log->find(Role::soil), t.fleece, tr("soil"), Qt::DotLine);
  m_traces->legendAbove();
  m_traces->yAxis->setLabel(u.unit(Quantity::temperature));
  m_traces->showAll = [this] {
    const auto& time = m_document.readings().log()->time;
    const double shift = m_document.planInHand().zone().offset_s(time[time.size() / 2]);
    m_traces->xAxis->setRange(static_cast<double>(time.front()) + shift, static_cast<double>(time.back()) + shift);
    m_traces->yAxis->rescale();
  };
  m_traces->numbersAreLong = true;
  m_traces->numbers = [this] {
    return m_document.readings().log() ? QString::fromStdString(writeLogCsv(*m_document.readings().log(), m_document.planInHand().zone())) : QString();
  };

  m_faults->refresh();
  showNight();
}

/// Puts the readings in sight on the traces; of a crowd of them the lowest and the highest of each pixel's share.
void ReadingsPage::fillTraces() {
  const Log* log = m_document.readings().log();
  if (!log || m_filling) return;
  constexpr std::size_t kShares = 2000; // more than there are pixels: each share draws its lowest and its highest
  constexpr std::size_t kDrawnWhole = 2 * kShares;
  constexpr UtcSeconds kHole_s = 7200;
  const Units& u = m_document.view().units();
  const double offset = m_document.planInHand().zone().offset_s(log->time[log->time.size() / 2]);
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
    std::size_t nextMark = from;
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
        if (!c.flag[k] || k < nextMark) continue;
        nextMark = k + 1 + (to - from) / kShares; // marks closer than a pixel are one
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

void ReadingsPage::showNight() {
  const Log* log = m_document.readings().log();
  if (!log) return;
  const double offset = m_document.planInHand().zone().offset_s(log->time[log->time.size() / 2]);
  double centre = static_cast<double>(log->time.front()) + 4 * 86400.0;
  if (m_document.results().simulation() && m_document.view().selectedNight() >= 0 && m_document.readings().weather()) {
    const NightResult& n = m_document.results().simulation()->nights[static_cast<std::size_t>(m_document.view().selectedNight())];
    centre = static_cast<double>(m_document.readings().weather()->winters[n.winter].time((n.from + n.to) / 2));
  }
  showAround(centre + offset, 3.2);
}

/// On the site's clock, so many days either side.
void ReadingsPage::showAround(double centre_s, double days) {
  m_filling = true; // once, below: the range may have stayed
  m_traces->xAxis->setRange(centre_s - days * 86400.0, centre_s + days * 86400.0);
  m_filling = false;
  fillTraces();
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
