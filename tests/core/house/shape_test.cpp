// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/house/shape.h"

#include "core/constants.h"
#include "tests/support/near.h"
#include "words/words.h"

#include <numeric>

namespace muffle {
namespace {

const HouseShape kShapes[] = {{ShapeKind::gable, 8, 20, 2, 4, 30},
                              {ShapeKind::arch, 8, 20, 1, 4, 90},
                              {ShapeKind::arch, 8, 20, 0, 4, 0},
                              {ShapeKind::leanTo, 3, 10, 1.8, 3, 120},
                              {ShapeKind::pointedArch, 6, 15, 0.5, 4.1, 60},
                              {ShapeKind::pointedArch, 8, 20, 1.2, 4.2, 20},
                              {ShapeKind::pointedArch, 9, 20, 2.0, 3.2, 20, 2},
                              {ShapeKind::singleSlope, 4, 12, 0.6, 2.8, 90},
                              {ShapeKind::gable, 8, 30, 3, 4.6, 10, 4},
                              {ShapeKind::arch, 7, 30, 2, 4, 10, 3, 0.5},
                              {ShapeKind::pointedArch, 6.4, 30, 2, 5.6, 0, 2},
                              {ShapeKind::dome, 6, 1, 0.4, 3.4, 0},
                              {ShapeKind::dome, 4, 1, 0, 2.6, 0}};

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
  EXPECT_NE(english(s.check()[0].allowed).find("3 m"), std::string::npos);
  s.ridge_m = 3.0;
  EXPECT_TRUE(s.check().empty());
  s.width_m = 0.0;
  EXPECT_FALSE(s.check().empty());
  s.width_m = std::nan("");
  EXPECT_FALSE(s.check().empty());
}

TEST(Shape, JoinedBaysShareTheirInnerSides) {
  const HouseShape one{ShapeKind::gable, 8, 30, 3, 4.6, 90};
  HouseShape four = one;
  four.bays = 4;
  EXPECT_CLOSE(four.floor_m2(), 4 * one.floor_m2(), 1e-9, "closed form");
  EXPECT_CLOSE(four.area_m2(FaceGroup::roof), 4 * one.area_m2(FaceGroup::roof), 1e-9, "closed form");
  EXPECT_CLOSE(four.area_m2(FaceGroup::sides), one.area_m2(FaceGroup::sides), 1e-9, "the outermost two only");
  EXPECT_CLOSE(four.perimeter_m(), 2 * (30 + 4 * 8), 1e-9, "closed form");
}

TEST(Shape, ASunkFloorAddsRoomBelow) {
  HouseShape s{ShapeKind::arch, 6, 10, 0.5, 3, 90};
  const double before = s.volume_m3();
  const double cover = s.cover_m2();
  s.sunk_m = 0.8;
  EXPECT_CLOSE(s.volume_m3() - before, 0.8 * 60, 1e-9, "closed form");
  EXPECT_CLOSE(s.cover_m2(), cover, 1e-12, "the ground is no cover");
  EXPECT_CLOSE(s.sunkWall_m2(), 0.8 * 32, 1e-9, "closed form");
}

TEST(Shape, ASemicircleIsTheLowestPointedArch) {
  const HouseShape pointed{ShapeKind::pointedArch, 6, 10, 1, 4, 90};
  const HouseShape round{ShapeKind::arch, 6, 10, 1, 4, 90};
  EXPECT_CLOSE(pointed.cover_m2(), round.cover_m2(), 1e-9, "both are the same circle");
  EXPECT_CLOSE(pointed.volume_m3(), round.volume_m3(), 1e-9, "both are the same circle");
}

TEST(Shape, SaysWhichShapesCannotBeJoinedSunkOrFlattened) {
  const auto where = [](const HouseShape& s) { return s.check().empty() ? std::string() : s.check().front().where; };
  EXPECT_EQ(where({ShapeKind::pointedArch, 6, 10, 0, 0.5, 90}), "/ridge_m");
  EXPECT_EQ(where({ShapeKind::dome, 6, 10, 0, 5, 90}), "/ridge_m");
  EXPECT_EQ(where({ShapeKind::leanTo, 3, 10, 1, 2, 90, 2}), "/bays");
  EXPECT_EQ(where({ShapeKind::gable, 6, 10, 2, 3, 90, 41}), "/bays");
  EXPECT_EQ(where({ShapeKind::gable, 6, 10, 2, 3, 90, 1, 3.5}), "/sunk_m");
  EXPECT_EQ(where({ShapeKind::pointedArch, 6, 10, 0, 3.6, 90}), "");
}

TEST(Shape, APointedArchHasAPointHoweverLowAndPassesToTheUprightOneWithoutAJump) {
  for (const double rise : {0.8, 1.5, 2.5, 3.2, 3.9}) { // 8 m wide: all below half of it
    const HouseShape s{ShapeKind::pointedArch, 8, 20, 1.0, 1.0 + rise, 0};
    EXPECT_TRUE(s.check().empty()) << rise;
    const auto line = s.outline(200);
    const std::size_t top = line.size() / 2;
    EXPECT_CLOSE(line[top].y_m, 1.0 + rise, 1e-9, "rounding");
    for (std::size_t i = 2; i <= top; ++i) EXPECT_GT(line[i].y_m, line[i - 1].y_m) << "it rises all the way to its point";
    const HouseShape round{ShapeKind::arch, 8, 20, 1.0, 1.0 + rise, 0}, gable{ShapeKind::gable, 8, 20, 1.0, 1.0 + rise, 0};
    EXPECT_LT(s.section_m2(), round.section_m2());
    EXPECT_GT(s.section_m2(), gable.section_m2());
  }
  const HouseShape below{ShapeKind::pointedArch, 8, 20, 1.0, 4.9999, 0}, above{ShapeKind::pointedArch, 8, 20, 1.0, 5.0001, 0};
  EXPECT_CLOSE(below.roofLine_m(), above.roofLine_m(), 1e-3, "a fifth of a millimetre of ridge");
  EXPECT_CLOSE(below.section_m2(), above.section_m2(), 5e-3, "a fifth of a millimetre of ridge");
}

} // namespace
} // namespace muffle
