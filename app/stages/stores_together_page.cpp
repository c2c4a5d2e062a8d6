// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/stores_together_page.h"

#include "app/paint/theme.h"
#include "app/stages/plot.h"
#include "app/stages/store_words.h"
#include "core/cost/cost.h"
#include "core/simulate/store_nights.h"

#include <QLabel>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>
#include <numeric>

namespace muffle {
namespace {

constexpr double kLeastShown_kWh = 0.05;

/// A store's mark; the second five are the first five's, paler.
struct Mark {
  QColor colour;
  Qt::PenStyle line;
};
Mark markOf(std::size_t store, const Theme& t) {
  const QColor colours[] = {t.lichen, t.weld, t.woad, t.fleece, t.madder};
  constexpr Qt::PenStyle lines[] = {Qt::SolidLine, Qt::DashLine, Qt::DotLine, Qt::DashDotLine};
  constexpr std::size_t kColours = std::size(colours);
  QColor colour = colours[store % kColours];
  if (store >= kColours) {
    const auto half = [](int a, int b) { return (a + b) / 2; };
    colour = QColor(half(colour.red(), t.wool.red()), half(colour.green(), t.wool.green()), half(colour.blue(), t.wool.blue()));
  }
  return {colour, lines[(store + store / kColours) % std::size(lines)]};
}

} // namespace

StoresTogetherPage::StoresTogetherPage(Document& document, QWidget* parent)
    : QWidget(parent), m_document(document), m_words(new QLabel(this)), m_days(new Plot(document, this)), m_filling(new Plot(document, this)) {
  auto* body = new QVBoxLayout(this);
  body->setContentsMargins(0, 0, 0, 0);
  body->setSpacing(5);
  m_words->setWordWrap(true);
  m_words->setFont(textFont(9.5));
  body->addWidget(m_words);
  body->addWidget(m_days, 3);
  body->addWidget(m_filling, 2);
  m_days->setAccessibleName(tr("What each store gave and took, by the day"));
  m_filling->setAccessibleName(tr("How full each store was"));
  for (Plot* plot : {m_days, m_filling}) {
    plot->datesBelow(QStringLiteral("d MMM"));
    plot->reading = [this](double x, double) { return read(x); };
    plot->numbers = [this] { return table(); };
    plot->showAll = [this] { draw(); };
    plot->setMinimumHeight(110);
    plot->alignLeft();
    connect(plot, &QCustomPlot::mouseRelease, this, [this, plot](QMouseEvent* e) {
      // a drag moves the axis; only a click takes a night
      if (e->button() != Qt::LeftButton || !plot->axisRect()->rect().contains(e->pos())) return;
      if ((e->pos() - m_pressed).manhattanLength() > 3) return;
      if (const NightResult* n = nearest(plot->xAxis->pixelToCoord(e->position().x())))
        m_document.view().selectNight(static_cast<int>(n - m_document.results().simulation()->nights.data()));
    });
    connect(plot, &QCustomPlot::mousePress, this, [this](QMouseEvent* e) { m_pressed = e->pos(); });
  }
  const auto follow = [](Plot* from, Plot* to) {
    connect(from->xAxis, qOverload<const QCPRange&>(&QCPAxis::rangeChanged), to, [to](const QCPRange& range) {
      if (to->xAxis->range() == range) return;
      to->xAxis->setRange(range);
      to->replot(QCustomPlot::rpQueuedReplot);
    });
  };
  follow(m_days, m_filling);
  follow(m_filling, m_days);
}

QString StoresTogetherPage::words() const { return m_words->text(); }

/// The chosen one, if its winter is worked out.
const NightResult* StoresTogetherPage::night() const {
  const Simulation* run = m_document.results().simulation();
  if (!run || m_document.view().selectedNight() < 0) return nullptr;
  const NightResult& n = run->nights[static_cast<std::size_t>(m_document.view().selectedNight())];
  const bool known = n.winter < run->series.size() && run->series[n.winter].stores.size() == storesOf(m_document.plan()).size();
  return known ? &n : nullptr;
}

/// The middle of a night, on the axis.
double StoresTogetherPage::at(const NightResult& n) const {
  const Winter& w = m_document.readings().weather()->winters[n.winter];
  return static_cast<double>(w.time((n.from + n.to) / 2)) + m_document.planInHand().zone().offset_s(w.time(n.from));
}

const NightResult* StoresTogetherPage::nearest(double x) const {
  if (!night()) return nullptr;
  const NightResult* best = nullptr;
  for (const NightResult& n : m_document.results().simulation()->nights)
    if (n.winter == m_winter && std::abs(at(n) - x) <= kDay_s / 2.0 && (!best || std::abs(at(n) - x) < std::abs(at(*best) - x))) best = &n;
  return best;
}

QString StoresTogetherPage::told() const {
  const auto stores = storesOf(m_document.plan());
  const Simulation* run = m_document.results().simulation();
  if (stores.empty()) return tr("No store stands in this plan yet. Add one on the page Your stores.");
  if (!run || m_document.view().selectedNight() < 0) return tr("Import a log to see what they give.");
  if (!night()) return tr("Working it out.");
  const auto nights = coldestNights(*run, stores.size());
  QStringList parts;
  if (!nights.empty()) {
    double heaters_kWh = 0.0, all_kWh = 0.0;
    std::vector<double> gave_kWh(stores.size(), 0.0);
    for (const NightResult* n : nights) {
      const double step_s = m_document.readings().weather()->winters[n->winter].step_s;
      const WinterSeries& series = run->series[n->winter];
      heaters_kWh += energyOver_kWh(series.heater_W, n->from, n->to, step_s) / static_cast<double>(nights.size());
      for (std::size_t k = 0; k < stores.size(); ++k)
        gave_kWh[k] += energyOver_kWh(series.stores[k].given_W, n->from, n->to, step_s) / static_cast<double>(nights.size());
    }
    std::vector<std::size_t> order(stores.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return gave_kWh[a] > gave_kWh[b]; });
    QStringList each;
    for (const std::size_t k : order) {
      if (stores[k].kind == StoreKind::cable) continue; // which takes
      const bool tank = warmsTank(m_document.plan(), stores[k]);
      if (!tank) all_kWh += gave_kWh[k];
      each << (tank ? tr("%1 %2 to the tank") : QStringLiteral("%1 %2")).arg(StoreWords::brief(m_document.plan(), stores[k]), StoreWords::kWh(gave_kWh[k]));
    }
    const QString among = each.size() > 1 ? QStringLiteral(" (%1)").arg(each.join(QStringLiteral(", "))) : QString();
    parts << tr("On the ten coldest nights they gave the house %1 kWh a night%2, the heaters %3.")
                 .arg(StoreWords::kWh(all_kWh), among, StoreWords::kWh(heaters_kWh));
  }
  const Plan& plan = m_document.plan();
  double all = 0.0;
  for (std::size_t s = 0; s < run->summary.stores.size(); ++s) all += moneyOfStore(run->summary.ledger, plan, s);
  if (const double money = all / std::max(run->summary.winters, 1e-9); money > 0.0) {
    parts << tr("Their fans, pumps and cables cost %1 %2 a winter.")
                 .arg(m_document.view().units().number(Quantity::money, money), QString::fromStdString(m_document.plan().prices.currency));
  }
  return parts.join(QLatin1Char(' '));
}

