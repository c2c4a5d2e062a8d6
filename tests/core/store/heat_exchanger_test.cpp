// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/store/heat_exchanger.h"

#include <gtest/gtest.h>

#include <cmath>

namespace muffle {
namespace {

TEST(HeatExchanger, NeverGivesMoreThanTheSecondLawLets) {
  for (const double units : {0.0, 0.3, 1.0, 3.0, 20.0})
    for (const double ratio : {0.0, 0.25, 0.5, 1.0}) {
      const double counter = exchangerEffectiveness(FlowArrangement::counterflow, units, ratio);
      const double parallel = exchangerEffectiveness(FlowArrangement::parallel, units, ratio);
      EXPECT_GE(counter, parallel - 1e-12) << units << " " << ratio;
      EXPECT_LE(counter, 1.0);
      EXPECT_LE(parallel, 1.0 / (1.0 + ratio) + 1e-12); // both streams leave at the mixing temperature
    }
}

TEST(HeatExchanger, BalancedCounterflowIsTheLimitOfUnbalanced) {
  EXPECT_NEAR(exchangerEffectiveness(FlowArrangement::counterflow, 2.0, 1.0), 2.0 / 3.0, 1e-12);
  EXPECT_NEAR(exchangerEffectiveness(FlowArrangement::counterflow, 2.0, 1.0 - 1e-6), 2.0 / 3.0, 1e-6); // the formula's own slope there
}

TEST(HeatExchanger, AgainstOneTemperatureBothArrangementsAreOne) {
  for (const double units : {0.2, 1.0, 4.0})
    EXPECT_NEAR(exchangerEffectiveness(FlowArrangement::parallel, units), exchangerEffectiveness(FlowArrangement::counterflow, units), 1e-12);
}

TEST(WaterLoop, CarriesNoMoreThanItsPumpAndNoMoreThanItsRadiator) {
  EXPECT_EQ(loopConductance_W_K(0.0, 300.0), 0.0);
  EXPECT_LT(loopConductance_W_K(400.0, 300.0), 300.0);
  EXPECT_LT(loopConductance_W_K(100.0, 300.0), 100.0);
  EXPECT_NEAR(loopConductance_W_K(1e6, 300.0), 300.0, 0.1); // much water: the radiator alone, 1.5e-4 of it short
}

} // namespace
} // namespace muffle
