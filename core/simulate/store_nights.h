// SPDX-License-Identifier: GPL-3.0-or-later
//
// What stores gave by night and by day, read off a run's series.
#pragma once

#include "core/simulate/simulate.h"

#include <cstddef>
#include <vector>

namespace muffle {

/// Energy of a power in W by step, over the steps after `from` up to `to`, kWh.
double energyOver_kWh(const std::vector<float>& power_W, std::size_t from, std::size_t to, double step_s);

/// As many as one speaks of.
inline constexpr std::size_t kColdestNights = 10;

/// The judged nights that were coldest outside, coldest first. Empty where no more than `count` were judged, or where one of them lies in
/// a winter of which the run does not have the series, with as many stores.
std::vector<const NightResult*> coldestNights(const Simulation& run, std::size_t stores, std::size_t count = kColdestNights);

/// A store in the day from the noon before a night to the noon after it, kWh.
struct StoreDay {
  double given_kWh = 0.0, taken_kWh = 0.0; ///< to the house and from it, both >= 0
};
/// Of a store's given_W (core/results/store_results.h); the day ends where the series does.
StoreDay storeDay(const std::vector<float>& given_W, const NightResult& night, double step_s);

} // namespace muffle