/// What stood and gave on the day under the pointer.
QString StoresTogetherPage::read(double x) const {
  const NightResult* n = nearest(x);
  if (!n) return {};
  const double step_s = m_document.readings().weather()->winters[n->winter].step_s;
  const auto stores = storesOf(m_document.plan());
  QStringList lines{QString::fromStdString(isoDate(n->date))};
  for (std::size_t k = 0; k < stores.size(); ++k) {
    if (stores[k].kind == StoreKind::cable) continue;
    const StoreSeries& s = m_document.results().simulation()->series[n->winter].stores[k];
    const StoreDay day = storeDay(s.given_W, *n, step_s);
    QString line =
        tr("%1: gave %2 kWh, took %3").arg(StoreWords::brief(m_document.plan(), stores[k]), StoreWords::kWh(day.given_kWh), StoreWords::kWh(day.taken_kWh));
    if (!s.charge_kWh.empty())
      line += tr("; held %1 at dusk, %2 at dawn")
                  .arg(StoreWords::kWh(static_cast<double>(s.charge_kWh[n->from])), StoreWords::kWh(static_cast<double>(s.charge_kWh[n->to])));
    lines << line;
  }
  return lines.join(QLatin1Char('\n'));
}

QString StoresTogetherPage::table() const {
  const auto stores = storesOf(m_document.plan());
  QString csv = QStringLiteral("night");
  for (const StoreRef& s : stores)
    for (const char* column : {"gave_kWh", "took_kWh", "at_dusk_kWh", "at_dawn_kWh"}) csv += QStringLiteral(",%1 %2").arg(QString::fromStdString(s.id), column);
  csv += QLatin1Char('\n');
  if (!night()) return csv;
  const double step_s = m_document.readings().weather()->winters[m_winter].step_s;
  for (const NightResult& n : m_document.results().simulation()->nights) {
    if (n.winter != m_winter) continue;
    csv += QString::fromStdString(isoDate(n.date));
    for (const StoreSeries& s : m_document.results().simulation()->series[m_winter].stores) {
      const StoreDay day = storeDay(s.given_W, n, step_s);
      csv += QStringLiteral(",%1,%2").arg(day.given_kWh, 0, 'f', 3).arg(day.taken_kWh, 0, 'f', 3);
      csv += s.charge_kWh.empty()
                 ? QStringLiteral(",,")
                 : QStringLiteral(",%1,%2").arg(static_cast<double>(s.charge_kWh[n.from]), 0, 'f', 3).arg(static_cast<double>(s.charge_kWh[n.to]), 0, 'f', 3);
    }
    csv += QLatin1Char('\n');
  }
  return csv;
}

