// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sizing/degree_more.h"

#include "core/plan/crop_stands.h"
#include "core/plan/heaters.h"
#include "tests/support/frost.h"
#include "tests/support/near.h"
#include "tests/support/random_house.h"
#include "words/words.h"

#include <vector>

namespace muffle {
namespace {

TEST(GrowthRate, IsOneAtTheBestAndNothingOutsideAndRisesToIt) {
  const GrowthResponse crop;
  EXPECT_CLOSE(growthRate(crop, crop.best_C), 1.0, 1e-12, "the beta function's peak");
  EXPECT_EQ(growthRate(crop, crop.base_C), 0.0);
  EXPECT_EQ(growthRate(crop, crop.tooWarm_C), 0.0);
  EXPECT_EQ(growthRate(crop, -5.0), 0.0);
  EXPECT_EQ(growthRate(crop, std::nan("")), 0.0);
  for (double at = crop.base_C + 0.5; at < crop.best_C; at += 0.5) EXPECT_GT(growthRate(crop, at), growthRate(crop, at - 0.5));
  for (double at = crop.best_C + 0.5; at < crop.tooWarm_C; at += 0.5) EXPECT_LT(growthRate(crop, at), growthRate(crop, at - 0.5));
  // by hand: base 2, best 18, too warm 32 at 10: (22/14) (8/16)^(16/14)
  EXPECT_CLOSE(growthRate(crop, 10.0), 22.0 / 14.0 * std::pow(0.5, 16.0 / 14.0), 1e-12, "closed form");
}

TEST(GrowthSum, BetweenItsPointsIsTheCurve) {
  for (const GrowthResponse& crop : {GrowthResponse{}, GrowthResponse{5.0, 24.0, 35.0, 10.0}, GrowthResponse{2.0, 10.0, 32.0, 10.0}})
    for (double at = crop.base_C - 1.0; at < crop.tooWarm_C + 1.0; at += 0.0137) {
      GrowthSum day(86400.0, crop);
      day.add(at, 1e6); // light enough
      EXPECT_NEAR(day.ofWholeDays().days, growthRate(crop, at), 2e-4) << at;
    }
}

TEST(GrowthWatch, CountsWhatTheSeriesSay) {
  Plan p = testing::filmTunnel();
  const auto weather = testing::frost(p.site);
  const Scene scene = makeScene(weather, p);
  const auto run = simulate(p, scene, {.series = true, .growth = true});
  ASSERT_TRUE(run && run->summary.growth);
  Growth ofSeries;
  for (std::size_t w = 0; w < run->series.size(); ++w)
    ofSeries += growthOver(run->series[w].air_C, run->series[w].light_W_m2, weather->winters[w].step_s, growthResponseOf(p));
  EXPECT_GT(ofSeries.days, 0.0);
  EXPECT_NEAR(run->summary.growth->days, ofSeries.days, 1e-5 * ofSeries.days) << "series have seven digits";
  EXPECT_NEAR(run->summary.growth->degreeHours_K_h, ofSeries.degreeHours_K_h, 1e-5 * ofSeries.degreeHours_K_h);
  EXPECT_EQ(run->summary.growth->all_d, ofSeries.all_d);
  EXPECT_EQ(simulate(p, scene)->summary.growth.has_value(), false) << "nobody asked";
}

TEST(GrowthOver, CountsTheLesserOfWarmthAndLight) {
  const GrowthResponse crop;
  const std::size_t steps = 3 * 144;
  const std::vector<float> warm(steps, 18.0F);
  const double enough_W_m2 = crop.enoughLight_mol_m2 / dailyLight_mol_m2(86400.0); // all day long
  const std::vector<float> half(steps, static_cast<float>(0.5 * enough_W_m2)), plenty(steps, static_cast<float>(2.0 * enough_W_m2));
  const Growth bright = growthOver(warm, plenty, 600.0), dim = growthOver(warm, half, 600.0);
  EXPECT_CLOSE(bright.days, 3.0, 1e-12, "three best days");
  EXPECT_EQ(bright.lightShort_d, 0.0);
  EXPECT_CLOSE(dim.days, 1.5, 1e-6, "light in single precision");
  EXPECT_EQ(dim.lightShort_d, 3.0);
  EXPECT_CLOSE(dim.warmthDays, 3.0, 1e-12, "warmth alone");
  EXPECT_CLOSE(bright.degreeHours_K_h, 3 * 24 * 16.0, 1e-9, "16 K above the base");
  EXPECT_EQ(growthOver(warm, plenty, 600.0).all_d, 3.0);
}

Plan heatedAt(double night_C) {
  Plan p = testing::filmTunnel();
  p.setpoints = {0.0, night_C, night_C + 1.0};
  addHeater(p, {.power_W = 30000.0});
  return p;
}

TEST(DegreeMore, TheSetpointIsMovedWithItsBandsAndTheDayIsNeverCooler) {
  Plan p = heatedAt(4.0);
  EXPECT_EQ(withNightSetpoint(p, 4.0), p) << "its own changes nothing";
  const Plan warmer = withNightSetpoint(p, 9.0);
  EXPECT_EQ(warmer.setpoints.night_C, 9.0);
  EXPECT_EQ(warmer.setpoints.day_C, 9.0);
  EXPECT_EQ(warmer.setpoints.hold_C, p.setpoints.hold_C) << "the line stays";
  p.setpoints.nightBands = {{-10.0, 3.0}, {0.0, 6.0}};
  EXPECT_EQ(nightSetpoint_C(p), 3.0);
  const Plan bands = withNightSetpoint(p, 5.0);
  EXPECT_EQ(bands.setpoints.nightBands[0].setpoint_C, 5.0);
  EXPECT_EQ(bands.setpoints.nightBands[1].setpoint_C, 8.0);
  EXPECT_EQ(bands.setpoints.day_C, 8.0);
}

TEST(DegreeMore, EveryDegreeCostsHeatAndMissesNoMoreNightsAndTheSamePointIsTheSameRun) {
  const Plan p = heatedAt(4.0);
  const auto weather = testing::frost(p.site);
  const auto points = degreeMore(p, weather);
  ASSERT_TRUE(points);
  ASSERT_GE(points->size(), 10U);
  for (std::size_t i = 1; i < points->size(); ++i) {
    EXPECT_CLOSE((*points)[i].night_C - (*points)[i - 1].night_C, 1.0, 1e-9, "a degree apart");
    EXPECT_GT((*points)[i].heater_kWh, (*points)[i - 1].heater_kWh);
    EXPECT_GE((*points)[i].held, (*points)[i - 1].held);
    if ((*points)[i].night_C < GrowthResponse().best_C) {
      EXPECT_GE((*points)[i].growth_d, (*points)[i - 1].growth_d - 1e-9) << "below the best a degree never slows";
    }
    EXPECT_LE((*points)[i].night_C, p.house.ventOpens_C) << "the vents would be met";
  }
  const Simulation run = *simulate(p, makeScene(weather, p));
  for (const DegreePoint& q : *points)
    if (q.night_C == 4.0) { EXPECT_EQ(q.heater_kWh, run.summary.heater_kWh / run.summary.winters); }
}

TEST(DegreeMore, RandomHousesKeepTheLaw) {
  for (unsigned seed = 0; seed < testing::kManyHouses; seed += 30) {
    Plan p = testing::randomPlan(seed);
    if (heaterPower_W(p, {HeaterPlace::Of::house}) <= 0.0) addHeater(p, {.power_W = 20000.0});
    if (!check(p).empty()) continue;
    const auto points = degreeMore(p, testing::randomWeather(seed, p));
    ASSERT_TRUE(points) << seed << english(points.problem());
    for (std::size_t i = 1; i < points->size(); ++i)
      EXPECT_GE((*points)[i].heater_kWh, (*points)[i - 1].heater_kWh * 0.997 - 0.05) << seed << ": a run is off by less";
  }
}

TEST(DegreeMore, AHouseWithoutAHeaterIsToldSo) {
  const Plan p = testing::filmTunnel();
  const auto points = degreeMore(p, testing::frost(p.site));
  ASSERT_FALSE(points);
  EXPECT_NE(english(points.problem()).find("heater"), std::string::npos);
}

} // namespace
} // namespace muffle
