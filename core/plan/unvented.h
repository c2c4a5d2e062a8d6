// SPDX-License-Identifier: GPL-3.0-or-later
//
// What a flame without a flue leaves in the air of a shut house: V dc/dt = q - n V (c - c0), in the steady state c0 + q/(n V).
#pragma once

#include "core/plan/plan.h"

namespace muffle {

struct UnventedAir {
  double carbonDioxide_ppm = 0.0; ///< that the air comes to
  double water_kg_h = 0.0;        ///< that the flame adds
  double fuel_kg_h = 0.0;
};

/// At full stretch, the house shut and calm. Nothing for heaters with a flue.
UnventedAir unventedAir(const Heater& heater, const Plan& plan);

/// Carbon dioxide after so long from outside air, ppm: source in m3/s, volume in m3, air changes an hour. Infinite time: the steady state.
double carbonDioxide_ppm(double source_m3_s, double volume_m3, double airChanges_per_h, double outdoor_ppm, double time_s);

} // namespace muffle
