// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/sizing_words.h"

#include "app/model/said.h"
#include "app/stages/dates.h"
#include "app/stages/heater_words.h"
#include "core/plan/measure_table.h"
#include "core/plan/names.h"
#include "core/simulate/heat_prices.h"
#include "core/sizing/why_not.h"

#include <QLocale>

#include <algorithm>
#include <cmath>
#include <limits>

namespace muffle {
namespace {

constexpr double kFarOff = 4.0; // times a price of today

bool takesNothing(const SizedPackage& p) {
  return std::all_of(p.choice.begin(), p.choice.end(), [](int place) { return place < 0; });
}

} // namespace

SizingWords::SizingWords(const Document& document) : m_document(document), m_sizing(*document.results().sizing()) {
  if (m_sizing.winner >= 0) m_sure = howSure(m_sizing, atPricesNow());
}

Plan SizingWords::atPricesNow() const {
  Plan priced = m_document.results().sizedPlan();
  priced.prices = m_document.plan().prices;
  return priced;
}

QString SizingWords::bill() const {
  const Sizing& s = m_sizing;
  const Units& u = m_document.view().units();
  const QString currency = QString::fromStdString(m_document.plan().prices.currency);
  if (s.winner < 0) {
    const int closest = std::max(closestToHolding(s), 0);
    return tr("<b>None of these holds %1.</b> The closest, %2, %3. Lower the line, accept some misses, grow something hardier, or add measures.")
               .arg(u.text(Quantity::temperature, m_document.plan().setpoints.hold_C),
                    said(s.packages[static_cast<std::size_t>(closest)].label, u).toHtmlEscaped(),
                    said(whyNot(s, closest, m_document.results().sizedPlan()), u).toHtmlEscaped()) +
           whatToLoosen();
  }
  const SizedPackage& w = s.packages[static_cast<std::size_t>(s.winner)];
  QString words = tr("<b>%1</b><br>%2 %3 each winter: power %4, kit %5, %6 h of your work at %7")
                      .arg(said(w.label, u).toHtmlEscaped(), u.number(Quantity::money, w.cost.total()), currency, u.number(Quantity::money, w.cost.energy),
                           u.number(Quantity::money, w.cost.kit), u.number(Quantity::hours, w.cost.hours), u.number(Quantity::money, w.cost.hoursMoney));
  QStringList more;
  if (const Simulation* run = m_document.results().simulation(); run && isScaledToWinter(run->summary.winters))
    more << tr("A winter here is %1.").arg(winterMadeOf(run->summary.winters));
  if (takesNothing(w)) more << tr("You hold every night you ask for already: spend nothing.");
  if (!s.provedLeast) more << notProved();
  if (const QString sure = howSureItIs(); !sure.isEmpty()) more << sure;
  return more.isEmpty() ? words : words + QStringLiteral("<br>") + more.join(QLatin1Char(' '));
}

QString SizingWords::argument() const {
  QString words = whatEachDoes();
  for (const QString& more : {byRulesOfThumb(), inColderWinters(), inLikelyHouses(), pricesThatTurnIt(), whatMoneyBuys()})
    if (!more.isEmpty()) words += QStringLiteral("<p style='margin:4px 0 0 0'>%1</p>").arg(more.toHtmlEscaped());
  return words;
}

/// How many plans the answer is the least of, and how many of them had to be run for it.
QString SizingWords::plansLookedAt() const {
  const Sizing& s = m_sizing;
  const QString all = tr("%Ln plan(s)", nullptr, static_cast<int>(std::min<std::size_t>(s.covered, std::numeric_limits<int>::max())));
  return s.runs < s.covered ? tr("%1, %2 of them run,").arg(all, QLocale().toString(static_cast<qulonglong>(s.runs))) : all;
}

QString SizingWords::notProved() const {
  const Sizing& s = m_sizing;
  const QString currency = QString::fromStdString(m_document.plan().prices.currency);
  if (s.bound <= 0.0)
    return s.isStopped ? tr("Stopped before its end: the cheapest of those that were run.")
                       : tr("At these prices it is the cheapest of those that were run; search again to prove it.");
  return (s.isStopped ? tr("Stopped before its end: there may be one for less, but none below %1 %2.")
                      : tr("Not proved: there may be one for less, but none below %1 %2."))
      .arg(QLocale().toString(static_cast<qlonglong>(std::floor(s.bound))), currency);
}

/// Where none holds: what alone stands in the way.
QString SizingWords::whatToLoosen() const {
  const Sizing& s = m_sizing;
  QString rows;
  const Plan& sized = m_document.results().sizedPlan();
  for (const Loosening& l : loosenings(s, sized))
    rows += QStringLiteral("<br>") + said(whatWouldDo(l, s, sized), m_document.view().units()).toHtmlEscaped() + QLatin1Char('.');
  if (rows.isEmpty()) return QLatin1Char(' ') + tr("No wish stands in the way alone: loosen more than one.");
  return rows;
}

/// How the answer stands if prices come out otherwise.
QString SizingWords::howSureItIs() const {
  if (!m_sure.hasRanges) return {};
  const QString among = m_sizing.runs < m_sizing.covered ? tr("Of the plans that were run") : tr("Of all plans");
  if (m_sure.stays > 0.9995) return tr("%1 it stays the cheapest whatever prices come to within their ranges.").arg(among);
  return tr("%1 it stays the cheapest in %2 of 100 cases within the ranges of prices; in the others one costs %3 %4 less.")
      .arg(among)
      .arg(std::lround(100.0 * m_sure.stays))
      .arg(m_document.view().units().number(Quantity::money, m_sure.regret / (1.0 - m_sure.stays)), QString::fromStdString(m_document.plan().prices.currency));
}

/// What the winner does in winters colder than those logged.
QString SizingWords::inColderWinters() const {
  const Units& u = m_document.view().units();
  const QString currency = QString::fromStdString(m_document.plan().prices.currency);
  QStringList words;
  for (const ColderWinter& c : m_sizing.colder) {
    const QString by = said(Message{"sizing.by", Amount{c.by_K, Unit::kelvin}}, u);
    if (!c.holds)
      words << (c.misses > 0 ? tr("%1 colder: %2 missed").arg(by, tr("%Ln night(s)", nullptr, c.misses)) : tr("%1 colder: it does not hold").arg(by));
    else if (c.extra && std::round(*c.extra) != 0.0) // a house without a heater costs the same in any winter
      words << tr("%1 colder: held for %2 %3 more").arg(by, u.number(Quantity::money, *c.extra), currency);
    else
      words << tr("%1 colder: held").arg(by);
  }
  return words.isEmpty() ? QString() : tr("In winters like these, but %1.").arg(words.join(QStringLiteral("; ")));
}

/// What the winner does in houses that the readings allow as well as the one they were fitted to.
QString SizingWords::inLikelyHouses() const {
  if (m_sizing.likely.empty()) return {};
  const LikelyInShort all = inShort(m_sizing);
  QStringList words;
  words << (all.held == all.houses ? tr("it holds in all")
            : all.mostMissed > 0   ? tr("it holds in %1 and misses up to %2 elsewhere").arg(all.held).arg(tr("%Ln night(s)", nullptr, all.mostMissed))
                                   : tr("it holds in %1").arg(all.held)); // elsewhere it is beyond a limit
  if (all.cheapest) words << tr("is the cheapest in %1").arg(*all.cheapest);
  if (all.leastExtra && all.mostExtra) {
    const Units& u = m_document.view().units();
    const QString currency = QString::fromStdString(m_document.plan().prices.currency);
    const auto money = [&](double extra) {
      return (extra < 0.0 ? tr("%1 %2 less") : tr("%1 %2 more")).arg(u.number(Quantity::money, std::abs(extra)), currency);
    };
    words << tr("takes between %1 and %2").arg(money(*all.leastExtra), money(*all.mostExtra));
  }
  return tr("Your readings leave the house open: of %1 that they allow alike, %2.").arg(all.houses).arg(words.join(QStringLiteral(", ")));
}

/// What growers' rules would have built, and what it costs or misses.
QString SizingWords::byRulesOfThumb() const {
  const Units& u = m_document.view().units();
  const QString currency = QString::fromStdString(m_document.plan().prices.currency);
  QStringList words;
  for (const ByThumb& rule : m_sizing.thumb) {
    const SizedPackage& p = rule.package;
    const QString does = p.nights > p.held ? tr("misses %1 for %2 %3").arg(tr("%Ln night(s)", nullptr, p.nights - p.held))
                         : p.holds         ? tr("holds for %2 %3")
                                           : tr("holds every night, but not what else is asked, for %2 %3");
    words << tr("%1: %2").arg(said(rule.says, u), does.arg(u.number(Quantity::money, p.cost.total()), currency));
  }
  return words.isEmpty() ? QString() : tr("Rules of thumb would build: %1.").arg(words.join(QStringLiteral("; ")));
}

/// Which price of a kWh makes another plan the cheapest; the table has those of the measures.
QString SizingWords::pricesThatTurnIt() const {
  const Sizing& s = m_sizing;
  const Plan priced = atPricesNow();
  QStringList words;
  for (const UncertainPrice& price : m_sure.prices) {
    if (price.of == UncertainPrice::Of::measure) continue;
    const QString what = price.of == UncertainPrice::Of::electricity ? tr("a kWh of electricity") : tr("a kWh of %1").arg(HeaterWords::carrier(price.fuel));
    const double now = price.of == UncertainPrice::Of::electricity ? priced.prices.electricity_per_kWh : fuelPrice_kWh(priced, price.fuel).value_or(0.0);
    for (const auto& [turn, way] : {std::pair{price.below, tr("below")}, {price.above, tr("above")}})
      if (turn && turn->factor < kFarOff)
        words << tr("With %1 %2 %3 %4, cheapest is: %5.")
                     .arg(what, way, QLocale().toString(now * turn->factor, 'f', 2), QString::fromStdString(priced.prices.currency),
                          said(s.packages[static_cast<std::size_t>(turn->package)].label, m_document.view().units()));
  }
  return words.join(QLatin1Char(' '));
}

/// The staircase: what each further sum buys.
QString SizingWords::whatMoneyBuys() const {
  const Sizing& s = m_sizing;
  const Units& u = m_document.view().units();
  const Plan& sized = m_document.results().sizedPlan();
  const QString currency = QString::fromStdString(sized.prices.currency);
  QStringList words;
  double spent = 0.0;
  for (const int i : staircase(s, sized)) {
    const SizedPackage& p = s.packages[static_cast<std::size_t>(i)];
    const QString buys = p.nights > p.held ? tr("%1 missed").arg(tr("%Ln night(s)", nullptr, p.nights - p.held))
                                           : tr("all nights held for %1 %2 a winter").arg(u.number(Quantity::money, p.cost.total()), currency);
    words << (words.isEmpty() ? tr("For %1 %2: %3, %4").arg(u.number(Quantity::money, p.capital), currency, said(p.label, u), buys)
                              : tr("for %1 more: %2, %3").arg(u.number(Quantity::money, p.capital - spent), said(p.label, u), buys));
    spent = p.capital;
  }
  return words.size() < 2 ? QString() : words.join(QStringLiteral("; ")) + QLatin1Char('.');
}

/// A measure's price by what it is of.
QString SizingWords::priced(const Plan& plan, const Measure& m, double price) const {
  const Units& u = m_document.view().units();
  const QString money = QString::fromStdString(plan.prices.currency);
  const auto of = [&](double value) { return QLocale().toString(value, 'f', value < 100.0 ? 2 : 0) + QChar(0x00A0) + money; };
  switch (rowOf(m.kind).pricedBy) {
  case PricedBy::each: return tr("%1 each").arg(of(price));
  case PricedBy::kilowatt: return tr("%1 a kW").arg(of(price));
  case PricedBy::cover_m2:
  case PricedBy::level_m2:
  case PricedBy::floor_m2: return tr("%1 a %2").arg(of(u.show(Quantity::areaPrice, price)), u.unit(Quantity::area));
  case PricedBy::perimeter_m: return tr("%1 a metre").arg(of(price));
  case PricedBy::whole:
  case PricedBy::nothing: break;
  }
  return of(price);
}

/// What each thing on the list does for the cheapest plan, and the price at which that would turn.
QString SizingWords::whatEachDoes() const {
  const Sizing& s = m_sizing;
  const Units& u = m_document.view().units();
  const Plan& sized = m_document.results().sizedPlan();
  const auto money = [&](double value) { return u.number(Quantity::money, std::abs(value)) + QChar(0x00A0) + QString::fromStdString(sized.prices.currency); };
  QString rows;
  for (const MeasureVerdict& v : verdicts(s, sized)) {
    const Measure& m = sized.measures[v.measure];
    const double level = levelAt(m, v.level);
    QString does;
    if (!v.otherHolds)
      does = (v.isTaken ? tr("without it %1 missed") : tr("with it %1 missed")).arg(tr("%Ln night(s)", nullptr, v.misses));
    else if (v.isTaken)
      does = v.turnsAt ? tr("saves %1 a winter, pays up to %2").arg(money(v.extra), priced(sized, m, *v.turnsAt)) : tr("saves %1 a winter").arg(money(v.extra));
    else
      does = v.turnsAt ? tr("costs %1 more than it saves, would pay below %2").arg(money(v.extra), priced(sized, m, *v.turnsAt))
                       : tr("costs %1 more than it saves, even as a gift").arg(money(v.extra));
    rows += QStringLiteral("<tr><td>%1</td><td style='padding-left:10px'>%2</td></tr>")
                .arg(v.isTaken ? QStringLiteral("<b>%1</b>").arg(said(nameOf(m, level), u).toHtmlEscaped()) : said(nameOf(m, level), u).toHtmlEscaped(), does);
  }
  return QStringLiteral("<table cellspacing='0' cellpadding='0'>%1</table>").arg(rows);
}

} // namespace muffle
