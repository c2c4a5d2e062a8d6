// SPDX-License-Identifier: GPL-3.0-or-later
//
// The house as a prism: a cross-section of given width carried along its length, closed by two flat end walls; or a dome.
//   gable          vertical sides to the eave, two roof planes to the ridge
//   arch           a circular arc of rise f over straight sides: R = (w^2/4 + f^2)/(2 f); f = w/2 is a semicircle
//   pointed arch   two arcs that spring upright from the sides and meet at the ridge: R = c + w/2, c = (f^2 - w^2/4)/w; one lower than half
//                  its width leans in from the foot and bends less than a round arch would
//   lean-to        a low front wall, one roof plane up to a back wall shared with another building
//   single slope   the same with a wall of its own behind, free-standing
//   dome           a spherical cap of rise h over a round wall: cap pi (a^2 + h^2), volume pi h (3 a^2 + h^2)/6
// Gable, arch and pointed houses may be joined side by side with gutters between them. The floor may lie below the ground.
// Areas, volumes, tilts and azimuths are exact; arches and domes are cut into pieces for the sun only.
//
//   HouseShape house{.kind = ShapeKind::arch, .width_m = 8, .length_m = 30, .eave_m = 0.8, .ridge_m = 3.4};
//   for (const Face& face : house.faces()) ...
#pragma once

#include "core/status.h"

#include <array>
#include <string>
#include <vector>

namespace muffle {

enum class ShapeKind { gable, arch, leanTo, pointedArch, singleSlope, dome };
constexpr int kShapeCount = 6;

enum class FaceGroup { roof, sides, ends, backWall };
constexpr int kFaceGroupCount = 4;

/// A plane piece of the cover. Azimuth is that of its outward normal, clockwise from north.
struct Face {
  FaceGroup group = FaceGroup::roof;
  std::string id;
  double area_m2 = 0.0;
  double slope_deg = 0.0; ///< 0 level, 90 vertical
  double azimuth_deg = 0.0;
};

struct Point {
  double x_m = 0.0; ///< across, 0 at the middle
  double y_m = 0.0; ///< up from the ground
};

struct HouseShape {
  ShapeKind kind = ShapeKind::arch;
  double width_m = 6.0;   ///< 0.3..60; of one bay; across a dome's foot
  double length_m = 12.0; ///< 0.3..300; a dome has none
  double eave_m = 1.0;    ///< height of the straight sides (lean-to, single slope: of the low wall), 0..12; of flat roofs' sides > 0
  double ridge_m = 3.0;   ///< height of the highest point above the ground, > eave, <= 15; see check() for each shape's limits
  double axis_deg = 90.0; ///< compass direction of the ridge line, 0..360 (90: it runs east-west); a front looks to axis + 90
  int bays = 1;           ///< 1..40 joined side by side; gable and arches only
  double sunk_m = 0.0;    ///< how far the floor lies below the ground, 0..3

  bool operator==(const HouseShape&) const = default;
  [[nodiscard]] Problems check() const;
  /// The nearest house of another kind that can stand: the same floor, heights moved only as far as its limits ask.
  [[nodiscard]] HouseShape as(ShapeKind kind) const;
  [[nodiscard]] bool hasBackWall() const { return kind == ShapeKind::leanTo || kind == ShapeKind::singleSlope; }
  [[nodiscard]] double rise_m() const { return ridge_m - eave_m; }
  [[nodiscard]] double span_m() const { return width_m * bays; } ///< over all bays
  [[nodiscard]] double floor_m2() const;
  [[nodiscard]] double perimeter_m() const; ///< exposed edge of the floor
  [[nodiscard]] double section_m2() const;  ///< area of the cross-section above the ground, through the middle of a dome
  [[nodiscard]] double volume_m3() const;
  [[nodiscard]] double roofLine_m() const; ///< length of the roof in the cross-section, all bays
  [[nodiscard]] double sunkWall_m2() const { return perimeter_m() * sunk_m; }
  [[nodiscard]] double area_m2(FaceGroup group) const;
  /// Roof, sides and ends; a back wall is not part of the cover.
  [[nodiscard]] double cover_m2() const;
  [[nodiscard]] std::vector<Face> faces() const;
  /// The cross-section above the ground from the foot of one side over the ridge to the other foot.
  [[nodiscard]] std::vector<Point> outline(int arcPieces = 48) const;
};

} // namespace muffle
