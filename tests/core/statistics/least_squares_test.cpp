// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/statistics/least_squares.h"

#include "tests/support/near.h"

#include <random>

namespace muffle {
namespace {

TEST(LeastSquares, GivesAStraightLineAndItsErrorsAsByHand) {
  // y over 1, 2, 3, 4: slope 1.4 and foot −0.5 by hand; residuals 0.1, −0.3, 0.3, −0.1
  const std::vector<double> x{1, 1, 1, 2, 1, 3, 1, 4}, y{1.0, 2.0, 4.0, 5.0};
  const LeastSquares line = leastSquares(x, 2, y);
  EXPECT_CLOSE(line.coefficients[0]->value, -0.5, 1e-12, "rounding");
  EXPECT_CLOSE(line.coefficients[1]->value, 1.4, 1e-12, "rounding");
  EXPECT_CLOSE(line.residualVariance, 0.1, 1e-12, "0.2 over two degrees of freedom");
  EXPECT_CLOSE(line.coefficients[1]->standardError, std::sqrt(0.1 / 5.0), 1e-12, "variance over the spread of x, 5");
  EXPECT_CLOSE(line.coefficients[0]->standardError, std::sqrt(0.1 * (1.0 / 4.0 + 2.5 * 2.5 / 5.0)), 1e-12, "the foot stands 2.5 from the mean");
  EXPECT_EQ(line.degreesOfFreedom, 2U);
}

TEST(LeastSquares, AColumnOfZerosIsLeftOutAndTheOthersStand) {
  const std::vector<double> x{1, 0, 1, 1, 0, 2, 1, 0, 3, 1, 0, 4}, y{1.0, 2.0, 4.0, 5.0};
  const LeastSquares line = leastSquares(x, 3, y);
  EXPECT_FALSE(line.coefficients[1]);
  EXPECT_CLOSE(line.coefficients[2]->value, 1.4, 1e-12, "rounding");
  EXPECT_EQ(line.rank, 2U);
}

TEST(LeastSquares, WhatTwoColumnsShareIsGivenToNeither) {
  std::mt19937 random(5);
  std::normal_distribution<double> normal;
  std::vector<double> x, y;
  for (int i = 0; i < 40; ++i) {
    const double a = normal(random), b = normal(random), e = 0.01 * normal(random);
    x.insert(x.end(), {1.0, a, b, 3.0 * b - 2.0}); // the last is made of the foot and b
    y.push_back(0.7 + 2.0 * a + 5.0 * b + e);
  }
  const LeastSquares plane = leastSquares(x, 4, y);
  ASSERT_TRUE(plane.coefficients[1]);
  EXPECT_CLOSE(plane.coefficients[1]->value, 2.0, 4.0 * plane.coefficients[1]->standardError, "four standard errors");
  EXPECT_FALSE(plane.coefficients[0]);
  EXPECT_FALSE(plane.coefficients[2]);
  EXPECT_FALSE(plane.coefficients[3]);
}

TEST(LeastSquares, UnitsOfColumnsChangeNothingButTheUnitsOfTheAnswer) {
  std::mt19937 random(6);
  std::normal_distribution<double> normal;
  std::vector<double> small, large, y;
  for (int i = 0; i < 30; ++i) {
    const double a = normal(random), b = normal(random);
    small.insert(small.end(), {a, b});
    large.insert(large.end(), {1e9 * a, 1e-9 * b});
    y.push_back(3.0 * a - 4.0 * b + normal(random));
  }
  const LeastSquares s = leastSquares(small, 2, y), l = leastSquares(large, 2, y);
  ASSERT_TRUE(l.coefficients[0] && l.coefficients[1]);
  EXPECT_CLOSE(1e9 * l.coefficients[0]->value, s.coefficients[0]->value, 1e-12, "rounding");
  EXPECT_CLOSE(1e-9 * l.coefficients[1]->standardError, s.coefficients[1]->standardError, 1e-12, "rounding");
}

TEST(LeastSquares, ErrorsCoverTheTruthAsOftenAsTheyClaim) {
  std::mt19937 random(7);
  std::normal_distribution<double> normal;
  int covered = 0;
  for (int trial = 0; trial < 400; ++trial) {
    std::vector<double> x, y;
    for (int i = 0; i < 60; ++i) {
      const double a = normal(random);
      x.insert(x.end(), {1.0, a, a + normal(random)});
      y.push_back(1.0 + 2.0 * a + normal(random));
    }
    const auto slope = leastSquares(x, 3, y).coefficients[1];
    covered += std::abs(slope->value - 2.0) < 2.0 * slope->standardError ? 1 : 0;
  }
  EXPECT_NEAR(covered, 380, 18) << "95 of a hundred; four standard deviations of such a count are 17";
}

} // namespace
} // namespace muffle
