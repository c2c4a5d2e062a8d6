// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/plan_differences.h"

#include "core/plan/measure_table.h"
#include "core/plan/plan_json.h"
#include "tests/support/random_house.h"
#include "words/words.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <set>

namespace muffle {
namespace {

std::string table(const std::vector<PlanDifference>& rows) {
  std::string all;
  for (const PlanDifference& row : rows) all += english(row.what) + ": " + english(row.one) + " | " + english(row.other) + "\n";
  return all;
}

TEST(PlanDifferences, ThereAreNoneWithinOnePlanAndTheyAreTheSameFromEitherSide) {
  Plan before = testing::randomPlan(1);
  for (unsigned seed = 2; seed < 60; ++seed) {
    const Plan plan = testing::randomPlan(seed);
    EXPECT_TRUE(differences(plan, plan).empty()) << seed;
    const auto there = differences(before, plan), back = differences(plan, before);
    ASSERT_FALSE(there.empty()) << seed;
    ASSERT_EQ(there.size(), back.size()) << seed << "\n" << table(there) << "\n" << table(back);
    for (const PlanDifference& row : there) {
      if (english(row.other) == "set otherwise") continue;
      EXPECT_TRUE(std::any_of(back.begin(), back.end(), [&](const PlanDifference& b) { return b.one == row.other && b.other == row.one; }))
          << seed << " " << english(row.what);
    }
    before = plan;
  }
}

TEST(PlanDifferences, WhatHasAPlaceIsFoundThereInEitherPlan) {
  const auto countOf = [](const Plan& plan, PlanPart part) -> std::size_t {
    switch (part) {
    case PlanPart::bedCover: return plan.house.bedCovers.size();
    case PlanPart::barrels: return plan.barrels.size();
    case PlanPart::groundPipes: return plan.groundPipes.size();
    case PlanPart::compost: return plan.compost.size();
    case PlanPart::waterLoop: return plan.waterLoops.size();
    case PlanPart::soilCable: return plan.soilCables.size();
    case PlanPart::mass: return plan.mass.size();
    case PlanPart::heater: return plan.heaters.size();
    case PlanPart::blanket: return plan.house.blanket ? 1 : 0;
    case PlanPart::ceiling: return plan.house.roofVoid ? 1 : 0;
    default: return 1;
    }
  };
  std::set<PlanPart> seen;
  Plan before = testing::randomPlan(1);
  for (unsigned seed = 2; seed < 80; ++seed) {
    const Plan plan = testing::randomPlan(seed);
    for (const PlanDifference& row : differences(before, plan)) {
      if (row.part == PlanPart::none) continue;
      seen.insert(row.part);
      EXPECT_TRUE(row.inOne || row.inOther) << seed << " " << english(row.what);
      EXPECT_LT(row.inOne.value_or(0), row.inOne ? countOf(before, row.part) : 1) << seed << " " << english(row.what);
      EXPECT_LT(row.inOther.value_or(0), row.inOther ? countOf(plan, row.part) : 1) << seed << " " << english(row.what);
      EXPECT_EQ(row.inOne.has_value(), english(row.one) != "none") << seed << " " << english(row.what);
    }
    before = plan;
  }
  EXPECT_GE(seen.size(), 8U) << "random plans differ in much of what has a place";
}

TEST(PlanDifferences, NoFieldThatIsSetOtherwiseIsPassedOver) {
  int changed = 0;
  for (unsigned seed = 1; seed < 8; ++seed) {
    const Plan plan = testing::randomPlan(seed);
    const Json file = planToJson(plan);
    const auto flat = file.flatten();
    for (const auto& [at, value] : flat.items()) {
      if (!value.is_number() || at.starts_with("/measures") || at.starts_with("/ask") || at.starts_with("/kit")) continue;
      Json other = file;
      other[Json::json_pointer(at)] = value.get<double>() + 1.0;
      const auto read = planFromJson(other);
      if (!read || *read == plan) continue;
      ++changed;
      EXPECT_EQ(differences(plan, *read).size(), 1U) << at << "\n" << table(differences(plan, *read));
    }
  }
  EXPECT_GT(changed, 200);
}

TEST(PlanDifferences, WhatAMeasureBuildsIsARowWithItsSize) {
  Plan plan = testing::randomPlan(3);
  plan.barrels = {{.count = 4}};
  Plan other = plan;
  other.barrels[0].count = 20;
  other.setpoints.hold_C -= 1.0;
  other.house.floor.edgeInsulation_m2K_W = 1.5;
  other.house.floor.edgeDepth_m = 0.6;
  const std::string rows = table(differences(plan, other));
  EXPECT_NE(rows.find("barrels: 4 of 200 L | 20 of 200 L"), std::string::npos) << rows;
  EXPECT_NE(rows.find("line that must hold"), std::string::npos) << rows;
  EXPECT_NE(rows.find("skirt, to a depth"), std::string::npos) << rows;
  EXPECT_EQ(rows.find("other settings"), std::string::npos) << rows;
  other.heaters.clear();
  EXPECT_EQ(table(differences(plan, other)).find("heater") == std::string::npos, plan.heaters.empty());
}

} // namespace
} // namespace muffle
