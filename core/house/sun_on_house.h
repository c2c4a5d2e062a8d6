// SPDX-License-Identifier: GPL-3.0-or-later
//
// The sun on one house through one winter: what each group of faces receives and what reaches the floor. It depends on
// weather and shape only, so it is worked out once and shared by every plan that keeps the shape.
//   faces   Hay and Davies transposition, albedo 0.2
//   inside  a convex house: every floor point sees the beam through one face, so the floor receives the level beam
//           times the transmittance at that face's incidence; the diffuse sky likewise. A back wall receives the beam
//           that comes from in front of it, at its own incidence, besides half of the diffuse sky
#pragma once

#include "core/house/shape.h"
#include "core/weather/weather.h"

#include <array>
#include <vector>

namespace muffle {

struct SunOnHouse {
  /// Mean irradiance on roof, sides, ends and back wall from outside, W/m2, by step.
  std::array<std::vector<double>, kFaceGroupCount> group_W_m2;
  /// On a back wall's inner face, from in front and through the cover like beamInside_W_m2; empty without such a wall.
  std::vector<double> wallInside_W_m2;
  /// Level beam weighted by the cover's transmittance at its incidence over its diffuse transmittance, W/m2.
  std::vector<double> beamInside_W_m2;
  std::vector<double> diffuse_W_m2;
  /// On an upright surface facing the equator, outside the cover, W/m2.
  std::vector<double> upright_W_m2;
};

SunOnHouse sunOnHouse(const HouseShape& shape, const Winter& winter, double latitude_deg);

} // namespace muffle
