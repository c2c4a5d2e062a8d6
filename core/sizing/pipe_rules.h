// SPDX-License-Identifier: GPL-3.0-or-later
//
// How much pipe in the ground: what growers go by, and what heat exchange with the soil says.
//   under the house   metres of pipe = area of the envelope / divisor, so that the air of a hot day finds enough soil
//   beside the house  metres of pipe = area of the floor / divisor, so that a night's air finds deep soil
// The divisors are handed on, with no soil, depth, diameter or flow in them; those here are the middle of what is heard and may be
// replaced by the grower's own. The computed curve is of one night from soil at rest, by core/store/pipe_run.h.
#pragma once

#include "core/plan/plan.h"

#include <vector>

namespace muffle {

struct PipeRule {
  PipePlace place = PipePlace::underFloor;
  double divisor_m = 1.0;           ///< m2 for each metre of pipe
  double low_m = 0.0, high_m = 0.0; ///< of the divisors that are heard
  double length_m = 0.0;            ///< of pipe, for this house
};
std::vector<PipeRule> pipeRules(const HouseShape& shape);

/// One pipe of that length over a winter night of `hours`: what comes out of it, what it gave by its metres, and what the fan took.
struct PipeNight {
  double length_m = 0.0;
  double firstOutlet_C = 0.0, lastOutlet_C = 0.0;
  double heat_kWh = 0.0, fan_kWh = 0.0;
};
/// The pipes of the plan's store at other lengths, with air of the house at `air_C` and soil at `soil_C`.
std::vector<PipeNight> pipeNights(const Plan& plan, const GroundPipes& pipes, double air_C, double soil_C, double hours, const std::vector<double>& lengths_m);

/// How far the ground's own wave still swings to either side at a depth, K, and the days by which it lags behind the surface.
struct GroundSwing {
  double swing_K, lag_days, coldest_C, coldestDay;
};
GroundSwing groundSwing(const Plan& plan, double depth_m);
/// The depth, m, at which it is down to swing_K > 0; 0 where the surface itself swings less.
double depthOfSwing_m(const Plan& plan, double swing_K);

} // namespace muffle
