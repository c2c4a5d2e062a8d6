// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/plan_json.h"
#include "core/plan/plan_notes.h"

#include "core/constants.h"
#include "core/material/materials.h"
#include "tests/support/every_store.h"
#include "tests/support/random_house.h"
#include "words/words.h"

#include <gtest/gtest.h>

#include <fstream>
#include <sstream>

namespace muffle {
namespace {

Json demo() {
  std::ifstream f(MUFFLE_SOURCE_DIR "/demo-data/plan.json");
  std::stringstream s;
  s << f.rdbuf();
  return *parseJson(s.str());
}

TEST(Plan, WrittenAndReadAnyPlanIsTheSameAndNoneIsAnother) {
  Plan before = testing::yardWithEveryStore();
  for (unsigned seed = 1; seed <= 60; ++seed) {
    const Plan plan = testing::randomPlan(seed);
    const auto again = planFromJson(planToJson(plan));
    ASSERT_TRUE(again) << english(again.problem());
    EXPECT_TRUE(*again == plan) << seed;
    EXPECT_FALSE(plan == before) << seed;
    before = plan;
  }
  const Plan stores = testing::yardWithEveryStore();
  EXPECT_TRUE(*planFromJson(planToJson(stores)) == stores);
}

TEST(Plan, TheDemoIsSoundAndRoundTripsToTheLetter) {
  const auto plan = planFromJson(demo());
  ASSERT_TRUE(plan) << english(plan.problem());
  const Json once = planToJson(*plan);
  const auto again = planFromJson(once);
  ASSERT_TRUE(again) << english(again.problem());
  EXPECT_EQ(once, planToJson(*again));
}

TEST(Plan, ABlanketsClockAndItsWorkAndPricesOfMaterialsAreKept) {
  Json json = demo();
  json["house"]["blanket"] = {{"material", "woven-blanket"}, {"rule", "clock"}, {"closes_at_h", 16.5}, {"opens_at_h", 9.0}, {"hours_per_draw", 0.2}};
  json["prices"]["materials"] = Json::array({{{"material", "pe-film"}, {"price_per_m2", 1.6}}, {{"material", "bubble-wrap"}, {"price_per_m2", 3.2}}});
  const auto plan = planFromJson(json);
  ASSERT_TRUE(plan) << english(plan.problem());
  const auto again = planFromJson(planToJson(*plan));
  ASSERT_TRUE(again);
  EXPECT_EQ(again->house.blanket->rule, BlanketRule::clock);
  EXPECT_DOUBLE_EQ(again->house.blanket->closesAt_h, 16.5);
  EXPECT_DOUBLE_EQ(again->house.blanket->opensAt_h, 9.0);
  EXPECT_DOUBLE_EQ(again->house.blanket->hoursPerDraw, 0.2);
  ASSERT_EQ(again->prices.materials.size(), 2U);
  EXPECT_EQ(again->prices.materials[1].material, "bubble-wrap");
  EXPECT_DOUBLE_EQ(again->prices.materials[1].price_per_m2, 3.2);

  json["house"]["blanket"]["opens_at_h"] = 16.5;
  const auto still = planFromJson(json);
  ASSERT_FALSE(still);
  EXPECT_EQ(still.problem().where, "/house/blanket/opens_at_h");
  EXPECT_NE(english(still.problem()).find("must differ"), std::string::npos);
}

TEST(Plan, NamesThePlaceOfEveryMistakeAndWhatIsAllowed) {
  const std::vector<std::pair<const char*, const char*>> mistakes{{"/house/shape/width_m", "-3"},
                                                                  {"/house/shape/width_m", "\"wide\""},
                                                                  {"/house/shape/width_m", "1e400"},
                                                                  {"/house/shape/kind", "\"pyramid\""},
                                                                  {"/house/roof/layers/0/material", "\"wishes\""},
                                                                  {"/house/floor/soil", "\"cheese\""},
                                                                  {"/site/latitude_deg", "91"},
                                                                  {"/site/time_zone", "\"Moon/Base\""},
                                                                  {"/barrels/0/count", "2.5"},
                                                                  {"/measures/1/material", "\"none\""},
                                                                  {"/heaters/0/power_W", "-1"},
                                                                  {"/setpoints/nigth_C", "3"},
                                                                  {"/house/shape/ridge_m", "9"},
                                                                  {"/schema", "\"muffle-plan-9\""},
                                                                  {"/prices", "[]"}};
  for (const auto& [pointer, value] : mistakes) {
    Json document = demo();
    const auto parsed = parseJson(value);
    if (!parsed) continue; // 1e400 is refused by the JSON reader itself
    document[Json::json_pointer(pointer)] = *parsed;
    const auto plan = planFromJson(document);
    ASSERT_FALSE(plan) << pointer;
    EXPECT_EQ(plan.problem().where, pointer);
    EXPECT_FALSE(plan.problem().allowed.empty()) << pointer;
  }
}

TEST(Plan, ReportsEveryMistakeAtOnce) {
  Json document = demo();
  document["house"]["shape"]["width_m"] = 0;
  document["heater"]["power_W"] = "lots";
  document["extra"] = 1;
  EXPECT_EQ(planFromJson(document).problems().size(), 3U);
}

TEST(Plan, TheSchemaFileIsTheOneTheReaderMakes) {
  std::ifstream f(MUFFLE_SOURCE_DIR "/docs/plan.schema.json");
  std::stringstream s;
  s << f.rdbuf();
  EXPECT_EQ(s.str(), planSchema().dump(2) + "\n") << "run: muffle-cli schema > docs/plan.schema.json";
}

TEST(Tables, EveryRowHasSourceRangeAndSaneOptics) {
  for (const CoverMaterial& m : coverMaterials()) {
    EXPECT_FALSE(m.source.empty() || m.range.empty()) << m.id;
    EXPECT_LE(m.longwave.emissivity + m.longwave.transmittance, 1.0) << m.id;
    EXPECT_LE(m.solarTransmittance + m.solarReflectance, 1.0) << m.id;
    EXPECT_EQ(findCoverMaterial(m.id), &m) << "ids differ";
  }
  for (const SoilMaterial& m : soilMaterials()) EXPECT_EQ(findSoilMaterial(m.id), &m);
  for (const Constant& c : kConstants) EXPECT_FALSE(c.symbol.empty() || c.unit.empty() || c.source.empty());
}

TEST(PlanNotes, WhatHasNoEffectIsSaid) {
  Plan p;
  EXPECT_TRUE(planNotes(p).empty());
  p.house.shape = HouseShape{ShapeKind::dome, 6, 6, 0.4, 3.4, 0}.as(ShapeKind::dome);
  p.house.shape.axis_deg = Plan().house.shape.axis_deg;
  EXPECT_TRUE(planNotes(p).empty());
  p.house.ends = Skin{{Layer{"glass-4mm"}}};
  ASSERT_EQ(planNotes(p).size(), 1U);
  EXPECT_EQ(planNotes(p)[0].where, "/house/ends");
  EXPECT_NE(english(planNotes(p)[0].what).find("a dome has no ends"), std::string::npos);
  p.house.shape = HouseShape{ShapeKind::arch, 6, 12, 0.0, 3.0, 90};
  p.house.ends = Plan().house.ends;
  p.house.sides = Skin{{Layer{"glass-4mm"}}};
  EXPECT_EQ(planNotes(p).at(0).where, "/house/sides");
}

} // namespace
} // namespace muffle
