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

SoilHeat soilHeat(const SoilMaterial& soil, std::optional<double> moisture) {
  const double most = 1000.0 * (1.0 / soil.dryDensity_kg_m3 - 1.0 / 2700.0); // the pores full
  const double water = std::clamp(moisture.value_or(soil.moisture_kg_kg), 0.0, std::max(most, soil.moisture_kg_kg));
  const auto johansen = [&](double w, bool frozen) {
    return soilConductivityJohansen(soil.dryDensity_kg_m3, w, soil.quartz, soil.coarse, frozen).conductivity_W_mK;
  };
  const bool porous = soil.dryDensity_kg_m3 < 2300.0; // the formula is for soils; rock keeps its figure
  const double usual = porous ? johansen(soil.moisture_kg_kg, false) : 1.0;
  const double perWater = soil.dryDensity_kg_m3 * (water - soil.moisture_kg_kg);
  SoilHeat h{};
  h.conductivity_W_mK = soil.conductivity_W_mK * (porous ? johansen(water, false) / usual : 1.0);
  h.frozenConductivity_W_mK = soil.conductivity_W_mK * (porous ? johansen(water, true) / usual : 1.0);
  h.heat_J_m3K = soil.density_kg_m3 * soil.heat_J_kgK + perWater * kWaterHeat_J_kgK;
  h.frozenHeat_J_m3K = h.heat_J_m3K - soil.dryDensity_kg_m3 * water * (kWaterHeat_J_kgK - kIceHeat_J_kgK);
  h.latent_J_m3 = soil.dryDensity_kg_m3 * water * kFusion_J_kg;
  h.freezingInterval_K = soil.freezingInterval_K;
  return h;
}

FreezingFront freezingFront(const SoilHeat& soil, double surface_C, double start_C, double time_s) {
  const double frozen_m2_s = soil.frozenConductivity_W_mK / soil.frozenHeat_J_m3K;
  const double thawed_m2_s = soil.conductivity_W_mK / soil.heat_J_m3K;
  const double ratio = std::sqrt(frozen_m2_s / thawed_m2_s);
  const double below = -surface_C;
  const auto excess = [&](double x) { // falls through zero at lambda
    return std::exp(-x * x) / std::erf(x) -
           soil.conductivity_W_mK * ratio * start_C / (soil.frozenConductivity_W_mK * below) * std::exp(-x * x * ratio * ratio) / std::erfc(x * ratio) -
           x * soil.latent_J_m3 * std::sqrt(kPi) / (soil.frozenHeat_J_m3K * below);
  };
  double low = 1e-9, high = 5.0;
  for (int i = 0; i < 100; ++i) {
    const double middle = 0.5 * (low + high);
    (excess(middle) > 0.0 ? low : high) = middle;
  }
  const double lambda = 0.5 * (low + high);
  return {2.0 * lambda * std::sqrt(frozen_m2_s * time_s), lambda, std::sqrt(2.0 * soil.frozenConductivity_W_mK * below * time_s / soil.latent_J_m3)};
}

} // namespace muffle
