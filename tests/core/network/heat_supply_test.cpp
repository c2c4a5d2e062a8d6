// SPDX-License-Identifier: GPL-3.0-or-later
//
// Thermostats whose heat is limited by a signal or goes to several nodes, and solvers that stop and go on.
#include "core/network/solver.h"

#include "tests/support/mixed_house.h"
#include "tests/support/near.h"
#include "tests/support/smooth_house.h"

#include <random>
#include <set>

namespace muffle {
namespace {

constexpr int kDay = 144; // steps of ten minutes
constexpr double kSupplyStep_s = 600.0;

struct Supplied {
  Network net;
  int room = -1, wall = -1;
};

/// A room held at 10 degC against 0 outside: 100 W/K through the cover, a wall that stores behind a film of 20 W/K.
Supplied suppliedRoom(double power_W) {
  Supplied s;
  const int out = s.net.addBoundary("out", Driver::constant(0.0));
  s.room = s.net.addNode("room", 300e3, 10.0);
  s.wall = s.net.addNode("wall", 4e6, 10.0);
  s.net.addConductance(s.room, out, 100.0);
  s.net.addConductance(s.room, s.wall, 20.0);
  s.net.addConductance(s.wall, out, 5.0);
  s.net.thermostats.push_back({.id = "heater", .sensor = s.room, .heats = s.room, .setpoint_C = 10.0, .power_W = power_W});
  return s;
}

Signal everyStep(std::vector<double> value, bool hold) {
  Signal s;
  s.step_s = kSupplyStep_s;
  s.hold = hold;
  s.value = std::move(value);
  return s;
}

TEST(HeatSupply, WhileTheMainsAreOffNothingIsGivenAndTheRoomCoolsAsItsOwnHeatLetsIt) {
  for (const bool multistep : {false, true}) {
    Supplied s = suppliedRoom(3000.0);
    std::vector<double> mains(static_cast<std::size_t>(kDay) + 1, 1.0);
    for (std::size_t i = 60; i < 96; ++i) mains[i] = 0.0; // from ten to sixteen hours
    s.net.thermostats[0].limitSignal = s.net.addSignal(everyStep(mains, true));
    Solver solver = *Solver::prepare(s.net, {.multistep = multistep});
    double coldest_C = 99.0;
    for (int i = 0; i < kDay; ++i) {
      ASSERT_TRUE(solver.advance(kSupplyStep_s));
      const bool off = mains[static_cast<std::size_t>(i)] == 0.0;
      if (off) { EXPECT_EQ(solver.lastPower_W(0), 0.0) << i; }
      if (!off && (i < 60 || i > 110)) { EXPECT_CLOSE(solver.temperature_C(s.room), 10.0, 0.02, "what a step may miss a setpoint by"); }
      coldest_C = std::min(coldest_C, solver.temperature_C(s.room));
    }
    EXPECT_LT(solver.balance().closure(), 1e-12);
    // the two nodes' own cooling for six hours, by fine steps of the same network without a heater
    Network bare = suppliedRoom(3000.0).net;
    bare.thermostats.clear();
    bare.nodes[static_cast<std::size_t>(s.wall)].initial_C = 8.0; // where the wall stands after long: 20 (10 - T) = 5 T
    Solver fine = *Solver::prepare(bare, {.newtonTolerance_K = 1e-7});
    for (int i = 0; i < 6 * 360; ++i) ASSERT_TRUE(fine.advance(10.0));
    EXPECT_CLOSE(coldest_C, fine.temperature_C(s.room), 0.25, "the wall is still on its way from 10 to 8 degC");
  }
}

TEST(HeatSupply, ACapacityThatFollowsTheWeatherIsNeverExceededAndHoldsWhereItIsEnough) {
  for (const bool multistep : {false, true}) {
    Supplied s = suppliedRoom(2000.0);
    std::vector<double> capacity;
    for (int i = 0; i <= 3 * kDay; ++i) capacity.push_back(0.5 + 0.45 * std::cos(2.0 * 3.14159265 * i / kDay)); // 100 to 1900 W
    s.net.thermostats[0].limitSignal = s.net.addSignal(everyStep(capacity, false));
    Solver solver = *Solver::prepare(s.net, {.multistep = multistep});
    int held = 0, limited = 0;
    for (int i = 0; i < 3 * kDay; ++i) {
      ASSERT_TRUE(solver.advance(kSupplyStep_s));
      const double most_W = 2000.0 * std::max(capacity[static_cast<std::size_t>(i)], capacity[static_cast<std::size_t>(i) + 1]);
      constexpr double kBends_W = 3.0; // the two-step method's mean of a step takes in the one before: 1.5 of what the capacity bends by, 1.7 W a step squared
      EXPECT_LE(solver.lastPower_W(0), most_W + (multistep ? kBends_W : 1e-6));
      const bool atSetpoint = solver.temperature_C(s.room) > 10.0 - 0.03;
      (atSetpoint ? held : limited) += 1;
      if (!atSetpoint && i > 0) {
        EXPECT_GE(solver.lastPower_W(0), 2000.0 * std::min(capacity[static_cast<std::size_t>(i)], capacity[static_cast<std::size_t>(i) + 1]) - 25.0) << i;
      }
    }
    EXPECT_GT(held, kDay);
    EXPECT_GT(limited, kDay);
    EXPECT_LT(solver.balance().closure(), 1e-12);
  }
}

TEST(HeatSupply, SharesGoWhereTheyAreSaidToGo) {
  // in the long run the wall takes its share P/2 and what the film brings: 100 T + 20 (T - W) = P/2, 20 (T - W) + P/2 = 5 W, T = 10
  const double film = 20.0, back = 5.0, cover = 100.0, T = 10.0;
  const double W = (cover * T + 2.0 * film * T) / (back + 2.0 * film); // both equations with P/2 eliminated
  const double power = 2.0 * (cover * T + film * (T - W));
  for (const bool multistep : {false, true}) {
    Supplied s = suppliedRoom(5000.0);
    s.net.thermostats[0].elsewhere = {{s.wall, 0.5}};
    Solver solver = *Solver::prepare(s.net, {.multistep = multistep});
    for (int i = 0; i < 30 * kDay; ++i) ASSERT_TRUE(solver.advance(kSupplyStep_s));
    EXPECT_CLOSE(solver.temperature_C(s.room), T, 2e-3, "what a stage may be off its setpoint");
    EXPECT_CLOSE(solver.temperature_C(s.wall), W, 1e-2, "thirty days are ten time constants of the wall");
    EXPECT_CLOSE(solver.lastPower_W(0), power, 4.0, "2e-3 K of a room that answers with 1 W for a millikelvin, twice");
    EXPECT_LT(solver.balance().closure(), 1e-12);
  }
  Supplied wrong = suppliedRoom(5000.0);
  wrong.net.thermostats[0].elsewhere = {{wrong.wall, 0.7}, {wrong.room, 0.6}};
  EXPECT_FALSE(Solver::prepare(wrong.net));
}

TEST(HeatSupply, StoppedAtAnyStepACopyGoesOnToTheLastBit) {
  std::mt19937 random(11);
  for (const Network& net : {smoothHouse(true), smoothHouse(false), mixedHouse()}) {
    Solver unbroken = *Solver::prepare(net, {.multistep = true});
    std::uniform_int_distribution<int> some(1, 3 * kDay - 1);
    std::set<int> stops;
    while (stops.size() < 34) stops.insert(some(random));
    std::vector<Solver> kept;
    for (int i = 0; i < 3 * kDay; ++i) {
      if (stops.contains(i)) kept.push_back(unbroken);
      ASSERT_TRUE(unbroken.advance(kSupplyStep_s));
    }
    auto at = stops.begin();
    for (Solver& solver : kept) {
      for (int i = *at++; i < 3 * kDay; ++i) ASSERT_TRUE(solver.advance(kSupplyStep_s));
      for (std::size_t n = 0; n < net.nodes.size(); ++n) ASSERT_EQ(solver.temperature_C(static_cast<int>(n)), unbroken.temperature_C(static_cast<int>(n)));
      EXPECT_EQ(solver.balance().throughput_J, unbroken.balance().throughput_J);
      EXPECT_EQ(solver.balance().thermostat_J, unbroken.balance().thermostat_J);
    }
  }
}

} // namespace
} // namespace muffle
