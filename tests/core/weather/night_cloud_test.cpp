// SPDX-License-Identifier: GPL-3.0-or-later
//
// Cloud from a night's cooling: the night that falls furthest is clear, one that does not fall is overcast.
#include "core/weather/night_cloud.h"

#include "core/constants.h"
#include "core/weather/weather.h"
#include "tests/support/near.h"

namespace muffle {
namespace {

constexpr double kEffect = 0.78; // of a full low cloud

/// The fall Brunt's formula gives over ground of an admittance, under some cloud.
NightFall fallUnder(double cloud, double admittance, double hours = 14.0) {
  constexpr double kClearLoss_W_m2 = 85.0;
  return {2.0 / std::sqrt(kPi) * kClearLoss_W_m2 * (1.0 - kEffect * cloud) * std::sqrt(hours * 3600.0) / admittance, hours, kClearLoss_W_m2, true};
}

TEST(NightCloud, IsFoundAgainFromFallsMadeWithIt) {
  std::vector<NightFall> nights;
  std::vector<double> made;
  for (int i = 0; i < 60; ++i) {
    made.push_back(i % 5 == 0 ? 0.0 : 0.25 * (i % 5)); // every fifth night clear
    nights.push_back(fallUnder(made.back(), 1400.0, 12.0 + i % 4));
  }
  const auto found = cloudFromCooling(nights, kEffect);
  constexpr std::size_t kKnown = 10; // the first nights lean on what soil usually has
  for (std::size_t i = kKnown; i < nights.size(); ++i) EXPECT_CLOSE(found[i].value(), made[i], 1e-9, "the formula turned round");
}

TEST(NightCloud, IsTheSameWhateverNightsFollow) {
  std::vector<NightFall> nights;
  for (int i = 0; i < 40; ++i) nights.push_back(fallUnder(0.1 * (i * 7 % 11), 1300.0));
  const auto all = cloudFromCooling(nights, kEffect);
  for (std::size_t n = 1; n < nights.size(); ++n) EXPECT_EQ(cloudFromCooling(std::span(nights).first(n), kEffect).back(), all[n - 1]);
}

TEST(NightCloud, AnOvercastMonthIsNotTakenForAClearOne) {
  const std::vector<NightFall> dull(40, fallUnder(0.95, 1800.0)); // all alike: the furthest fall is still a small one
  for (const auto& cloud : cloudFromCooling(dull, kEffect)) EXPECT_GT(cloud.value(), 0.75) << "no soil takes so long to cool";
}

TEST(NightCloud, SaysNothingOfNightsWithHoles) {
  std::vector<NightFall> nights(10, fallUnder(0.0, 1400.0));
  nights[4].isKnown = false;
  const auto found = cloudFromCooling(nights, kEffect);
  EXPECT_FALSE(found[4]);
  EXPECT_TRUE(found[5]);
}

TEST(NightCloud, MakesTheSkyOfANightWarmerThatStayedMild) {
  // two weeks of the same days; one night hardly falls
  Log log;
  Channel out;
  out.role = Role::outside;
  const UtcSeconds start = daysSinceEpoch({2031, 1, 5}) * 86400;
  for (int i = 0; i < 14 * 144; ++i) {
    const double hour = std::fmod(i / 6.0, 24.0);
    double t = -2.0 + 5.0 * std::cos(2.0 * kPi * (hour - 14.0) / 24.0);
    const int evening = (i - 102) / 144; // counted from five in the afternoon
    if (evening == 6 && (i - 102) % 144 < 90) t = std::max(t, 0.4);
    log.time.push_back(start + i * 600);
    out.raw.push_back(static_cast<float>(t));
  }
  out.flag.assign(out.raw.size(), 0);
  log.channels.push_back(out);
  Site site;
  site.place = {46.0, 0.0, 500.0};
  const auto weather = weatherFromLog(log, site);
  ASSERT_TRUE(weather);
  const Winter& w = weather->winters.at(0);
  const auto midnightCloud = [&](const Date& date) {
    for (const NightSpan& n : w.nights)
      if (n.date == date) return w.cloud[(n.from + n.to) / 2];
    return -1.0;
  };
  EXPECT_GT(midnightCloud({2031, 1, 11}), midnightCloud({2031, 1, 8}) + 0.3);
}

} // namespace
} // namespace muffle
