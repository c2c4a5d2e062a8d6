// SPDX-License-Identifier: GPL-3.0-or-later
//
// Heaters under covers, in benches and through them, and thermostats that feel leaves.
#include "core/plan/heaters.h"
#include "core/results/heat_sources.h"
#include "core/simulate/simulate.h"
#include "tests/support/frost.h"
#include "tests/support/near.h"
#include "tests/support/random_house.h"
#include "words/words.h"

#include <algorithm>
#include <numeric>

namespace muffle {
namespace {

Simulation placedRun(const Plan& plan) {
  EXPECT_TRUE(check(plan).empty()) << english(check(plan).front());
  auto run = simulate(plan, makeScene(testing::frost(plan.site), plan), {.series = true});
  EXPECT_TRUE(run) << (run ? "" : english(run.problem()));
  return std::move(*run);
}

MassBlock bench() { return {.kind = MassKind::bench, .material = MassMaterial::earth, .area_m2 = 6.0, .thickness_m = 0.4, .width_m = 0.7}; }

double coldest_C(const std::vector<float>& series) { return static_cast<double>(*std::min_element(series.begin() + 144, series.end())); }

TEST(HeaterPlaces, ATubeUnderACoverHoldsThatAirForAFractionOfTheHouse) {
  Plan p = testing::filmTunnel();
  p.house.bedCovers.push_back({.count = 2, .width_m = 1.2, .length_m = 8.0, .liftedByDay = false});
  Plan whole = p;
  addHeater(p, {.kind = HeaterKind::tube, .place = {HeaterPlace::Of::bed, 0}, .power_W = 4000.0, .holds_C = 5.0});
  const Simulation bed = placedRun(p);
  EXPECT_LT(bed.summary.closure, 1e-9);
  EXPECT_CLOSE(coldest_C(bed.series[0].rooms[0].air_C), 5.0, 0.05, "held, to what the solver's steps are off by");
  whole.setpoints = {0.0, 5.0, 5.0};
  addHeater(whole, {.power_W = 30000.0});
  const Simulation house = placedRun(whole);
  EXPECT_LT(bed.summary.heater_kWh, 0.7 * house.summary.heater_kWh) << "only the beds";
  EXPECT_LT(bed.summary.coldest_C, house.summary.coldest_C);
}

TEST(HeaterPlaces, AMatHoldsWhatItLiesInAndItsHeatComesOutOfTheBench) {
  Plan p = testing::filmTunnel();
  p.mass = {bench()};
  p.mass[0].thickness_m = 0.2;
  const Simulation cold = placedRun(p);
  addHeater(p, {.kind = HeaterKind::electric, .place = {HeaterPlace::Of::mass, 0}, .power_W = 1500.0, .holds_C = 18.0});
  const Simulation warm = placedRun(p);
  EXPECT_LT(warm.summary.closure, 1e-9);
  const auto mean_C = [](const Simulation& run) { // of its surface, over the last two days: warmth takes one or two to come up through it
    const auto& T = run.series[0].stores[0].temperature_C[1];
    return std::accumulate(T.end() - 288, T.end(), 0.0) / 288.0;
  };
  EXPECT_GT(mean_C(warm), mean_C(cold) + 2.0);
  EXPECT_GT(warm.series[0].stores[0].temperature_C[0].back(), cold.series[0].stores[0].temperature_C[0].back() + 5.0F) << "and within it";
  EXPECT_GT(warm.summary.coldest_C, cold.summary.coldest_C) << "the room has it in the end";
  EXPECT_EQ(warm.summary.heater_kWh, 0.0) << "which no heater of the room gives";
  EXPECT_GT(warm.summary.ledger.heat_kWh(MeterUse::tankHeater, 0), 10.0);
  EXPECT_GT(warm.summary.ledger.sum(Metered::electricity, MeterUse::tankHeater, 0), 10.0) << "and is billed";
}

Plan stoveHouse(int through) {
  Plan p = testing::filmTunnel();
  p.setpoints = {0.0, 2.0, 2.0};
  p.mass = {bench()};
  addHeater(p, {.id = "stove",
                .kind = HeaterKind::massStove,
                .power_W = 12000.0,
                .from_h = 18.0,
                .stoking = {.load_kg = 8.0, .loads = 2, .every_h = 1.5},
                .through = through,
                .massShare = 0.7});
  return p;
}

TEST(HeaterPlaces, AFlueThroughABenchTakesTheEveningsHeatIntoTheSmallHours) {
  const Simulation straight = placedRun(stoveHouse(0)), through = placedRun(stoveHouse(1));
  EXPECT_LT(through.summary.closure, 1e-9);
  EXPECT_CLOSE(straight.summary.heater_kWh, through.summary.heater_kWh, 1e-9 * straight.summary.heater_kWh, "the same wood");
  const auto at = [](const Simulation& run, double hour) { // mean over the nights from the second on
    double sum = 0.0;
    for (int night = 1; night < 5; ++night) sum += static_cast<double>(run.series[0].air_C[static_cast<std::size_t>((24.0 * night + hour) * 6.0)]);
    return sum / 4.0;
  };
  EXPECT_GT(at(straight, 20.0), at(through, 20.0) + 2.0) << "less of it at once";
  EXPECT_GT(at(through, 30.0), at(straight, 30.0) + 0.3) << "and more at six in the morning";
  EXPECT_GT(through.summary.coldest_C, straight.summary.coldest_C);
}

TEST(HeaterPlaces, WhatGoesIntoTheBenchIsCountedAsTheBenchGivesIt) {
  const Plan p = stoveHouse(1);
  const Simulation run = placedRun(p);
  const auto sources = heatBySource(p, run.series[0], run.ledgers[0], 600.0, 144, 5 * 144, 1);
  double stove_kWh = 0.0, bench_kWh = 0.0, all_W = 0.0;
  for (const HeatSource& s : sources) {
    if (s.of == HeatSource::Of::heater) stove_kWh += s.sum_kWh();
    if (s.of == HeatSource::Of::store) bench_kWh += s.sum_kWh();
  }
  for (std::size_t i = 145; i <= 5 * 144; ++i) all_W += static_cast<double>(run.series[0].heater_W[i]);
  EXPECT_CLOSE(stove_kWh, all_W / 6000.0, 1e-3 * stove_kWh, "floats");
  EXPECT_CLOSE(stove_kWh, 0.3 * run.summary.heater_kWh * 4.0 / 5.0, 0.25 * stove_kWh, "three tenths of four fires in five, the first and last cut");
  EXPECT_GT(bench_kWh, stove_kWh) << "most of it";
}

TEST(HeaterPlaces, EnergyClosesForRandomHousesWithAStoveThroughABenchAndAMat) {
  unsigned tried = 0;
  for (unsigned seed = 900; tried < testing::kManyHouses / 10; ++seed) {
    testing::Chance chance(seed);
    Plan p = testing::randomPlan(seed);
    p.setpoints.night_C = p.setpoints.day_C = 3.0;
    MassBlock block{.kind = chance.oneOf({MassKind::bench, MassKind::wall, MassKind::path, MassKind::raisedBed}),
                    .material = chance.oneOf({MassMaterial::earth, MassMaterial::stone})};
    block.area_m2 = 0.15 * p.house.shape.floor_m2();
    block.thickness_m = chance.between(0.05, 0.5);
    block.width_m = 0.3;
    p.mass = {block};
    addHeater(p, {.id = "stove",
                  .kind = chance.oneOf({HeaterKind::massStove, HeaterKind::woodStove}),
                  .power_W = 100.0 * p.house.shape.floor_m2(),
                  .stoking = {.load_kg = 0.2 * p.house.shape.floor_m2()},
                  .through = 1,
                  .massShare = chance.between(0.0, 1.0)});
    addHeater(p, {.id = "mat", .place = {HeaterPlace::Of::mass, 0}, .power_W = 15.0 * p.house.shape.floor_m2(), .holds_C = chance.between(5.0, 25.0)});
    if (chance.happens(0.5)) p.setpoints.felt = HeldTemperature::leaf;
    addHeater(p, {.id = "oil", .kind = HeaterKind::oil, .power_W = 60.0 * p.house.shape.floor_m2(), .boughtBy = "litre"});
    if (!check(p).empty()) continue;
    ++tried;
    const auto weather = testing::randomWeather(seed, p);
    const auto run = simulate(p, makeScene(weather, p), {.series = true});
    ASSERT_TRUE(run) << seed << ": " << english(run.problem());
    EXPECT_LT(run->summary.closure, 1e-8) << seed;
    for (const float t : run->series[0].stores[0].temperature_C[0]) ASSERT_LT(t, 400.0F) << seed;
  }
}

TEST(HeaterPlaces, AThermostatAmongTheLeavesHoldsThemAndTheAirAboveThem) {
  Plan p = testing::filmTunnel();
  p.setpoints = {0.0, 3.0, 3.0};
  addHeater(p, {.power_W = 30000.0});
  const Simulation air = placedRun(p);
  p.setpoints.felt = HeldTemperature::leaf;
  const Simulation leaf = placedRun(p);
  EXPECT_LT(leaf.summary.closure, 1e-9);
  EXPECT_CLOSE(coldest_C(leaf.series[0].leaf_C), 3.0, 0.06, "held, to what the solver's steps are off by");
  EXPECT_LT(coldest_C(air.series[0].leaf_C), 2.8) << "by the air they are not";
  EXPECT_GT(leaf.summary.heater_kWh, air.summary.heater_kWh);
  EXPECT_GT(leaf.summary.coldest_C, air.summary.coldest_C + 0.2);
}

} // namespace
} // namespace muffle
