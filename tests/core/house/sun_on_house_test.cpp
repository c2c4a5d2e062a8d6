// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assemble/sun_on_house.h"

#include "core/assemble/light_inside.h"

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

SunOnHouse sunOn(const HouseShape& shape) { return sunOnHouse(shape, winter()); }

/// What lights a back wall's inner face through the winter, by its own area, under a cover that lets all through.
std::vector<double> onBackWall(const HouseShape& shape) {
  LightTaking taking;
  taking.floor_m2 = shape.floor_m2();
  taking.backWall_m2 = shape.area_m2(FaceGroup::backWall);
  taking.backWallAbsorptance = 1.0;
  for (std::size_t g = 0; g < kLightEntries; ++g) {
    taking.covers[g] = {shape.area_m2(static_cast<FaceGroup>(g)), 0.9, 0.05, std::vector<double>(winter().size(), 0.9)};
  }
  return lightInside(taking, sunOn(shape), winter()).backWall_W_m2;
}

TEST(SunOnHouse, ABackWallFacingSouthWithinTakesMoreInJanuaryThanTheLevel) {
  // the ridge runs to the east, so that the front looks south and the wall's inner face too
  const auto south = onBackWall({ShapeKind::singleSlope, 4, 12, 0.6, 2.8, 90});
  EXPECT_GT(sum(south), 1.2 * sum(winter().sun_W_m2)) << "the winter sun stands low";
  EXPECT_LT(*std::max_element(south.begin(), south.end()), 1100.0) << "no more than the sun gives, W/m2";
}

TEST(SunOnHouse, AWallThatLooksWestWithinHasLess) {
  EXPECT_LT(sum(onBackWall({ShapeKind::singleSlope, 4, 12, 0.6, 2.8, 0})), 0.8 * sum(onBackWall({ShapeKind::singleSlope, 4, 12, 0.6, 2.8, 90})))
      << "front to the east";
}

TEST(SunOnHouse, HousesWithoutABackWallHaveNoneToLight) {
  for (const ShapeKind kind : {ShapeKind::gable, ShapeKind::arch, ShapeKind::pointedArch, ShapeKind::dome}) {
    const HouseShape shape = HouseShape{ShapeKind::arch, 6, 12, 1, 4, 90}.as(kind);
    const SunOnHouse sun = sunOn(shape);
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

TEST(SunOnHouse, NothingIsLitAtNightAndTheBeamIsNoMoreThanTheSunGives) {
  const SunOnHouse sun = sunOn({ShapeKind::arch, 6, 12, 1, 3, 90});
  const Winter& w = winter();
  for (std::size_t i = 0; i < w.size(); ++i) {
    if (w.sun_W_m2[i] <= 0.0) { EXPECT_EQ(sun.beam_W_m2[i] + sun.sky_W_m2[i] + sun.ground_W_m2[i] + sun.group_W_m2[0][i], 0.0) << i; }
    EXPECT_LE(sun.beam_W_m2[i], 1415.0) << i;
    EXPECT_LE(sun.sky_W_m2[i], w.diffuse_W_m2[i] + 1e-9) << i;
  }
}

} // namespace
} // namespace muffle
