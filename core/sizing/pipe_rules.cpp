// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sizing/pipe_rules.h"

#include "core/assemble/pipe_soil.h"
#include "core/assemble/soil_under.h"
#include "core/constants.h"
#include "core/network/solver.h"

#include <cmath>

namespace muffle {

std::vector<PipeRule> pipeRules(const HouseShape& shape) {
  constexpr double kUnder = 1.0, kUnderLow = 0.7, kUnderHigh = 1.5;    // m2 of envelope a metre
  constexpr double kBeside = 1.2, kBesideLow = 0.8, kBesideHigh = 2.0; // m2 of floor a metre
  return {{PipePlace::underFloor, kUnder, kUnderLow, kUnderHigh, shape.cover_m2() / kUnder},
          {PipePlace::beside, kBeside, kBesideLow, kBesideHigh, shape.floor_m2() / kBeside}};
}

std::vector<PipeNight> pipeNights(const Plan& plan, const GroundPipes& pipes, double air_C, double soil_C, double hours, const std::vector<double>& lengths_m) {
  std::vector<PipeNight> nights;
  const double factor = plan.calibration ? plan.calibration->ground : 1.0;
  for (const double length : lengths_m) {
    GroundPipes p = pipes;
    p.length_m = length;
    const PipeRunShape shape = pipeShape(p, plan.house.floor, factor, kStandardPressure_Pa);
    Network net;
    const int intake = net.addBoundary("house", Driver::constant(air_C));
    const PipeRun run = addPipeRun(net, "pipe", shape, {intake}, {}, soil_C, {});
    auto solver = Solver::prepare(std::move(net));
    if (!solver) return nights;
    PipeNight n{length};
    constexpr double kStep_s = 600.0;
    double fan_W = pipeDuty(p, kStandardPressure_Pa).power_W;
    for (int i = 1; i <= static_cast<int>(hours * 6.0); ++i) {
      if (!solver->advance(kStep_s)) return nights;
      const double outlet = solver->temperature_C(run.air.back());
      if (i == 1) n.firstOutlet_C = outlet;
      n.lastOutlet_C = outlet;
      n.heat_kWh += shape.count * run.flow.capacity_W_K * (outlet - air_C) * kStep_s / 3.6e6;
    }
    n.fan_kWh = fan_W * hours / 1000.0;
    nights.push_back(n);
  }
  return nights;
}

GroundSwing groundSwing(const Plan& plan, double depth_m) {
  const UndisturbedGround g = undisturbedGround(plan);
  const double share = std::exp(-depth_m / g.dampingDepth_m());
  const double lag = depth_m / g.dampingDepth_m() * 365.0 / (2.0 * kPi);
  return {share * g.surfaceAmplitude_K, lag, g.mean_C - share * g.surfaceAmplitude_K, std::fmod(g.coldestDay + lag, 365.0)};
}

double depthOfSwing_m(const Plan& plan, double swing_K) {
  const UndisturbedGround g = undisturbedGround(plan);
  return g.surfaceAmplitude_K > swing_K ? g.dampingDepth_m() * std::log(g.surfaceAmplitude_K / swing_K) : 0.0;
}

} // namespace muffle
