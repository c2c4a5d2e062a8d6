// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/house/longwave.h"

#include "tests/support/near.h"

namespace muffle {
namespace {

TEST(Longwave, EverythingEmittedIsAbsorbedSomewhere) {
  const double floor = 50.0;
  const std::vector<LongwaveCover> covers{{60.0, {{0.4, 0.45}, {0.65, 0.22}}}, {30.0, {{0.9, 0.0}}}};
  const auto a = longwaveAreas(floor, 0.95, covers);
  // a floor that lost nothing to itself would send eps x area; what comes back to it by reflection is the difference
  double sum = 0.0;
  for (const double x : a.between[0]) sum += x;
  EXPECT_LE(sum, floor * 0.95 + 1e-9);
  EXPECT_GE(sum, floor * 0.80);
  for (std::size_t i = 0; i < a.between.size(); ++i)
    for (std::size_t j = 0; j < a.between.size(); ++j) {
      EXPECT_GE(a.between[i][j], -1e-12);
      EXPECT_CLOSE(a.between[i][j], a.between[j][i], 1e-9, "reciprocity, to rounding of the solve");
    }
}

TEST(Longwave, AnOpaqueCoverHidesTheSkyFromTheFloor) {
  const auto a = longwaveAreas(50.0, 0.95, {{90.0, {{0.9, 0.0}}}});
  EXPECT_CLOSE(a.between[0][static_cast<std::size_t>(a.outside[0])], 0.0, 1e-12, "no path");
}

TEST(Longwave, TwoParallelGreyPlanesFollowTheTextbook) {
  // floor and an opaque cover of the same size: A / (1/e1 + 1/e2 - 1)
  const auto a = longwaveAreas(10.0, 0.8, {{10.0, {{0.6, 0.0}}}});
  EXPECT_CLOSE(a.between[0][static_cast<std::size_t>(a.sheets[0][0])], 10.0 / (1 / 0.8 + 1 / 0.6 - 1), 1e-10, "closed form");
}

TEST(Longwave, AClearFilmShowsTheFloorItsShareOfSky) {
  // black floor, film of no reflectance: the floor sees the sky by tau
  const auto a = longwaveAreas(10.0, 1.0, {{10.0, {{0.3, 0.7}}}});
  EXPECT_CLOSE(a.between[0][static_cast<std::size_t>(a.outside[0])], 7.0, 1e-10, "closed form");
}

} // namespace
} // namespace muffle
