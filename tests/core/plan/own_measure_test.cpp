// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/own_measure.h"

#include "core/plan/measure_rules.h"
#include "core/plan/plan_json.h"
#include "tests/support/random_house.h"
#include "words/words.h"

#include <gtest/gtest.h>

namespace muffle {
namespace {

Measure ownMeasure(std::vector<Setting> sets) {
  Measure m{.kind = MeasureKind::own, .levels = {}, .material = {}};
  m.name = "as I would have it";
  m.sets = std::move(sets);
  return m;
}

TEST(OwnMeasure, SetsWhatAPlanCanSayAndItsLevelWhereNoValueIsGiven) {
  const Plan plan = testing::randomPlan(3);
  const auto cooler = withSettings(plan, ownMeasure({{"/setpoints/night_C", ""}, {"/house/warm_bay", R"({"length_m": 1.0})"}}), plan.setpoints.night_C + 1.0);
  ASSERT_TRUE(cooler) << english(cooler.problem());
  EXPECT_EQ(cooler->setpoints.night_C, plan.setpoints.night_C + 1.0);
  ASSERT_TRUE(cooler->house.bay);
  EXPECT_EQ(cooler->house.bay->length_m, 1.0);
  const auto heated = withSettings(plan, ownMeasure({{"/heaters/-", R"({"kind": "oil", "power_W": 4000})"}}), 0.0);
  ASSERT_TRUE(heated) << english(heated.problem());
  EXPECT_EQ(heated->heaters.back().kind, HeaterKind::oil);
}

TEST(OwnMeasure, RefusesWhatIsNotThereWhatIsNotItsBusinessAndWhatMakesNoPlan) {
  const Plan plan = testing::randomPlan(3);
  for (const Setting& bad : {Setting{"/prices/hour", "0"}, {"/measures/-", "{}"}, {"setpoints", "1"}, {"/house/shape/kind/of", "1"}, {"/mass/7/area_m2", "3"},
                             {"/setpoints/night_C", "warm"}, {"/setpoints/night_C", "400"}, {"/house/air_changes", "1"}}) {
    Plan listed = plan;
    listed.measures = {ownMeasure({bad})};
    const Problems problems = check(listed);
    ASSERT_FALSE(problems.empty()) << bad.field << " = " << bad.to;
    EXPECT_TRUE(problems.front().where.starts_with("/measures/0/sets")) << problems.front().where;
    EXPECT_FALSE(english(problems.front().allowed).empty());
  }
}

TEST(OwnMeasure, TheDifferenceOfTwoPlansMakesTheOneOfTheOther) {
  for (unsigned seed = 1; seed <= 40; ++seed) {
    const Plan from = testing::randomPlan(seed);
    testing::Chance chance(seed);
    Plan to = from;
    if (chance.happens(0.5)) to.setpoints.shift(1.5);
    if (chance.happens(0.5)) to.house.airChanges_per_h *= 0.5;
    if (chance.happens(0.5) && to.barrels.empty()) to.barrels.push_back({.count = 2});
    if (chance.happens(0.3)) to.heaters.push_back({.id = "second", .power_W = 1500.0});
    to.house.crop.wetFloor = 0.123;
    to.prices.hour = 17.0; // which is none of its business
    if (!check(to).empty()) continue;
    const auto settings = settingsBetween(from, to);
    ASSERT_TRUE(settings) << seed << ": " << english(settings.problem());
    const auto made = withSettings(from, ownMeasure(*settings), 0.0);
    ASSERT_TRUE(made) << seed << ": " << english(made.problem());
    to.prices = from.prices;
    EXPECT_EQ(*made, to) << seed;
  }
  const Plan plan = testing::randomPlan(1);
  EXPECT_FALSE(settingsBetween(plan, plan)) << "nothing to offer";
  Plan with = plan;
  with.barrels.push_back({});
  EXPECT_FALSE(settingsBetween(with, plan)) << "a measure takes nothing away";
}

TEST(MeasureRules, AreCheckedByTheirIds) {
  Plan plan = testing::randomPlan(2);
  Measure a{.kind = MeasureKind::barrels, .levels = {4}, .material = {}}, b = a;
  a.id = b.id = "same";
  b.needs = {"nobody"};
  plan.measures = {a, b};
  const Problems problems = check(plan);
  ASSERT_EQ(problems.size(), 2U);
  EXPECT_EQ(problems[0].where, "/measures/1/id");
  EXPECT_EQ(problems[1].where, "/measures/1/needs");
  plan.measures[1].id = "other";
  plan.measures[1].needs = {"same"};
  ASSERT_TRUE(check(plan).empty());
  EXPECT_TRUE(mayBeBuilt(plan, std::vector<int>{kUndecided, 0})) << "it may still come";
  EXPECT_FALSE(mayBeBuilt(plan, std::vector<int>{kNotBuilt, 0}));
  EXPECT_EQ(*planFromJson(planToJson(plan)), plan);
}

} // namespace
} // namespace muffle