/// Bars on each other: up what was given, down what was taken.
void StoresTogetherPage::drawDays(const WinterSeries& series) {
  const auto stores = storesOf(m_document.plan());
  const double step_s = m_document.readings().weather()->winters[m_winter].step_s;
  const Theme& t = Theme::of(m_document.view().isDark());
  QVector<double> x;
  std::vector<const NightResult*> nights;
  for (const NightResult& n : m_document.results().simulation()->nights)
    if (n.winter == m_winter) nights.push_back(&n), x.push_back(at(n));
  std::vector<double> up(nights.size(), 0.0), down(nights.size(), 0.0);
  QCPBars *lastUp = nullptr, *lastDown = nullptr;
  for (std::size_t k = 0; k < stores.size(); ++k) {
    QVector<double> given, taken;
    for (std::size_t i = 0; i < nights.size(); ++i) {
      const StoreDay day = storeDay(series.stores[k].given_W, *nights[i], step_s);
      given.push_back(day.given_kWh);
      taken.push_back(-day.taken_kWh);
      up[i] += day.given_kWh;
      down[i] += day.taken_kWh;
    }
    const auto bars = [&](const QVector<double>& y, QCPBars*& last) {
      auto* b = new QCPBars(m_days->xAxis, m_days->yAxis);
      const Mark mark = markOf(k, t);
      b->setWidth(0.86 * kDay_s);
      b->setPen(Qt::NoPen);
      b->setBrush(mark.colour);
      b->setData(x, y, true);
      if (last) b->moveAbove(last);
      last = b;
      return b;
    };
    QCPBars* const gave = bars(given, lastUp);
    gave->setName(StoreWords::brief(m_document.plan(), stores[k]));
    QCPBars* const took = bars(taken, lastDown);
    took->removeFromLegend();
    const auto most = [](const QVector<double>& v) { return v.isEmpty() ? 0.0 : *std::max_element(v.begin(), v.end()); };
    const auto least = [](const QVector<double>& v) { return v.isEmpty() ? 0.0 : *std::min_element(v.begin(), v.end()); };
    if (stores[k].kind == StoreKind::cable || (most(given) < kLeastShown_kWh && least(taken) > -kLeastShown_kWh)) gave->removeFromLegend();
  }
  const auto top = up.empty() ? 0.0 : *std::max_element(up.begin(), up.end());
  const auto bottom = down.empty() ? 0.0 : *std::max_element(down.begin(), down.end());
  m_days->yAxis->setRange(-1.06 * bottom - 0.01, 1.06 * top + 0.01);
  m_days->yAxis->setLabel(tr("kWh a day"));
}

