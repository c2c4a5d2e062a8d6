// SPDX-License-Identifier: GPL-3.0-or-later
//
// Sky by the sun's own days: what a night was stays what it was, nothing jumps at midnight, and a low sun does not decide.
#include "core/weather/weather.h"
#include "tests/support/near.h"
#include "tests/support/random_house.h"

#include <cmath>

namespace muffle {
namespace {

Log firstOf(const Log& log, std::size_t rows) {
  Log cut = log;
  cut.time.resize(rows);
  for (Channel& c : cut.channels) c.raw.resize(rows), c.flag.resize(rows);
  return cut;
}

TEST(SunAndSky, ANightStaysWhatItWasWhateverIsLoggedAfterIt) {
  for (unsigned seed = 0; seed < 40; ++seed) {
    const Site site = testing::randomPlan(seed).site;
    const Log log = testing::randomLog(seed, site, 14);
    const Weather all = *weatherFromLog(log, site);
    const Winter& whole = all.winters.front();
    for (std::size_t k = 0; k + 1 < whole.nights.size(); k += 3) {
      const NightSpan& night = whole.nights[k];
      for (const std::size_t after : {std::size_t{2}, std::size_t{12}, std::size_t{40}, std::size_t{80}}) { // steps after sunrise
        const auto until = std::lower_bound(log.time.begin(), log.time.end(), whole.time(night.to + after)) - log.time.begin();
        const auto cut = weatherFromLog(firstOf(log, static_cast<std::size_t>(until)), site);
        if (!cut) continue; // less than a day
        const Winter& w = cut->winters.front();
        for (std::size_t i = 0; i <= night.to; ++i) {
          ASSERT_EQ(w.sky_C[i], whole.sky_C[i]) << "seed " << seed << ", cut " << after << " steps after sunrise, step " << i << " of " << night.to;
          ASSERT_EQ(w.sun_W_m2[i], whole.sun_W_m2[i]) << "seed " << seed << ", step " << i;
          ASSERT_EQ(w.outside_g_kg[i], whole.outside_g_kg[i]) << "seed " << seed << ", step " << i;
        }
      }
    }
  }
}

TEST(SunAndSky, NothingJumpsAtMidnightNorBySomeoneElsesClock) {
  for (unsigned seed = 0; seed < 60; ++seed) {
    Site site = testing::randomPlan(seed).site;
    site.timeZone = seed % 2 ? "+09:00" : "-05:00";
    const Weather all = *weatherFromLog(testing::randomLog(seed, site, 12), site);
    const Winter& w = all.winters.front();
    for (std::size_t i = 1; i < w.size(); ++i) {
      const double own_K = std::abs(w.outside_C[i] - w.outside_C[i - 1]);
      ASSERT_LE(std::abs(w.sky_C[i] - w.sky_C[i - 1]), 3.0 + 1.5 * own_K) << "seed " << seed << ", step " << i << ": clouds take an hour or two to come or go";
    }
  }
}

TEST(SunAndSky, TheSkyDoesNotDependOnTheClockOfThePlace) {
  Site site = testing::randomPlan(5).site;
  const Log log = testing::randomLog(5, site, 10);
  site.timeZone = "UTC";
  const Weather one = *weatherFromLog(log, site);
  site.timeZone = "+11:00";
  const Weather other = *weatherFromLog(log, site);
  EXPECT_EQ(one.winters.front().sky_C, other.winters.front().sky_C);
  EXPECT_EQ(one.winters.front().sun_W_m2, other.winters.front().sun_W_m2);
}

double meanSkyBelowAir_K(const Winter& w) {
  double sum = 0.0;
  for (std::size_t i = 0; i < w.size(); ++i) sum += w.outside_C[i] - w.sky_C[i];
  return sum / static_cast<double>(w.size());
}

Weather inDecember(double latitude_deg, bool sunColumnOfZeros) {
  Site site;
  site.place = {latitude_deg, 15.0, 100.0};
  Log log;
  testing::Chance chance(3);
  const auto add = [&](Role role) {
    log.channels.push_back({.name = "", .role = role, .id = "", .statistic = Statistic::moment, .unitIn = "", .unitWhy = {}, .raw = {}, .flag = {}});
  };
  add(Role::outside);
  if (sunColumnOfZeros) add(Role::sun);
  double swing = 4.0;
  for (int i = 0; i <= 20 * 144; ++i) {
    if (i % 144 == 0) swing = chance.between(1.0, 5.0);
    log.time.push_back(daysSinceEpoch({2031, 12, 8}) * 86400 + 600 * i);
    log.channels[0].raw.push_back(static_cast<float>(-8.0 + swing * std::cos(2.0 * kPi * (i / 6.0 + 1.0 - 14.0) / 24.0)));
    if (sunColumnOfZeros) log.channels[1].raw.push_back(0.0F);
  }
  for (Channel& c : log.channels) c.flag.assign(log.time.size(), 0);
  return *weatherFromLog(log, site);
}

TEST(SunAndSky, ALowSunDoesNotDecideHowCloudyItIs) {
  const double at57 = meanSkyBelowAir_K(inDecember(57.0, false).winters.front());
  for (const double latitude : {60.0, 63.0, 65.5})
    EXPECT_CLOSE(meanSkyBelowAir_K(inDecember(latitude, false).winters.front()), at57, 1.0, "the same readings of the same air, nights a little longer");
  EXPECT_CLOSE(meanSkyBelowAir_K(inDecember(65.5, true).winters.front()), meanSkyBelowAir_K(inDecember(65.5, false).winters.front()), 0.3,
               "a gauge that reads nothing in a sun of one degree says nothing");
}

TEST(SunAndSky, AnAfternoonThatWasNotLoggedTakesTheSkyOfTheDayBeforeAndIsCounted) {
  const Site site = testing::randomPlan(8).site;
  const Log log = testing::randomLog(8, site, 6);
  const std::size_t halfTen = log.time.size() - 15; // the log starts and ends at noon
  EXPECT_GE(weatherFromLog(firstOf(log, halfTen), site)->carriedDays, 1U);
}

} // namespace
} // namespace muffle
