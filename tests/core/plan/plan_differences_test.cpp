// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/plan_differences.h"

#include "core/plan/measure_table.h"
#include "core/plan/plan_json.h"
#include "tests/support/random_house.h"
#include "words/words.h"

#include <gtest/gtest.h>

#include <algorithm>

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
