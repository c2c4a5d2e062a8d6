// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assemble/openings.h"

#include "core/house/infiltration.h"
#include "core/plan/plan_json.h"
#include "core/simulate/simulate.h"
#include "tests/support/frost.h"
#include "tests/support/near.h"
#include "words/words.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

namespace muffle::openings_test {
namespace {

/// Mild sunny days: 4 to 18 degrees outside.
std::shared_ptr<const Weather> spring(const Site& site) {
  Log log;
  Channel outside{.name = "outside", .role = Role::outside, .id = "", .unitIn = "C", .unitWhy = {}, .raw = {}, .flag = {}};
  for (int i = 0; i < 6 * 144; ++i) {
    log.time.push_back(daysSinceEpoch({2031, 4, 10}) * 86400 + 600 * i);
    outside.raw.push_back(static_cast<float>(11.0 + 7.0 * std::cos(kPi * (i / 6.0 - 14.0) / 12.0)));
  }
  outside.flag.assign(outside.raw.size(), 0);
  log.channels.push_back(outside);
  return std::make_shared<const Weather>(*weatherFromLog(log, site));
}

Plan house() {
  Plan p = testing::filmTunnel();
  p.house.shape = {.kind = ShapeKind::gable, .width_m = 8.0, .length_m = 20.0, .eave_m = 2.2, .ridge_m = 4.0};
  p.house.ventAirChanges_per_h = 0.0;
  p.house.airChanges_per_h = 0.2;
  p.house.windAirChanges = 0.05;
  p.house.crop = {.leafArea = 0.0, .wetFloor = 0.0}; // dry: water would carry the heat off
  p.house.floor.cover = "straw";                     // light: it does not store the day's sun
  p.house.floor.cover_m = 0.1;
  return p;
}

Simulation run(const Plan& p, const std::shared_ptr<const Weather>& weather) {
  EXPECT_TRUE(check(p).empty()) << english(check(p).front());
  return *simulate(p, makeScene(weather, p), {.series = true});
}

TEST(Openings, EachKeepsASunnyHouseCoolerAndTheEnergyCloses) {
  const Plan shut = house();
  const auto weather = spring(shut.site);
  const Simulation hot = run(shut, weather);
  ASSERT_GT(hot.summary.warmest_C, 32.0) << "or there is nothing to cool";
  ASSERT_GT(hot.summary.tooWarm_h, 0.0);
  std::vector<Plan> plans(3, shut);
  plans[0].house.rollUp = RollUpSides{};
  plans[1].house.extractFan = ExtractFan{.flow_m3_h = 15000.0, .above_C = 24.0, .power_W = 900.0};
  plans[2].house.retractable = RetractableRoof{};
  for (const Plan& p : plans) {
    const Simulation cool = run(p, weather);
    EXPECT_LT(cool.summary.warmest_C, hot.summary.warmest_C - 4.0);
    EXPECT_LT(cool.summary.tooWarm_h, hot.summary.tooWarm_h);
    EXPECT_LE(cool.summary.closure, 1e-6);
  }
}

TEST(ExtractFan, TakesElectricityOnlyWhileItRuns) {
  Plan p = house();
  const auto weather = spring(p.site);
  p.house.extractFan = ExtractFan{.flow_m3_h = 15000.0, .above_C = 24.0, .power_W = 900.0};
  const Simulation sunny = run(p, weather);
  EXPECT_GT(sunny.summary.fan_kWh, 0.0);
  EXPECT_LT(sunny.summary.fan_kWh, 0.9 * 12.0 * 6.0) << "less than all of six days' light";
  EXPECT_CLOSE(run(p, testing::frost(p.site)).summary.fan_kWh, 0.0, 1e-12, "frost never asks for it");
}

TEST(RolledSides, PassTheAirThatOpeningsOfTheirSizePass) {
  Winter w;
  w.outside_C = {10.0, 10.0};
  w.wind_m_s = {0.0, 3.0};
  const RollUpSides sides{.height_m = 1.0};
  const auto g = rolledUp_W_K(sides, 20.0, w, kStandardPressure_Pa);
  constexpr double kAir_J_m3K = 1.2468 * 1006.0; // at 10 degrees
  const double stack = 2.0 * 0.6 * 20.0 / 3.0 * std::sqrt(9.80665 * 5.0 / 285.65);
  EXPECT_CLOSE(g[0], kAir_J_m3K * stack, 0.005 * g[0], "the density's last digit");
  EXPECT_CLOSE(g[1], kAir_J_m3K * std::hypot(stack, 0.35 * 20.0 * 3.0), 0.005 * g[1], "the same");
}

TEST(RetractableRoof, OpensByDayInMildAirAndShutsForRainWindAndNight) {
  Winter w;
  w.step_s = 3600.0;
  w.outside_C = {12, 12, 12, 9.5, 8.5, 9.5, 12, 12};
  w.wind_m_s = {1, 1, 9, 1, 1, 1, 1, 1};
  w.rain_mm = {0, 0, 0, 0, 0, 0, 0, 0.4};
  w.nights = {{{2031, 4, 10}, 0, 1, true}};
  const RetractableRoof roof{.outsideAbove_C = 10.0};
  VentLock lock;
  lock.windAbove_m_s = 8.0;
  lock.inRain = true;
  const std::vector<double> opened{0, 1, 0, 0, 0, 0, 1, 0}; // night, fair, wind, not yet warm again, cold, not yet, fair, rain
  EXPECT_EQ(roofOpen(roof, lock, w), opened);
  w.wind_m_s.assign(8, 1.0);
  EXPECT_EQ(roofOpen(roof, lock, w)[3], 1.0) << "once open it stays so for a kelvin";
}

TEST(RetractableRoof, WhileItIsOpenTheHouseIsNearlyOutdoorsAndItsFloorHasMoreSun) {
  Plan p = house();
  const auto weather = spring(p.site);
  const Simulation shut = run(p, weather);
  p.house.retractable = RetractableRoof{.outsideAbove_C = -20.0};
  p.house.blanket = NightBlanket{};
  const Simulation open = run(p, weather);
  const Winter& w = weather->winters.front();
  const std::size_t noon = 3 * 144 + 72;
  const auto above = [&](const Simulation& run) { return static_cast<double>(run.series.front().air_C[noon]) - w.outside_C[noon]; };
  EXPECT_LT(above(open), 0.4 * above(shut));
  const auto floorOverAir = [&](const Simulation& run) {
    return static_cast<double>(run.series.front().floor_C[noon]) - static_cast<double>(run.series.front().air_C[noon]);
  };
  EXPECT_GT(floorOverAir(open), floorOverAir(shut)) << "more light on it, and none of the cover's warmth in the air";
  EXPECT_LE(open.summary.closure, 1e-6);
}

TEST(Draughts, ByLeakageAreaFollowShermanAndGrimsrud) {
  Plan p = house();
  p.setpoints.night_C = 6.0;
  p.heaters = {{.id = "heater"}};
  p.site.windHeight_m = 10.0; // the formula's own gauge
  p.house.leakage = Leakage{.area_cm2 = 900.0, .shelter = Shelter::open};
  Winter w;
  w.outside_C = {-4.0, 5.5};
  w.wind_m_s = {4.0, 0.0};
  const auto g = draughts_W_K(p, w, kStandardPressure_Pa);
  LeakageSite site;
  site.height_m = p.house.shape.ridge_m;
  site.shielding = 0.324;
  const double flow = leakageFlow(0.09, site, 269.15, 10.0, 4.0).flow_m3_s;
  EXPECT_CLOSE(g[0], 1.3115 * 1006.0 * flow, 0.005 * g[0], "the density's last digit");
  EXPECT_CLOSE(g[1], 1.267 * 1006.0 * leakageFlow(0.09, site, 278.65, 2.0, 0.0).flow_m3_s, 0.005 * g[1], "at least two kelvin of lift");
  p.house.leakage->shelter = Shelter::walled;
  EXPECT_LT(draughts_W_K(p, w, kStandardPressure_Pa)[0], g[0]);
}

TEST(Wind, IsBroughtFromTheGaugesHeightToTheHouses) {
  Site site;
  EXPECT_EQ(windFactor(site, 3.0), 1.0) << "as at the house unless told otherwise";
  site.windHeight_m = 10.0;
  EXPECT_CLOSE(windFactor(site, 3.0), std::pow(0.3, 0.2), 1e-12, "rounding");
  EXPECT_CLOSE(windFactor(site, 10.0), 1.0, 1e-12, "rounding");
  Plan p = house();
  Winter w;
  w.outside_C = {0.0};
  w.wind_m_s = {8.0};
  const double at = draughts_W_K(p, w, kStandardPressure_Pa)[0];
  p.site = site;
  const double high = draughts_W_K(p, w, kStandardPressure_Pa)[0];
  const double still = p.house.airChanges_per_h / (p.house.airChanges_per_h + 8.0 * p.house.windAirChanges);
  EXPECT_CLOSE(high / at, still + (1.0 - still) * windFactor(site, p.house.shape.ridge_m), 1e-9, "the wind's part alone is less");
}

TEST(Openings, AreExplainedWhereTheyFightOrCannotBe) {
  const auto refused = [](const Plan& p, const std::string& where) {
    for (const Problem& problem : check(p))
      if (problem.where == where) return true;
    return false;
  };
  Plan p = house();
  p.setpoints.day_C = 21.0;
  p.house.rollUp = RollUpSides{};
  EXPECT_TRUE(refused(p, "/house/roll_up_sides/opens_C"));
  p.setpoints.day_C = 4.0;
  p.house.rollUp->full_C = 20.2;
  EXPECT_TRUE(refused(p, "/house/roll_up_sides/full_C"));
  p.house.rollUp = RollUpSides{.height_m = 2.1};
  EXPECT_TRUE(refused(p, "/house/roll_up_sides/height_m")) << "the sides are 2.2 m high";
  p.house.rollUp.reset();
  p.house.extractFan = ExtractFan{.above_C = 3.0};
  EXPECT_TRUE(refused(p, "/house/extract_fan/above_C"));
  p.house.extractFan.reset();
  p.house.retractable = RetractableRoof{};
  p.house.roofVoid = RoofVoid{};
  EXPECT_TRUE(refused(p, "/house/retractable_roof"));
}

TEST(Openings, AreKeptInThePlansFile) {
  Plan p = house();
  p.house.rollUp = RollUpSides{.height_m = 0.6};
  p.house.extractFan = ExtractFan{.power_W = 333.0};
  p.house.retractable = RetractableRoof{.outsideAbove_C = 7.0};
  p.house.leakage = Leakage{.area_cm2 = 321.0, .shelter = Shelter::hedged};
  const auto again = planFromJson(planToJson(p));
  ASSERT_TRUE(again) << english(again.problem());
  EXPECT_EQ(planToJson(*again), planToJson(p));
}

TEST(Openings, VentsOpenedByHandAreWorkOnTheDaysThatCallForThem) {
  Plan p = testing::filmTunnel();
  p.house.ventOpens_C = 8.0;
  p.house.ventFull_C = 12.0;
  p.house.hoursPerVenting = 0.25;
  const auto run = simulate(p, makeScene(testing::frost(p.site), p), {.series = true});
  ASSERT_TRUE(run);
  const double hours = run->summary.ledger.sum(Metered::work, MeterUse::venting);
  int days = 0; // on which the air was above it
  for (int day = 0; day < 6; ++day) {
    const auto from = run->series[0].air_C.begin() + 144 * day;
    days += *std::max_element(from, from + 144) > 8.0F ? 1 : 0;
  }
  ASSERT_GT(days, 0);
  EXPECT_NEAR(hours, 0.25 * days, 0.25 + 1e-9) << "a day at either end of the log may be cut";
  p.house.ventOpens_C = 60.0;
  p.house.ventFull_C = 65.0;
  EXPECT_EQ(simulate(p, makeScene(testing::frost(p.site), p))->summary.ledger.sum(Metered::work, MeterUse::venting), 0.0);
}

} // namespace
} // namespace muffle::openings_test
