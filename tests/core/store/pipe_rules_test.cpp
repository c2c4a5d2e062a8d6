// SPDX-License-Identifier: GPL-3.0-or-later
//
// What growers go by for pipe in the ground, and where each rule fails.
#include "core/network/solver.h"
#include "core/sizing/pipe_rules.h"
#include "core/store/pipe_run.h"

#include "tests/support/yard.h"

#include <gtest/gtest.h>

#include <cmath>

namespace muffle {
namespace {

Plan yard(const char* soil) {
  Plan p = testing::yard();
  p.house.floor.soil = soil;
  return p;
}

PipeNight night(const Plan& plan, GroundPipes pipes, double length_m, double soil_C = 10.0) {
  return pipeNights(plan, pipes, 3.0, soil_C, 12.0, {length_m}).front();
}

TEST(PipeRules, ReproduceTheirTables) {
  const HouseShape shape = yard("loam").house.shape;
  const auto rules = pipeRules(shape);
  ASSERT_EQ(rules.size(), 2u);
  EXPECT_NEAR(rules[0].length_m, shape.cover_m2() / rules[0].divisor_m, 1e-9);
  EXPECT_NEAR(rules[1].length_m, shape.floor_m2() / rules[1].divisor_m, 1e-9);
  for (const PipeRule& r : rules) EXPECT_TRUE(r.low_m < r.divisor_m && r.divisor_m < r.high_m);
}

TEST(PipeRules, TheEnvelopesRuleIsTwiceTooMuchInLoamAndNotInDrySand) {
  const double length = pipeRules(yard("loam").house.shape)[0].length_m / 6.0;
  const auto half = [&](const char* soil) { return night(yard(soil), {}, length / 2.0).heat_kWh / night(yard(soil), {}, length).heat_kWh; };
  EXPECT_GT(half("loam"), 0.93);     // half the metres give nearly all of a night's heat
  EXPECT_LT(half("sand-dry"), 0.87); // here they do not
}

TEST(PipeRules, TheFloorsRuleDoesNotKnowTheFan) {
  GroundPipes weak, strong;
  weak.place = strong.place = PipePlace::beside;
  weak.count = strong.count = 1;
  weak.depth_m = strong.depth_m = 1.6;
  weak.fan_Pa = 40.0;
  strong.fan_Pa = 600.0;
  const double length = pipeRules(yard("loam").house.shape)[1].length_m;
  const PipeNight a = night(yard("loam"), weak, length), b = night(yard("loam"), strong, length);
  EXPECT_GT(b.heat_kWh, 1.3 * a.heat_kWh);   // more air through the same metres
  EXPECT_LT(b.lastOutlet_C, a.lastOutlet_C); // and it comes out colder
}

TEST(PipeRules, MorePipeGivesLessAndLessForEachMetre) {
  const auto nights = pipeNights(yard("loam"), {}, 3.0, 10.0, 12.0, {4.0, 8.0, 16.0});
  EXPECT_GT(nights[1].heat_kWh, nights[0].heat_kWh);
  EXPECT_GT(nights[0].heat_kWh / 4.0, nights[1].heat_kWh / 8.0);
  EXPECT_GT(nights[1].heat_kWh / 8.0, nights[2].heat_kWh / 16.0);
}

TEST(Ground, IsNotConstantACoupleOfMetresDown) {
  Plan p = yard("loam");
  p.site.groundAmplitude_K = 10.0;
  const GroundSwing two = groundSwing(p, 2.0), eight = groundSwing(p, 8.0);
  EXPECT_GT(two.swing_K, 2.5); // of ten at the surface
  EXPECT_LT(eight.swing_K, 0.6);
  EXPECT_GT(two.lag_days, 30.0);
  EXPECT_NEAR(groundSwing(p, depthOfSwing_m(p, 0.5)).swing_K, 0.5, 1e-12);
  EXPECT_EQ(depthOfSwing_m(p, 11.0), 0.0); // more than the surface's own
}

TEST(PipeRun, OverASeasonThePipesFaceFollowsTheLineSource) {
  // 10 W a metre for ninety days: rings of the product against q/(4 pi k) E1(r^2/4at)
  const double k = 1.5, heat = 2.2e6, r = 0.055, time = 90.0 * 86400.0, q = 10.0;
  const auto face = [&](int rings) {
    Network net;
    const RadialSoil soil = addRadialSoil(net, "soil", {1.0, r, 25.0, k, heat, rings}, 0.0);
    net.sources.push_back({soil.face(), Driver::constant(q), "pipe"});
    Solver s = *Solver::prepare(net);
    while (s.time_s() < time - 1.0) s.advance(3600.0);
    return s.temperature_C(soil.face());
  };
  const double line = q / (4.0 * kPi * k) * -std::expint(-r * r * heat / (4.0 * k * time));
  EXPECT_NEAR(face(64), line, 0.01 * line);
  EXPECT_NEAR(face(16), line, 0.03 * line); // coarse rings over 25 m
  EXPECT_LT(std::abs(face(32) - line), std::abs(face(8) - line));
}

} // namespace
} // namespace muffle
