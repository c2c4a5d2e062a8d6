// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/constants.h"
#include "core/house/layered_air.h"
#include "core/house/plate.h"
#include "tests/support/near.h"

#include <cmath>

namespace muffle {
namespace {

TEST(Plate, UnderASkyAsWarmAsTheAirItIsAsWarmAndUnderAClearOneColder) {
  PlateWeather w;
  w.skyDownward_W_m2 = kStefanBoltzmann_W_m2K4 * std::pow(w.air_C + kZeroCelsius_K, 4.0);
  EXPECT_CLOSE(plateTemperature_C({}, w), w.air_C, 1e-6, "nothing to move it");
  w.skyDownward_W_m2 -= 80.0;
  const double calm = plateTemperature_C({}, w);
  EXPECT_LT(calm, w.air_C - 3.0);
  w.wind_m_s = 6.0;
  EXPECT_GT(plateTemperature_C({}, w), calm) << "wind holds it to the air";
}

TEST(Plate, FacesTheSunWhenItIsTiltedTowardsIt) {
  PlateWeather w{.global_W_m2 = 400.0, .diffuse_W_m2 = 100.0, .sunAltitude_deg = 30.0};
  const double level = plateTemperature_C({}, w), facing = plateTemperature_C({.tilt_deg = 60.0}, w);
  EXPECT_GT(facing, level + 3.0);
  EXPECT_LT(plateTemperature_C({.tilt_deg = 60.0, .backFree = true}, w), facing) << "a free back sheds what the front takes";
}

TEST(LayeredAir, AGradientMovesLossFromWallsToRoofAndNoneMovesNothing) {
  const GableHouse house{4.0, 9.0, 1.9, 3.2};
  const LayeredLoss none = layeredLoss(house, 8.0, -6.0, 0.0, 6.0, 6.0), warmTop = layeredLoss(house, 8.0, -6.0, 1.5, 6.0, 6.0),
                    coldTop = layeredLoss(house, 8.0, -6.0, -1.5, 6.0, 6.0);
  EXPECT_EQ(none.roofExtra_W, 0.0);
  EXPECT_EQ(none.wallsExtra_W, 0.0);
  EXPECT_GT(warmTop.roofExtra_W, 0.0);
  EXPECT_LT(warmTop.wallsExtra_W, 0.0);
  EXPECT_CLOSE(warmTop.roofExtra_W, -coldTop.roofExtra_W, 1e-9, "in proportion");
  EXPECT_CLOSE(warmTop.roofAir_C - 8.0, 1.5 * (0.5 * (1.9 + 3.2) - warmTop.meanHeight_m), 1e-12, "a straight line");
}

} // namespace
} // namespace muffle
