// SPDX-License-Identifier: GPL-3.0-or-later
//
// Pipes in the ground: what air loses in them, what the soil remembers, how fine its rings must be.
#include "core/air/moist_air.h"
#include "core/network/solver.h"
#include "core/network/vapour.h"
#include "core/store/pipe_run.h"

#include <gtest/gtest.h>

#include <cmath>

namespace muffle {
namespace {

TEST(GroundPipe, AFanMovesLessThroughLongerPipesAndMoreThroughMore) {
  const PipeFan fan{600.0, 150.0, 0.35};
  const GroundPipe pipe{.inner_m = 0.1, .outer_m = 0.11, .length_m = 10.0, .roughness_m = 0.002};
  GroundPipe longer = pipe;
  longer.length_m = 30.0;
  const FanDuty duty = fanDuty(fan, pipe, 4);
  EXPECT_LT(fanDuty(fan, longer, 4).flow_m3_s, duty.flow_m3_s);
  EXPECT_GT(fanDuty(fan, pipe, 8).flow_m3_s, duty.flow_m3_s);
  EXPECT_NEAR(duty.each.pressure_Pa, duty.pressure_Pa, 1e-6); // where both curves meet
  EXPECT_NEAR(duty.power_W, duty.pressure_Pa * duty.flow_m3_s / 0.35, 1e-9);
}

TEST(GroundPipe, NoSliceCountChangesTheOutletWhileTheFaceIsOneTemperature) {
  const GroundPipe pipe{.length_m = 20.0};
  const PipeFlow flow = pipeFlow(pipe, {}, 0.03);
  for (const int slices : {1, 3, 10}) {
    double t = -10.0;
    const double g = flow.mixedConductance_W_K(slices);
    for (int s = 0; s < slices; ++s) t = (flow.capacity_W_K * t + g * 9.0) / (flow.capacity_W_K + g);
    EXPECT_NEAR(t, flow.outlet_C(-10.0, 9.0), 1e-9) << slices;
  }
}

/// What a pipe gives over a night from soil at 14 degC, and its last outlet temperature.
std::pair<double, double> night(int slices, int rings) {
  PipeRunShape shape{.pipe = {.length_m = 20.0}, .flow_m3_s = 0.03};
  shape.soilRadius_m = 1.0;
  shape.slices = slices;
  shape.rings = rings;
  Network net;
  const int intake = net.addBoundary("intake", Driver::constant(2.0));
  const PipeRun run = addPipeRun(net, "pipe", shape, {intake}, {}, 14.0, {});
  Solver s = *Solver::prepare(net);
  for (int i = 0; i < 72; ++i) s.advance(600.0);
  return {-s.balance().storageChange_J, s.temperature_C(run.air.back())};
}

TEST(PipeRun, TheProductsMeshIsNearAFineOne) {
  const auto [coarse_J, coarse_C] = night(3, 4);
  const auto [fine_J, fine_C] = night(24, 40);
  const auto [middle_J, middle_C] = night(6, 8);
  EXPECT_NEAR(coarse_J, fine_J, 0.06 * fine_J); // what three slices and four rings cost: far below what is known of a soil
  EXPECT_NEAR(coarse_C, fine_C, 0.5);
  EXPECT_LT(std::abs(middle_J - fine_J), std::abs(coarse_J - fine_J));
}

TEST(PipeRun, VapourThatCondensesIsCountedOnce) {
  // warm damp air through a pipe whose face is held cold: the heat it loses is that of moist air cooled to what comes out
  PipeRunShape shape{.pipe = {.length_m = 15.0}, .flow_m3_s = 0.03};
  shape.soilRadius_m = shape.pipe.outer_m / 2.0 * 1.0001; // no soil between
  shape.rings = 1;
  shape.slices = 6;
  Network net;
  const double ratio = humidityRatio(0.8 * saturationPressure_Pa(28.0));
  const int intake = net.addBoundary("intake", Driver::constant(28.0));
  const int damp = net.addBoundary("intake vapour", Driver::constant(1000.0 * ratio));
  const int cold = net.addBoundary("soil", Driver::constant(10.0));
  const PipeRun run = addPipeRun(net, "pipe", shape, {intake, damp}, {}, 12.0, {cold});
  Solver s = *Solver::prepare(net);
  for (int i = 0; i < 200; ++i) s.advance(600.0);
  const double before_J = s.balance().boundary_J[static_cast<std::size_t>(cold)];
  s.advance(600.0);
  const double heat_W = -(s.balance().boundary_J[static_cast<std::size_t>(cold)] - before_J) / 600.0;
  const double outlet_C = s.temperature_C(run.air.back());
  const double dryAir_kg_s = shape.flow_m3_s * shape.air.density_kg_m3;
  const double outletRatio = s.temperature_C(net.find("pipe 6 vapour")) / 1000.0;
  EXPECT_LT(outletRatio, ratio - 0.003);
  const double sensible = dryAir_kg_s * kAirHeat_J_kgK * (28.0 - outlet_C), latent = dryAir_kg_s * (ratio - outletRatio) * kEvaporation_J_kg;
  EXPECT_NEAR(heat_W, sensible + latent, 1e-3 * heat_W); // counted twice it would be half as much again
  // the same as air that leaves saturated, but for vapour's own warmth and the end that is not quite saturated
  EXPECT_NEAR(heat_W, coolMoistAir(28.0, 0.8, outlet_C, dryAir_kg_s, kStandardPressure_Pa).total_W, 0.05 * heat_W);
  EXPECT_LT(s.balance().closure(), 1e-9);
}

TEST(RadialSoil, CarriesWhatTheShapeFactorOfABuriedPipeSays) {
  // one pipe 1 m deep under ground at 0 degC: 2 pi k/ln(2 d/r)
  const double k = 1.5, radius = 0.055, depth = 1.0;
  Network net;
  const int surface = net.addBoundary("surface", Driver::constant(0.0));
  const RadialSoil soil = addRadialSoil(net, "soil", {1.0, radius, 2.0 * depth, k, 2e6, 6}, 10.0, surface);
  net.sources.push_back({soil.face(), Driver::constant(10.0), "pipe"});
  Solver s = *Solver::prepare(net);
  ASSERT_TRUE(s.solveSteady());
  EXPECT_NEAR(s.temperature_C(soil.face()), 10.0 * pipeRowResistance_mK_W(radius, depth, 1000.0, k), 0.02);
  EXPECT_NEAR(pipeRowResistance_mK_W(radius, depth, 1000.0, k), std::log(2.0 * depth / radius) / (2.0 * kPi * k), 1e-3);
}

TEST(RadialSoil, ARowOfManyPipesLeadsLessEachThanOneAlone) {
  EXPECT_GT(pipeRowResistance_mK_W(0.055, 0.6, 0.3, 1.5), pipeRowResistance_mK_W(0.055, 0.6, 5.0, 1.5));
  EXPECT_TRUE(std::isfinite(pipeRowResistance_mK_W(0.055, 4.0, 0.08, 1.5)));
}

} // namespace
} // namespace muffle
