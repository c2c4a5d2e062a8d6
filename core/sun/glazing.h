// SPDX-License-Identifier: GPL-3.0-or-later
//
// Sunlight through n identical sheets: Snell, Fresnel for both polarisations, Bouguer absorption, and the exact sum of
// reflections between sheets (Duffie and Beckman, chapter 5). Angles 0..90 degrees from the normal.
#pragma once

namespace muffle {

struct GlazingOptics {
  double transmittance = 0.0;
  double reflectance = 0.0;
  [[nodiscard]] double absorptance() const { return 1.0 - transmittance - reflectance; }
};

/// Interface reflectance of unpolarised light for refractive index n > 1.
double fresnelReflectance(double n, double incidence_deg);
/// extinctionPath KL = K x thickness of one sheet; sheets >= 1.
GlazingOptics glazingOptics(double n, double extinctionPath, double incidence_deg, int sheets);
/// Hemispherical transmittance, the integral of tau sin(2 theta) over 0..90 degrees.
double glazingDiffuseTransmittance(double n, double extinctionPath, int sheets);

} // namespace muffle
