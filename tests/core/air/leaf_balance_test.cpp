// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/air/leaf_balance.h"
#include "core/air/moist_air.h"
#include "tests/support/near.h"

#include <cmath>

namespace muffle {
namespace {

double blackbody(double t_C) { return kStefanBoltzmann_W_m2K4 * std::pow(t_C + kZeroCelsius_K, 4.0); }

TEST(LeafBalance, AmongThingsAsWarmAsTheAirAndDampAirALeafIsAsWarm) {
  LeafSurroundings at;
  at.relativeHumidity = 1.0;
  at.longwaveAbove_W_m2 = at.longwaveBelow_W_m2 = blackbody(at.air_C);
  EXPECT_CLOSE(leafBalance(at).leaf_C, at.air_C, 1e-6, "nothing to move it");
  EXPECT_CLOSE(leafBalance(at).transpiration_kg_m2s, 0.0, 1e-9, "nor to dry it");
}

TEST(LeafBalance, SunWarmsItWaterCoolsItAndTheSkyBringsDew) {
  LeafSurroundings at;
  at.longwaveAbove_W_m2 = at.longwaveBelow_W_m2 = blackbody(at.air_C);
  const double shaded = leafBalance(at).leaf_C;
  at.absorbedShortwave_W_m2 = 300.0;
  const LeafState sunny = leafBalance(at);
  EXPECT_GT(sunny.leaf_C, shaded + 2.0);
  at.stomata_s_m = 100.0;
  EXPECT_LT(leafBalance(at).leaf_C, sunny.leaf_C) << "open stomata";
  EXPECT_GT(leafBalance(at).transpiration_kg_m2s, sunny.transpiration_kg_m2s);
  at.absorbedShortwave_W_m2 = 0.0;
  at.longwaveAbove_W_m2 = 240.0;
  at.relativeHumidity = 0.98;
  EXPECT_LT(leafBalance(at).transpiration_kg_m2s, 0.0);
}

TEST(LeafBalance, AtNightFrostSettlesOnlyBelowFreezingAndNeverInDryAir) {
  const LeafNight warm = leafAtNight(12.0, 0.97, 270.0, 10.0, 0.05, 0.96), cold = leafAtNight(0.0, 0.97, 230.0, -1.0, 0.05, 0.96),
                  dry = leafAtNight(0.0, 0.2, 230.0, -1.0, 0.05, 0.96);
  EXPECT_EQ(warm.kind, Deposit::dew);
  EXPECT_EQ(cold.kind, Deposit::frost);
  EXPECT_LT(cold.leaf_C, 0.0);
  EXPECT_EQ(dry.kind, Deposit::none);
  EXPECT_LT(dry.leaf_C, cold.leaf_C) << "what freezes on it warms it";
}

TEST(LeafBalance, SupercooledWaterHasMoreVapourOverItThanIce) {
  EXPECT_EQ(saturationOverWater_Pa(10.0), saturationPressure_Pa(10.0));
  EXPECT_CLOSE(saturationOverWater_Pa(-10.0), 286.5, 0.5, "Hyland and Wexler, as tables print it");
  EXPECT_GT(saturationOverWater_Pa(-10.0), saturationPressure_Pa(-10.0));
}

} // namespace
} // namespace muffle
