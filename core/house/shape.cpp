// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/house/shape.h"

#include "core/constants.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

constexpr int kSunStrips = 8; // strips of an arch that see the sun at their own tilt
constexpr int kDomeRings = 4; // rings of a dome, and pieces of each
constexpr int kDomeSectors = 8;

struct Arc {
  double radius_m;
  double half_rad; ///< half the opening angle
};

Arc arcOf(double width, double rise) { return {(width * width / 4.0 + rise * rise) / (2.0 * rise), 2.0 * std::atan2(2.0 * rise, width)}; }

/// Half of a pointed arch, an arc from its foot to the ridge: its centre lies `beyond` the middle and `below` the springing.
struct PointedArc {
  double radius_m;
  double beyond_m, below_m;
  double sweep_rad;
  double foot_rad; ///< slope at the foot
};

/// One at least half as high as wide springs upright. A flatter one would have to dip at its ridge: it leans in from the foot, and bends
/// by a share of what a round arch of its height would, which falls from all of it at half the width to three fifths.
PointedArc pointedArcOf(double width, double rise) {
  const double half = width / 2.0, chord = std::atan2(rise, half);
  double bend = kPi / 2.0 - chord; // half the sweep
  if (rise < half) bend = chord * (0.6 + 0.4 * std::pow(rise / half, 3));
  const double length = std::hypot(half, rise), radius = length / (2.0 * std::sin(bend)), toCentre = radius * std::cos(bend);
  // from the chord's middle inwards and down
  const double x = half / 2.0 - toCentre * rise / length, y = rise / 2.0 - toCentre * half / length;
  return {radius, -x, -y, 2.0 * bend, chord + bend};
}

double wrap360(double deg) { return std::fmod(std::fmod(deg, 360.0) + 360.0, 360.0); }

constexpr double kFlattestPointed = 0.1; // of the width

Message lengths(double least_m, double most_m) { return {"house.allowed-range", Amount{least_m, Unit::metre}, Amount{most_m, Unit::metre}}; }

bool mayJoin(ShapeKind kind) { return kind == ShapeKind::gable || kind == ShapeKind::arch || kind == ShapeKind::pointedArch; }

} // namespace

Problems HouseShape::check() const {
  Problems problems;
  const auto need = [&](bool ok, const char* where, Message what, Message allowed) {
    if (!ok) problems.push_back({ProblemKind::badInput, where, std::move(what), std::move(allowed)});
  };
  need(width_m >= 0.3 && width_m <= 60.0, "/width_m", Message{"house.width", Amount{width_m, Unit::metre}}, lengths(0.3, 60));
  need(length_m >= 0.3 && length_m <= 300.0, "/length_m", Message{"house.length", Amount{length_m, Unit::metre}}, lengths(0.3, 300));
  const bool mayRestOnGround = kind == ShapeKind::arch || kind == ShapeKind::pointedArch || kind == ShapeKind::dome;
  need(eave_m >= (mayRestOnGround ? 0.0 : 0.05) && eave_m <= 12.0, "/eave_m", Message{"house.eave-height", Amount{eave_m, Unit::metre}},
       mayRestOnGround ? lengths(0, 12) : lengths(0.05, 12));
  need(ridge_m <= 15.0, "/ridge_m", Message{"house.ridge-height", Amount{ridge_m, Unit::metre}}, Message{"house.allowed-up-to", Amount{15.0, Unit::metre}});
  need(ridge_m - eave_m >= 0.05, "/ridge_m", Message{"house.ridge-eave", Amount{ridge_m, Unit::metre}, Amount{eave_m, Unit::metre}},
       Message{"house.ridge-above-eave", Amount{0.05, Unit::metre}});
  const auto rises = Message{"house.rises-over-width", Amount{rise_m(), Unit::metre, 3}, Amount{width_m, Unit::metre}};
  if (kind == ShapeKind::arch)
    need(rise_m() <= width_m / 2.0 + 1e-9, "/ridge_m", rises, Message{"house.round-arch-rises-most", Amount{width_m / 2.0, Unit::metre, 3}});
  if (kind == ShapeKind::pointedArch)
    need(rise_m() >= kFlattestPointed * width_m - 1e-9 && rise_m() <= 1.5 * width_m, "/ridge_m", rises,
         Message{"house.pointed-arch-rises-tenth", Amount{kFlattestPointed * width_m, Unit::metre, 3}, Amount{1.5 * width_m, Unit::metre, 3}});
  if (kind == ShapeKind::dome)
    need(rise_m() <= 0.75 * width_m, "/ridge_m", rises, Message{"house.dome-rises-most-three", Amount{0.75 * width_m, Unit::metre, 3}});
  need(axis_deg >= 0.0 && axis_deg <= 360.0, "/axis_deg", Message{"house.ridge-direction", Amount{axis_deg, Unit::degree}},
       Message{"house.allowed-range", 0, 360});
  need(bays >= 1 && bays <= 40 && (bays == 1 || mayJoin(kind)), "/bays", Message{"house.bays", bays},
       mayJoin(kind) ? Message{"house.allowed-range", 1, 40} : Message{"house.only-gable-arched-houses"});
  need(sunk_m >= 0.0 && sunk_m <= 3.0, "/sunk_m", Message{"house.floor-lies-below-ground", Amount{sunk_m, Unit::metre}}, lengths(0, 3));
  return problems;
}

