// SPDX-License-Identifier: GPL-3.0-or-later
//
// Every kind of measure is one row: it can be proposed, priced, labelled and built in.
#include "core/plan/measure_table.h"

#include "core/plan/heaters.h"
#include "core/plan/names.h"
#include "core/sizing/sizing.h"
#include "core/sizing/usual_measures.h"
#include "tests/support/random_house.h"
#include "words/words.h"

#include <gtest/gtest.h>

#include <set>

namespace muffle {
namespace {

TEST(MeasureTable, HasOneRowForEveryKindWithAnIdOfItsOwn) {
  std::set<MeasureKind> kinds;
  std::set<std::string> ids;
  for (const MeasureRow& row : measureTable()) {
    EXPECT_TRUE(kinds.insert(row.kind).second);
    EXPECT_TRUE(ids.insert(row.id).second) << row.id;
    EXPECT_EQ(row.usual.kind, row.kind) << row.id;
    EXPECT_TRUE(row.usual.name.empty()) << row.id << ": it goes by what it is";
    EXPECT_FALSE(wordsOf(nameOf(row.usual).code).empty()) << row.id;
    EXPECT_EQ(row.levelOf == LevelOf::none || row.kind == MeasureKind::own, row.usual.levels.empty()) << row.id << ": a material has no levels, all else has";
    EXPECT_EQ(row.levelOf == LevelOf::none, !row.usual.material.empty()) << row.id;
    EXPECT_EQ(&rowOf(row.kind), &row);
  }
  EXPECT_EQ(kinds.size(), static_cast<std::size_t>(kMeasureKindCount));
}

TEST(MeasureTable, WhatIsProposedForAHouseCanBeBuiltIntoItAndChangesIt) {
  std::set<MeasureKind> met;
  for (unsigned seed = 1; seed <= 200; ++seed) {
    Plan plan = testing::randomPlan(seed);
    plan.measures.clear();
    if (seed % 2 == 0) { // heated, to above its line
      addHeater(plan, {.power_W = 3000.0});
      plan.setpoints.shift(1.5);
    }
    for (const Measure& m : changesToTry(plan)) {
      met.insert(m.kind);
      plan.measures = {m};
      ASSERT_TRUE(check(plan).empty()) << rowOf(m.kind).id << ": " << english(check(plan).front());
      const Package package = buildPackage(plan, {0});
      EXPECT_TRUE(check(package.plan).empty()) << rowOf(m.kind).id << ": " << english(check(package.plan).front());
      Plan bare = package.plan;
      bare.kit = plan.kit;
      EXPECT_NE(bare, plan) << rowOf(m.kind).id << " changes nothing";
      EXPECT_NE(english(package.label).find(english(nameOf(m))), std::string::npos);
      EXPECT_GE(measureCapital(plan, m, m.levels.empty() ? 0.0 : m.levels.front()), 0.0);
    }
  }
  EXPECT_FALSE(met.contains(MeasureKind::own)) << "nobody knows what one would do oneself";
  EXPECT_EQ(met.size() + 1, static_cast<std::size_t>(kMeasureKindCount)) << "every other kind fits some house";
}

} // namespace
} // namespace muffle
