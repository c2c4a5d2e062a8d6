// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/parallel.h"
#include "core/plan/names.h"
#include "core/plan/plan_differences.h"
#include "core/plan/plan_json.h"
#include "core/sizing/sizing.h"
#include "core/sizing/usual_measures.h"
#include "tests/support/near.h"
#include "words/words.h"

#include <gtest/gtest.h>

#include <atomic>

namespace muffle {
namespace {

Measure one(MeasureKind kind) {
  Measure m = usualMeasure(kind);
  if (!m.levels.empty()) m.levels = {m.levels.front()};
  return m;
}

Plan with(MeasureKind kind) {
  Plan p;
  p.measures = {one(kind)};
  return buildPackage(p, {0}).plan;
}

TEST(Kit, WhatEveryMeasureBuildsHasARowOfItsOwnAmongTheDifferences) {
  for (int kind = 0; kind < kMeasureKindCount; ++kind) {
    if (static_cast<MeasureKind>(kind) == MeasureKind::own) continue;
    const Plan taken = with(static_cast<MeasureKind>(kind));
    const auto rows = differences(Plan{}, taken);
    ASSERT_FALSE(rows.empty()) << kind;
    EXPECT_NE(english(rows.back().what), "other settings") << kind;
  }
}

TEST(Kit, OfEveryMeasureGoesWithThePlanThatTakesIt) {
  for (const MeasureKind kind :
       {MeasureKind::secondSkin, MeasureKind::nightBlanket, MeasureKind::sealing, MeasureKind::barrels, MeasureKind::heater, MeasureKind::skirt}) {
    const Plan taken = with(kind);
    ASSERT_EQ(taken.kit.size(), 1U) << english(nameOf(usualMeasure(kind)));
    EXPECT_GT(taken.kit[0].capital, 0.0);
    const auto back = planFromJson(planToJson(taken));
    ASSERT_TRUE(back) << "it can be saved and opened";
    EXPECT_EQ(back->kit[0].capital, taken.kit[0].capital);
    EXPECT_EQ(back->kit[0], taken.kit[0]);
  }
}

TEST(Kit, ASkirtIsPaidByTheMetreRoundTheFoot) {
  const Plan p = with(MeasureKind::skirt);
  EXPECT_CLOSE(p.kit[0].capital, usualMeasure(MeasureKind::skirt).price * p.house.shape.perimeter_m(), 1e-9, "closed form");
  EXPECT_CLOSE(p.house.floor.edgeDepth_m, 0.6, 1e-12, "the usual depth");
  EXPECT_GT(p.house.floor.edgeInsulation_m2K_W, 1.0);
}

TEST(Kit, StrawIsPaidByTheFloorItCoversAndLiesOnIt) {
  const Plan p = with(MeasureKind::mulch);
  EXPECT_CLOSE(p.kit[0].capital, usualMeasure(MeasureKind::mulch).price * p.house.shape.floor_m2(), 1e-9, "closed form");
  EXPECT_EQ(p.house.floor.cover, "straw");
  EXPECT_CLOSE(p.house.floor.cover_m, 0.1, 1e-12, "the usual depth");
}

TEST(Kit, AHardierCropCostsNothingAndMovesEveryLine) {
  const Plan before;
  const Plan p = with(MeasureKind::hardier);
  EXPECT_TRUE(p.kit.empty());
  EXPECT_DOUBLE_EQ(p.setpoints.hold_C, before.setpoints.hold_C - 2.0);
  EXPECT_DOUBLE_EQ(p.setpoints.night_C, before.setpoints.night_C - 2.0);
  EXPECT_DOUBLE_EQ(p.setpoints.day_C, before.setpoints.day_C - 2.0);
}

TEST(Kit, SealingShrinksTheLeaksHoweverTheyWereEntered) {
  Plan p;
  p.house.airChanges_per_h = 0.8;
  p.measures = {one(MeasureKind::sealing)};
  p.measures[0].levels = {0.2};
  const House byBuild = buildPackage(p, {0}).plan.house;
  EXPECT_DOUBLE_EQ(byBuild.airChanges_per_h, 0.2);
  EXPECT_DOUBLE_EQ(byBuild.windAirChanges, 0.25 * p.house.windAirChanges) << "the same cracks let the wind in";
  p.house.leakage = Leakage{.area_cm2 = 900.0};
  EXPECT_DOUBLE_EQ(buildPackage(p, {0}).plan.house.leakage->area_cm2, 225.0) << "as many of them, by area";
  EXPECT_LT(steadyLoss(buildPackage(p, {0}).plan, 4.0, -6.0, 3.0, 0.5)->total_W, steadyLoss(p, 4.0, -6.0, 3.0, 0.5)->total_W);
  p.measures[0].levels = {2.0};
  EXPECT_DOUBLE_EQ(buildPackage(p, {0}).plan.house.leakage->area_cm2, 900.0) << "sealing never opens a gap";
}

TEST(Kit, ANewHeaterTakesThePlaceOfTheOldOnesPrice) {
  Plan p;
  p.heaters = {{.id = "heater", .name = "old heater", .power_W = 2000.0, .price = 150.0, .life_years = 10.0}};
  p.measures = {one(MeasureKind::heater)};
  EXPECT_EQ(buildPackage(p, {-1}).kit.size(), 1U);
  const Package changed = buildPackage(p, {0});
  ASSERT_EQ(changed.kit.size(), 1U);
  EXPECT_NE(english(changed.kit[0].name), "old heater");
}

TEST(Kit, OfEveryMeasureOneChoosesAMaterialOrASize) {
  for (int k = 0; k < kMeasureKindCount; ++k) {
    const auto kind = static_cast<MeasureKind>(k);
    if (kind == MeasureKind::own) continue; // it has neither: tests/core/plan/own_measure_test.cpp
    const Measure usual = usualMeasure(kind);
    EXPECT_EQ(hasMaterial(kind), !usual.material.empty()) << english(nameOf(usual));
    EXPECT_EQ(hasMaterial(kind), usual.levels.empty()) << english(nameOf(usual));
    Plan p;
    p.house.shape = {ShapeKind::gable, 8, 20, 2.4, 4.2, 90}; // eaves that a ceiling can hang at
    p.measures = {usual};
    EXPECT_TRUE(check(p).empty()) << english(nameOf(usual));
    if (hasMaterial(kind))
      p.measures[0].material = "no such cloth";
    else
      p.measures[0].levels.clear();
    ASSERT_EQ(check(p).size(), 1U) << english(nameOf(usual));
    EXPECT_EQ(check(p).front().where, hasMaterial(kind) ? "/measures/0/material" : "/measures/0/levels");
  }
}

TEST(ChangesToTry, OfferOnlyWhatTheHouseLacksAndThePlansOwnPrices) {
  Plan p;
  const auto has = [](const std::vector<Measure>& v, MeasureKind kind) {
    return std::count_if(v.begin(), v.end(), [&](const Measure& m) { return m.kind == kind; });
  };
  EXPECT_EQ(has(changesToTry(p), MeasureKind::nightBlanket), 2);
  EXPECT_EQ(has(changesToTry(p), MeasureKind::skirt), 1);
  p.house.blanket = NightBlanket{};
  p.house.floor.edgeDepth_m = 0.5;
  EXPECT_EQ(has(changesToTry(p), MeasureKind::nightBlanket), 0);
  EXPECT_EQ(has(changesToTry(p), MeasureKind::skirt), 0);
  Measure own = one(MeasureKind::barrels);
  own.price = 3.25;
  p.measures = {own};
  for (const Measure& m : changesToTry(p))
    if (m.kind == MeasureKind::barrels) { EXPECT_DOUBLE_EQ(m.price, 3.25); }
}

TEST(Parallel, DoesEachPieceOnceOnAnyNumberOfThreads) {
  for (const int threads : {0, 1, 2, 7}) {
    std::vector<std::atomic<int>> times(100);
    forEachIndex(times.size(), threads, [&](std::size_t i) { ++times[i]; });
    for (const auto& t : times) EXPECT_EQ(t.load(), 1);
  }
  forEachIndex(0, 2, [](std::size_t) { FAIL() << "nothing to do"; });
}

} // namespace
} // namespace muffle
