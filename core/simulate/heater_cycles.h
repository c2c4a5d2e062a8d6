// SPDX-License-Identifier: GPL-3.0-or-later
//
// How often a plan's heaters go on and off by their thermostats, and whether that is more often than does them good: by the load of each hour and by how
// the air follows a heater within minutes (core/run/air_response.h).
#pragma once

#include "core/simulate/simulate.h"

#include <vector>

namespace muffle {

struct HeaterCycles {
  std::size_t heater = 0;        ///< among the plan's
  double starts = 0.0;           ///< a winter
  double mean_run_s = 0.0;       ///< from going on to going off
  double shortStarts = 0.0;      ///< a winter, after which it ran for less than its kind's leastRun_s
  double mostStarts_per_h = 0.0; ///< in the busiest hour
  double below_K = 0.0;          ///< how far under its setpoint the air falls, at most
  [[nodiscard]] bool isShort() const { return shortStarts > 0.5 * starts; }
};
/// Of heaters in the house with a thermostat that went on and off at all; needs the hours that series bring. A band that is not given is the usual.
std::vector<HeaterCycles> heaterCycles(const Plan& plan, const Weather& weather, const Simulation& run);

} // namespace muffle
