// SPDX-License-Identifier: GPL-3.0-or-later
//
// Plans of the first form had one heater of the house, one in its bay, and one on each tank; they are read as they were meant.
#include "core/plan/plan_upgrade.h"

#include "core/plan/heaters.h"
#include "core/plan/plan_json.h"
#include "words/words.h"

#include <gtest/gtest.h>

namespace muffle {
namespace {

Json firstForm() {
  return *parseJson(R"({"schema": "muffle-plan-1", "site": {"latitude_deg": 45, "longitude_deg": 3},
    "house": {"shape": {"kind": "arch", "width_m": 6, "length_m": 20, "eave_m": 1.2, "ridge_m": 3},
              "warm_bay": {"name": "nursery", "length_m": 4, "heater_W": 2500}},
    "heater": {"name": "fan heater", "power_W": 9000, "price": 120, "life_years": 8},
    "water_loops": [{"litres": 300}, {"name": "stove loop", "litres": 900, "boiler_W": 6000, "boiler_holds_C": 50, "boiler_from_h": 18, "boiler_for_h": 6,
                     "fuel_price_kWh": 0.07}]})");
}

bool refuses(const Json& document, const std::string& where) {
  const auto plan = planFromJson(document);
  if (plan) return false;
  for (const Problem& p : plan.problems())
    if (p.where == where) return true;
  return false;
}

TEST(PlanUpgrade, EveryHeaterOfTheFirstFormStandsInTheListWhereItStood) {
  const auto plan = planFromJson(firstForm());
  ASSERT_TRUE(plan) << english(plan.problem());
  ASSERT_EQ(plan->heaters.size(), 3U);
  const Heater fan{.id = "heater", .name = "fan heater", .power_W = 9000.0, .price = 120.0, .life_years = 8.0};
  const Heater nursery{.id = "bay-heater", .name = "", .place = {HeaterPlace::Of::bay}, .power_W = 2500.0};
  const Heater boiler{.id = "boiler-2",
                      .name = "",
                      .kind = HeaterKind::boiler,
                      .place = {HeaterPlace::Of::tank, 1},
                      .power_W = 6000.0,
                      .fuelPrice_kWh = 0.07,
                      .holds_C = 50.0,
                      .from_h = 18.0,
                      .for_h = 6.0};
  EXPECT_EQ(plan->heaters[0], fan);
  EXPECT_EQ(plan->heaters[1], nursery);
  EXPECT_EQ(plan->heaters[2], boiler);
  const Json now = planToJson(*plan);
  EXPECT_EQ(now["schema"], "muffle-plan-2");
  EXPECT_FALSE(now.contains("heater"));
  EXPECT_EQ(*planFromJson(now), *plan) << "written in the new form it is the same plan";
}

TEST(PlanUpgrade, ABayThatDidNotSayHadTwoKilowattsAndOneOfNoneHasNone) {
  Json document = firstForm();
  document.erase("heater");
  document["house"]["warm_bay"].erase("heater_W");
  document["water_loops"][1]["boiler_W"] = 0;
  const auto usual = planFromJson(document);
  ASSERT_TRUE(usual) << english(usual.problem());
  ASSERT_EQ(usual->heaters.size(), 1U);
  EXPECT_EQ(usual->heaters.front().power_W, 2000.0);
  document["house"]["warm_bay"]["heater_W"] = 0;
  EXPECT_TRUE(planFromJson(document)->heaters.empty());
}

TEST(PlanUpgrade, WhatIsWrongIsSaidOfThePlaceWhereItStands) {
  Json document = firstForm();
  document["heater"]["power_W"] = "much";
  EXPECT_TRUE(refuses(document, "/heater/power_W"));
  document = firstForm();
  document["heater"]["colour"] = "red";
  EXPECT_TRUE(refuses(document, "/heater/colour"));
  document = firstForm();
  document["house"]["warm_bay"]["heater_W"] = -5;
  EXPECT_TRUE(refuses(document, "/house/warm_bay/heater_W"));
  document = firstForm();
  document["water_loops"][1]["boiler_holds_C"] = 120;
  EXPECT_TRUE(refuses(document, "/water_loops/1/boiler_holds_C"));
  document = firstForm();
  document["heater"] = 9000;
  EXPECT_TRUE(refuses(document, "/heater"));
}

TEST(PlanUpgrade, ThePresentFormDoesNotKnowTheOldPlaces) {
  Json document = firstForm();
  document["schema"] = "muffle-plan-2";
  EXPECT_TRUE(refuses(document, "/heater"));
  EXPECT_TRUE(refuses(document, "/house/warm_bay/heater_W"));
  document["schema"] = "muffle-plan-3";
  EXPECT_TRUE(refuses(document, "/schema"));
}

} // namespace
} // namespace muffle
