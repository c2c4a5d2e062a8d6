// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sun/irradiance.h"

#include "core/constants.h"
#include "core/sun/position.h"

#include <algorithm>
#include <cmath>

namespace muffle {

double extraterrestrialNormal_W_m2(int dayOfYear) { return kSolarConstant_W_m2 * (1.0 + 0.033 * std::cos(2.0 * kPi * dayOfYear / 365.0)); }

double extraterrestrialDay_J_m2(double latitude_deg, int dayOfYear) {
  const double phi = radians(latitude_deg);
  const double delta = radians(declinationCooper_deg(dayOfYear));
  const double sunsetAngle = std::acos(std::clamp(-std::tan(phi) * std::tan(delta), -1.0, 1.0));
  return 86400.0 * extraterrestrialNormal_W_m2(dayOfYear) / kPi *
         (std::cos(phi) * std::cos(delta) * std::sin(sunsetAngle) + sunsetAngle * std::sin(phi) * std::sin(delta));
}

double clearSkyHorizontal_W_m2(double zenith_deg) {
  const double c = std::cos(radians(zenith_deg));
  return c <= 0.0 ? 0.0 : 1098.0 * c * std::exp(-0.057 / c);
}

double diffuseFractionErbs(double k) {
  if (k <= 0.22) return 1.0 - 0.09 * k;
  if (k <= 0.80) return 0.9511 - 0.1604 * k + 4.388 * k * k - 16.638 * k * k * k + 12.336 * k * k * k * k;
  return 0.165;
}

double dailyTransmittanceBristowCampbell(double swing_K, double monthMeanSwing_K) {
  const double b = 0.036 * std::exp(-0.154 * monthMeanSwing_K);
  return 0.70 * (1.0 - std::exp(-b * std::pow(std::max(swing_K, 0.0), 2.4)));
}

TiltedIrradiance tiltedIrradiance(double global, double diffuse, double extraterrestrialHorizontal, const SunAngles& at, double albedo, SkyModel model) {
  const double ratio = std::max(at.cosIncidence, 0.0) / std::max(at.cosZenith, 0.01);
  const double beam = std::max(global - diffuse, 0.0);
  TiltedIrradiance on;
  on.beam = beam * ratio;
  on.ground = albedo * global * (1.0 - at.cosSlope) / 2.0;
  const double isotropic = (1.0 + at.cosSlope) / 2.0;
  if (model == SkyModel::hayDavies && extraterrestrialHorizontal > 0.0) {
    const double anisotropy = std::clamp(beam / extraterrestrialHorizontal, 0.0, 1.0);
    on.diffuse = diffuse * (anisotropy * ratio + (1.0 - anisotropy) * isotropic);
  } else {
    on.diffuse = diffuse * isotropic;
  }
  return on;
}

TiltedIrradiance tiltedIrradiance(double global, double diffuse, double extraterrestrialHorizontal, double zenith_deg, double incidence_deg, double slope_deg,
                                  double albedo, SkyModel model) {
  const SunAngles at{std::cos(radians(zenith_deg)), std::cos(radians(incidence_deg)), std::cos(radians(slope_deg))};
  return tiltedIrradiance(global, diffuse, extraterrestrialHorizontal, at, albedo, model);
}

} // namespace muffle