HouseShape HouseShape::as(ShapeKind other) const {
  HouseShape s = *this;
  s.kind = other;
  if (!mayJoin(other)) s.bays = 1;
  switch (other) {
  case ShapeKind::gable:
  case ShapeKind::leanTo:
  case ShapeKind::singleSlope:
    s.eave_m = std::max(s.eave_m, 0.3);
    s.ridge_m = std::max(s.ridge_m, s.eave_m + 0.1 * s.width_m);
    break;
  case ShapeKind::arch: s.ridge_m = std::min(s.ridge_m, s.eave_m + s.width_m / 2.0); break;
  case ShapeKind::pointedArch: s.ridge_m = std::clamp(s.ridge_m, s.eave_m + kFlattestPointed * s.width_m, s.eave_m + 1.5 * s.width_m); break;
  case ShapeKind::dome: s.ridge_m = std::min(s.ridge_m, s.eave_m + 0.5 * s.width_m); break;
  }
  return s;
}

double HouseShape::floor_m2() const { return kind == ShapeKind::dome ? kPi * width_m * width_m / 4.0 : span_m() * length_m; }

double HouseShape::perimeter_m() const {
  switch (kind) {
  case ShapeKind::leanTo: return length_m + 2.0 * width_m;
  case ShapeKind::dome: return kPi * width_m;
  default: return 2.0 * (length_m + span_m());
  }
}

double HouseShape::roofLine_m() const {
  switch (kind) {
  case ShapeKind::gable: return bays * 2.0 * std::hypot(width_m / 2.0, rise_m());
  case ShapeKind::leanTo:
  case ShapeKind::singleSlope: return std::hypot(width_m, rise_m());
  case ShapeKind::pointedArch: {
    const PointedArc arc = pointedArcOf(width_m, rise_m());
    return bays * 2.0 * arc.radius_m * arc.sweep_rad;
  }
  case ShapeKind::arch:
  case ShapeKind::dome: {
    const Arc arc = arcOf(width_m, rise_m());
    return bays * 2.0 * arc.radius_m * arc.half_rad;
  }
  }
  return 0.0;
}

double HouseShape::section_m2() const {
  switch (kind) {
  case ShapeKind::gable: return bays * (width_m * eave_m + width_m * rise_m() / 2.0);
  case ShapeKind::leanTo:
  case ShapeKind::singleSlope: return width_m * (eave_m + ridge_m) / 2.0;
  case ShapeKind::pointedArch: {
    const PointedArc arc = pointedArcOf(width_m, rise_m());
    const double segment = arc.radius_m * arc.radius_m * (arc.sweep_rad - std::sin(arc.sweep_rad)) / 2.0; // between arc and chord
    return bays * (width_m * (eave_m + rise_m() / 2.0) + 2.0 * segment);
  }
  case ShapeKind::arch:
  case ShapeKind::dome: {
    const Arc arc = arcOf(width_m, rise_m());
    return bays * (width_m * eave_m + arc.radius_m * arc.radius_m * (arc.half_rad - std::sin(arc.half_rad) * std::cos(arc.half_rad)));
  }
  }
  return 0.0;
}

double HouseShape::volume_m3() const {
  const double below = floor_m2() * sunk_m;
  if (kind != ShapeKind::dome) return section_m2() * length_m + below;
  const double a = width_m / 2.0;
  return kPi * rise_m() * (3.0 * a * a + rise_m() * rise_m()) / 6.0 + floor_m2() * eave_m + below;
}

double HouseShape::area_m2(FaceGroup group) const {
  if (kind == ShapeKind::dome) {
    if (group == FaceGroup::roof) return kPi * (width_m * width_m / 4.0 + rise_m() * rise_m());
    return group == FaceGroup::sides ? perimeter_m() * eave_m : 0.0;
  }
  switch (group) {
  case FaceGroup::roof: return roofLine_m() * length_m;
  case FaceGroup::sides: return (hasBackWall() ? 1.0 : 2.0) * eave_m * length_m;
  case FaceGroup::ends: return 2.0 * section_m2();
  case FaceGroup::backWall: return hasBackWall() ? ridge_m * length_m : 0.0;
  }
  return 0.0;
}

