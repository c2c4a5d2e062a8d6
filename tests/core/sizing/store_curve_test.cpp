// SPDX-License-Identifier: GPL-3.0-or-later
//
// More and less of one store, everything else as it stands.
#include "core/sizing/store_curve.h"

#include "core/store/pile.h"
#include "tests/support/every_store.h"
#include "tests/support/frost.h"
#include "tests/support/yard.h"

#include <gtest/gtest.h>

namespace muffle {
namespace {

using testing::yardWithEveryStore;

TEST(StoreSize, IsSetAndReadBackForEveryKindAndNoneTakesItOut) {
  const Plan plan = yardWithEveryStore();
  const auto all = storesOf(plan);
  for (const StoreRef& store : all) {
    const double now = storeSize(plan, store);
    ASSERT_GT(now, 0.0) << store.id;
    EXPECT_NEAR(storeSize(withStoreSize(plan, store, 2.0 * now), store), 2.0 * now, 1e-9 * now) << store.id;
    const Plan without = withStoreSize(plan, store, 0.0);
    EXPECT_EQ(storesOf(without).size(), all.size() - 1) << store.id;
    EXPECT_TRUE(check(without).empty()) << store.id;
  }
}

TEST(StoreSize, ALargerPileKeepsItsHeightAndItsRecipe) {
  const Plan plan = yardWithEveryStore();
  const StoreRef pile{StoreKind::compost, 0, "compost:1", {}};
  const Plan twice = withStoreSize(plan, pile, 2.0 * storeSize(plan, pile));
  const CompostPile &a = plan.compost[0], &b = twice.compost[0];
  EXPECT_NEAR(pileSize(a, blendOf(a)).height_m, pileSize(b, blendOf(b)).height_m, 1e-9);
  EXPECT_NEAR(blendOf(a).carbonNitrogen, blendOf(b).carbonNitrogen, 1e-9);
}

TEST(StoreCurve, BeginsWithoutTheStoreAndHoldsTheSizeThatStands) {
  Plan plan = testing::yard();
  plan.barrels.push_back({.count = 8});
  const auto weather = testing::frost(plan.site);
  const auto curve = storeCurve(plan, weather, storesOf(plan).front());
  ASSERT_TRUE(curve);
  EXPECT_EQ(curve->front().size, 0.0);
  bool stands = false, next = false;
  for (std::size_t i = 1; i < curve->size(); ++i) {
    EXPECT_GT((*curve)[i].size, (*curve)[i - 1].size);
    EXPECT_GT((*curve)[i].coldest_C, (*curve)[i - 1].coldest_C - 0.02) << "more water is no colder, but for what a step leaves over";
    stands = stands || (*curve)[i].size == 8.0;
    next = next || (*curve)[i].size == 9.0;
  }
  EXPECT_TRUE(stands);
  EXPECT_TRUE(next) << "one more is among them";
}

TEST(StoreCurve, LeavesOutWhatDoesNotFitAndStopsWhenAsked) {
  Plan plan = testing::yard();
  plan.groundPipes.push_back({.count = 16, .length_m = 10.0}); // 80 of 98 m2: twice as many do not fit
  const auto weather = testing::frost(plan.site);
  const auto curve = storeCurve(plan, weather, storesOf(plan).front());
  ASSERT_TRUE(curve);
  EXPECT_LT(curve->back().size, 32.0);
  const auto stopped = storeCurve(plan, weather, storesOf(plan).front(), {.threads = 1, .progress = [](const SizingProgress&) { return false; }});
  ASSERT_FALSE(stopped);
  EXPECT_EQ(stopped.problem().kind, ProblemKind::cancelled);
}

} // namespace
} // namespace muffle
