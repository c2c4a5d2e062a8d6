// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/names.h"

#include "core/plan/heaters.h"
#include "core/plan/plan_json.h"
#include "core/plan/store_list.h"
#include "tests/support/every_store.h"
#include "words/words.h"

#include <gtest/gtest.h>

namespace muffle {
namespace {

TEST(Names, AThingGoesByWhatItIsUntilSomebodyNamesIt) {
  EXPECT_EQ(english(nameOf(Barrels{})), "barrels");
  EXPECT_EQ(english(nameOf(Barrels{.name = "by the door"})), "by the door");
  EXPECT_EQ(english(nameOf(GroundPipes{.place = PipePlace::beside})), "ground tube");
  EXPECT_EQ(english(nameOf(MassBlock{.kind = MassKind::raisedBed})), "raised bed");
  const auto measure = [](MeasureKind kind, const char* name) {
    Measure m;
    m.kind = kind;
    m.name = name;
    return m;
  };
  EXPECT_EQ(english(nameOf(measure(MeasureKind::barrels, ""), 20.0)), "20 barrels");
  EXPECT_EQ(english(nameOf(measure(MeasureKind::heater, ""), 6000.0)), "heater 6 kW");
  EXPECT_EQ(english(nameOf(measure(MeasureKind::sealing, "tape"), 0.35)), "tape to 0.35 an hour");
}

TEST(Names, HeatersAlikeInOnePlaceHaveNumbers) {
  Plan p;
  p.house.bay = WarmBay{};
  p.heaters.clear();
  addHeater(p, {.power_W = 3000.0});
  EXPECT_EQ(english(nameOf(p, p.heaters[0])), "electric fan heater");
  addHeater(p, {.power_W = 3000.0});
  addHeater(p, {.kind = HeaterKind::oil, .power_W = 3000.0});
  addHeater(p, {.place = {HeaterPlace::Of::bay}, .power_W = 1000.0});
  EXPECT_EQ(english(nameOf(p, p.heaters[1])), "electric fan heater 2");
  EXPECT_EQ(english(nameOf(p, p.heaters[2])), "oil heater with a flue");
  EXPECT_EQ(english(nameOf(p, p.heaters[3])), "electric fan heater of the warm bay");
}

TEST(Names, APlanHoldsNoneThatNobodyWrote) {
  const Json json = planToJson(testing::yardWithEveryStore());
  for (const char* list : {"barrels", "ground_pipes", "compost", "water_loops", "soil_cables", "mass", "heaters"})
    for (const Json& thing : json[list]) {
      const std::string name = thing["name"];
      EXPECT_TRUE(name.empty() || name == "beside" || name == "flags") << list << ": " << name << " is of the test's own";
    }
}

TEST(Names, WhatWasBoughtHasANameOrIsOfAMeasure) {
  Plan p;
  p.kit = {Kit{.name = "thermometer"}, Kit{.measure = "skirt", .level = 0.6}};
  EXPECT_TRUE(check(p).empty());
  p.kit = {Kit{}};
  ASSERT_FALSE(check(p).empty());
  EXPECT_NE(english(check(p).front()).find("/kit/0/name"), std::string::npos) << english(check(p).front());
  p.kit = {Kit{.name = "thermometer", .measure = "skirts"}};
  ASSERT_FALSE(check(p).empty());
  EXPECT_NE(english(check(p).front()).find("\"skirts\" is not a known measure"), std::string::npos) << english(check(p).front());
  EXPECT_NE(english(check(p).front()).find("skirt, "), std::string::npos) << "what is allowed: " << english(check(p).front());
}

TEST(Names, OfOlderPlansTheUsualOnesAreForgotten) {
  Json json = planToJson(Plan{});
  json["barrels"] = Json::array({{{"name", "barrels"}, {"count", 3}, {"litres", 200}}, {{"name", "old tubs"}, {"count", 2}, {"litres", 80}}});
  json["heaters"] = Json::array({{{"id", "a"}, {"name", "electric heater"}, {"power_W", 2000}}});
  const auto plan = planFromJson(json);
  ASSERT_TRUE(plan) << english(plan.problem());
  EXPECT_EQ(plan->barrels[0].name, "");
  EXPECT_EQ(plan->barrels[1].name, "old tubs");
  EXPECT_EQ(plan->heaters[0].name, "");
}

TEST(Names, APlanThatNobodyHasNamedIsCalledPlan) {
  EXPECT_EQ(planToJson(Plan{})["name"], "");
  EXPECT_EQ(english(nameOf(Plan{})), "Plan");
  Json json = planToJson(Plan{});
  json["name"] = "Plan"; // as it stood in every plan of before
  EXPECT_EQ(planFromJson(json)->name, "");
  json["name"] = "South house";
  EXPECT_EQ(english(nameOf(*planFromJson(json))), "South house");
}

} // namespace
} // namespace muffle
