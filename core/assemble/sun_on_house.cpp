// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assemble/sun_on_house.h"

#include "core/constants.h"
#include "core/sun/irradiance.h"

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

constexpr double kAlbedo = 0.2;
constexpr double kLowestSun = 0.052; // sin 3 degrees: below it a level reading says little about the beam
constexpr double kAnySun = 1e-3;

} // namespace

SunOnHouse sunOnHouse(const HouseShape& shape, const Winter& w) {
  const std::size_t n = w.size();
  SunOnHouse sun;
  sun.light = std::make_shared<LightTables>(shape);
  for (auto& g : sun.group_W_m2) g.assign(n, 0.0);
  for (auto* series : {&sun.beam_W_m2, &sun.sky_W_m2, &sun.ground_W_m2}) series->assign(n, 0.0);
  const auto faces = shape.faces();
  std::array<double, kFaceGroupCount> area{};
  struct Plane {
    std::size_t group;
    double area, share;     ///< share of its group
    double up, north, east; ///< its outward normal
  };
  std::vector<Plane> planes;
  for (const Face& f : faces) {
    const auto g = static_cast<std::size_t>(f.group);
    area[g] += f.area_m2;
    const double level = std::sin(radians(f.slope_deg));
    planes.push_back({g, f.area_m2, 0.0, std::cos(radians(f.slope_deg)), level * std::cos(radians(f.azimuth_deg)), level * std::sin(radians(f.azimuth_deg))});
  }
  for (Plane& p : planes) p.share = p.area / area[p.group];
  for (std::size_t i = 0; i < n; ++i) {
    const double global = w.sun_W_m2[i];
    if (global <= 0.0) continue;
    const double zenith = radians(static_cast<double>(w.zenith_deg[i]));
    const double azimuth = radians(static_cast<double>(w.azimuth_deg[i]));
    const double cosZ = std::cos(zenith), sinZ = std::sin(zenith);
    const double north = sinZ * std::cos(azimuth), east = sinZ * std::sin(azimuth);
    const double diffuse = w.diffuse_W_m2[i];
    const auto above = static_cast<double>(w.extraterrestrial_W_m2[i]);
    for (const Plane& p : planes) {
      const double cosine = cosZ * p.up + north * p.north + east * p.east;
      sun.group_W_m2[p.group][i] += p.share * tiltedIrradiance(global, diffuse, above, {cosZ, cosine, p.up}, kAlbedo, SkyModel::hayDavies).total();
    }
    const double aboutTheSun = above > 0.0 ? std::clamp((global - diffuse) / above, 0.0, 1.0) : 0.0; // Hay and Davies
    sun.sky_W_m2[i] = diffuse * (1.0 - aboutTheSun);
    sun.ground_W_m2[i] = kAlbedo * global;
    sun.beam_W_m2[i] =
        std::min((global - sun.sky_W_m2[i]) / std::max(cosZ, kLowestSun), above / std::max(cosZ, kAnySun)); // no more than there is above the air
  }
  return sun;
}

} // namespace muffle
