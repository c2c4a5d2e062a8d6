// SPDX-License-Identifier: GPL-3.0-or-later
//
// Soil as a thermal material and the ground far from any house.
//   Kusuda and Achenbach, ASHRAE Trans. 71 (1965): T(z,t) = Tm - A exp(-z/d) cos(2 pi (t - t0)/365 - z/d),
//   d = sqrt(365 x 86400 a/pi)
//   Johansen (1975) as in Farouki (1981): conductivity from density, moisture and quartz.
#pragma once

#include "core/material/materials.h"

#include <optional>

namespace muffle {

struct UndisturbedGround {
  double mean_C = 10.0;
  double surfaceAmplitude_K = 10.0; ///< of the year's wave at the surface, >= 0
  double coldestDay = 20.0;         ///< day of year of the coldest surface
  double conductivity_W_mK = 1.2;   ///< > 0
  double heat_J_m3K = 2.0e6;        ///< volumetric, > 0

  /// day may run past 365; depth_m >= 0.
  [[nodiscard]] double temperature_C(double depth_m, double day) const;
  /// Depth at which the year's wave is down to 1/e.
  [[nodiscard]] double dampingDepth_m() const;
};

/// Johansen's conductivity, W/(m K), and the degree of saturation.
struct SoilConductivity {
  double conductivity_W_mK;
  double saturation;
};
/// dryDensity 800..2200 kg/m3; moisture kg water per kg dry soil, >= 0, cut at saturation; quartz 0..1.
SoilConductivity soilConductivityJohansen(double dryDensity_kg_m3, double moisture_kg_kg, double quartzFraction, bool coarse, bool frozen);

/// What a layer of soil is to heat, thawed and frozen.
struct SoilHeat {
  double conductivity_W_mK;
  double heat_J_m3K;
  double frozenConductivity_W_mK;
  double frozenHeat_J_m3K;
  double latent_J_m3; ///< 0 if it holds no water
  double freezingInterval_K;
};
/// The table's figures at the table's moisture; at another, 0..1 kg/kg, they move as Johansen's conductivity does and as the
/// heat of the water.
SoilHeat soilHeat(const SoilMaterial& soil, std::optional<double> moisture_kg_kg = {});

/// How deep the ground freezes under a surface that is suddenly held below 0 degC.
///   front = 2 lambda sqrt(a_f t), lambda by Neumann's equation (Carslaw and Jaeger, ch. XI); without sensible heat it is
///   Stefan's sqrt(2 k_f dT t/L), an upper bound
struct FreezingFront {
  double front_m;
  double lambda;
  double stefan_m;
};
/// surface_C < 0, start_C >= 0, time_s > 0.
FreezingFront freezingFront(const SoilHeat& soil, double surface_C, double start_C, double time_s);

} // namespace muffle
