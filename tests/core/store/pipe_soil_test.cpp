// SPDX-License-Identifier: GPL-3.0-or-later
//
// How the soil about a bed of pipes is cut, against the exact resistances of a row of pipes.
#include "core/assemble/pipe_soil.h"

#include "core/constants.h"
#include "core/network/solver.h"

#include <gtest/gtest.h>

#include <cmath>

namespace muffle {
namespace {

constexpr double kSoil_W_mK = 1.3;

/// By metre of pipe, from its face to surfaces at 0 degC that lie above at its depth and, where `below_m` is given, below.
double resistance_mK_W(const GroundPipes& p, double below_m = 0.0) {
  const PipeSoil cut = pipeSoil(p, kSoil_W_mK);
  const double outer = 1.1 * p.diameter_m / 2.0;
  Network net;
  const int surface = net.addBoundary("surface", Driver::constant(0.0));
  const int plane = net.addNode("plane", 1e4, 5.0);
  const RadialSoil rings = addRadialSoil(net, "pipe", {p.count * p.length_m, outer, cut.ring_m, kSoil_W_mK, 2e6, 4}, 5.0, plane);
  net.addConductance(plane, surface, kSoil_W_mK * cut.area_m2 / cut.above_m);
  if (below_m > 0.0) net.addConductance(plane, surface, kSoil_W_mK * cut.area_m2 / (below_m - (p.depth_m - cut.above_m)));
  net.sources.push_back({rings.face(), Driver::constant(p.count * p.length_m), "a watt a metre"});
  Solver s = *Solver::prepare(net);
  EXPECT_TRUE(s.solveSteady());
  return s.temperature_C(rings.face());
}

TEST(PipeSoil, LeadsUpAndBothWaysNearlyAsARowOfPipesDoes) {
  for (const double spacing : {0.3, 0.5, 0.8})
    for (const double depth : {0.5, 0.8, 1.5}) {
      const GroundPipes p{.count = 8, .depth_m = depth, .spacing_m = spacing};
      const double r = 1.1 * p.diameter_m / 2.0;
      const double up = pipeRowResistance_mK_W(r, depth, spacing, kSoil_W_mK);
      // half the heat each way, from a plane: the row's own constriction and half a level layer
      const double both = std::log(spacing / (2.0 * kPi * r)) / (2.0 * kPi * kSoil_W_mK) + depth / (2.0 * kSoil_W_mK * spacing);
      // one cut serves both flows, a little off either: by far less than what is known of a soil's conductivity, a quarter
      EXPECT_NEAR(resistance_mK_W(p), up, 0.09 * up) << spacing << " " << depth;
      EXPECT_NEAR(resistance_mK_W(p, depth), both, 0.10 * both) << spacing << " " << depth;
    }
}

TEST(PipeSoil, OnePipeAloneHasTheShapeFactorOfABuriedPipe) {
  for (const double depth : {0.8, 1.6, 3.0}) {
    const GroundPipes p{.count = 1, .depth_m = depth, .spacing_m = 0.5};
    const double r = 1.1 * p.diameter_m / 2.0;
    const double alone = std::log(2.0 * depth / r) / (2.0 * kPi * kSoil_W_mK);
    EXPECT_NEAR(resistance_mK_W(p), alone, 0.09 * alone) << depth;
  }
}

TEST(PipeSoil, TheFanMeetsThePipesOfThePlan) {
  const GroundPipes few{.count = 2, .fan_m3_h = 600.0}, many{.count = 12, .fan_m3_h = 600.0};
  const FanDuty a = pipeDuty(few, kStandardPressure_Pa), b = pipeDuty(many, kStandardPressure_Pa);
  EXPECT_LT(a.flow_m3_s, b.flow_m3_s);
  EXPECT_LT(b.flow_m3_s, 600.0 / 3600.0); // never more than blowing free
  GroundPipes smooth = few;
  smooth.ribbed = false;
  EXPECT_GT(pipeDuty(smooth, kStandardPressure_Pa).flow_m3_s, a.flow_m3_s);
  const PipeRunShape shape = pipeShape(few, Floor{}, 2.0, kStandardPressure_Pa);
  EXPECT_NEAR(shape.soil_W_mK, 2.0 * pipeShape(few, Floor{}, 1.0, kStandardPressure_Pa).soil_W_mK, 1e-12); // the fit's factor
}

} // namespace
} // namespace muffle
