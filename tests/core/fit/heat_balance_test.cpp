// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/fit/heat_balance.h"

#include "tests/support/near.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

namespace muffle {
namespace {

constexpr double kUA_W_K = 120.0, kC_J_K = 4e6, kStep_s = 900.0;

/// One node with a heater that is on half of the time, integrated exactly.
struct OneNode {
  std::vector<double> inside, outside, heater;
  explicit OneNode(std::size_t n, double noise_K = 0.0, unsigned seed = 1) {
    std::mt19937 random(seed);
    std::normal_distribution<double> scatter(0.0, noise_K > 0.0 ? noise_K : 1.0);
    double T = 8.0;
    for (std::size_t i = 0; i < n; ++i) {
      const double out = -2.0 + 3.0 * std::cos(static_cast<double>(i) / 15.0);
      const double watts = (i / 12) % 2 == 0 ? 0.0 : 2500.0;
      inside.push_back(T + (noise_K > 0.0 ? scatter(random) : 0.0));
      outside.push_back(out);
      heater.push_back(watts);
      const double rest = out + watts / kUA_W_K;
      T = rest + (T - rest) * std::exp(-kStep_s * kUA_W_K / kC_J_K);
    }
  }
};

TEST(HeatBalance, FindsLossAndStorageOfAHouseOfOneNode) {
  const OneNode house(200);
  const auto fit = fitHeatBalance(house.inside, house.outside, house.heater, kStep_s);
  ASSERT_TRUE(fit);
  EXPECT_CLOSE(fit->UA_W_K, kUA_W_K, 0.02 * kUA_W_K, "central differences over a switching heater");
  EXPECT_CLOSE(fit->C_J_K, kC_J_K, 0.10 * kC_J_K, "the same, where the slope has corners");
}

TEST(HeatBalance, ErrorsCoverTheTruthAsOftenAsTheySay) {
  int covered = 0;
  for (unsigned seed = 1; seed <= 20; ++seed) {
    const OneNode house(200, 0.02, seed);
    const auto fit = fitHeatBalance(house.inside, house.outside, house.heater, kStep_s);
    ASSERT_TRUE(fit);
    if (std::abs(fit->UA_W_K - kUA_W_K) < 1.96 * fit->seUA_W_K) ++covered;
  }
  EXPECT_GE(covered, 17) << "of 20 at 95 %: fewer happens once in a hundred";
}

TEST(HeatBalance, LeavesHolesOutAndSaysWhatItCannotTell) {
  OneNode house(200);
  const auto whole = fitHeatBalance(house.inside, house.outside, house.heater, kStep_s);
  for (std::size_t i = 50; i < 60; ++i) house.inside[i] = std::nan("");
  const auto holed = fitHeatBalance(house.inside, house.outside, house.heater, kStep_s);
  ASSERT_TRUE(whole && holed);
  EXPECT_EQ(holed->samples, whole->samples - 12) << "ten and their neighbours";
  const std::vector<double> still(50, 5.0), cold(50, 0.0), steady(50, 600.0);
  EXPECT_FALSE(fitHeatBalance(still, cold, steady, kStep_s)) << "nothing was stored";
  EXPECT_FALSE(fitHeatBalance({}, {}, {}, kStep_s));
}

TEST(CoolDown, IsTheTimeConstantOfALineInLogarithms) {
  std::vector<double> inside;
  for (int i = 0; i < 40; ++i) inside.push_back(-4.0 + 12.0 * std::exp(-600.0 * i / 18000.0));
  const auto fit = fitCoolDown(inside, -4.0, 600.0);
  ASSERT_TRUE(fit);
  EXPECT_CLOSE(fit->timeConstant_s, 18000.0, 1e-6, "rounding");
  std::reverse(inside.begin(), inside.end());
  EXPECT_FALSE(fitCoolDown(inside, -4.0, 600.0)) << "it warms";
}

TEST(RobustLine, PassesOutliersBy) {
  std::vector<double> x, y;
  std::mt19937 random(4);
  std::normal_distribution<double> scatter(0.0, 15.0);
  for (int i = 0; i < 31; ++i) {
    x.push_back(5.0 + 0.5 * i);
    y.push_back(100.0 + 80.0 * x.back() + scatter(random));
  }
  for (const std::size_t bad : {3U, 17U, 28U}) y[bad] = 9000.0;
  const auto line = robustLine(x, y);
  ASSERT_TRUE(line);
  EXPECT_CLOSE(line->slope, 80.0, 4.0, "three of thirty-one are wild");
  EXPECT_LT(line->low, 80.0);
  EXPECT_GT(line->high, 80.0);
  EXPECT_LT(line->high - line->low, 25.0);
  EXPECT_FALSE(robustLine(std::vector<double>{1, 1, 1, 1}, std::vector<double>{1, 2, 3, 4}));
}

} // namespace
} // namespace muffle
