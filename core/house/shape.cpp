// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/house/shape.h"

#include "core/constants.h"

#include <fmt/format.h>

#include <cmath>

namespace muffle {
namespace {

constexpr int kSunStrips = 8; // strips of an arch that see the sun at their own tilt

struct Arc {
  double radius_m;
  double half_rad; ///< half the opening angle
};

Arc arcOf(double width, double rise) {
  const double radius = (width * width / 4.0 + rise * rise) / (2.0 * rise);
  return {radius, std::asin(std::min(width / (2.0 * radius), 1.0))};
}

double wrap360(double deg) { return std::fmod(std::fmod(deg, 360.0) + 360.0, 360.0); }

} // namespace

Problems HouseShape::check() const {
  Problems problems;
  const auto need = [&](bool ok, const char* where, std::string what, std::string allowed) {
    if (!ok) problems.push_back({ProblemKind::badInput, where, std::move(what), std::move(allowed)});
  };
  need(width_m >= 0.3 && width_m <= 60.0, "/width_m", fmt::format("width is {} m", width_m), "allowed is 0.3 to 60 m");
  need(length_m >= 0.3 && length_m <= 300.0, "/length_m", fmt::format("length is {} m", length_m), "allowed is 0.3 to 300 m");
  need(eave_m >= (kind == ShapeKind::arch ? 0.0 : 0.05) && eave_m <= 12.0, "/eave_m", fmt::format("eave height is {} m", eave_m),
       kind == ShapeKind::arch ? "allowed is 0 to 12 m" : "allowed is 0.05 to 12 m");
  need(ridge_m <= 15.0, "/ridge_m", fmt::format("ridge height is {} m", ridge_m), "allowed is up to 15 m");
  need(ridge_m - eave_m >= 0.05, "/ridge_m", fmt::format("ridge at {} m with the eave at {} m", ridge_m, eave_m),
       "the ridge must be at least 0.05 m above the eave");
  if (kind == ShapeKind::arch)
    need(ridge_m - eave_m <= width_m / 2.0 + 1e-9, "/ridge_m", fmt::format("the arch rises {:.3g} m over a width of {} m", ridge_m - eave_m, width_m),
         fmt::format("a round arch rises at most half its width, {:.3g} m; raise the eave instead", width_m / 2.0));
  need(axis_deg >= 0.0 && axis_deg <= 180.0, "/axis_deg", fmt::format("ridge direction is {} degrees", axis_deg), "allowed is 0 to 180");
  return problems;
}

double HouseShape::perimeter_m() const { return kind == ShapeKind::leanTo ? length_m + 2.0 * width_m : 2.0 * (length_m + width_m); }

double HouseShape::roofLine_m() const {
  switch (kind) {
  case ShapeKind::gable: return 2.0 * std::hypot(width_m / 2.0, rise_m());
  case ShapeKind::leanTo: return std::hypot(width_m, rise_m());
  case ShapeKind::arch: {
    const Arc arc = arcOf(width_m, rise_m());
    return 2.0 * arc.radius_m * arc.half_rad;
  }
  }
  return 0.0;
}

double HouseShape::section_m2() const {
  switch (kind) {
  case ShapeKind::gable: return width_m * eave_m + width_m * rise_m() / 2.0;
  case ShapeKind::leanTo: return width_m * (eave_m + ridge_m) / 2.0;
  case ShapeKind::arch: {
    const Arc arc = arcOf(width_m, rise_m());
    return width_m * eave_m + arc.radius_m * arc.radius_m * (arc.half_rad - std::sin(arc.half_rad) * std::cos(arc.half_rad));
  }
  }
  return 0.0;
}

double HouseShape::area_m2(FaceGroup group) const {
  switch (group) {
  case FaceGroup::roof: return roofLine_m() * length_m;
  case FaceGroup::sides: return (kind == ShapeKind::leanTo ? 1.0 : 2.0) * eave_m * length_m;
  case FaceGroup::ends: return 2.0 * section_m2();
  case FaceGroup::backWall: return kind == ShapeKind::leanTo ? ridge_m * length_m : 0.0;
  }
  return 0.0;
}

double HouseShape::cover_m2() const { return area_m2(FaceGroup::roof) + area_m2(FaceGroup::sides) + area_m2(FaceGroup::ends); }

std::vector<Face> HouseShape::faces() const {
  // looking along the axis, the first side faces axis + 90 (to the right), the second axis - 90
  const double right = wrap360(axis_deg + 90.0);
  const double left = wrap360(axis_deg - 90.0);
  std::vector<Face> faces;
  const double slope = degrees(std::atan2(rise_m(), kind == ShapeKind::leanTo ? width_m : width_m / 2.0));
  if (kind == ShapeKind::leanTo) {
    faces.push_back({FaceGroup::roof, "roof", area_m2(FaceGroup::roof), slope, right});
    faces.push_back({FaceGroup::sides, "front", area_m2(FaceGroup::sides), 90.0, right});
    faces.push_back({FaceGroup::backWall, "back wall", area_m2(FaceGroup::backWall), 90.0, left});
  } else {
    if (kind == ShapeKind::gable) {
      for (const double azimuth : {right, left})
        faces.push_back({FaceGroup::roof, azimuth == right ? "roof right" : "roof left", area_m2(FaceGroup::roof) / 2.0, slope, azimuth});
    } else {
      const Arc arc = arcOf(width_m, rise_m());
      for (int i = 0; i < kSunStrips; ++i) {
        const double angle = arc.half_rad * (2.0 * (i + 0.5) / kSunStrips - 1.0); // from the vertical, right positive
        faces.push_back(
            {FaceGroup::roof, fmt::format("roof {}", i + 1), area_m2(FaceGroup::roof) / kSunStrips, std::abs(degrees(angle)), angle > 0.0 ? right : left});
      }
    }
    if (eave_m > 0.0)
      for (const double azimuth : {right, left})
        faces.push_back({FaceGroup::sides, azimuth == right ? "side right" : "side left", eave_m * length_m, 90.0, azimuth});
  }
  faces.push_back({FaceGroup::ends, "end far", section_m2(), 90.0, wrap360(axis_deg)});
  faces.push_back({FaceGroup::ends, "end near", section_m2(), 90.0, wrap360(axis_deg + 180.0)});
  return faces;
}

std::vector<Point> HouseShape::outline(int arcPieces) const {
  const double half = width_m / 2.0;
  switch (kind) {
  case ShapeKind::gable: return {{-half, 0}, {-half, eave_m}, {0, ridge_m}, {half, eave_m}, {half, 0}};
  case ShapeKind::leanTo: return {{-half, 0}, {-half, eave_m}, {half, ridge_m}, {half, 0}};
  case ShapeKind::arch: break;
  }
  std::vector<Point> line{{-half, 0}};
  const Arc arc = arcOf(width_m, rise_m());
  for (int i = 0; i <= arcPieces; ++i) {
    const double angle = arc.half_rad * (2.0 * i / arcPieces - 1.0);
    line.push_back({arc.radius_m * std::sin(angle), ridge_m - arc.radius_m * (1.0 - std::cos(angle))});
  }
  line.push_back({half, 0});
  return line;
}

} // namespace muffle
