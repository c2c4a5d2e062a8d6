// SPDX-License-Identifier: GPL-3.0-or-later
//
// The assumed weeks before a log.
#include "core/weather/before.h"

#include "core/constants.h"
#include "tests/support/frost.h"
#include "tests/support/yard.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <numeric>

namespace muffle {
namespace {

TEST(WeatherBefore, IsAsLongAsAskedHourByHourAndNothingForNoDays) {
  const Plan p = testing::yard();
  const auto weather = testing::frost(p.site);
  const Winter& logged = weather->winters.front();
  EXPECT_FALSE(weatherBefore(logged, p.site, 0));
  for (const int days : {1, 30, 120}) {
    const auto before = weatherBefore(logged, p.site, days);
    ASSERT_TRUE(before) << days;
    EXPECT_EQ(before->step_s, 3600.0);
    EXPECT_EQ(before->time(before->size() - 1), logged.start) << "it ends where the log begins";
    EXPECT_EQ(before->size(), static_cast<std::size_t>(24 * days + 1));
  }
}

TEST(WeatherBefore, IsWarmerTheFurtherItGoesBackIntoAutumn) {
  const Plan p = testing::yard();
  const auto weather = testing::frost(p.site);
  const auto before = weatherBefore(weather->winters.front(), p.site, 120); // of a log in mid January
  ASSERT_TRUE(before);
  const auto month = [&](std::size_t first) {
    const auto begin = before->outside_C.begin() + static_cast<std::ptrdiff_t>(24 * first);
    return std::accumulate(begin, begin + 24 * 30, 0.0) / (24 * 30);
  };
  EXPECT_GT(month(0), month(45) + 2.0); // mid September against November, of a wave of nine kelvin to either side
  EXPECT_GT(month(45), month(90));
}

TEST(WeatherBefore, HasNightsAndASunThatFollowsThem) {
  const Plan p = testing::yard();
  const auto weather = testing::frost(p.site);
  const auto before = weatherBefore(weather->winters.front(), p.site, 30);
  ASSERT_TRUE(before);
  EXPECT_GE(before->nights.size(), 28u);
  const auto night = nightOf(*before);
  for (std::size_t i = 0; i + 1 < before->size(); ++i) {
    EXPECT_GE(before->outside_g_kg[i], 0.0);
    if (night[i] == 0.0 || night[i + 1] == 0.0) continue;
    EXPECT_LT(before->sun_W_m2[i + 1], 5.0) << "in the dark, but for the hour of sunrise";
  }
}

} // namespace
} // namespace muffle
