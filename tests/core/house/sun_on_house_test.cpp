// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/house/sun_on_house.h"

#include "core/sun/irradiance.h"
#include "core/sun/position.h"
#include "tests/support/frost.h"
#include "tests/support/near.h"

#include <algorithm>
#include <numeric>

namespace muffle {
namespace {

const Site kSite{.name = "", .place = {48.0, 0.0, 100.0}};

double sum(const std::vector<double>& v) { return std::accumulate(v.begin(), v.end(), 0.0); }

const Winter& winter() {
  static const auto weather = testing::frost(kSite);
  return weather->winters.front();
}

SunOnHouse sunOn(const HouseShape& shape) { return sunOnHouse(shape, winter(), kSite.place.latitude_deg); }

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

TEST(SunOnHouse, EachFaceHasTheIrradianceOfItsOwnTiltAndTurn) {
  const HouseShape shape{ShapeKind::gable, 6, 20, 2.5, 4, 65}; // ends and sides look every way but the compass's own
  const SunOnHouse sun = sunOn(shape);
  const Winter& w = winter();
  const auto faces = shape.faces();
  double ends_m2 = 0.0;
  for (const Face& f : faces) ends_m2 += f.group == FaceGroup::ends ? f.area_m2 : 0.0;
  int lit = 0;
  for (std::size_t i = 0; i < w.size(); i += 7) {
    if (w.sun_W_m2[i] <= 0.0) continue;
    double expected = 0.0;
    for (const Face& f : faces) {
      if (f.group != FaceGroup::ends) continue;
      const double incidence = incidence_deg(w.zenith_deg[i], w.azimuth_deg[i], f.slope_deg, f.azimuth_deg);
      expected +=
          f.area_m2 / ends_m2 *
          tiltedIrradiance(w.sun_W_m2[i], w.diffuse_W_m2[i], w.extraterrestrial_W_m2[i], w.zenith_deg[i], incidence, f.slope_deg, 0.2, SkyModel::hayDavies)
              .total();
    }
    EXPECT_CLOSE(sun.group_W_m2[static_cast<std::size_t>(FaceGroup::ends)][i], expected, 1e-6, "W/m2: cosines against degrees, rounding") << i;
    ++lit;
  }
  EXPECT_GT(lit, 20) << "six January days";
}

TEST(SunOnHouse, NothingIsLitAtNightAndNoMoreInsideThanTheSkyGives) {
  const SunOnHouse sun = sunOn({ShapeKind::arch, 6, 12, 1, 3, 90});
  const Winter& w = winter();
  for (std::size_t i = 0; i < w.size(); ++i) {
    if (w.sun_W_m2[i] <= 0.0) { EXPECT_EQ(sun.beamInside_W_m2[i] + sun.diffuse_W_m2[i] + sun.upright_W_m2[i] + sun.group_W_m2[0][i], 0.0) << i; }
    // a beam meets a curved cover more squarely than the diffuse light that its transmittance is for: a seventh more at the most
    EXPECT_LE(sun.beamInside_W_m2[i], 1.15 * (w.sun_W_m2[i] - w.diffuse_W_m2[i]) + 1e-9) << i;
  }
}

} // namespace
} // namespace muffle
