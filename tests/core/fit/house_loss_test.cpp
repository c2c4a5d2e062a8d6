// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/fit/house_loss.h"

#include <gtest/gtest.h>

#include <cmath>

namespace muffle {
namespace {

TEST(HouseLoss, LiesNearerToTheSurerOfTwoAndIsSurerThanEither) {
  const Weighed both = weighed(900.0, 40.0, 1000.0, 20.0);
  EXPECT_NEAR(both.value, (900.0 / 1600.0 + 1000.0 / 400.0) / (1.0 / 1600.0 + 1.0 / 400.0), 1e-9);
  EXPECT_GT(both.value, 950.0);
  EXPECT_LT(both.standardError, 20.0);
  const Weighed alike = weighed(900.0, 30.0, 1000.0, 30.0);
  EXPECT_NEAR(alike.value, 950.0, 1e-9);
  EXPECT_NEAR(alike.standardError, 30.0 / std::sqrt(2.0), 1e-9);
}

TEST(HouseStorage, IsTheFittedPlansWithTheErrorOfItsForm) {
  Calibrated fit;
  EXPECT_FALSE(houseStorage(fit)) << "no heater was logged";
  fit.balance = HeatBalance{.C_J_K = 10e6, .seC_J_K = 0.8e6};
  const auto storage = houseStorage(fit);
  ASSERT_TRUE(storage);
  EXPECT_DOUBLE_EQ(storage->C_J_K, 10e6);
  EXPECT_NEAR(storage->standardError_J_K, 1e6, 1.0); // 0.8 and 0.6 at right angles
}

} // namespace
} // namespace muffle
