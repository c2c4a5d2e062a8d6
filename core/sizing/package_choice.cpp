// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sizing/package_choice.h"

#include "core/cost/cost.h"

#include <algorithm>

namespace muffle {
namespace {

bool holds(PackageSet set, std::size_t measure) { return (set >> measure & 1U) != 0; }

/// Up in price those that buy less take over, down those that buy more.
void turns(const std::vector<PackageCost>& all, double perKWh, ChosenPackage& chosen) {
  const PackageCost& best = chosen.best;
  for (const PackageCost& other : all) {
    if (other.set == best.set || other.energy_kWh == best.energy_kWh) continue;
    const double crossing = (other.fixed - best.fixed) / (best.energy_kWh - other.energy_kWh);
    const bool isAbove = other.energy_kWh < best.energy_kWh;
    if (isAbove && crossing > perKWh && (!chosen.above || crossing < chosen.above->perKWh)) chosen.above = PriceTurn{crossing, other.set};
    if (!isAbove && crossing > 0.0 && crossing < perKWh && (!chosen.below || crossing > chosen.below->perKWh)) chosen.below = PriceTurn{crossing, other.set};
  }
}

} // namespace

double boughtHeat_kWh(const PassiveHouse& house, const PassiveDays& days, std::span<const PassiveMeasure> measures, PackageSet set) {
  double UA = house.UA_W_K, sun = 1.0, room_kWh = house.store_kWh;
  for (std::size_t k = 0; k < measures.size(); ++k) {
    if (!holds(set, k)) continue;
    UA *= measures[k].lossFactor;
    sun *= measures[k].sunFactor;
    room_kWh += measures[k].store_kWh;
  }
  constexpr double kHoursPerKilo = 24.0 / 1000.0;
  double held_kWh = 0.0, bought_kWh = 0.0;
  for (std::size_t d = 0; d < days.outside_C.size(); ++d) {
    const double need = kHoursPerKilo * UA * std::max(0.0, house.setpoint_C - days.outside_C[d]) - sun * days.sun_kWh[d];
    held_kWh *= house.keep;
    if (need <= 0.0) {
      held_kWh = std::max(held_kWh, std::min(room_kWh, held_kWh - need));
      continue;
    }
    const double given = std::min(held_kWh, need);
    held_kWh -= given;
    bought_kWh += need - given;
  }
  return bought_kWh;
}

ChosenPackage choosePackage(const PassiveHouse& house, const PassiveDays& days, std::span<const PassiveMeasure> measures,
                            std::span<const std::pair<std::size_t, std::size_t>> excludes, const PassivePrices& prices) {
  std::vector<PackageCost> all;
  for (PackageSet set = 0; set < 1U << measures.size(); ++set) {
    if (std::any_of(excludes.begin(), excludes.end(), [set](const auto& pair) { return holds(set, pair.first) && holds(set, pair.second); })) continue;
    PackageCost one{set, 0.0, boughtHeat_kWh(house, days, measures, set)};
    for (std::size_t k = 0; k < measures.size(); ++k)
      if (holds(set, k)) one.fixed += measures[k].capital * annuityFactor(prices.interest, measures[k].life_years) + measures[k].hours_a * prices.hour;
    all.push_back(one);
  }
  const auto isCheaper = [&](const PackageCost& a, const PackageCost& b) { return a.cost(prices.perKWh) < b.cost(prices.perKWh); };
  ChosenPackage chosen;
  chosen.bare = all.front();
  chosen.best = *std::min_element(all.begin(), all.end(), isCheaper);
  for (const PackageCost& other : all)
    if (other.set != chosen.best.set && (!chosen.second || isCheaper(other, *chosen.second))) chosen.second = other;
  turns(all, prices.perKWh, chosen);
  return chosen;
}

} // namespace muffle
