// SPDX-License-Identifier: GPL-3.0-or-later
//
// Which passive measures pay, exactly: every allowed set of them over days of given weather, a house of one conductance with a store that keeps a part of
// its warmth from day to day. A quick answer before any simulation, and what the search over simulated packages is held against.
#pragma once

#include <optional>
#include <span>
#include <utility>
#include <vector>

namespace muffle {

struct PassiveMeasure {
  double lossFactor = 1.0; ///< on the house's conductance, > 0
  double sunFactor = 1.0;  ///< on the sun that comes in
  double store_kWh = 0.0;  ///< added to what it can hold
  double capital = 0.0, life_years = 10.0, hours_a = 0.0;
};
struct PassiveHouse {
  double UA_W_K = 200.0;
  double setpoint_C = 5.0;
  double store_kWh = 0.0;
  double keep = 0.8; ///< of what the store has, that is left a day later
};
struct PassiveDays {
  std::vector<double> outside_C; ///< mean of a day
  std::vector<double> sun_kWh;   ///< into the bare house
};
struct PassivePrices {
  double perKWh = 0.2, hour = 0.0, interest = 0.0;
};

/// A set of measures, bit k the k-th.
using PackageSet = unsigned;

struct PackageCost {
  PackageSet set = 0;
  double fixed = 0.0;      ///< money a year, without heat
  double energy_kWh = 0.0; ///< that is bought
  [[nodiscard]] double cost(double perKWh) const { return fixed + perKWh * energy_kWh; }
};
struct PriceTurn {
  double perKWh = 0.0;
  PackageSet set = 0; ///< that is cheapest from there on
};
struct ChosenPackage {
  PackageCost best, bare;
  std::optional<PackageCost> second;
  std::optional<PriceTurn> above, below; ///< the next price, up or down, at which another set is cheapest
};

/// Heat that a set buys.
double boughtHeat_kWh(const PassiveHouse& house, const PassiveDays& days, std::span<const PassiveMeasure> measures, PackageSet set);
/// All sets but those that hold both of a pair of `excludes`; at most 20 measures.
ChosenPackage choosePackage(const PassiveHouse& house, const PassiveDays& days, std::span<const PassiveMeasure> measures,
                            std::span<const std::pair<std::size_t, std::size_t>> excludes, const PassivePrices& prices);

} // namespace muffle
