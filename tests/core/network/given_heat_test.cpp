// SPDX-License-Identifier: GPL-3.0-or-later
//
// Heat that comes by a curve known beforehand, and signals whose next change is.
#include "core/network/given_heat.h"
#include "core/network/solver.h"

#include "tests/support/near.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

namespace muffle::given_heat_test {
namespace {

constexpr std::size_t kSteps = 288;
constexpr double kHeatStep_s = 600.0;

/// A walk between 0 and 5 kW, straight between steps.
GivenHeat walk(std::mt19937& random, double most_W) {
  std::uniform_real_distribution<double> turn(-1.0, 1.0), chance(0.0, 1.0);
  GivenHeat heat{kHeatStep_s, {{}}, 0.02 * most_W, 0.6 * most_W};
  double slope = 0.0;
  while (heat.parts.size() < kSteps) {
    if (chance(random) < 0.1) slope = turn(random) * 0.4 * most_W;
    GivenHeat::Part& last = heat.parts.back();
    const double next_W = std::clamp(last.at_W + slope, 0.0, most_W);
    last.mean_W = 0.5 * (last.at_W + next_W);
    heat.parts.push_back({next_W, 0.0});
  }
  return heat;
}

TEST(GivenHeat, AnyTwoSpansGiveWhatTheirWholeGives) {
  std::mt19937 random(5);
  const GivenHeat heat = walk(random, 5000.0);
  std::uniform_real_distribution<double> at(0.0, kSteps * kHeatStep_s);
  for (int k = 0; k < 1000; ++k) {
    std::array<double, 3> t{at(random), at(random), at(random)};
    std::sort(t.begin(), t.end());
    EXPECT_CLOSE(heat.energy_J(t[0], t[1]) + heat.energy_J(t[1], t[2]), heat.energy_J(t[0], t[2]), 1.0, "rounding of 1e9 J");
  }
  EXPECT_EQ(heat.energy_J(kSteps * kHeatStep_s, 2.0 * kSteps * kHeatStep_s), 0.0) << "nothing beyond";
  EXPECT_TRUE(heat.steps((kSteps - 2) * kHeatStep_s, kHeatStep_s).isLast);
  EXPECT_FALSE(heat.steps((kSteps - 3) * kHeatStep_s, kHeatStep_s).isLast);
  for (const double h : {kHeatStep_s, 60.0, 450.0}) { // the grid's own step is read straight off
    const GivenHeat::Steps steps = heat.steps(40.0 * kHeatStep_s, h);
    EXPECT_CLOSE(steps.energy_J, heat.energy_J(40.0 * kHeatStep_s, 40.0 * kHeatStep_s + h), 1e-6, "rounding");
    EXPECT_CLOSE(steps.nextEnergy_J, heat.energy_J(40.0 * kHeatStep_s + h, 40.0 * kHeatStep_s + 2.0 * h), 1e-6, "rounding");
    EXPECT_CLOSE(steps.end_W, heat.power_W(40.0 * kHeatStep_s + h), 1e-6, "rounding");
    EXPECT_CLOSE(steps.nextEnd_W, heat.power_W(40.0 * kHeatStep_s + 2.0 * h), 1e-6, "rounding");
  }
}

TEST(GivenHeat, IsGivenToTheJouleHoweverItsCurveBends) {
  std::mt19937 random(7);
  for (int n = 0; n < 20; ++n) {
    const auto heat = std::make_shared<const GivenHeat>(walk(random, 5000.0));
    Network net;
    const int out = net.addBoundary("out", Driver::constant(-5.0)), room = net.addNode("room", 300e3, 5.0), wall = net.addNode("wall", 4e6, 5.0);
    net.addConductance(room, out, 150.0);
    net.addConductance(room, wall, 60.0);
    net.addConductance(wall, out, 10.0);
    net.thermostats.push_back({.id = "fire", .sensor = room, .heats = room, .setpoint_C = 500.0, .power_W = 5000.0});
    net.thermostats.push_back({.id = "heater", .sensor = room, .heats = room, .setpoint_C = 8.0, .power_W = 3000.0});
    auto solver = Solver::prepare(net, {.multistep = true});
    solver->setGiven(0, heat);
    double most_J = 0.0;
    for (std::size_t i = 1; i < kSteps; ++i) {
      ASSERT_TRUE(solver->advance(kHeatStep_s));
      const double owed_J = heat->energy_J(0.0, solver->time_s()) - solver->balance().thermostat_J[0];
      most_J = std::max(most_J, std::abs(owed_J));
    }
    const EnergyBalance balance = solver->balance();
    EXPECT_CLOSE(balance.thermostat_J[0], heat->energy_J(0.0, kSteps * kHeatStep_s), 1.0, "rounding of 1e9 J: nothing is owed as it ends");
    EXPECT_LT(most_J, 0.5 * 5000.0 * kHeatStep_s) << "and on the way not half of what a step may give";
    EXPECT_LT(balance.closure(), 1e-9);
    EXPECT_GT(solver->doubleSteps(), 20);
  }
}

TEST(Signal, NextChangeIsWhereItsValueIsFirstAnother) {
  std::mt19937 random(11);
  std::uniform_int_distribution<int> pick(0, 2);
  for (int n = 0; n < 200; ++n) {
    const bool isRegular = n % 2 == 0;
    Signal s;
    s.hold = true;
    s.start_s = 1200.0;
    double t = s.start_s;
    for (int k = 0; k < 30; ++k) {
      s.value.push_back(pick(random));
      if (!isRegular) s.t_s.push_back(t);
      t += isRegular ? 600.0 : 60.0 * (1 + pick(random));
    }
    if (isRegular) s.step_s = 600.0;
    for (double at = 0.0; at < t + 1200.0; at += 30.0) {
      const double change = s.nextChange_s(at);
      ASSERT_GT(change, at);
      for (double later = at; later < std::min(change, t + 1200.0); later += 30.0) ASSERT_EQ(s.at(later), s.at(at)) << later;
      if (std::isfinite(change)) { ASSERT_NE(s.at(change), s.at(at)); }
    }
  }
}

TEST(Signal, OfOneThatDoesNotHoldTheNextChangeIsNow) {
  Signal s;
  s.value = {1.0, 1.0, 2.0};
  s.step_s = 600.0;
  EXPECT_EQ(s.nextChange_s(100.0), 100.0);
}

} // namespace
} // namespace muffle::given_heat_test
