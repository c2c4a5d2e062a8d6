// SPDX-License-Identifier: GPL-3.0-or-later
//
// Heaters that may be bought, their sizes read from one run with a heater that is never too small: what each set of them costs at least for a load.
#pragma once

#include "core/plan/plan.h"
#include "core/weather/weather.h"

#include <optional>
#include <span>
#include <vector>

namespace muffle {

/// Heater measures whose sizes are read from one run with a heater that is never too small.
struct SizedHeaters {
  std::vector<std::size_t> measures;
  std::vector<std::vector<int>> sets; ///< the level of each, kNotBuilt for none; one of them at least is there
  struct Prices {
    std::vector<std::vector<float>> money_kWh; ///< by winter and step, for a kWh of heat
    std::vector<std::vector<float>> capacity;  ///< of its size, by winter and step
  };
  std::vector<Prices> prices; ///< by measure
  /// Of the measures, the place of the one that the run is made with: it radiates least. What is radiated warms covers and floor beyond what they need to keep
  /// the air as warm, and leaves by them, so that whichever gives what of the heat, no less is taken than of this one alone.
  std::size_t leastRadiant = 0;
};

/// Only what holds a setpoint by itself, at a price that is known beforehand, can be read so, and of several only those whose heat goes much the same ways.
std::optional<SizedHeaters> sizedHeaters(const Plan& plan, const Weather& weather);

struct LeastMoney {
  double money = 0.0;   ///< over the winter
  bool isShort = false; ///< at some step the set gives less than is taken
};
/// Of one set for a winter's load, W by step: the first heater gives what it can, the next what is left, up to its size.
LeastMoney leastMoney(const SizedHeaters& heaters, const Plan& plan, std::size_t set, std::size_t winter, std::span<const float> load_W, double step_s);

} // namespace muffle