double HouseShape::cover_m2() const { return area_m2(FaceGroup::roof) + area_m2(FaceGroup::sides) + area_m2(FaceGroup::ends); }

std::vector<Face> HouseShape::faces() const {
  std::vector<Face> faces;
  if (kind == ShapeKind::dome) {
    // rings of equal height have equal areas (Archimedes); each is taken at its middle height
    const Arc arc = arcOf(width_m, rise_m());
    const double wall = area_m2(FaceGroup::sides) / kDomeSectors;
    for (int s = 0; s < kDomeSectors; ++s) {
      const double azimuth = wrap360(axis_deg + 360.0 * s / kDomeSectors);
      for (int r = 0; r < kDomeRings; ++r) {
        const double drop = rise_m() * (r + 0.5) / kDomeRings; // from the top
        faces.push_back({FaceGroup::roof, fmt::format("dome {}.{}", r + 1, s + 1), area_m2(FaceGroup::roof) / (kDomeRings * kDomeSectors),
                         degrees(std::acos(1.0 - drop / arc.radius_m)), azimuth});
      }
      if (wall > 0.0) faces.push_back({FaceGroup::sides, fmt::format("wall {}", s + 1), wall, 90.0, azimuth});
    }
    return faces;
  }
  // looking along the axis, the first side faces axis + 90 (to the right), the second axis - 90
  const double right = wrap360(axis_deg + 90.0);
  const double left = wrap360(axis_deg - 90.0);
  const double roof = area_m2(FaceGroup::roof);
  if (hasBackWall()) {
    faces.push_back({FaceGroup::roof, "roof", roof, degrees(std::atan2(rise_m(), width_m)), right});
    faces.push_back({FaceGroup::sides, "front", area_m2(FaceGroup::sides), 90.0, right});
    faces.push_back({FaceGroup::backWall, "back wall", area_m2(FaceGroup::backWall), 90.0, left});
  } else {
    if (kind == ShapeKind::gable) {
      const double slope = degrees(std::atan2(rise_m(), width_m / 2.0));
      for (const double azimuth : {right, left}) faces.push_back({FaceGroup::roof, azimuth == right ? "roof right" : "roof left", roof / 2.0, slope, azimuth});
    } else {
      const PointedArc pointed = pointedArcOf(width_m, rise_m());
      for (int i = 0; i < kSunStrips; ++i) {
        const double across = 2.0 * (i + 0.5) / kSunStrips - 1.0; // along the arc from the left foot, -1..1
        const double tilt = kind == ShapeKind::arch ? std::abs(across) * degrees(arcOf(width_m, rise_m()).half_rad)
                                                    : degrees(pointed.foot_rad - (1.0 - std::abs(across)) * pointed.sweep_rad);
        faces.push_back({FaceGroup::roof, fmt::format("roof {}", i + 1), roof / kSunStrips, tilt, across > 0.0 ? right : left});
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
  const double end = span_m() / 2.0;
  const double half = width_m / 2.0;
  std::vector<Point> line{{-end, 0}};
  for (int bay = 0; bay < bays; ++bay) {
    const double middle = -end + (bay + 0.5) * width_m;
    switch (kind) {
    case ShapeKind::gable: line.insert(line.end(), {{middle - half, eave_m}, {middle, ridge_m}, {middle + half, eave_m}}); break;
    case ShapeKind::leanTo:
    case ShapeKind::singleSlope: line.insert(line.end(), {{-half, eave_m}, {half, ridge_m}}); break;
    case ShapeKind::pointedArch: {
      const PointedArc arc = pointedArcOf(width_m, rise_m());
      for (int i = 0; i <= arcPieces; ++i) {
        const double across = 2.0 * i / arcPieces - 1.0;
        const double angle = kPi / 2.0 - arc.foot_rad + (1.0 - std::abs(across)) * arc.sweep_rad; // of the radius over the level
        const double x = arc.radius_m * std::cos(angle) - arc.beyond_m;
        line.push_back({middle + (across < 0.0 ? -x : x), eave_m - arc.below_m + arc.radius_m * std::sin(angle)});
      }
      break;
    }
    case ShapeKind::arch:
    case ShapeKind::dome: {
      const Arc arc = arcOf(width_m, rise_m());
      for (int i = 0; i <= arcPieces; ++i) {
        const double angle = arc.half_rad * (2.0 * i / arcPieces - 1.0);
        line.push_back({middle + arc.radius_m * std::sin(angle), ridge_m - arc.radius_m * (1.0 - std::cos(angle))});
      }
      break;
    }
    }
  }
  line.push_back({end, 0});
  return line;
}

} // namespace muffle
