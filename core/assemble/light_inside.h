// SPDX-License-Identifier: GPL-3.0-or-later
//
// What the light that comes into a plan's house warms, step by step. Each share is taken up once: floor, leaves and things by what
// they absorb of what they meet, the far side by what it absorbs; what then is neither taken up nor let out goes about the house as in an
// integrating sphere, to each surface by its area and absorptance.
#pragma once

#include "core/assemble/sun_on_house.h"

#include <array>
#include <vector>

namespace muffle {

/// What the house and what stands in it do to light.
struct LightTaking {
  struct Cover {
    double area_m2 = 0.0;
    double transmittance = 0.0; ///< diffuse, of the skin alone
    double absorptance = 0.0;
    std::vector<double> lets = {}; ///< by step: share of the light that comes in, dirt, frame and cloths counted
    double passes = 1.0;           ///< share that passes what hangs below it, such as a ceiling
  };
  std::array<Cover, kLightEntries> covers; ///< roof, sides, ends
  LightFilling filling;
  std::vector<double> standingAbsorptance; ///< as the filling lists them
  double floor_m2 = 1.0;
  double backWall_m2 = 0.0, backWallAbsorptance = 0.0;
};

constexpr double kFloorTakesUp = 0.85; ///< of the light on it: dark moist soil
constexpr double kLeavesTakeUp = 0.80; ///< of the light that they meet

struct LightInside {
  std::vector<double> floor_W_m2, leaves_W_m2;             ///< taken up, by m2 of the house's floor
  std::vector<double> meets_W_m2;                          ///< leaves and floor, by m2 of it
  std::vector<double> backWall_W_m2;                       ///< taken up by it, by its own area; empty without one
  std::vector<std::vector<double>> standing_W;             ///< taken up, as the filling lists them
  std::array<std::vector<double>, kLightEntries> far_W_m2; ///< meets the cover from within, by its own area
};

LightInside lightInside(const LightTaking& taking, const SunOnHouse& sun, const Winter& winter);

/// What comes in by one group of faces, before anything below it, by step, W.
std::vector<double> lightEntering_W(const LightTaking& taking, const SunOnHouse& sun, const Winter& winter, FaceGroup by);

} // namespace muffle
