// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/house/shape.h"

#include "core/constants.h"
#include "tests/support/near.h"

#include <numeric>

namespace muffle {
namespace {

const HouseShape kShapes[] = {
    {ShapeKind::gable, 8, 20, 2, 4, 30}, {ShapeKind::arch, 8, 20, 1, 4, 90}, {ShapeKind::arch, 8, 20, 0, 4, 0}, {ShapeKind::leanTo, 3, 10, 1.8, 3, 120}};

TEST(Shape, FacesAddUpToTheCover) {
  for (const HouseShape& s : kShapes) {
    double sum = 0.0;
    for (const Face& f : s.faces())
      if (f.group != FaceGroup::backWall) sum += f.area_m2;
    EXPECT_CLOSE(sum, s.cover_m2(), 1e-9, "rounding");
  }
}

TEST(Shape, AnArchOfHalfItsWidthIsASemicircle) {
  const HouseShape s{ShapeKind::arch, 8, 20, 0, 4, 90};
  EXPECT_CLOSE(s.roofLine_m(), kPi * 4, 1e-9, "closed form");
  EXPECT_CLOSE(s.section_m2(), kPi * 8, 1e-9, "closed form");
}

TEST(Shape, TheOutlineEnclosesTheSection) {
  for (const HouseShape& s : kShapes) {
    const auto line = s.outline(400);
    double area = 0.0;
    for (std::size_t i = 0; i < line.size(); ++i) {
      const Point &a = line[i], &b = line[(i + 1) % line.size()];
      area += (a.y_m + b.y_m) / 2.0 * (b.x_m - a.x_m);
    }
    EXPECT_CLOSE(area, s.section_m2(), 1e-3, "an arc of 400 chords");
  }
}

TEST(Shape, NormalsPointAllRoundTheCompass) {
  // the horizontal parts of all outward normals of a closed house cancel
  for (const HouseShape& s : kShapes) {
    double east = 0.0, north = 0.0;
    for (const Face& f : s.faces()) {
      const double h = f.area_m2 * std::sin(radians(f.slope_deg));
      east += h * std::sin(radians(f.azimuth_deg));
      north += h * std::cos(radians(f.azimuth_deg));
    }
    EXPECT_CLOSE(east, 0.0, 1e-9, "rounding");
    EXPECT_CLOSE(north, 0.0, 1e-9, "rounding");
  }
}

TEST(Shape, ExplainsWhatCannotStand) {
  HouseShape s{ShapeKind::arch, 6, 10, 0, 4, 90};
  ASSERT_EQ(s.check().size(), 1U);
  EXPECT_EQ(s.check()[0].where, "/ridge_m");
  EXPECT_NE(s.check()[0].allowed.find("3 m"), std::string::npos);
  s.ridge_m = 3.0;
  EXPECT_TRUE(s.check().empty());
  s.width_m = 0.0;
  EXPECT_FALSE(s.check().empty());
  s.width_m = std::nan("");
  EXPECT_FALSE(s.check().empty());
}

} // namespace
} // namespace muffle
