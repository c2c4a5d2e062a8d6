// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/house/sun_on_house.h"

#include "tests/support/frost.h"
#include "tests/support/near.h"

#include <algorithm>
#include <numeric>

namespace muffle {
namespace {

const Site kSite{.name = "", .place = {48.0, 0.0, 100.0}};

double sum(const std::vector<double>& v) { return std::accumulate(v.begin(), v.end(), 0.0); }

SunOnHouse sunOn(const HouseShape& shape) {
  static const auto weather = testing::frost(kSite);
  return sunOnHouse(shape, weather->winters.front(), kSite.place.latitude_deg);
}

TEST(SunOnHouse, ABackWallFacingSouthWithinTakesMoreInJanuaryThanTheFloor) {
  // the ridge runs to the east, so that the front looks south and the wall's inner face too
  const SunOnHouse south = sunOn({ShapeKind::singleSlope, 4, 12, 0.6, 2.8, 90});
  ASSERT_FALSE(south.wallInside_W_m2.empty());
  EXPECT_GT(sum(south.wallInside_W_m2), 1.5 * sum(south.beamInside_W_m2)) << "the winter sun stands low";
  EXPECT_LT(*std::max_element(south.wallInside_W_m2.begin(), south.wallInside_W_m2.end()), 1100.0) << "no more than the sun gives, W/m2";
}

TEST(SunOnHouse, AWallThatLooksNorthWithinHasOnlyTheSky) {
  const SunOnHouse north = sunOn({ShapeKind::singleSlope, 4, 12, 0.6, 2.8, 0}); // front to the east
  const SunOnHouse south = sunOn({ShapeKind::singleSlope, 4, 12, 0.6, 2.8, 90});
  EXPECT_LT(sum(north.wallInside_W_m2), sum(south.wallInside_W_m2));
  EXPECT_GE(sum(north.wallInside_W_m2), 0.5 * sum(north.diffuse_W_m2) - 1e-9) << "half of the sky at the least";
}

TEST(SunOnHouse, HousesWithoutABackWallHaveNoneToLight) {
  for (const ShapeKind kind : {ShapeKind::gable, ShapeKind::arch, ShapeKind::pointedArch, ShapeKind::dome}) {
    const HouseShape shape = HouseShape{ShapeKind::arch, 6, 12, 1, 4, 90}.as(kind);
    const SunOnHouse sun = sunOn(shape);
    EXPECT_TRUE(sun.wallInside_W_m2.empty());
    EXPECT_DOUBLE_EQ(sum(sun.group_W_m2[static_cast<std::size_t>(FaceGroup::backWall)]), 0.0);
  }
}

TEST(SunOnHouse, ADomeLooksTheSameToTheSunHoweverItIsTurned) {
  const double one = sum(sunOn({ShapeKind::dome, 6, 12, 0, 3, 0}).group_W_m2[0]);
  const double turned = sum(sunOn({ShapeKind::dome, 6, 12, 0, 3, 22.5}).group_W_m2[0]); // half of one of its eight pieces
  EXPECT_CLOSE(turned / one, 1.0, 0.01, "eight pieces round are as good as a circle to a hundredth");
}

TEST(SunOnHouse, JoinedBaysReceiveByAreaWhatOneBayDoes) {
  const HouseShape one{ShapeKind::gable, 6, 20, 2.5, 4, 30};
  HouseShape three = one;
  three.bays = 3;
  const SunOnHouse a = sunOn(one), b = sunOn(three);
  EXPECT_CLOSE(sum(b.group_W_m2[0]) / sum(a.group_W_m2[0]), 1.0, 1e-12, "the same planes; shade of one bay on the next is not counted");
}

} // namespace
} // namespace muffle
