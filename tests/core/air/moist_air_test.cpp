// SPDX-License-Identifier: GPL-3.0-or-later
//
// Moist air: the laws that its formulas must keep among themselves.
#include "core/air/moist_air.h"

#include "core/air/sky.h"
#include "tests/support/near.h"

#include <cmath>

namespace muffle {
namespace {

TEST(MoistAir, DewPointUndoesSaturation) {
  for (double t = -40.0; t <= 60.0; t += 2.5) EXPECT_CLOSE(dewPoint_C(saturationPressure_Pa(t)), t, 1e-6, "solver setting of the inverse");
}

TEST(MoistAir, IceAndWaterMeetAtTheFreezingPoint) {
  const double ice = saturationPressure_Pa(-1e-9), water = saturationPressure_Pa(0.0);
  EXPECT_CLOSE(ice / water, 1.0, 2e-4, "the two fits of Hyland and Wexler differ by 0.01 % at 0 degC");
  EXPECT_CLOSE(water, 611.2, 0.1, "tables give 611.2 Pa at 0 degC");
  EXPECT_LT(saturationPressure_Pa(-10.0), saturationPressure_Pa(0.0));
}

TEST(MoistAir, VapourPressureUndoesHumidityRatio) {
  for (const double vapour : {50.0, 400.0, 1200.0, 2300.0})
    for (const double pressure : {80e3, 101325.0}) EXPECT_CLOSE(vapourPressure_Pa(humidityRatio(vapour, pressure), pressure), vapour, 1e-9, "rounding");
}

TEST(MoistAir, WetBulbLiesBetweenDewPointAndAir) {
  for (const double t : {-5.0, 4.0, 15.0, 30.0}) {
    for (const double share : {0.2, 0.5, 0.9}) {
      const double vapour = share * saturationPressure_Pa(t);
      const double wet = wetBulb_C(t, humidityRatio(vapour));
      EXPECT_LT(wet, t);
      EXPECT_GT(wet, dewPoint_C(vapour));
    }
    EXPECT_CLOSE(wetBulb_C(t, humidityRatio(saturationPressure_Pa(t))), t, 0.01, "solver setting: saturated air cools nothing");
  }
}

TEST(MoistAir, HumidityRatioComesBackFromTheWetBulb) {
  for (const double t : {6.0, 18.0, 33.0}) {
    const double w = humidityRatio(0.6 * saturationPressure_Pa(t));
    EXPECT_CLOSE(humidityRatioFromWetBulb(t, wetBulb_C(t, w)), w, 1e-7, "solver setting of the wet bulb, 1e-3 K x 5e-5 per K");
  }
}

TEST(MoistAir, WarmAirIsThinnerAndSoIsMountainAir) {
  EXPECT_GT(airDensity_kg_m3(0.0), airDensity_kg_m3(20.0));
  EXPECT_CLOSE(airDensity_kg_m3(0.0), 1.2922, 0.001, "dry air at 0 degC and 101 325 Pa by its gas constant");
  EXPECT_LT(pressureAtElevation_Pa(1500.0), pressureAtElevation_Pa(0.0));
  EXPECT_CLOSE(pressureAtElevation_Pa(0.0), 101325.0, 1e-6, "rounding");
  EXPECT_CLOSE(pressureAtElevation_Pa(1000.0), 89875.0, 30.0, "standard atmosphere, 0.03 %");
}

TEST(Sky, IsColderThanAirWhenClearAndNearlyAirUnderLowCloud) {
  for (const double air : {-10.0, 0.0, 10.0}) {
    const double dew = air - 2.0;
    const double clear = skyBerdahlMartin(air, dew, 0.0, 101325.0, 0.0, 2000.0).sky_C;
    const double cloudy = skyBerdahlMartin(air, dew, 0.0, 101325.0, 1.0, 500.0).sky_C;
    EXPECT_LT(clear, air - 10.0);
    EXPECT_GT(cloudy, air - 3.0);
    EXPECT_LT(cloudy, air + 1e-9);
  }
}

TEST(Sky, MoreCloudAndMoreMoistureWarmIt) {
  double before = -1e9;
  for (double n = 0.0; n <= 1.0; n += 0.1) {
    const double t = skyBerdahlMartin(2.0, -1.0, 0.0, 101325.0, n, 1500.0).sky_C;
    EXPECT_GT(t, before);
    before = t;
  }
  EXPECT_GT(skyBerdahlMartin(5.0, 4.0, 0.0, 101325.0, 0.0, 1500.0).sky_C, skyBerdahlMartin(5.0, -8.0, 0.0, 101325.0, 0.0, 1500.0).sky_C);
}

TEST(Sky, CloudFromClearnessUndoesKastenAndCzeplak) {
  for (double n = 0.1; n <= 1.0; n += 0.1) EXPECT_CLOSE(cloudFromClearness(1.0 - 0.75 * std::pow(n, 3.4)), n, 1e-9, "rounding");
  EXPECT_DOUBLE_EQ(cloudFromClearness(1.2), 0.0);
  EXPECT_DOUBLE_EQ(cloudFromClearness(0.0), 1.0);
}

} // namespace
} // namespace muffle
