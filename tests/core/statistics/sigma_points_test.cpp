// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/statistics/sigma_points.h"

#include "tests/support/near.h"

#include <random>

namespace muffle {
namespace {

/// What a few random readings say of each other, with as many variables as there are readings less one: of less than full rank.
std::vector<double> randomCovariance(std::size_t variables, std::size_t readings, unsigned seed) {
  std::mt19937 random(seed);
  std::normal_distribution<double> normal;
  std::vector<std::vector<double>> x(readings, std::vector<double>(variables));
  for (auto& row : x)
    for (double& value : row) value = normal(random);
  std::vector<double> lower;
  for (std::size_t a = 0; a < variables; ++a)
    for (std::size_t b = 0; b <= a; ++b) {
      double sum = 0.0;
      for (const auto& row : x) sum += row[a] * row[b];
      lower.push_back(sum);
    }
  return lower;
}

TEST(SigmaPoints, HaveTheMeanAndTheCovarianceTheyStandFor) {
  for (unsigned seed = 0; seed < 40; ++seed) {
    const std::size_t variables = 1 + seed % 5, readings = 1 + seed % 7; // of full rank and of less
    const std::vector<double> lower = randomCovariance(variables, readings, seed);
    const auto points = sigmaPoints(lower, variables);
    ASSERT_TRUE(points) << seed;
    ASSERT_EQ(points->size(), 2 * variables);
    std::size_t at = 0;
    for (std::size_t a = 0; a < variables; ++a)
      for (std::size_t b = 0; b <= a; ++b, ++at) {
        double mean = 0.0, together = 0.0;
        for (const auto& point : *points) mean += point[a], together += point[a] * point[b] / static_cast<double>(points->size());
        EXPECT_CLOSE(mean, 0.0, 1e-12, "they lie in pairs on either side");
        EXPECT_CLOSE(together, lower[at], 1e-6 * (1.0 + std::abs(lower[at])), "a pivot below a billionth is taken as none");
      }
  }
}

TEST(SigmaPoints, WhatIsNoCovarianceHasNone) {
  EXPECT_FALSE(sigmaPoints(std::vector<double>{1.0, 0.5}, 2)) << "a number is missing";
  EXPECT_FALSE(sigmaPoints(std::vector<double>{-1.0}, 1)) << "no variance is below 0";
  EXPECT_FALSE(sigmaPoints(std::vector<double>{1.0, 1.1, 1.0}, 2)) << "correlated by more than 1";
  EXPECT_FALSE(sigmaPoints(std::vector<double>{0.0, 0.3, 1.0}, 2)) << "with one that is known exactly";
  EXPECT_TRUE(sigmaPoints(std::vector<double>{1.0, 1.0, 1.0}, 2)) << "the same thing twice";
}

} // namespace
} // namespace muffle
