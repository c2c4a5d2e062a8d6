// SPDX-License-Identifier: GPL-3.0-or-later
//
// A thermostat with a band goes on and off: against the closed form of a house of one node, and against a relay that the solver switches.
#include "core/run/air_response.h"

#include "core/assemble/assemble.h"
#include "core/network/solver.h"
#include "core/plan/heaters.h"
#include "core/simulate/heater_cycles.h"
#include "core/weather/weather.h"
#include "tests/support/frost.h"
#include "tests/support/near.h"
#include "tests/support/random_house.h"
#include "words/words.h"

#include <cmath>

namespace muffle {
namespace {

TEST(HeaterCycle, IsTheClassicRelaysInAHouseOfOneNode) {
  constexpr double kC = 600e3, kK = 150.0, kOut_C = -5.0, kSet_C = 5.0, kBand_K = 1.0, kSize_W = 4000.0;
  Network net;
  const int air = net.addNode("air", kC, kSet_C), out = net.addBoundary("out", Driver::constant(kOut_C));
  net.addConductance(air, out, kK);
  net.thermostats.push_back({.id = "heater", .sensor = air, .heats = air, .setpoint_C = kSet_C, .power_W = kSize_W});
  const std::vector<double> now{kSet_C, kOut_C};
  const auto response = airResponse(net, 0.0, now, 0);
  ASSERT_TRUE(response);
  EXPECT_CLOSE(response->after(600.0), -std::expm1(-kK * 600.0 / kC) / kK, 2e-3 / kK, "the solver's steps of half a minute");
  const double load_W = kK * (kSet_C - kOut_C);
  const auto cycle = cycleOf({.power_W = kSize_W, .band_K = kBand_K}, *response, load_W, kSize_W);
  ASSERT_TRUE(cycle);
  // the air's own way between the thresholds
  const double low = kSet_C - kBand_K / 2.0, high = kSet_C + kBand_K / 2.0, balance_C = kOut_C + kSize_W / kK;
  const double on_s = kC / kK * std::log((balance_C - low) / (balance_C - high)), off_s = kC / kK * std::log((high - kOut_C) / (low - kOut_C));
  EXPECT_CLOSE(cycle->run_s, on_s, 0.06 * on_s, "the load is taken as that at the setpoint all along: half a band in ten kelvin");
  EXPECT_CLOSE(cycle->rest_s, off_s, 0.06 * off_s, "as above");
  EXPECT_CLOSE(cycle->run_s / (cycle->run_s + cycle->rest_s), load_W / kSize_W, 0.02, "its duty");
  EXPECT_FALSE(cycleOf({.power_W = kSize_W}, *response, 4100.0, kSize_W)) << "at full stretch it stays on";
  EXPECT_FALSE(cycleOf({.power_W = kSize_W, .least = 0.3}, *response, 1500.0, kSize_W)) << "what it can give on end it gives on end";
  EXPECT_TRUE(cycleOf({.power_W = kSize_W, .least = 0.5}, *response, 1500.0, kSize_W));
}

TEST(HeaterCycle, AWiderBandASmallerHeaterAndAHeavierHouseMakeFewerStarts) {
  const auto starts = [](double C, double size_W, double band_K, double start_min) {
    Network net;
    const int air = net.addNode("air", C, 5.0), out = net.addBoundary("out", Driver::constant(-5.0));
    net.addConductance(air, out, 150.0);
    net.thermostats.push_back({.id = "heater", .sensor = air, .heats = air, .setpoint_C = 5.0, .power_W = size_W});
    const auto response = airResponse(net, 0.0, std::vector<double>{5.0, -5.0}, 0);
    const auto cycle = cycleOf({.power_W = size_W, .band_K = band_K, .startUp_min = start_min}, *response, 1500.0, size_W);
    return cycle ? 3600.0 / (cycle->run_s + cycle->rest_s) : 0.0;
  };
  const double usual = starts(600e3, 4000.0, 1.0, 0.0);
  EXPECT_LT(starts(600e3, 4000.0, 2.0, 0.0), usual);
  EXPECT_LT(starts(600e3, 3000.0, 1.0, 0.0), usual) << "what it has over the load warms the air more slowly";
  EXPECT_LT(starts(1200e3, 4000.0, 1.0, 0.0), usual);
  EXPECT_LT(starts(600e3, 4000.0, 1.0, 5.0), usual) << "one that lights slowly starts less often, and lets the air fall further";
}

/// Times an hour, of a relay that the solver switches by the air itself, from 2 h on.
double switched(const Plan& plan, const Winter& night, double band_K, double size_W) {
  Assembly assembly = assemble(plan, night, sunOnHouse(plan.house.shape, night), plan.setpoints.night_C);
  Thermostat& t = assembly.network.thermostats.front();
  t.mode = Thermostat::Mode::hysteresis;
  t.setpointSignal = t.limitSignal = -1;
  t.on_C = plan.setpoints.night_C - band_K / 2.0;
  t.off_C = plan.setpoints.night_C + band_K / 2.0;
  t.power_W = size_W;
  auto solver = Solver::prepare(std::move(assembly.network));
  if (!solver) return -1.0;
  constexpr double kFine_s = 20.0, kBefore_h = 2.0, kFor_h = 2.0;
  int before = 0;
  for (double t_s = 0.0; t_s < (kBefore_h + kFor_h) * 3600.0; t_s += kFine_s) {
    if (!solver->advance(kFine_s)) return -1.0;
    if (t_s < kBefore_h * 3600.0) before = solver->starts(0);
  }
  return (solver->starts(0) - before) / kFor_h;
}

TEST(HeaterCycle, IsNearARelaysInWholeHouses) {
  unsigned tried = 0;
  double logSum = 0.0;
  for (unsigned seed = 40; tried < testing::kManyHouses / 15; ++seed) {
    Plan p = testing::randomPlan(seed);
    p.setpoints.night_C = p.setpoints.day_C = 6.0;
    p.house.ventOpens_C = 25.0;
    p.house.ventFull_C = 30.0;
    const Winter night = steadyWinter(p.site, -6.0, 1.0, 0.5);
    const auto loss = steadyLoss(p, 6.0, -6.0, 1.0, 0.5);
    if (!loss || loss->total_W < 200.0) continue;
    const double size_W = 2.2 * loss->total_W;
    addHeater(p, {.power_W = size_W, .band_K = 1.0});
    if (!check(p).empty()) continue;
    ++tried;
    const Assembly assembly = assemble(p, night, sunOnHouse(p.house.shape, night), 6.0);
    std::vector<double> now;
    for (const Node& node : assembly.network.nodes) now.push_back(node.initial_C);
    const auto response = airResponse(assembly.network, 0.0, now, 0);
    ASSERT_TRUE(response) << seed;
    // what it gives on average in those hours
    Assembly held = assemble(p, night, sunOnHouse(p.house.shape, night), 6.0);
    auto solver = Solver::prepare(std::move(held.network));
    for (int i = 0; i < 24; ++i) ASSERT_TRUE(solver->advance(600.0));
    const double load_W = solver->lastPower_W(0);
    const auto cycle = cycleOf(p.heaters[0], *response, load_W, size_W);
    ASSERT_TRUE(cycle) << seed;
    const double relays = switched(p, night, 1.0, size_W), ours = 3600.0 / (cycle->run_s + cycle->rest_s);
    ASSERT_GT(relays, 0.0) << seed;
    // a relay's counts are whole numbers in two hours, and surfaces that swing with it make its cycles shorter than a first one from rest
    EXPECT_NEAR(std::log(ours / relays), 0.0, std::log(2.0)) << seed << ": " << ours << " for " << relays << " an hour";
    logSum += std::log(ours / relays);
  }
  EXPECT_NEAR(logSum / tried, 0.0, std::log(1.35)) << "and on average nearer";
}

Simulation bandRun(const Plan& plan) {
  EXPECT_TRUE(check(plan).empty()) << english(check(plan).front());
  return std::move(*simulate(plan, makeScene(testing::frost(plan.site), plan), {.series = true}));
}

Plan oilHouse() {
  Plan p = testing::filmTunnel();
  p.setpoints = {1.0, 3.0, 3.0};
  addHeater(p, {.id = "oil", .kind = HeaterKind::oil, .power_W = 12000.0, .fuelPrice_kWh = 0.1, .boughtBy = "litre"});
  return p;
}

TEST(HeaterCycles, ABandThatIsGivenLowersTheNightsAndCostsNothing) {
  Plan p = oilHouse();
  const Simulation exact = bandRun(p);
  p.heaters[0].band_K = 2.0;
  const Simulation banded = bandRun(p);
  EXPECT_EQ(exact.summary.heater_kWh, banded.summary.heater_kWh) << "its middle is the setpoint";
  EXPECT_CLOSE(exact.summary.coldest_C, 3.0, 0.02, "the setpoint, to what the solver's steps are off by");
  EXPECT_LT(banded.summary.coldest_C, exact.summary.coldest_C - 0.99) << "half the band, and what it falls while the burner lights";
  EXPECT_GT(banded.summary.coldest_C, 0.0);
  p.heaters[0].band_K = 6.0;
  EXPECT_LT(bandRun(p).summary.held, exact.summary.held) << "half of it reaches below the line";
}

TEST(HeaterCycles, ABigBurnerInALightHouseStartsTooOften) {
  Plan p = oilHouse();
  p.heaters[0].power_W = 40000.0;
  const Simulation run = bandRun(p);
  const auto weather = testing::frost(p.site);
  const auto cycles = heaterCycles(p, *weather, run);
  ASSERT_EQ(cycles.size(), 1U);
  EXPECT_TRUE(cycles[0].isShort()) << cycles[0].mean_run_s;
  EXPECT_GT(cycles[0].starts, 100.0);
  p.heaters[0].least = 0.05; // one that burns low
  EXPECT_TRUE(heaterCycles(p, *weather, bandRun(p)).empty() || heaterCycles(p, *weather, bandRun(p))[0].starts < cycles[0].starts);
  p.heaters = {};
  addHeater(p, {.kind = HeaterKind::woodStove, .power_W = 6000.0});
  EXPECT_TRUE(heaterCycles(p, *weather, bandRun(p)).empty()) << "nobody turns a fire on and off";
}

TEST(HeaterCycles, WhatItTakesAtRestAndAtLowLoadIsBilled) {
  Plan p = oilHouse();
  const Simulation plain = bandRun(p);
  const auto taken = [](const Simulation& s) { return s.summary.ledger.sum(Metered::fuel, MeterUse::heater, 0); };
  p.heaters[0].standby_W = 100.0;
  const Simulation resting = bandRun(p);
  const double days = resting.summary.winters * kWinterDays, most_kWh = 0.1 * 24.0 * days;
  EXPECT_GT(taken(resting), taken(plain) + 0.3 * most_kWh);
  EXPECT_LT(taken(resting), taken(plain) + most_kWh);
  EXPECT_EQ(resting.summary.heater_kWh, plain.summary.heater_kWh);
  float hours = 0.0F;
  for (const Meter& m : resting.ledgers[0].meters())
    if (m.of == Metered::fuel)
      for (const float h : m.hour) hours += h;
  EXPECT_CLOSE(static_cast<double>(hours), taken(resting), 1e-3 * taken(resting), "floats: the hours are what is billed");
  p.heaters[0].standby_W = 0.0;
  p.heaters[0].least = 0.2;
  p.heaters[0].partLoad = {{0.2, 0.5}, {1.0, 1.0}};
  const Simulation low = bandRun(p);
  EXPECT_GT(taken(low), taken(plain));
  EXPECT_LT(taken(low), 2.0 * taken(plain));
  EXPECT_CLOSE(partLoadFactor(p.heaters[0], 0.6), 0.75, 1e-12, "half way");
  p.heaters[0].from_h = 20.0;
  p.heaters[0].for_h = 2.0;
  p.heaters[0].partLoad.clear();
  p.heaters[0].standby_W = 100.0;
  EXPECT_LT(taken(bandRun(p)), taken(plain)) << "out of its hours it takes nothing";
}

} // namespace
} // namespace muffle
