// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sizing/why_not.h"

#include "core/plan/measure_table.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <map>
#include <tuple>

namespace muffle {
namespace {

/// Money a winter that one unit of its price makes.
double perPrice(const Plan& plan, const Measure& m, int level) {
  Measure unit = m;
  unit.price = 1.0;
  return measureCapital(plan, unit, levelAt(m, level)) * annuityFactor(plan.prices.interest, m.life_years);
}

} // namespace

std::vector<MeasureVerdict> verdicts(const Sizing& sizing, const Plan& plan) {
  std::vector<MeasureVerdict> all;
  if (sizing.winner < 0) return all;
  std::map<Choice, int> place;
  for (std::size_t i = 0; i < sizing.packages.size(); ++i) place[sizing.packages[i].choice] = static_cast<int>(i);
  const SizedPackage& winner = sizing.packages[static_cast<std::size_t>(sizing.winner)];
  for (std::size_t k = 0; k < plan.measures.size() && k < winner.choice.size(); ++k) {
    const Measure& m = plan.measures[k];
    MeasureVerdict verdict{.measure = k, .isTaken = winner.choice[k] >= 0, .level = winner.choice[k]};
    // the best of the other ways: one that holds before one that does not, then the cheaper
    for (int level = verdict.isTaken ? -1 : 0; level < (verdict.isTaken ? 0 : levelCount(m)); ++level) {
      Choice choice = winner.choice;
      choice[k] = level;
      const auto it = place.find(choice);
      if (it == place.end()) continue;
      const auto key = [&](int i) {
        const SizedPackage& p = sizing.packages[static_cast<std::size_t>(i)];
        return std::tuple(!p.holds, p.holds ? 0 : p.nights - p.held, p.cost.total());
      };
      if (verdict.other >= 0 && key(verdict.other) <= key(it->second)) continue;
      verdict.other = it->second;
      if (!verdict.isTaken) verdict.level = level;
    }
    if (verdict.other < 0) continue;
    const SizedPackage& other = sizing.packages[static_cast<std::size_t>(verdict.other)];
    verdict.otherHolds = other.holds;
    verdict.misses = other.nights - other.held;
    verdict.extra = other.cost.total() - winner.cost.total();
    if (const double each = perPrice(plan, m, verdict.level); verdict.otherHolds && each > 0.0) {
      const double price = m.price + (verdict.isTaken ? 1.0 : -1.0) * verdict.extra / each;
      if (price > 0.0) verdict.turnsAt = price;
    }
    all.push_back(verdict);
  }
  return all;
}

std::vector<int> staircase(const Sizing& sizing, const Plan& plan) {
  Ask others = plan.ask; // cold and money are what the steps are made of
  others.missesAllowed = 1'000'000;
  others.coldAllowed_K_h.reset();
  others.toSpend.reset();
  std::vector<int> order;
  for (std::size_t i = 0; i < sizing.packages.size(); ++i)
    if (!sizing.packages[i].fails && keepsTo(sizing.packages[i], others)) order.push_back(static_cast<int>(i));
  const auto at = [&](int i) -> const SizedPackage& { return sizing.packages[static_cast<std::size_t>(i)]; };
  const auto worth = [&](int i) { return std::tuple(at(i).nights - at(i).held, at(i).cost.total()); };
  std::stable_sort(order.begin(), order.end(), [&](int a, int b) { return std::tuple(at(a).capital, worth(a)) < std::tuple(at(b).capital, worth(b)); });
  std::vector<int> steps;
  for (const int i : order)
    if (steps.empty() || worth(i) < worth(steps.back())) steps.push_back(i);
  return steps;
}

std::vector<Loosening> loosenings(const Sizing& sizing, const Plan& plan) {
  using Of = Loosening::Of;
  std::vector<Loosening> all;
  if (sizing.winner >= 0) return all;
  struct Wish {
    Of of;
    bool isAsked;
    std::function<void(Ask&)> drop;
    std::function<double(const SizedPackage&)> needs;
  };
  const Ask& ask = plan.ask;
  const auto nothing = [](const SizedPackage&) { return 0.0; };
  const Wish wishes[] = {
      {ask.coldAllowed_K_h ? Of::cold : Of::misses, true,
       [](Ask& a) {
         a.missesAllowed = 1'000'000;
         if (a.coldAllowed_K_h) a.coldAllowed_K_h = 1e9;
       },
       [&ask](const SizedPackage& p) { return ask.coldAllowed_K_h ? p.degreeHours_K_h / p.winters : p.nights - p.held; }},
      {Of::spend, ask.toSpend.has_value(), [](Ask& a) { a.toSpend.reset(); }, [](const SizedPackage& p) { return p.capital; }},
      {Of::hours, ask.hoursPerWeek.has_value(), [](Ask& a) { a.hoursPerWeek.reset(); }, [](const SizedPackage& p) { return p.cost.hours * 7.0 / kWinterDays; }},
      {Of::supply, ask.supply_kW.has_value(), [](Ask& a) { a.supply_kW.reset(); }, [](const SizedPackage& p) { return p.electric_W / 1000.0; }},
      {Of::trench, ask.trench_m.has_value(), [](Ask& a) { a.trench_m.reset(); }, [](const SizedPackage& p) { return p.trench_m; }},
      {Of::fuelStore, ask.fuelStore_kWh.has_value(), [](Ask& a) { a.fuelStore_kWh.reset(); }, [](const SizedPackage& p) { return p.fuelStored_kWh; }},
      {Of::noFireAsleep, ask.noFireAsleep, [](Ask& a) { a.noFireAsleep = false; }, nothing},
      {Of::resilience, ask.anyHeaterOut || ask.mainsOff_h || ask.rareNight_years, nullptr, nothing},
  };
  for (const Wish& wish : wishes) {
    if (!wish.isAsked) continue;
    Ask without = ask;
    if (wish.drop) wish.drop(without);
    std::optional<Loosening> least;
    for (std::size_t i = 0; i < sizing.packages.size(); ++i) {
      const SizedPackage& p = sizing.packages[i];
      const bool mayFail = wish.of == Of::resilience;
      if ((p.fails && !mayFail) || !keepsTo(p, without)) continue;
      const double needs = wish.needs(p);
      if (!least || needs < least->needs || (needs == least->needs && p.cost.total() < sizing.packages[static_cast<std::size_t>(least->package)].cost.total()))
        least = Loosening{wish.of, needs, static_cast<int>(i)};
    }
    if (least) all.push_back(*least);
  }
  return all;
}

Message whatWouldDo(const Loosening& l, const Sizing& sizing, const Plan& plan) {
  using Of = Loosening::Of;
  const Message& label = sizing.packages[static_cast<std::size_t>(l.package)].label;
  switch (l.of) {
  case Of::misses: return {"sizing.would-do-misses", label, std::llround(l.needs)};
  case Of::cold: return {"sizing.would-do-cold", label, std::llround(std::ceil(l.needs))};
  case Of::spend: return {"sizing.would-do-spend", label, std::llround(std::ceil(l.needs)), plan.prices.currency};
  case Of::hours: return {"sizing.would-do-hours", label, std::ceil(10.0 * l.needs) / 10.0};
  case Of::supply: return {"sizing.would-do-supply", label, std::ceil(10.0 * l.needs) / 10.0};
  case Of::trench: return {"sizing.would-do-trench", label, Amount{l.needs, Unit::metre}};
  case Of::fuelStore: return {"sizing.would-do-fuel-store", label, Amount{l.needs, Unit::kilowattHour}};
  case Of::noFireAsleep: return {"sizing.would-do-fire-asleep", label};
  case Of::resilience: return {"sizing.would-do-without-failure", label};
  }
  return label;
}

int closestToHolding(const Sizing& sizing) {
  const auto key = [](const SizedPackage& p) { return std::tuple(p.nights - p.held, p.degreeHours_K_h, p.cost.total()); };
  const auto it =
      std::min_element(sizing.packages.begin(), sizing.packages.end(), [&](const SizedPackage& a, const SizedPackage& b) { return key(a) < key(b); });
  return it == sizing.packages.end() ? -1 : static_cast<int>(it - sizing.packages.begin());
}

} // namespace muffle
