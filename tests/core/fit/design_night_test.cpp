// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/fit/design_night.h"
#include "core/log/growing.h"

#include "tests/support/near.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>
#include <vector>

namespace muffle {
namespace {

std::vector<double> winters(std::size_t n, unsigned seed) {
  std::mt19937 random(seed);
  std::uniform_real_distribution<double> even(1e-9, 1.0 - 1e-9);
  std::vector<double> lows;
  for (std::size_t i = 0; i < n; ++i) lows.push_back(-12.0 + 2.5 * std::log(-std::log(even(random)))); // m -12, b 2.5
  return lows;
}

TEST(DesignNight, FindsTheDistributionThatWintersWereDrawnFrom) {
  const auto many = winters(20000, 3);
  for (const auto& fit : {gumbelByMoments(many), gumbelByLikelihood(many)}) {
    ASSERT_TRUE(fit);
    EXPECT_CLOSE(fit->m_C, -12.0, 0.08, "four standard errors of twenty thousand winters");
    EXPECT_CLOSE(fit->b_K, 2.5, 0.08, "the same");
    EXPECT_CLOSE(fit->returnLow_C(50.0), -12.0 - 2.5 * 3.9019, 0.4, "the same, far out");
  }
}

TEST(DesignNight, ItsErrorIsWhatThirtyWintersScatterBy) {
  double sum = 0.0, squares = 0.0;
  constexpr int kTries = 400;
  for (unsigned seed = 1; seed <= kTries; ++seed) {
    const double low = gumbelByLikelihood(winters(30, seed))->returnLow_C(20.0);
    sum += low / kTries;
    squares += low * low / kTries;
  }
  const double scatter = std::sqrt(squares - sum * sum);
  EXPECT_CLOSE(Gumbel({-12.0, 2.5}).returnError_K(20.0, 30), scatter, 0.15 * scatter,
               "four hundred tries know a spread to 4 %; the formula is for many winters");
}

TEST(DesignNight, AsksForWintersThatDiffer) {
  EXPECT_FALSE(gumbelByMoments(std::vector<double>{-9.0, -11.0}));
  EXPECT_FALSE(gumbelByLikelihood(std::vector<double>{-9.0, -9.0, -9.0}));
}

Night aNight(double low_C, bool complete = true) {
  Night n;
  n.outsideLow = Reading{low_C, 0};
  n.complete = complete;
  return n;
}

TEST(LoggedLows, CountWholeNightsAndFindTheOneInAHundred) {
  EXPECT_FALSE(loggedLows({}));
  EXPECT_FALSE(loggedLows({aNight(-4.0, false)})) << "what happened in a hole is not known";
  std::vector<Night> nights;
  for (int i = 0; i < 201; ++i) nights.push_back(aNight(-0.1 * ((37 * i) % 201))); // 0 to -20, in no order
  nights.push_back(aNight(-30.0, false));
  const auto lows = loggedLows(nights);
  ASSERT_TRUE(lows);
  EXPECT_EQ(lows->nights, 201U);
  EXPECT_CLOSE(lows->coldest_C, -20.0, 1e-12, "rounding");
  EXPECT_CLOSE(lows->oneInHundred_C, -19.8, 1e-12, "two of two hundred are colder");
  EXPECT_DOUBLE_EQ(loggedLows({aNight(-3.0), aNight(-7.0)})->oneInHundred_C, -7.0) << "of few nights the coldest";
}

TEST(Growing, CountsDaysByThePlacesOwnDates) {
  Log log;
  Channel room{.name = "house", .role = Role::room, .id = "house", .unitIn = "C", .unitWhy = {}, .raw = {}, .flag = {}};
  for (int i = 0; i < 48; ++i) { // 4 to 16 degrees, from midnight UTC
    log.time.push_back(daysSinceEpoch({2031, 4, 1}) * 86400 + 3600 * i);
    room.raw.push_back(i % 24 == 14 ? 16.0F : 4.0F);
  }
  room.flag.assign(room.raw.size(), 0);
  const GrowingWarmth utc = growingWarmth(log, room, 5.0, TimeZone::utc());
  EXPECT_EQ(utc.days, 2U);
  EXPECT_CLOSE(utc.degreeDays_K_d, 2.0 * 5.0, 1e-9, "(4 + 16)/2 - 5, twice");
  EXPECT_CLOSE(utc.degreeHours_K_h, 2.0 * 11.0, 1e-9, "one hour of 11 K a day");
  const GrowingWarmth there = growingWarmth(log, room, 5.0, *TimeZone::named("+10:00"));
  EXPECT_EQ(there.days, 3U) << "the log begins at ten in the morning there";
  EXPECT_CLOSE(there.degreeHours_K_h, utc.degreeHours_K_h, 1e-12, "hours are hours");
  room.raw[14] = std::nanf("");
  EXPECT_CLOSE(growingWarmth(log, room, 5.0, TimeZone::utc()).degreeDays_K_d, 5.0, 1e-9, "the first day's peak was not read");
}

TEST(Growing, CountsWhatIsAboveTheBaseAndBelowTheCap) {
  const std::vector<double> hours{4.0, 6.0, 12.0, std::nan(""), 40.0};
  EXPECT_CLOSE(growingDegreeHours_K_h(hours, 3600.0, 5.0, 30.0), 1.0 + 7.0 + 25.0, 1e-12, "rounding");
  EXPECT_CLOSE(growingDegreeHours_K_h(hours, 1800.0, 5.0, 30.0), 16.5, 1e-12, "half hours");
  EXPECT_EQ(growingDegreeDay_K_d(2.0, 6.0, 5.0), 0.0);
  EXPECT_CLOSE(growingDegreeDay_K_d(2.0, 18.0, 5.0), 5.0, 1e-12, "rounding");
}

} // namespace
} // namespace muffle
