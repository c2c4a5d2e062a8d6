// SPDX-License-Identifier: GPL-3.0-or-later
//
// What a degree more buys: the plan with other night setpoints, everything else as it stands, over all logged nights. A setpoint that follows the
// weather is moved as it is, by its coldest night; the day's setpoint is raised where the night's would pass it. The line to hold stays.
#pragma once

#include "core/results/growth.h"
#include "core/sizing/sizing.h"

#include <memory>
#include <vector>

namespace muffle {

struct DegreePoint {
  double night_C = 0.0;
  int held = 0, nights = 0;
  double coldest_C = 0.0;
  double heater_kWh = 0.0;   ///< of heat, a winter
  double energy = 0.0;       ///< money a winter, power and fuel
  double hours = 0.0;        ///< of work, a winter
  double peak_W = 0.0;       ///< that all heaters gave at once
  double growth_d = 0.0;     ///< days of the best growth, a winter
  double lightShort_d = 0.0; ///< days a winter on which light, not warmth, limits it
};

/// The night setpoint of the coldest nights.
double nightSetpoint_C(const Plan& plan);
Plan withNightSetpoint(const Plan& plan, double night_C);

/// By rising setpoint, `step_K` > 0 apart and the plan's own among them; those that check() refuses are left out. A plan without a heater in the
/// house is a problem.
Result<std::vector<DegreePoint>> degreeMore(const Plan& plan, std::shared_ptr<const Weather> weather, const SizingOptions& options = {}, double step_K = 1.0);

} // namespace muffle
