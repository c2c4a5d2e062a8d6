// SPDX-License-Identifier: GPL-3.0-or-later
//
// Comparisons that name their tolerance and its reason.
#pragma once

#include <gtest/gtest.h>

#include <cmath>

namespace muffle::testing {

/// A tolerance and why it is what it is.
struct Tolerance {
  double absolute;
  const char* reason;
};

inline ::testing::AssertionResult isNear(double actual, double expected, const Tolerance& t) {
  const double difference = std::abs(actual - expected);
  if (difference <= t.absolute) return ::testing::AssertionSuccess();
  return ::testing::AssertionFailure() << "actual " << actual << ", expected " << expected << ", difference " << difference << " above " << t.absolute << " ("
                                       << t.reason << ")";
}

#define ASSERT_CLOSE(actual, expected, absolute, reason) ASSERT_TRUE(::muffle::testing::isNear((actual), (expected), {(absolute), (reason)}))
#define EXPECT_CLOSE(actual, expected, absolute, reason) EXPECT_TRUE(::muffle::testing::isNear((actual), (expected), {(absolute), (reason)}))

} // namespace muffle::testing
