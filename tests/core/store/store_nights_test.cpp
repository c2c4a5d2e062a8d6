// SPDX-License-Identifier: GPL-3.0-or-later
//
// Nights and days read off a run's series.
#include "core/simulate/store_nights.h"

#include <gtest/gtest.h>

namespace muffle {
namespace {

Simulation threeNights() {
  Simulation run;
  for (const double low_C : {-3.0, -9.0, -6.0}) {
    NightResult n;
    n.assessable = true;
    n.outsideLow_C = low_C;
    run.nights.push_back(n);
  }
  run.series.resize(1);
  return run;
}

TEST(StoreNights, TheColdestOutsideComeFirstAndThoseNotJudgedAreLeftOut) {
  Simulation run = threeNights();
  const auto two = coldestNights(run, 0, 2);
  ASSERT_EQ(two.size(), 2U);
  EXPECT_EQ(two[0]->outsideLow_C, -9.0);
  EXPECT_EQ(two[1]->outsideLow_C, -6.0);
  run.nights[1].assessable = false;
  EXPECT_EQ(coldestNights(run, 0, 1).front()->outsideLow_C, -6.0);
}

TEST(StoreNights, NothingIsSaidOfTheColdestWhereThereAreNoOthersOrOneIsNotWorkedOut) {
  Simulation run = threeNights();
  EXPECT_TRUE(coldestNights(run, 0, 3).empty());
  EXPECT_TRUE(coldestNights(run, 1, 1).empty()) << "a run of before a store was added";
  run.nights[1].winter = 1; // whose series is yet to come
  EXPECT_TRUE(coldestNights(run, 0, 1).empty());
}

TEST(StoreNights, ADayGoesFromNoonToNoonWithGivenAndTakenApart) {
  std::vector<float> given_W(72, 0.0F);
  given_W[12] = 9000.0F; // in the hour before the first noon: another day's
  for (int i = 13; i <= 36; ++i) given_W[static_cast<std::size_t>(i)] = i < 24 ? -500.0F : 1000.0F;
  NightResult night;
  night.from = 17;
  night.to = 31; // about midnight, hour 24
  const StoreDay day = storeDay(given_W, night, kHour_s);
  EXPECT_NEAR(day.taken_kWh, 11 * 0.5, 1e-9);
  EXPECT_NEAR(day.given_kWh, 13 * 1.0, 1e-9);
  EXPECT_NEAR(energyOver_kWh(given_W, 24, 27, kHour_s), 3.0, 1e-9) << "the steps that end after the first, to the last";
}

TEST(StoreNights, ADayAtEitherEndOfTheSeriesIsAsMuchAsThereIs) {
  const std::vector<float> given_W(10, 1000.0F);
  NightResult night;
  night.from = 2;
  night.to = 6;
  EXPECT_NEAR(storeDay(given_W, night, 3600.0).given_kWh, 9.0, 1e-9) << "the first value is no step's";
}

} // namespace
} // namespace muffle
