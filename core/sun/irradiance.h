// SPDX-License-Identifier: GPL-3.0-or-later
//
// How much sun falls on what. Duffie and Beckman, Solar Engineering of Thermal Processes, chapters 1 and 2; Erbs,
// Klein and Duffie, Solar Energy 28 (1982) 293; Hay and Davies (1980); Haurwitz, J. Meteorology 2 (1945) 154;
// Bristow and Campbell, Agric. For. Meteorology 31 (1984) 159.
#pragma once

namespace muffle {

/// Normal to the beam outside the atmosphere, W/m2: G_sc (1 + 0.033 cos(2 pi n/365)).
double extraterrestrialNormal_W_m2(int dayOfYear);
/// On the level over a day, J/m2; 0 in polar night.
double extraterrestrialDay_J_m2(double latitude_deg, int dayOfYear);
/// Clear sky on the level (Haurwitz): 1098 cos z exp(-0.057/cos z) W/m2; 0 below the horizon.
double clearSkyHorizontal_W_m2(double zenith_deg);
/// Erbs: diffuse part of the level irradiance by clearness index kT = I/I0.
double diffuseFractionErbs(double clearnessIndex);
/// Bristow and Campbell: daily transmittance from the day-night swing, A (1 - exp(-B swing^C)), A 0.70, C 2.4,
/// B from the month's mean swing: 0.036 exp(-0.154 meanSwing). swing_K >= 0.
double dailyTransmittanceBristowCampbell(double swing_K, double monthMeanSwing_K);

enum class SkyModel { isotropic, hayDavies };

struct TiltedIrradiance {
  double beam = 0.0;
  double diffuse = 0.0;
  double ground = 0.0; ///< reflected by the ground; all W/m2
  [[nodiscard]] double total() const { return beam + diffuse + ground; }
};

/// On a tilted plane. global and diffuse on the level; zenith and incidence in degrees; beam is 0 behind the plane.
/// cos(zenith) is held at 0.01 or more, so that a setting sun cannot blow the ratio up.
TiltedIrradiance tiltedIrradiance(double global_W_m2, double diffuse_W_m2, double extraterrestrialHorizontal_W_m2, double zenith_deg, double incidence_deg,
                                  double slope_deg, double albedo, SkyModel model);

/// The same by the angles' cosines, for loops over planes and hours.
struct SunAngles {
  double cosZenith, cosIncidence, cosSlope;
};
TiltedIrradiance tiltedIrradiance(double global_W_m2, double diffuse_W_m2, double extraterrestrialHorizontal_W_m2, const SunAngles& at, double albedo,
                                  SkyModel model);

} // namespace muffle
