// SPDX-License-Identifier: GPL-3.0-or-later
//
// The cross-sections that light is followed through.
#include "core/constants.h"
#include "core/house/shell_light.h"

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

constexpr int kDomeSlices = 12; // Gauss points over half a dome; both halves are alike
constexpr double kNoLength_m = 1e-9;

struct Corner {
  double y, z;
};

void addFlat(ShellSection& section, Corner a, Corner b, int surface) {
  const double dy = b.y - a.y, dz = b.z - a.z;
  const double length = std::hypot(dy, dz);
  if (length < kNoLength_m) return;
  const double ny = dz / length, nz = -dy / length; // outwards of an outline that runs counter-clockwise
  section.edges.push_back({a.y, a.z, b.y, b.z, ny, nz, ny, nz, surface});
}

/// About a centre, from one angle to another (from y, counter-clockwise), with a normal of that length.
void addArc(ShellSection& section, Corner centre, double radius, double from_rad, double to_rad, int pieces, int surface, double normal = 1.0) {
  if (radius < kNoLength_m) return;
  for (int i = 0; i < pieces; ++i) {
    const double a = from_rad + (to_rad - from_rad) * i / pieces, b = from_rad + (to_rad - from_rad) * (i + 1) / pieces;
    section.edges.push_back({centre.y + radius * std::cos(a), centre.z + radius * std::sin(a), centre.y + radius * std::cos(b), centre.z + radius * std::sin(b),
                             normal * std::cos(a), normal * std::sin(a), normal * std::cos(b), normal * std::sin(b), surface});
  }
}

/// Half of a roof, up from the eave on the y side or down to the other.
void addHalfRoof(ShellSection& section, const HouseShape& s, double middle, bool up, int pieces) {
  const double half = s.width_m / 2.0, rise = s.rise_m();
  const double side = up ? 1.0 : -1.0;
  if (s.kind == ShapeKind::gable) {
    const Corner eave{middle + side * half, s.eave_m}, ridge{middle, s.ridge_m};
    addFlat(section, up ? eave : ridge, up ? ridge : eave, kShellRoof);
    return;
  }
  if (s.kind == ShapeKind::arch) {
    const double radius = (half * half + rise * rise) / (2.0 * rise);
    const Corner centre{middle, s.ridge_m - radius};
    const double foot = std::asin(std::clamp((s.eave_m - centre.z) / radius, -1.0, 1.0));
    if (up)
      addArc(section, centre, radius, foot, kPi / 2.0, pieces, kShellRoof);
    else
      addArc(section, centre, radius, kPi / 2.0, kPi - foot, pieces, kShellRoof);
    return;
  }
  const double beyond = (rise * rise - half * half) / s.width_m; // each half's centre lies that far beyond the middle, at the eave
  const double radius = beyond + half, sweep = std::atan2(rise, beyond);
  if (up)
    addArc(section, {middle - beyond, s.eave_m}, radius, 0.0, sweep, pieces, kShellRoof);
  else
    addArc(section, {middle + beyond, s.eave_m}, radius, kPi - sweep, kPi, pieces, kShellRoof);
}

ShellSection prism(const HouseShape& s, int arcPieces) {
  ShellSection section;
  section.length_m = s.length_m;
  const double end = s.span_m() / 2.0;
  addFlat(section, {end, 0.0}, {end, s.eave_m}, kShellSides);
  if (s.hasBackWall()) {
    addFlat(section, {end, s.eave_m}, {-end, s.ridge_m}, kShellRoof);
    addFlat(section, {-end, s.ridge_m}, {-end, 0.0}, kShellBackWall);
  } else {
    const double half = s.width_m / 2.0;
    addHalfRoof(section, s, end - half, true, arcPieces / 2);
    if (s.bays > 1) {
      ShellSection one;
      addHalfRoof(one, s, 0.0, true, arcPieces / 2);
      addHalfRoof(one, s, 0.0, false, arcPieces / 2);
      for (const auto& e : one.edges) section.pleats.push_back({std::hypot(e.y1 - e.y0, e.z1 - e.z0), 0.5 * (e.ny0 + e.ny1), 0.5 * (e.nz0 + e.nz1)});
      addFlat(section, {end - half, s.ridge_m}, {half - end, s.ridge_m}, kShellRoof);
      section.edges.back().pleated = true;
    }
    addHalfRoof(section, s, half - end, false, arcPieces / 2);
    addFlat(section, {-end, s.eave_m}, {-end, 0.0}, kShellSides);
  }
  addFlat(section, {-end, 0.0}, {end, 0.0}, kShellFloor);
  return section;
}

/// A slice of a dome q off its middle.
ShellSection slice(const HouseShape& s, double q, double thickness_m, int arcPieces) {
  ShellSection section;
  section.length_m = thickness_m;
  section.hasEnds = false;
  const double foot = s.width_m / 2.0, rise = s.rise_m();
  const double sphere = (foot * foot + rise * rise) / (2.0 * rise), centre = s.ridge_m - sphere;
  const double radius = std::sqrt(std::max(sphere * sphere - q * q, 0.0));
  if (q >= foot) { // where the dome bulges over its foot
    addArc(section, {0.0, centre}, radius, 0.0, 2.0 * kPi, 2 * arcPieces, kShellRoof, radius / sphere);
    return section;
  }
  const double half = std::sqrt(foot * foot - q * q);
  const double from = std::atan2(s.eave_m - centre, half);
  addFlat(section, {half, 0.0}, {half, s.eave_m}, kShellSides);
  for (auto& e : section.edges) e.ny0 = e.ny1 = half / foot;
  addArc(section, {0.0, centre}, radius, from, kPi - from, arcPieces, kShellRoof, radius / sphere);
  const std::size_t walls = section.edges.size();
  addFlat(section, {-half, s.eave_m}, {-half, 0.0}, kShellSides);
  for (std::size_t i = walls; i < section.edges.size(); ++i) section.edges[i].ny0 = section.edges[i].ny1 = -half / foot;
  addFlat(section, {-half, 0.0}, {half, 0.0}, kShellFloor);
  return section;
}

} // namespace

LightDirection lightDirection(double altitude_deg, double azimuth_deg, double axis_deg) {
  const double level = std::cos(radians(altitude_deg)), off = radians(azimuth_deg - axis_deg);
  return {level * std::cos(off), level * std::sin(off), std::sin(radians(altitude_deg))};
}

std::vector<ShellSection> sectionsOf(const HouseShape& shape, int arcPieces) {
  if (shape.kind != ShapeKind::dome) return {prism(shape, arcPieces)};
  std::vector<ShellSection> slices;
  const double foot = shape.width_m / 2.0, rise = shape.rise_m();
  const double widest = rise > foot ? (foot * foot + rise * rise) / (2.0 * rise) : foot;
  for (int k = 0; k < kDomeSlices; ++k) { // q = widest sin(x): the slices shrink like a root towards the rim
    const double x = (k + 0.5) * kPi / 2.0 / kDomeSlices;
    slices.push_back(slice(shape, widest * std::sin(x), 2.0 * widest * std::cos(x) * kPi / 2.0 / kDomeSlices, arcPieces));
  }
  return slices;
}

} // namespace muffle
