// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/site/climate.h"

#include "tests/support/near.h"

#include <numbers>

namespace muffle {
namespace {

/// Nights whose lows and highs follow a yearly wave, coldest on a day, from a date on.
std::vector<Night> wavyNights(Date from, int count, double mean_C, double amplitude_K, double coldestDay) {
  std::vector<Night> nights;
  for (int k = 0; k < count; ++k) {
    Night night;
    night.date = dateFromDays(daysSinceEpoch(from) + k);
    const double wave = mean_C - amplitude_K * std::cos(2.0 * std::numbers::pi * (dayOfYear(night.date) - coldestDay) / 365.25);
    night.outsideLow = Reading{wave - 5.0, 0};
    night.dayHigh = Reading{wave + 5.0, 0};
    night.complete = true;
    nights.push_back(night);
  }
  return nights;
}

TEST(Climate, TheYearsWaveOfTheAirIsFoundFromMostOfAYear) {
  for (const double coldest : {20.0, 207.0, 360.0}) {
    auto nights = wavyNights({2023, 9, 1}, 600, 9.3, 8.4, coldest);
    nights.erase(nights.begin() + 200, nights.begin() + 230); // a hole
    const auto year = airYear(nights);
    ASSERT_TRUE(year);
    EXPECT_CLOSE(year->mean_C, 9.3, 0.02, "the days of a leap year");
    EXPECT_CLOSE(year->amplitude_K, 8.4, 0.02, "the days of a leap year");
    EXPECT_CLOSE(year->coldestDay, coldest, 0.5, "half a day");
  }
  EXPECT_FALSE(airYear(wavyNights({2023, 10, 1}, 182, 9.3, 8.4, 20.0))) << "two winters' halves tell nothing of summer";
  EXPECT_FALSE(airYear({}));
}

TEST(Climate, EveryWinterHasItsLowAndFrostsThatTheLogSawBeginAndEnd) {
  const auto nights = wavyNights({2023, 9, 1}, 500, 9.0, 9.0, 20.0);
  const auto winters = loggedWinters(nights, 45.0);
  ASSERT_EQ(winters.size(), 2U);
  EXPECT_EQ(winters[0].beginsIn, 2023);
  EXPECT_CLOSE(winters[0].low.value, -5.0, 1e-9, "mean less swing less half a day's");
  ASSERT_TRUE(winters[0].firstFrost && winters[0].lastFrost);
  // the wave crosses 5 degrees where cos = 4/9: 64.6 days either side of the coldest
  EXPECT_EQ(isoDate(*winters[0].firstFrost), "2023-11-17");
  EXPECT_EQ(isoDate(*winters[0].lastFrost), "2024-03-24");
  EXPECT_TRUE(winters[1].firstFrost);
  EXPECT_FALSE(winters[1].lastFrost) << "the log ends in frost";
  const auto opensInFrost = loggedWinters(wavyNights({2024, 1, 5}, 150, 9.0, 9.0, 20.0), 45.0);
  EXPECT_FALSE(opensInFrost.at(0).firstFrost);
  EXPECT_TRUE(opensInFrost.at(0).lastFrost);
}

TEST(Climate, SouthOfTheEquatorAWinterIsOfOneYear) {
  const auto winters = loggedWinters(wavyNights({2024, 2, 1}, 300, 9.0, 9.0, 207.0), -41.0);
  ASSERT_EQ(winters.size(), 1U);
  EXPECT_EQ(winters[0].beginsIn, 2024);
  EXPECT_TRUE(winters[0].firstFrost && winters[0].lastFrost);
}

} // namespace
} // namespace muffle
