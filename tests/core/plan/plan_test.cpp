// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/plan_json.h"

#include "core/constants.h"
#include "core/material/materials.h"

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

TEST(Plan, TheDemoIsSoundAndRoundTripsToTheLetter) {
  const auto plan = planFromJson(demo());
  ASSERT_TRUE(plan) << plan.problem().text();
  const Json once = planToJson(*plan);
  const auto again = planFromJson(once);
  ASSERT_TRUE(again) << again.problem().text();
  EXPECT_EQ(once, planToJson(*again));
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
                                                                  {"/heater/power_W", "-1"},
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

} // namespace
} // namespace muffle
