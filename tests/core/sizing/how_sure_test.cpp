// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sizing/how_sure.h"

#include "core/fit/calibrate.h"
#include "core/sizing/usual_measures.h"
#include "core/sizing/withstands.h"
#include "tests/support/frost.h"
#include "tests/support/near.h"
#include "words/words.h"

#include <gtest/gtest.h>

#include <algorithm>

namespace muffle {
namespace {

Plan tunnelAtPrices() {
  Plan p = testing::filmTunnel();
  p.prices.electricity_per_kWh = 0.3;
  p.measures = {usualMeasure(MeasureKind::secondSkin), usualMeasure(MeasureKind::nightBlanket), usualMeasure(MeasureKind::barrels),
                usualMeasure(MeasureKind::heater)};
  p.measures[2].levels = {10};
  p.measures[3].levels = {6000, 12000};
  return p;
}

const SizedPackage& cheapest(const Sizing& s) { return s.packages[static_cast<std::size_t>(s.winner)]; }

TEST(HowSure, AtThePriceWhereItTurnsTheOtherIsCheapest) {
  const Plan p = tunnelAtPrices();
  const auto sized = size(p, testing::frost(p.site));
  ASSERT_GE(sized->winner, 0);
  int turns = 0;
  for (const UncertainPrice& price : howSure(*sized, p).prices) {
    for (const auto& [turn, beyond] : {std::pair{price.below, 0.999}, {price.above, 1.001}}) {
      if (!turn) continue;
      ++turns;
      for (const bool isBeyond : {false, true}) { // just before it and just past it
        const double times = turn->factor * (isBeyond ? beyond : 2.0 - beyond);
        Plan other = p;
        if (price.of == UncertainPrice::Of::electricity) other.prices.electricity_per_kWh *= times;
        if (price.of == UncertainPrice::Of::measure) other.measures[price.measure].price *= times;
        Sizing priced = *sized;
        reprice(priced, other, other.prices);
        EXPECT_EQ(cheapest(priced).choice, (isBeyond ? sized->packages[static_cast<std::size_t>(turn->package)] : cheapest(*sized)).choice);
      }
    }
  }
  EXPECT_GE(turns, 3);
}

TEST(HowSure, WithoutRangesItIsCertainAndWiderRangesNeverMakeItSurer) {
  Plan p = tunnelAtPrices();
  const auto sized = size(p, testing::frost(p.site));
  ASSERT_GE(sized->winner, 0);
  EXPECT_FALSE(howSure(*sized, p).hasRanges);
  double stays = 1.0, regret = 0.0;
  for (const double spread : {0.05, 0.2, 0.5, 0.9}) {
    p.prices.electricitySpread = spread;
    for (Measure& m : p.measures) m.priceSpread = spread;
    const HowSure sure = howSure(*sized, p);
    EXPECT_TRUE(sure.hasRanges);
    EXPECT_LE(sure.stays, stays);
    EXPECT_GE(sure.regret, regret);
    EXPECT_EQ(howSure(*sized, p).stays, sure.stays) << "the same whenever it is asked";
    stays = sure.stays;
    regret = sure.regret;
  }
  EXPECT_LT(stays, 1.0);
  EXPECT_GT(regret, 0.0);
}

TEST(HowSure, AColderWinterCostsMoreOrIsMissedAndTheRunSaysTheSame) {
  const Plan p = tunnelAtPrices();
  const auto weather = testing::frost(p.site);
  const auto sized = size(p, weather);
  ASSERT_GE(sized->winner, 0);
  PackageScenes scenes(weather);
  const auto colder = colderWinters(*sized, p, scenes);
  ASSERT_TRUE(colder);
  ASSERT_EQ(colder->size(), 3U);
  double extra = 0.0;
  for (const ColderWinter& c : *colder) {
    EXPECT_GT(c.extra.value(), extra) << "each kelvin costs";
    extra = *c.extra;
    const Plan winner = buildPackage(p, cheapest(*sized).choice).plan;
    const auto run = simulate(winner, colderBy(makeScene(weather, winner), c.by_K));
    EXPECT_EQ(c.misses, run->summary.nights - run->summary.held);
    EXPECT_CLOSE(*c.extra, run->summary.cost.total() - cheapest(*sized).cost.total(), 1e-9, "the same run");
  }
  Sizing kept = *sized;
  kept.colder = *colder;
  Prices other = p.prices;
  other.electricity_per_kWh *= 1.001;
  reprice(kept, p, other);
  ASSERT_EQ(cheapest(kept).choice, cheapest(*sized).choice);
  ASSERT_EQ(kept.colder.size(), 3U);
  for (std::size_t k = 0; k < 3; ++k) {
    EXPECT_EQ(kept.colder[k].misses, (*colder)[k].misses) << "nights are as cold at any price";
    EXPECT_FALSE(kept.colder[k].extra) << "what it costs is not";
  }
  other.electricity_per_kWh = 1e-4;
  reprice(kept, p, other);
  ASSERT_NE(cheapest(kept).choice, cheapest(*sized).choice);
  EXPECT_TRUE(kept.colder.empty()) << "another plan was not run in them";
}

/// With factors found by a fit and as open as that, each by itself.
Plan fittedTunnel(double variance) {
  Plan p = tunnelAtPrices();
  p.calibration = Calibration{.skin = 1.1, .draughts = 0.9, .date = ""};
  for (int row = 0; row < kFactorCount; ++row)
    for (int column = 0; column <= row; ++column) p.calibration->logCovariance.push_back(row == column ? variance : 0.0);
  return p;
}

TEST(HowSure, InAHouseThatTheReadingsAllowAsWellTheRunSaysWhatTheWinnerDoes) {
  const Plan p = fittedTunnel(0.01);
  const auto weather = testing::frost(p.site);
  Sizing sized = *size(p, weather);
  ASSERT_GE(sized.winner, 0);
  PackageScenes scenes(weather);
  const auto houses = likelyHouses(sized, p, scenes);
  ASSERT_TRUE(houses);
  ASSERT_EQ(houses->size(), 10U) << "either side of each of five factors";
  bool isMoreThere = false, isLessThere = false;
  for (const LikelyHouse& house : *houses) {
    Plan winner = buildPackage(p, cheapest(sized).choice).plan;
    winner.calibration = house.factors;
    const auto run = simulate(winner, makeScene(weather, winner));
    EXPECT_EQ(house.misses, run->summary.nights - run->summary.held);
    EXPECT_CLOSE(house.extra.value(), run->summary.cost.total() - cheapest(sized).cost.total(), 1e-9, "the same run");
    isMoreThere = isMoreThere || *house.extra > 1.0;
    isLessThere = isLessThere || *house.extra < -1.0;
  }
  EXPECT_TRUE(isMoreThere && isLessThere) << "a leakier house takes more, a tighter one less";
  sized.likely = *houses;
  const LikelyInShort all = inShort(sized);
  EXPECT_EQ(all.houses, 10);
  EXPECT_LT(all.leastExtra.value(), 0.0);
  EXPECT_GT(all.mostExtra.value(), 0.0);
  Prices other = p.prices;
  other.electricity_per_kWh *= 1.001;
  reprice(sized, p, other);
  EXPECT_FALSE(inShort(sized).cheapest) << "at other prices it was not asked";
  EXPECT_EQ(inShort(sized).held, all.held) << "nights are as cold at any price";
}

TEST(HowSure, TheLessTheReadingsTellTheLessSureTheHouseIsToHold) {
  int held = 10;
  double widest = 0.0;
  for (const double variance : {0.001, 0.02, 0.2}) {
    const Plan p = fittedTunnel(variance);
    const auto weather = testing::frost(p.site);
    Sizing sized = *size(p, weather);
    ASSERT_GE(sized.winner, 0);
    PackageScenes scenes(weather);
    sized.likely = *likelyHouses(sized, p, scenes);
    const LikelyInShort all = inShort(sized);
    EXPECT_LE(all.held, held) << variance;
    held = all.held;
    double most = 0.0;
    for (const LikelyHouse& house : sized.likely) most = std::max(most, std::abs(house.extra.value()));
    EXPECT_GT(most, widest) << variance;
    widest = most;
  }
  EXPECT_LT(held, 10) << "a factor of two on the skin is more than a heater sized for one has to spare";
}

TEST(HowSure, NothingIsAskedOfAHouseThatWasNotFittedOrIsKnownExactly) {
  for (Plan p : {tunnelAtPrices(), fittedTunnel(0.0)}) {
    const auto weather = testing::frost(p.site);
    const auto sized = size(p, weather);
    PackageScenes scenes(weather);
    EXPECT_TRUE(likelyHouses(*sized, p, scenes)->empty());
  }
}

TEST(Withstands, OneHeaterOutNeedsASecond) {
  Plan p = testing::filmTunnel();
  p.prices.electricity_per_kWh = 0.3;
  p.measures = {usualMeasure(MeasureKind::heater), usualMeasure(MeasureKind::heater)};
  p.measures[0].levels = {12000};
  p.measures[1].levels = {6000, 12000};
  const auto weather = testing::frost(p.site);
  const auto one = size(p, weather);
  ASSERT_GE(one->winner, 0);
  EXPECT_EQ(std::count_if(cheapest(*one).choice.begin(), cheapest(*one).choice.end(), [](int c) { return c >= 0; }), 1);
  p.ask.anyHeaterOut = true;
  const auto two = size(p, weather);
  ASSERT_GE(two->winner, 0);
  EXPECT_EQ(std::count_if(cheapest(*two).choice.begin(), cheapest(*two).choice.end(), [](int c) { return c >= 0; }), 2);
  EXPECT_TRUE(cheapest(*two).isTried);
  EXPECT_GT(cheapest(*two).cost.total(), cheapest(*one).cost.total());
  const auto failed = std::find_if(two->packages.begin(), two->packages.end(), [](const SizedPackage& s) { return s.fails.has_value(); });
  ASSERT_NE(failed, two->packages.end());
  EXPECT_NE(english(whyNot(*two, static_cast<int>(failed - two->packages.begin()), p)).find(" out, "), std::string::npos);
}

TEST(Withstands, APowerCutNeedsWhatWorksWithoutMains) {
  Plan p = testing::filmTunnel();
  p.prices.fuels = {{Carrier::propane, "kWh", 0.3}};
  p.measures = {usualMeasure(MeasureKind::heater), usualMeasure(MeasureKind::heater)};
  p.measures[0].levels = {12000};
  p.measures[1].levels = {12000};
  p.measures[1].heater = HeaterKind::propaneUnvented; // dearer, and needs no mains
  p.measures[1].price = 200.0;
  const auto weather = testing::frost(p.site);
  const auto usual = size(p, weather);
  ASSERT_GE(usual->winner, 0);
  EXPECT_GE(cheapest(*usual).choice[0], 0);
  p.ask.mainsOff_h = 6.0;
  const auto safe = size(p, weather);
  ASSERT_GE(safe->winner, 0);
  EXPECT_GE(cheapest(*safe).choice[1], 0) << english(cheapest(*safe).label);
}

TEST(Withstands, ARareNightIsAsMuchColderAsTheAnnualLowsSay) {
  Plan p = testing::filmTunnel();
  p.site.annualLows_C = {-6.0, -9.0, -12.0, -8.0, -15.0, -7.0, -10.0};
  const auto weather = testing::frost(p.site);
  const auto by_K = rareNightColderBy_K(p, *weather, 20.0);
  ASSERT_TRUE(by_K);
  EXPECT_GT(*by_K, 4.0) << "the log's coldest is -8";
  EXPECT_GT(*rareNightColderBy_K(p, *weather, 50.0), *by_K);
  p.measures = {usualMeasure(MeasureKind::heater)};
  p.measures[0].levels = {5000, 6000, 8000, 10000, 14000, 20000};
  const auto logged = size(p, weather);
  ASSERT_GE(logged->winner, 0);
  p.ask.rareNight_years = 20.0;
  const auto rare = size(p, weather);
  ASSERT_GE(rare->winner, 0);
  EXPECT_GT(cheapest(*rare).choice[0], cheapest(*logged).choice[0]) << "it needs a larger one";
  p.site.annualLows_C.clear();
  EXPECT_FALSE(check(p).empty()) << "nobody knows such a night";
}

} // namespace
} // namespace muffle
