// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/ground/soil.h"

#include "core/constants.h"

#include <algorithm>
#include <cmath>

namespace muffle {

double UndisturbedGround::dampingDepth_m() const { return std::sqrt(365.0 * 86400.0 * conductivity_W_mK / heat_J_m3K / kPi); }

double UndisturbedGround::temperature_C(double depth_m, double day) const {
  const double relative = depth_m / dampingDepth_m();
  return mean_C - surfaceAmplitude_K * std::exp(-relative) * std::cos(2.0 * kPi * (day - coldestDay) / 365.0 - relative);
}

SoilConductivity soilConductivityJohansen(double dryDensity, double moisture, double quartz, bool coarse, bool frozen) {
  constexpr double kSolids_kg_m3 = 2700.0;
  constexpr double kWater_W_mK = 0.57;
  constexpr double kIce_W_mK = 2.2;
  const double porosity = 1.0 - dryDensity / kSolids_kg_m3;
  const double saturation = std::clamp(moisture * dryDensity / (1000.0 * porosity), 0.0, 1.0);
  const double dry = (0.135 * dryDensity + 64.7) / (kSolids_kg_m3 - 0.947 * dryDensity);
  const double solids = std::pow(7.7, quartz) * std::pow(quartz <= 0.2 ? 3.0 : 2.0, 1.0 - quartz);
  const double saturated = std::pow(solids, 1.0 - porosity) * std::pow(frozen ? kIce_W_mK : kWater_W_mK, porosity);
  double kersten = 0.0;
  if (frozen)
    kersten = saturation;
  else if (coarse)
    kersten = saturation > 0.05 ? 1.0 + 0.7 * std::log10(saturation) : 0.0;
  else
    kersten = saturation > 0.1 ? 1.0 + std::log10(saturation) : 0.0;
  return {kersten * (saturated - dry) + dry, saturation};
}

} // namespace muffle
