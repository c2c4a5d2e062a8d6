// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/house/sun_on_house.h"

#include "core/constants.h"
#include "core/sun/glazing.h"
#include "core/sun/irradiance.h"

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

constexpr double kAlbedo = 0.2;
constexpr double kLowestSun = 0.052; // sin 3 degrees: below it a level reading says little about the beam

/// Transmittance at an incidence over the diffuse one, for a typical sheet, on a grid of the incidence's cosine: steps of
/// 1/512 are a fifth of a degree where the curve is steep.
class AngleFactor {
public:
  AngleFactor() {
    constexpr double kIndex = 1.5, kPath = 0.02;
    const double diffuse = glazingDiffuseTransmittance(kIndex, kPath, 1);
    for (int i = 0; i <= kSteps; ++i)
      m_factor[static_cast<std::size_t>(i)] = glazingOptics(kIndex, kPath, degrees(std::acos(static_cast<double>(i) / kSteps)), 1).transmittance / diffuse;
    m_factor[0] = 0.0;
  }
  [[nodiscard]] double at(double cosine) const {
    const double place = std::clamp(cosine, 0.0, 1.0) * kSteps;
    const auto i = std::min(static_cast<std::size_t>(place), static_cast<std::size_t>(kSteps - 1));
    return m_factor[i] + (m_factor[i + 1] - m_factor[i]) * (place - static_cast<double>(i));
  }

private:
  static constexpr int kSteps = 512;
  std::array<double, kSteps + 1> m_factor{};
};

} // namespace

SunOnHouse sunOnHouse(const HouseShape& shape, const Winter& w, double latitude_deg) {
  const std::size_t n = w.size();
  SunOnHouse sun;
  for (auto& g : sun.group_W_m2) g.assign(n, 0.0);
  sun.beamInside_W_m2.assign(n, 0.0);
  sun.diffuse_W_m2.assign(n, 0.0);
  sun.upright_W_m2.assign(n, 0.0);
  const auto faces = shape.faces();
  std::array<double, kFaceGroupCount> area{};
  if (shape.hasBackWall()) sun.wallInside_W_m2.assign(n, 0.0);
  double inward_rad = 0.0; // the way a back wall's inner face looks
  struct Plane {
    std::size_t group;
    double area, share; ///< share of its group
    double up, north, east; ///< its outward normal
  };
  std::vector<Plane> planes;
  for (const Face& f : faces) {
    if (f.group == FaceGroup::backWall) inward_rad = radians(f.azimuth_deg + 180.0);
    const auto g = static_cast<std::size_t>(f.group);
    area[g] += f.area_m2;
    const double level = std::sin(radians(f.slope_deg));
    planes.push_back({g, f.area_m2, 0.0, std::cos(radians(f.slope_deg)), level * std::cos(radians(f.azimuth_deg)), level * std::sin(radians(f.azimuth_deg))});
  }
  for (Plane& p : planes) p.share = p.area / area[p.group];
  const double equator_rad = radians(latitude_deg >= 0.0 ? 180.0 : 0.0);
  static const AngleFactor factor;
  for (std::size_t i = 0; i < n; ++i) {
    const double global = w.sun_W_m2[i];
    if (global <= 0.0) continue;
    const double zenith = radians(static_cast<double>(w.zenith_deg[i]));
    const double azimuth = radians(static_cast<double>(w.azimuth_deg[i]));
    const double cosZ = std::cos(zenith), sinZ = std::sin(zenith);
    const double north = sinZ * std::cos(azimuth), east = sinZ * std::sin(azimuth);
    const double diffuse = w.diffuse_W_m2[i];
    const auto above = static_cast<double>(w.extraterrestrial_W_m2[i]);
    double weight = 0.0, weighted = 0.0;
    for (const Plane& p : planes) {
      const double cosine = cosZ * p.up + north * p.north + east * p.east;
      sun.group_W_m2[p.group][i] += p.share * tiltedIrradiance(global, diffuse, above, {cosZ, cosine, p.up}, kAlbedo, SkyModel::hayDavies).total();
      if (cosine > 0.0 && p.group != static_cast<std::size_t>(FaceGroup::backWall)) {
        weight += p.area * cosine;
        weighted += p.area * cosine * factor.at(cosine);
      }
    }
    sun.beamInside_W_m2[i] = weight > 0.0 ? (global - diffuse) * weighted / weight : 0.0;
    sun.diffuse_W_m2[i] = diffuse;
    if (!sun.wallInside_W_m2.empty()) { // the beam on it, from the level beam inside; the sun no lower than 3 degrees
      const double inFront = std::max(sinZ * std::cos(azimuth - inward_rad), 0.0);
      sun.wallInside_W_m2[i] = sun.beamInside_W_m2[i] * inFront / std::max(cosZ, kLowestSun) + diffuse / 2.0;
    }
    const double cosUpright = sinZ * std::cos(azimuth - equator_rad);
    sun.upright_W_m2[i] = tiltedIrradiance(global, diffuse, above, {cosZ, cosUpright, 0.0}, kAlbedo, SkyModel::hayDavies).total();
  }
  return sun;
}

} // namespace muffle
