// SPDX-License-Identifier: GPL-3.0-or-later
//
// The house as a prism: a cross-section of given width carried along its length, closed by two flat end walls.
//   gable    vertical sides to the eave, two roof planes to the ridge
//   arch     a circular arc of rise f over straight sides: R = (w^2/4 + f^2)/(2 f); f = w/2 is a semicircle
//   lean-to  a low front wall, one roof plane up to a back wall shared with another building
// Areas, volumes, tilts and azimuths are exact; an arch is cut into strips for the sun only.
//
//   HouseShape house{.kind = ShapeKind::arch, .width_m = 8, .length_m = 30, .eave_m = 0.8, .ridge_m = 3.4};
//   for (const Face& face : house.faces()) ...
#pragma once

#include "core/status.h"

#include <array>
#include <string>
#include <vector>

namespace muffle {

enum class ShapeKind { gable, arch, leanTo };

enum class FaceGroup { roof, sides, ends, backWall };

/// A plane piece of the cover. Azimuth is that of its outward normal, clockwise from north.
struct Face {
  FaceGroup group = FaceGroup::roof;
  std::string id;
  double area_m2 = 0.0;
  double slope_deg = 0.0; ///< 0 level, 90 vertical
  double azimuth_deg = 0.0;
};

struct Point {
  double x_m = 0.0; ///< across, 0 at the middle (lean-to: at the front wall)
  double y_m = 0.0; ///< up from the floor
};

struct HouseShape {
  ShapeKind kind = ShapeKind::arch;
  double width_m = 6.0;   ///< 0.3..60
  double length_m = 12.0; ///< 0.3..300
  double eave_m = 1.0;    ///< height of the straight sides (lean-to: of the low wall), 0..12; gable and lean-to > 0
  double ridge_m = 3.0;   ///< height of the highest point above the floor, > eave, <= 15; arch: rise at most half the width
  double axis_deg = 90.0; ///< compass direction of the ridge line, 0..180 (90: it runs east-west)

  bool operator==(const HouseShape&) const = default;
  [[nodiscard]] Problems check() const;
  [[nodiscard]] double rise_m() const { return ridge_m - eave_m; }
  [[nodiscard]] double floor_m2() const { return width_m * length_m; }
  [[nodiscard]] double perimeter_m() const; ///< exposed edge of the floor
  [[nodiscard]] double section_m2() const;  ///< area of the cross-section
  [[nodiscard]] double volume_m3() const { return section_m2() * length_m; }
  [[nodiscard]] double roofLine_m() const; ///< length of the roof in the cross-section
  [[nodiscard]] double area_m2(FaceGroup group) const;
  /// Roof, sides and ends; the lean-to's back wall is not part of the cover.
  [[nodiscard]] double cover_m2() const;
  [[nodiscard]] std::vector<Face> faces() const;
  /// The cross-section from the foot of one side over the ridge to the other foot.
  [[nodiscard]] std::vector<Point> outline(int arcPieces = 48) const;
};

} // namespace muffle