/// At dawn, of the most that it held in the winter.
void StoresTogetherPage::drawFilling(const WinterSeries& series) {
  const auto stores = storesOf(m_document.plan());
  const Theme& t = Theme::of(m_document.view().isDark());
  for (std::size_t k = 0; k < stores.size(); ++k) {
    const auto& charge = series.stores[k].charge_kWh;
    if (charge.empty()) continue;
    const auto fullest = static_cast<double>(*std::max_element(charge.begin(), charge.end()));
    if (fullest <= 0.0) continue; // never above the line
    QVector<double> x, y;
    for (const NightResult& n : m_document.results().simulation()->nights) {
      if (n.winter != m_winter) continue;
      x.push_back(at(n));
      y.push_back(100.0 * static_cast<double>(charge[n.to]) / fullest);
    }
    const Mark mark = markOf(k, t);
    QCPGraph* g = m_filling->line(mark.colour, 1.8);
    g->setPen(QPen(mark.colour, 1.8, mark.line));
    g->setName(StoreWords::brief(m_document.plan(), stores[k]));
    g->setData(x, y, true);
  }
  constexpr double kBelowEmpty = -12.0;
  m_filling->yAxis->setRange(kBelowEmpty, 105.0);
  m_filling->yAxis->setLabel(tr("% full at dawn"));
}

/// The chosen night.
void StoresTogetherPage::mark() {
  const Theme& t = Theme::of(m_document.view().isDark());
  const NightResult* n = night();
  for (Plot* plot : {m_days, m_filling}) {
    plot->clearItems();
    if (plot == m_days) {
      const auto side = [&](const QString& word, double height, Qt::Alignment align) {
        auto* text = new QCPItemText(plot);
        text->position->setType(QCPItemPosition::ptAxisRectRatio);
        text->position->setCoords(0.99, height);
        text->setPositionAlignment(align | Qt::AlignRight);
        text->setText(word);
        text->setFont(textFont(8.5));
        text->setColor(t.fleece);
      };
      side(tr("gave"), 0.02, Qt::AlignTop);
      side(tr("took"), 0.99, Qt::AlignBottom);
    }
    if (n) {
      auto* line = new QCPItemStraightLine(plot);
      line->point1->setCoords(at(*n), 0.0);
      line->point2->setCoords(at(*n), 1.0);
      line->setPen(QPen(t.ink, 1.2, Qt::DashLine));
    }
    plot->replot();
  }
}

void StoresTogetherPage::draw() {
  const NightResult* n = night();
  if (!n) return;
  m_winter = n->winter;
  const Winter& w = m_document.readings().weather()->winters[m_winter];
  const double offset = m_document.planInHand().zone().offset_s(w.start);
  for (Plot* plot : {m_days, m_filling}) {
    plot->clearPlottables();
    plot->retheme();
    plot->legendAbove();
  }
  drawDays(m_document.results().simulation()->series[m_winter]);
  drawFilling(m_document.results().simulation()->series[m_winter]);
  m_days->xAxis->setRange(static_cast<double>(w.start) + offset, static_cast<double>(w.time(w.size() - 1)) + offset);
  m_filling->xAxis->setRange(m_days->xAxis->range());
  mark();
}

void StoresTogetherPage::followNight() {
  const NightResult* n = night();
  if (n && n->winter == m_winter)
    mark();
  else
    refresh();
}

void StoresTogetherPage::refresh() {
  m_words->setText(told());
  const bool known = night() && !storesOf(m_document.plan()).empty();
  m_days->setVisible(known);
  m_filling->setVisible(known);
  if (known) draw();
}

} // namespace muffle
