// SPDX-License-Identifier: GPL-3.0-or-later
//
// Freezing water against calorimetry and against Neumann's front.
#include "core/network/freezing.h"

#include "core/network/network_json.h"
#include "core/network/solver.h"
#include "tests/support/near.h"
#include "words/words.h"

namespace muffle {
namespace {

constexpr double kLatent_J = 20.0 * 334e3;

/// Twenty litres behind 1.5 W/K in a frost of -8 degC.
Network bucket() {
  Network net;
  const int water = net.addNode("water", 20.0 * kWaterHeat_J_kgK, 12.0);
  net.nodes.back().water = FreezingWater{kLatent_J, 0.05, 20.0 * 2100.0};
  net.addConductance(water, net.addBoundary("frost", Driver::constant(-8.0)), 1.5);
  return net;
}

TEST(Freezing, ABucketStandsAtZeroForAsLongAsItsLatentHeatLasts) {
  const Network net = bucket();
  Solver s = *Solver::prepare(net);
  double zero = -1.0, frozen = -1.0;
  for (double t = 0.0; t < 8e5; t += 600.0) {
    s.advance(600.0);
    if (zero < 0.0 && s.temperature_C(0) <= 0.0) zero = t;
    if (frozen < 0.0 && s.temperature_C(0) < -0.05) frozen = t;
  }
  const double cooling_s = 20.0 * kWaterHeat_J_kgK / 1.5 * std::log(20.0 / 8.0);
  EXPECT_CLOSE(zero, cooling_s, 600.0, "a step");
  EXPECT_CLOSE(frozen - zero, kLatent_J / (1.5 * 8.0), 0.01 * kLatent_J / 12.0, "half of the interval of 0.05 K less drive, and a step");
  EXPECT_LT(s.balance().closure(), 1e-12);
}

TEST(Freezing, AndThawingGivesAllOfItBack) {
  Network net = bucket();
  Signal week;
  week.value = {-8.0, -8.0, 9.0, 9.0};
  week.t_s = {0.0, 4e5, 4.1e5, 3e6};
  net.nodes[1].boundary = Driver::table(net.addSignal(week));
  Solver s = *Solver::prepare(net);
  double coldest = 99.0;
  for (double t = 0.0; t < 2.4e6; t += 600.0) {
    s.advance(600.0);
    coldest = std::min(coldest, s.temperature_C(0));
  }
  EXPECT_LT(coldest, 0.0);
  EXPECT_CLOSE(s.temperature_C(0), 9.0, 0.01, "many of its own times later");
  const EnergyBalance b = s.balance();
  EXPECT_LT(b.closure(), 1e-11) << "rounding of 4000 steps";
  EXPECT_CLOSE(b.storageChange_J / (20.0 * kWaterHeat_J_kgK * -3.0), 1.0, 0.01, "only the sensible heat between 12 and 9 degC is gone");
}

TEST(Freezing, AFrontSinksIntoMoistSoilAsNeumannSays) {
  // frozen k 2.0 C 1.9e6, thawed k 1.4 C 2.6e6, 80 MJ/m3, -6 degC on soil at 5 degC; similarity solution, 0.221 x 2 sqrt(a t)
  Network net;
  const int surface = net.addBoundary("surface", Driver::constant(-6.0));
  const int deep = net.addBoundary("deep", Driver::constant(5.0));
  Solid soil{.id = "soil", .area_m2 = 1.0, .from = surface, .to = deep, .initial_C = 5.0};
  soil.layers = {{2.0, 1.4, 1300.0, 2000.0, 200, 80e6, 2.0, 1.9e6, 0.05}, {6.0, 1.4, 1300.0, 2000.0, 60, 80e6, 2.0, 1.9e6, 0.05}};
  net.addSolid(soil);
  Solver s = *Solver::prepare(net);
  for (double t = 0.0; t < 30.0 * 86400.0; t += 600.0) ASSERT_TRUE(s.advance(600.0));
  double front = 0.0;
  for (int c = 1; c < 199; ++c) { // the last cell ends on the layer
    const double above = s.temperature_C(net.find("soil:0." + std::to_string(c)));
    const double below = s.temperature_C(net.find("soil:0." + std::to_string(c + 1)));
    if (above < 0.0 && below >= 0.0) front = 0.01 * (c + above / (above - below));
  }
  EXPECT_CLOSE(front, 0.7314, 0.015, "two per cent: cells of a centimetre");
  EXPECT_LT(s.balance().closure(), 1e-10);
}

TEST(FreezingNodes, LayTheHeatOfAJumpOutAlongTheCurve) {
  // 1000 J/K thawed, 500 J/K frozen, 20 kJ over half a kelvin: -0.5 degC lies 20.5 kJ below 0 degC thawed
  FreezingNodes nodes;
  nodes.add(0, 1000.0, {20e3, 0.5, 500.0});
  std::vector<double> capacity{0.0};
  const std::vector<double> before{4.0};
  nodes.start(before, capacity);
  EXPECT_DOUBLE_EQ(capacity[0], 1000.0);
  std::vector<double> T{-6.25}; // 4 K of it cool the water; the other 6.25 kJ freeze it in part
  EXPECT_CLOSE(nodes.overshoot_K(before, T), 6.25 - 6.25 / 41.0, 1e-12, "rounding");
  ASSERT_TRUE(nodes.settle(before, T, capacity));
  EXPECT_CLOSE(T[0], -6250.0 / 41000.0, 1e-12, "slope 1000 + 20000/0.5 J/K");
  EXPECT_DOUBLE_EQ(capacity[0], 41000.0);
  EXPECT_DOUBLE_EQ(nodes.frozen(0), 0.5);
  EXPECT_CLOSE(nodes.storage_J(before, T), -10250.0, 1e-9, "what a jump of 10.25 K takes");
  const std::vector<double> slush = T;
  T[0] -= 1.0; // 41 kJ more: 26.75 kJ past the end of the freezing
  ASSERT_TRUE(nodes.settle(slush, T, capacity));
  EXPECT_CLOSE(T[0], -0.5 - (41000.0 - (20500.0 - 6250.0)) / 500.0, 1e-9, "and the rest cools the ice");
  EXPECT_DOUBLE_EQ(nodes.frozen(0), 1.0);
  EXPECT_FALSE(nodes.settle(T, T, capacity)) << "nothing more to move";
  EXPECT_FALSE(nodes.holds(1));
}

TEST(Freezing, AStepTooLongForThinCellsIsHalved) {
  const auto front = [](double step_s) {
    Network net;
    Solid soil{.id = "soil", .area_m2 = 1.0, .from = net.addBoundary("surface", Driver::constant(-6.0)), .initial_C = 5.0};
    soil.to = net.addBoundary("deep", Driver::constant(5.0));
    soil.layers = {{0.4, 1.4, 1300.0, 2000.0, 80, 80e6, 2.0, 1.9e6, 0.05}}; // cells of half a centimetre know a minute, not ten
    net.addSolid(soil);
    Solver s = *Solver::prepare(net);
    while (s.time_s() < 2.0 * 86400.0) s.advance(step_s);
    for (int c = 1; c < 79; ++c) {
      const double above = s.temperature_C(net.find("soil:0." + std::to_string(c)));
      const double below = s.temperature_C(net.find("soil:0." + std::to_string(c + 1)));
      if (above < 0.0 && below >= 0.0) return 0.005 * (c + above / (above - below));
    }
    return 0.0;
  };
  EXPECT_CLOSE(front(600.0), front(60.0), 0.005, "a cell");
}

TEST(Freezing, OfANetworkIsWrittenAndReadBack) {
  Network net = bucket();
  net.links[0].frozenFactor = 1.4;
  const Json written = networkToJson(net);
  const auto again = networkFromJson(written);
  ASSERT_TRUE(again) << english(again.problem());
  EXPECT_EQ(networkToJson(*again), written);
  ASSERT_TRUE(again->nodes[0].water);
  EXPECT_DOUBLE_EQ(again->nodes[0].water->latent_J, kLatent_J);
}

TEST(Freezing, OfNothingIsRefused) {
  Network net = bucket();
  net.nodes[0].water->interval_K = 0.0;
  EXPECT_FALSE(Solver::prepare(net));
}

} // namespace
} // namespace muffle
