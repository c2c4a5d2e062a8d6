// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/stores_page.h"

#include "app/paint/theme.h"
#include "app/stages/caution_label.h"
#include "app/stages/plot.h"
#include "app/stages/store_fields.h"
#include "app/stages/store_words.h"
#include "core/assemble/pipe_soil.h"
#include "core/cost/cost.h"
#include "core/ground/soil.h"
#include "core/plan/heaters.h"
#include "core/simulate/store_nights.h"
#include "core/store/cable.h"

#include <QButtonGroup>
#include <QHBoxLayout>
#include <QLabel>
#include <QMenu>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>
#include <numeric>
#include <optional>
#include <vector>

namespace muffle {
namespace {

constexpr double kRoots_m = 0.06; // of seedlings

QString kWh(double value) { return StoreWords::kWh(value) + QStringLiteral("\u00a0kWh"); }

} // namespace

StoresPage::StoresPage(Document& document, StoreChoice& choice, QWidget* parent)
    : QWidget(parent), m_document(document), m_choice(choice), m_group(new QButtonGroup(this)), m_words(new QLabel(this)),
      m_add(new QPushButton(tr("Add a store"), this)), m_remove(new QPushButton(tr("Take it out"), this)), m_more(new QPushButton(tr("more sizes"), this)),
      m_span(new QPushButton(tr("whole winter"), this)), m_plot(new Plot(document, this)), m_fields(new StoreFields(document, this)),
      m_caution(new CautionLabel(this)) {
  auto* body = new QVBoxLayout(this);
  body->setContentsMargins(0, 0, 0, 0);
  body->setSpacing(5);
  m_chips = new QHBoxLayout;
  m_chips->setSpacing(6);
  body->addLayout(m_chips);
  m_words->setWordWrap(true);
  m_words->setFont(textFont(9.5));
  m_words->setTextFormat(Qt::RichText); // units do not part at their slash
  body->addWidget(m_words);
  m_plot->setAccessibleName(tr("Temperatures of the store"));
  m_plot->setMinimumHeight(130);
  body->addWidget(m_plot, 1);
  body->addWidget(m_fields);
  auto* row = new QHBoxLayout;
  row->addWidget(m_add);
  row->addWidget(m_remove);
  m_more->setCheckable(true);
  m_more->setToolTip(tr("What is seldom changed"));
  row->addWidget(m_more);
  row->addStretch();
  m_span->setCheckable(true);
  row->addWidget(m_span);
  body->addLayout(row);
  body->addWidget(m_caution);
  auto* menu = new QMenu(m_add);
  const auto additions = StoreWords::additions();
  for (std::size_t i = 0; i < additions.size(); ++i) {
    QAction* action = menu->addAction(QStringLiteral("%1: %2").arg(additions[i].name, additions[i].says));
    connect(action, &QAction::triggered, this, [this, i] { choose(i); });
  }
  m_add->setMenu(menu);
  auto ticker = QSharedPointer<QCPAxisTickerDateTime>::create();
  ticker->setDateTimeSpec(Qt::UTC);
  m_plot->xAxis->setTicker(ticker);
  connect(m_remove, &QPushButton::clicked, this, &StoresPage::remove);
  connect(m_more, &QPushButton::toggled, m_fields, &StoreFields::showSeldom);
  connect(m_span, &QPushButton::toggled, this, [this] { refresh(); });
  connect(&m_choice, &StoreChoice::chosen, this, [this] { refresh(); });
}

void StoresPage::choose(std::size_t addition) {
  const auto all = StoreWords::additions();
  emit placing({tr("add %1").arg(all[addition].name.toLower()), all[addition].add, all[addition].kind});
}

void StoresPage::add(std::size_t addition) {
  const auto all = StoreWords::additions();
  if (auto why = m_document.edit(tr("add %1").arg(all[addition].name.toLower()), all[addition].add)) {
    emit m_document.trouble(*why);
    return;
  }
  takeUp(all[addition].kind);
}

void StoresPage::takeUp(StoreKind kind) {
  std::string last;
  for (const StoreRef& s : storesOf(m_document.plan()))
    if (s.kind == kind) last = s.id;
  m_choice.choose(last);
}

void StoresPage::remove() {
  const auto store = m_choice.now();
  if (!store) return;
  m_document.edit(tr("take the %1 out").arg(StoreWords::kind(m_document.plan(), *store)), [&](Plan& p) { removeStore(p, store->kind, store->index); });
}

void StoresPage::showWinter(bool on) { m_span->setChecked(on); }

QString StoresPage::words() const { return m_words->text(); }

void StoresPage::rebuildChips() {
  const auto all = storesOf(m_document.plan());
  QStringList names;
  for (const StoreRef& s : all) names << QString::fromStdString(s.id) + StoreWords::kind(m_document.plan(), s);
  const auto chosen = m_choice.place();
  if (names != m_shown) {
    m_shown = names;
    while (QLayoutItem* item = m_chips->takeAt(0)) {
      if (QWidget* w = item->widget()) {
        w->hide();
        w->deleteLater();
      }
      delete item;
    }
    for (const StoreRef& s : all) {
      auto* chip = new QPushButton(this);
      chip->setCheckable(true);
      chip->setText(StoreWords::brief(m_document.plan(), s));
      chip->setToolTip(StoreWords::kind(m_document.plan(), s));
      chip->setFont(textFont(9.5));
      m_group->addButton(chip);
      m_chips->addWidget(chip);
      connect(chip, &QPushButton::clicked, this, [this, id = s.id] { m_choice.choose(id); });
    }
    m_chips->addStretch(1);
  }
  if (!chosen) return;
  if (auto* chip = qobject_cast<QPushButton*>(m_chips->itemAt(static_cast<int>(*chosen))->widget())) chip->setChecked(true);
}

namespace {

/// The mean of the nights that were coldest outside; nothing while some of them are not yet worked out.
std::optional<double> givenOnColdest_kWh(const Weather& weather, const Simulation& run, std::size_t stores, std::size_t place) {
  const auto nights = coldestNights(run, stores);
  if (nights.empty()) return std::nullopt;
  double sum = 0.0;
  for (const NightResult* n : nights) sum += energyOver_kWh(run.series[n->winter].stores[place].given_W, n->from, n->to, weather.winters[n->winter].step_s);
  return sum / static_cast<double>(nights.size());
}

} // namespace

/// The night's and the winters' heat, and what they cost.
QString StoresPage::told() const {
  const auto store = m_choice.now();
  const auto place = m_choice.place();
  const Simulation* run = m_document.results().simulation();
  const Plan& plan = m_document.plan();
  const Units& u = m_document.view().units();
  if (!run || m_document.view().selectedNight() < 0 || *place >= run->summary.stores.size()) return tr("Import a log to see how warm it stays.");
  const NightResult& n = run->nights[static_cast<std::size_t>(m_document.view().selectedNight())];
  if (n.winter >= run->series.size() || *place >= run->series[n.winter].stores.size()) return tr("Working it out.");
  const StoreSeries& series = run->series[n.winter].stores[*place];
  const bool known = n.to < series.charge_kWh.size(); // not of a run whose store at this place was another
  const double given = energyOver_kWh(series.given_W, n.from, n.to, m_document.readings().weather()->winters[n.winter].step_s);
  const StoreSummary& sum = run->summary.stores[*place];
  const double winters = std::max(run->summary.winters, 1e-9);
  if (store->kind == StoreKind::compost && !sum.hasStood()) {
    const MonthDay built = parseMonthDay(plan.compost[store->index].built).value_or(MonthDay{11, 1});
    return tr("It is built on %1: none stands in the logged nights.")
        .arg(QLocale().toString(QDate(2024, static_cast<int>(built.month), static_cast<int>(built.day)), tr("d MMMM")));
  }
  QStringList parts;
  const QString power = u.number(Quantity::money, moneyOfStore(run->summary.ledger, plan, *place) / winters) + QLatin1Char(' ') +
                        QString::fromStdString(plan.prices.currency).toHtmlEscaped();
  if (store->kind == StoreKind::cable) {
    parts << tr("It takes %1 a winter, %2.").arg(kWh(sum.electricity_kWh / winters), power);
    const SoilCable& c = plan.soilCables[store->index];
    const double spacing_m = plan.house.bedCovers[static_cast<std::size_t>(c.bed)].bed_m2() / c.length_m;
    const SoilHeat soil = soilHeat(*findSoilMaterial(plan.house.floor.soil), plan.house.floor.moisture_kg_kg);
    const double uneven_K = cableUnevenness_K(c.watts_per_m, soil.conductivity_W_mK, spacing_m, std::max(c.depth_m - kRoots_m, 0.01));
    parts << tr("Its passes lie %1 apart: while it heats, roots halfway between two are %2 cooler than over one.")
                 .arg(u.text(Quantity::thickness, spacing_m), u.text(Quantity::difference, uneven_K));
  } else {
    const auto coldest = givenOnColdest_kWh(*m_document.readings().weather(), *run, storesOf(plan).size(), *place);
    parts << tr("This night it %1 %2 %3%4, a winter %5.")
                 .arg(given >= 0.0 ? tr("gave") : tr("took from"), warmsTank(plan, *store) ? tr("the tank") : tr("the house"), kWh(std::abs(given)),
                      coldest ? tr(", on the ten coldest %1 each").arg(kWh(*coldest)) : QString(), kWh(sum.given_kWh / winters));
    if (store->kind != StoreKind::compost && known)
      parts << tr("Over %1 it held %2 at dusk, %3 at dawn.")
                   .arg(u.text(Quantity::temperature, plan.setpoints.hold_C), kWh(static_cast<double>(series.charge_kWh[n.from])),
                        kWh(static_cast<double>(series.charge_kWh[n.to])));
  }
  if (store->kind == StoreKind::pipes) {
    const FanDuty duty = pipeDuty(plan.groundPipes[store->index], kStandardPressure_Pa);
    parts << tr("Its fan: %1, %2\u00a0W, %4 a winter, %3 of heat for one of electricity.")
                 .arg(u.text(Quantity::airFlow, duty.flow_m3_s * 3600.0)
                          .replace(QLatin1Char('/'), QStringLiteral("/\u2060"))
                          .replace(QLatin1Char(' '), QChar(QChar::Nbsp)), // no line ends in m³/h
                      QLocale().toString(duty.power_W, 'f', 0),
                      sum.electricity_kWh > 0.0 ? QLocale().toString(sum.given_kWh / sum.electricity_kWh, 'f', 1) : tr("nothing"), power);
  } else if (store->kind == StoreKind::compost) {
    parts << tr("Decay makes %1; what has yet to rot could make %2. The pile reaches %3.")
                 .arg(kWh(sum.made_kWh / winters), known ? kWh(static_cast<double>(series.charge_kWh[n.to])) : tr("more"),
                      u.text(Quantity::temperature, sum.warmest_C));
  } else if (store->kind != StoreKind::cable) {
    const bool holdsWater = store->kind == StoreKind::loop || (store->kind == StoreKind::barrels && plan.barrels[store->index].filling == BarrelFilling::water);
    parts << tr("Coldest in all the nights: %1%2")
                 .arg(u.text(Quantity::temperature, sum.coldest_C),
                      sum.coldest_C < 0.0 && holdsWater ? tr(". Its water froze in part: full vessels burst.") : QStringLiteral("."));
    for (std::size_t h = 0; store->kind == StoreKind::loop && h < plan.heaters.size(); ++h) {
      if (plan.heaters[h].place != HeaterPlace{HeaterPlace::Of::tank, store->index}) continue;
      const Ledger& ledger = run->summary.ledger;
      const double given_kWh = ledger.heat_kWh(MeterUse::tankHeater, h), price = plan.heaters[h].fuelPrice_kWh;
      const double burnt_kWh = ledger.sum(Metered::fuel, MeterUse::tankHeater, h);
      if (given_kWh > 0.0)
        parts << tr("Its boiler gives %1 a winter, %2.")
                     .arg(kWh(given_kWh / winters), price > 0.0 ? u.number(Quantity::money, burnt_kWh / winters * price) + QLatin1Char(' ') +
                                                                      QString::fromStdString(plan.prices.currency).toHtmlEscaped()
                                                                : tr("whose fuel has no price yet"));
    }
  }
  if (sum.electricity_kWh > 0.0 && (store->kind == StoreKind::loop || store->kind == StoreKind::compost))
    parts << tr("Its %1 costs %2 a winter.")
                 .arg(store->kind == StoreKind::compost && plan.compost[store->index].place == PilePlace::chamber ? tr("fan") : tr("pump"), power);
  if (sum.stagnant_h > 0.0)
    parts << tr("What the collector warms was too hot to take more for %1 h.").arg(QLocale().toString(sum.stagnant_h / winters, 'f', 0));
  return parts.join(QLatin1Char(' '));
}

void StoresPage::draw() {
  const auto store = m_choice.now();
  const auto place = m_choice.place();
  const Simulation* run = m_document.results().simulation();
  if (!run || m_document.view().selectedNight() < 0) return;
  const NightResult& n = run->nights[static_cast<std::size_t>(m_document.view().selectedNight())];
  if (n.winter >= run->series.size() || *place >= run->series[n.winter].stores.size()) return;
  const WinterSeries& s = run->series[n.winter];
  const StoreSeries& mine = s.stores[*place];
  const Winter& w = m_document.readings().weather()->winters[n.winter];
  const Units& u = m_document.view().units();
  const Theme& t = Theme::of(m_document.view().isDark());
  m_plot->clearPlottables();
  m_plot->clearItems();
  m_plot->retheme();
  const double offset = m_document.planInHand().zone().offset_s(w.time(n.from));
  const bool winter = m_span->isChecked();
  const double centre = static_cast<double>(w.time((n.from + n.to) / 2)) + offset;
  const double from = winter ? static_cast<double>(w.start) + offset : centre - 3 * kDay_s;
  const double to = winter ? static_cast<double>(w.time(w.size() - 1)) + offset : centre + 3 * kDay_s;
  const auto line = [&](const auto& v, const QColor& colour, const QString& name, Qt::PenStyle style, double width) {
    QVector<double> x, y;
    for (std::size_t i = 0; i < v.size(); ++i)
      x.push_back(static_cast<double>(w.time(i)) + offset), y.push_back(u.show(Quantity::temperature, static_cast<double>(v[i])));
    QCPGraph* g = m_plot->line(colour, width);
    g->setPen(QPen(colour, width, style));
    g->setName(name);
    g->setData(x, y, true);
  };
  // over a winter by the day: its swings would hide what is slow
  const auto daily = [&](const auto& v) {
    const auto aDay = static_cast<std::ptrdiff_t>(kDay_s / w.step_s);
    std::vector<double> mean(v.size());
    for (std::ptrdiff_t i = 0; i < static_cast<std::ptrdiff_t>(v.size()); ++i) {
      const auto first = std::max<std::ptrdiff_t>(i - aDay / 2, 0), last = std::min(first + aDay, static_cast<std::ptrdiff_t>(v.size()));
      if (i % (aDay / 12) == 0 || i == 0)
        mean[static_cast<std::size_t>(i)] = std::accumulate(v.begin() + first, v.begin() + last, 0.0) / static_cast<double>(last - first);
      else
        mean[static_cast<std::size_t>(i)] = mean[static_cast<std::size_t>(i - 1)];
    }
    return mean;
  };
  if (winter) {
    line(daily(w.outside_C), t.woad, tr("outside"), Qt::DotLine, 1.4);
    line(daily(s.air_C), t.madder, tr("house air"), Qt::SolidLine, 1.4);
  } else {
    line(w.outside_C, t.woad, tr("outside"), Qt::DotLine, 1.2);
    line(s.air_C, t.madder, tr("house air"), Qt::SolidLine, 1.8);
  }
  const auto traces = storeTraces(m_document.plan(), *store);
  const QColor colours[] = {t.lichen, t.weld, t.fleece, t.ink};
  const Qt::PenStyle styles[] = {Qt::SolidLine, Qt::SolidLine, Qt::DashLine, Qt::DashDotLine};
  for (std::size_t k = traces.size(); k-- > 0;)
    if (k < mine.temperature_C.size() && traces[k] != StoreTrace::soilFirst && traces[k] != StoreTrace::soilLast) { // what lies between tells enough
      const double width = k == 0 ? 2.2 : 1.4;
      if (winter)
        line(daily(mine.temperature_C[k]), colours[k % 4], StoreWords::trace(traces[k]), styles[k % 4], width);
      else
        line(mine.temperature_C[k], colours[k % 4], StoreWords::trace(traces[k]), styles[k % 4], width);
    }
  auto* ticker = static_cast<QCPAxisTickerDateTime*>(m_plot->xAxis->ticker().data());
  ticker->setDateTimeFormat(winter ? QStringLiteral("d MMM") : QStringLiteral("d MMM\nhh:mm"));
  m_plot->legendAbove();
  m_plot->yAxis->setLabel(winter ? tr("mean of the day, %1").arg(u.unit(Quantity::temperature)) : u.unit(Quantity::temperature));
  m_plot->xAxis->setRange(from, to);
  bool found = false;
  QCPRange all;
  for (int i = 0; i < m_plot->graphCount(); ++i) {
    bool has = false;
    const QCPRange r = m_plot->graph(i)->getValueRange(has, QCP::sdBoth, m_plot->xAxis->range());
    if (has) all = found ? QCPRange(std::min(all.lower, r.lower), std::max(all.upper, r.upper)) : r, found = true;
  }
  if (found) m_plot->yAxis->setRange(all.lower - 0.06 * all.size(), all.upper + 0.06 * all.size());
  m_plot->replot();
}

void StoresPage::refresh() {
  rebuildChips();
  const auto store = m_choice.now();
  m_fields->show(store);
  m_fields->setVisible(store.has_value());
  m_remove->setVisible(store.has_value());
  m_more->setVisible(store && m_fields->hasSeldom());
  m_plot->setVisible(store && m_document.results().simulation() && m_document.view().selectedNight() >= 0);
  m_span->setVisible(m_plot->isVisibleTo(this));
  m_caution->setVisible(store.has_value());
  if (!store) {
    m_words->setText(
        tr("A store takes up heat when there is too much and gives it back by night: dark water, soil with pipes in it, a pile that rots, a tank. Add "
           "one and see which nights it holds."));
    return;
  }
  m_words->setText(told());
  m_caution->state(cautionsFor(m_document.plan(), thingOf(*store)));
  if (m_plot->isVisibleTo(this)) draw();
}

} // namespace muffle
