// SPDX-License-Identifier: GPL-3.0-or-later
//
// A change of the house is told from a change of the weather.
#include "core/log/compare.h"

#include "tests/support/near.h"

#include <random>

namespace muffle {
namespace {

/// Nights about a mean outside low; the lift grows with the cold and by `gain`.
std::vector<Night> nightsOf(int n, double low_C, double gain_K, unsigned seed) {
  std::mt19937 random(seed);
  std::normal_distribution<double> normal;
  std::vector<Night> nights;
  for (int i = 0; i < n; ++i) {
    Night night;
    night.complete = true;
    const double low = low_C + 4.0 * normal(random);
    const double swing = 6.0 + 3.0 * normal(random);
    night.outsideLow = Reading{low, 0};
    night.dayHigh = Reading{low + swing, 0};
    night.meanWind_m_s = std::abs(normal(random));
    night.hasWind = true;
    const double cloud = swing >= 9.0 ? 0.0 : swing <= 4.5 ? 1.0 : 0.5;
    night.insideLow = Reading{low + 3.0 - 0.25 * low + 1.0 * cloud - 0.4 * night.meanWind_m_s + gain_K + 0.3 * normal(random), 0};
    nights.push_back(night);
  }
  return nights;
}

TEST(Compare, FindsWhatASecondFilmDidThoughTheSecondWinterWasMild) {
  const auto c = compareNights(nightsOf(80, -6.0, 0.0, 1), nightsOf(80, 2.0, 1.5, 2));
  ASSERT_TRUE(c);
  EXPECT_LT(c->second.meanLift_K, c->first.meanLift_K) << "the bare means mislead: mild nights have less lift";
  EXPECT_CLOSE(c->atLikeNights->value_K, 1.5, 3.0 * c->atLikeNights->standardError_K, "three standard errors");
  EXPECT_TRUE(c->atLikeNights->isReal());
}

TEST(Compare, DoesNotClaimAChangeWhereThereWasNone) {
  int claimed = 0;
  for (unsigned seed = 0; seed < 40; ++seed)
    if (const auto c = compareNights(nightsOf(40, -6.0, 0.0, 2 * seed + 10), nightsOf(40, 0.0, 0.0, 2 * seed + 11)); c->atLikeNights->isReal()) ++claimed;
  EXPECT_LE(claimed, 7) << "one in twenty is expected, two of forty; seven or fewer in all but one of a thousand such tests";
}

TEST(Compare, ClaimsNothingWhereTheWeatherAloneTellsTheSetsApart) {
  auto cloudy = nightsOf(40, -6.0, 0.0, 1), clear = nightsOf(40, -6.0, 3.0, 2);
  for (Night& night : cloudy) night.dayHigh = Reading{night.outsideLow->value + 1.0, 0};
  for (Night& night : clear) night.dayHigh = Reading{night.outsideLow->value + 20.0, 0};
  const auto c = compareNights(cloudy, clear);
  ASSERT_TRUE(c);
  EXPECT_EQ(c->second.nights, 40U);
  EXPECT_FALSE(c->atLikeNights);
}

TEST(Compare, AsksForEnoughNights) { EXPECT_FALSE(compareNights(nightsOf(5, 0.0, 0.0, 1), nightsOf(80, 0.0, 0.0, 2))); }

} // namespace
} // namespace muffle
