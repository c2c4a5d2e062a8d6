// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sizing/package_choice.h"
#include "tests/support/near.h"
#include "tests/support/random_house.h"

#include <cmath>

namespace muffle {
namespace {

struct Case {
  PassiveHouse house;
  PassiveDays days;
  std::vector<PassiveMeasure> measures;
  std::vector<std::pair<std::size_t, std::size_t>> excludes;
  PassivePrices prices;
  [[nodiscard]] ChosenPackage chosen() const { return choosePackage(house, days, measures, excludes, prices); }
};

Case byChance(unsigned seed) {
  testing::Chance chance(seed);
  Case c;
  c.house = {chance.between(80.0, 300.0), chance.between(0.0, 10.0), chance.between(0.0, 5.0), chance.between(0.3, 0.95)};
  for (int d = 0; d < 120; ++d) {
    c.days.outside_C.push_back(4.0 - 9.0 * std::sin(3.14159 * d / 120.0) + 3.0 * chance.normal());
    c.days.sun_kWh.push_back(chance.between(2.0, 22.0));
  }
  for (int k = 0; k < 6; ++k)
    c.measures.push_back({chance.between(0.6, 1.0), chance.between(0.85, 1.0), chance.happens(0.3) ? chance.between(2.0, 12.0) : 0.0,
                          chance.between(20.0, 900.0), chance.between(2.0, 20.0), chance.between(0.0, 20.0)});
  if (chance.happens(0.5)) c.excludes = {{0, 1}};
  c.prices = {chance.between(0.02, 0.6), chance.between(0.0, 20.0), chance.between(0.0, 0.08)};
  return c;
}

TEST(PackageChoice, ItsPricesOfTurnAreWhereTwoSetsCostTheSameAndAnotherIsCheapestBeyond) {
  unsigned turned = 0;
  for (unsigned seed = 0; seed < 60; ++seed) {
    Case c = byChance(seed);
    const ChosenPackage now = c.chosen();
    ASSERT_TRUE(now.second) << seed;
    EXPECT_LE(now.best.cost(c.prices.perKWh), now.second->cost(c.prices.perKWh)) << seed;
    EXPECT_LE(now.best.cost(c.prices.perKWh), now.bare.cost(c.prices.perKWh)) << seed;
    for (const auto& [turn, sign] : {std::pair{now.above, 1.0}, std::pair{now.below, -1.0}}) {
      if (!turn) continue;
      ++turned;
      const double little = 1e-6 * turn->perKWh;
      c.prices.perKWh = turn->perKWh - sign * little;
      EXPECT_EQ(c.chosen().best.set, now.best.set) << seed << ": up to there";
      c.prices.perKWh = turn->perKWh + sign * little;
      EXPECT_EQ(c.chosen().best.set, turn->set) << seed << ": and beyond";
    }
  }
  EXPECT_GT(turned, 40U);
}

TEST(PackageChoice, WhatCostsNothingAndKeepsMoreInIsAlwaysTakenAndPairsThatExcludeNever) {
  for (unsigned seed = 100; seed < 140; ++seed) {
    Case c = byChance(seed);
    c.excludes = {{2, 3}};
    c.measures[0] = {0.7, 1.0, 0.0, 0.0, 10.0, 0.0};
    const PackageSet set = c.chosen().best.set;
    if (c.chosen().bare.energy_kWh > 1.0) { EXPECT_TRUE(set & 1U) << seed; }
    EXPECT_FALSE((set >> 2 & 1U) && (set >> 3 & 1U)) << seed;
  }
}

} // namespace
} // namespace muffle
