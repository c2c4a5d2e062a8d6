// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/fit/house_loss.h"

#include <gtest/gtest.h>

#include <cmath>

namespace muffle {
namespace {

TEST(HouseLoss, LiesNearerToTheSurerOfTwoAndIsSurerThanEither) {
  const HouseLoss both = weighed(900.0, 40.0, 1000.0, 20.0);
  EXPECT_NEAR(both.UA_W_K, (900.0 / 1600.0 + 1000.0 / 400.0) / (1.0 / 1600.0 + 1.0 / 400.0), 1e-9);
  EXPECT_GT(both.UA_W_K, 950.0);
  EXPECT_LT(both.standardError_W_K, 20.0);
  const HouseLoss alike = weighed(900.0, 30.0, 1000.0, 30.0);
  EXPECT_NEAR(alike.UA_W_K, 950.0, 1e-9);
  EXPECT_NEAR(alike.standardError_W_K, 30.0 / std::sqrt(2.0), 1e-9);
}

} // namespace
} // namespace muffle
