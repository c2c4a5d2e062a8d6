// SPDX-License-Identifier: GPL-3.0-or-later
//
// Walls, paths and raised beds, and what stores cost.
#include "core/store/mass.h"

#include "core/cost/cost.h"
#include "core/simulate/simulate.h"
#include "tests/support/every_store.h"
#include "tests/support/frost.h"
#include "tests/support/yard.h"

#include <gtest/gtest.h>

#include <algorithm>

namespace muffle {
namespace {

TEST(Mass, EveryMaterialLiesWithinWhatHeavyOnesAre) {
  for (int m = 0; m < kMassMaterialCount; ++m) {
    const MassHeat heat = massHeat(static_cast<MassMaterial>(m));
    EXPECT_TRUE(heat.conductivity_W_mK >= 0.5 && heat.conductivity_W_mK <= 3.5) << m; // ISO 10456, masonry to dense stone
    EXPECT_TRUE(heat.heat_J_m3K >= 1.2e6 && heat.heat_J_m3K <= 3.0e6) << m;
    EXPECT_TRUE(heat.absorptance >= 0.5 && heat.absorptance <= 0.95) << m;
  }
}

/// How far the middle of a wall swings in a frosty week.
double swing_K(double thickness_m) {
  Plan p = testing::yard();
  p.mass.push_back({.thickness_m = thickness_m});
  const Simulation run = *simulate(p, makeScene(testing::frost(p.site), p), {.series = true});
  const auto& middle = run.series.front().stores.front().temperature_C[0];
  const auto [low, high] = std::minmax_element(middle.begin() + 2 * 144, middle.end());
  return static_cast<double>(*high - *low);
}

TEST(Mass, AThickWallIsSteadierInItsMiddle) {
  EXPECT_GT(swing_K(0.1), swing_K(0.3) + 1.0); // a day's wave in stone is down to a third at 0.17 m
  EXPECT_GT(swing_K(0.3), swing_K(0.8));
}

TEST(Mass, APathOrARaisedBedTakesItsPlaceOnTheFloor) {
  for (const MassKind kind : {MassKind::path, MassKind::raisedBed}) {
    Plan p = testing::yard();
    p.mass.push_back({.kind = kind, .area_m2 = 20.0, .thickness_m = 0.2});
    const Simulation run = *simulate(p, makeScene(testing::frost(p.site), p), {.series = true});
    EXPECT_LT(run.summary.closure, 1e-9);
    EXPECT_GT(run.summary.stores.front().given_kWh, 1.0);
  }
}

TEST(StoreCosts, HoursOfPilesAndTheirTopUpsAreCounted) {
  Plan p = testing::yard();
  p.compost.push_back(testing::hotBed());
  p.compost[0].hoursToBuild = 5.0;
  p.compost[0].price = 40.0;
  const auto kit = [&] { return kitOf(p).back(); };
  EXPECT_DOUBLE_EQ(kit().hoursPerWinter, 5.0);
  p.compost[0].piles = 3;
  EXPECT_DOUBLE_EQ(kit().hoursPerWinter, 15.0);
  EXPECT_DOUBLE_EQ(kit().capital, 120.0);
  EXPECT_DOUBLE_EQ(kit().life_years, 1.0) << "compost is used up";
  p.compost[0].topUpEvery_days = 10.0; // each stands for 30 days: three fifths of a pile more
  EXPECT_NEAR(kit().hoursPerWinter, 15.0 * 1.6, 1e-9);
}

TEST(StoreCosts, WhatIsOwnedAlreadyCostsNothing) {
  Plan p = testing::yard();
  testing::addEveryStore(p);
  for (CompostPile& pile : p.compost) pile.hoursToBuild = 0.0;
  EXPECT_TRUE(kitOf(p).empty());
  p.groundPipes[0].price = 900.0;
  p.waterLoops[0].price = 700.0;
  EXPECT_EQ(kitOf(p).size(), 2u);
}

TEST(Mass, BoardsRoundARaisedBedKeepItWarmerThroughAFrost) {
  const auto coldest_C = [](double sides_m2K_W, double width_m) {
    Plan p = testing::yard();
    p.mass.push_back({.kind = MassKind::raisedBed, .material = MassMaterial::soil, .area_m2 = 12.0, .thickness_m = 0.4, .width_m = width_m});
    p.mass.back().sides_m2K_W = sides_m2K_W;
    const Simulation run = *simulate(p, makeScene(testing::frost(p.site), p), {.series = true});
    EXPECT_LT(run.summary.closure, 1e-9);
    return run.summary.stores.front().coldest_C;
  };
  EXPECT_GT(coldest_C(2.0, 0.8), coldest_C(0.1, 0.8) + 0.1) << "quilted boards";
  EXPECT_GT(coldest_C(0.1, 2.0), coldest_C(0.1, 0.5)) << "a broad bed has less side for its soil";
}

TEST(Mass, TheSidesOfARaisedBedAreItsPerimeterTimesItsHeight) {
  MassBlock bed{.kind = MassKind::raisedBed, .material = MassMaterial::soil, .area_m2 = 6.0, .thickness_m = 0.5, .width_m = 1.5};
  bed.sides_m2K_W = 50.0; // next to which soil and film are nothing
  EXPECT_NEAR(raisedBedSides_W_K(bed), 2.0 * (1.5 + 4.0) * 0.5 / 50.0, 0.01 * 0.11);
}

} // namespace
} // namespace muffle
