// SPDX-License-Identifier: GPL-3.0-or-later
//
// The sun on one house through one winter: what each group of faces receives from outside, and what there is to come in. It depends on
// weather and shape only, so it is worked out once and shared by every plan that keeps the shape.
//   faces   Hay and Davies transposition, albedo 0.2
//   inside  the beam across itself (with the part of the sky about the sun), the sky's even light and what the ground sends up, to be
//           followed through the shell by the house's light tables (light_table.h)
#pragma once

#include "core/house/light_table.h"
#include "core/house/shape.h"
#include "core/weather/weather.h"

#include <array>
#include <memory>
#include <vector>

namespace muffle {

struct SunOnHouse {
  /// Mean irradiance on roof, sides, ends and back wall from outside, W/m2, by step.
  std::array<std::vector<double>, kFaceGroupCount> group_W_m2;
  std::vector<double> beam_W_m2;   ///< on a plane across it
  std::vector<double> sky_W_m2;    ///< on the level, from an even sky
  std::vector<double> ground_W_m2; ///< that level ground sends up
  std::shared_ptr<LightTables> light;
};

SunOnHouse sunOnHouse(const HouseShape& shape, const Winter& winter);

} // namespace muffle
