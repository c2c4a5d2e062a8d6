// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/air/leaf_balance.h"

#include "core/air/moist_air.h"

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

constexpr double kVapourGas_J_kgK = 461.5;
constexpr double kVapourOverHeat = 0.93; // resistance to vapour by that to heat, of a laminar boundary layer
constexpr double kSublimation_J_kg = 2834000.0;

double absolute_K(double t_C) { return t_C + kZeroCelsius_K; }
double radiated_W_m2(double t_C) { return kStefanBoltzmann_W_m2K4 * std::pow(absolute_K(t_C), 4.0); }
double vapour_kg_m3(double pressure_Pa, double t_C) { return pressure_Pa / (kVapourGas_J_kgK * absolute_K(t_C)); }
double evaporation_J_kg(double t_C) { return kEvaporation_J_kg - 2361.0 * t_C; }

/// Where what a leaf loses, less what it gains, comes to nothing; it rises with its temperature.
template <class Loss> double balanced_C(double air_C, Loss loss) {
  double low = air_C - 60.0, high = air_C + 80.0;
  for (int i = 0; i < 80; ++i) {
    const double middle = 0.5 * (low + high);
    (loss(middle) > 0.0 ? high : low) = middle;
  }
  return 0.5 * (low + high);
}

} // namespace

LeafState leafBalance(const LeafSurroundings& at) {
  const double rhoCp = airDensity_kg_m3(at.air_C, at.pressure_Pa) * kAirHeat_J_kgK;
  const double outside = vapour_kg_m3(at.relativeHumidity * saturationPressure_Pa(at.air_C), at.air_C);
  const auto transpired = [&](double leaf_C) {
    const double over = vapour_kg_m3(saturationPressure_Pa(leaf_C), leaf_C) - outside;
    return over < 0.0 ? 2.0 * over * at.boundary_m_s / kVapourOverHeat : at.stomataSides * over / (at.stomata_s_m + kVapourOverHeat / at.boundary_m_s);
  };
  const double gained = at.absorbedShortwave_W_m2 + at.emissivity * (at.longwaveAbove_W_m2 + at.longwaveBelow_W_m2);
  const double leaf_C = balanced_C(at.air_C, [&](double t_C) {
    return 2.0 * at.emissivity * radiated_W_m2(t_C) + 2.0 * rhoCp * at.boundary_m_s * (t_C - at.air_C) + evaporation_J_kg(t_C) * transpired(t_C) - gained;
  });
  return {leaf_C, transpired(leaf_C)};
}

LeafNight leafAtNight(double air_C, double relativeHumidity, double skyDownward_W_m2, double ground_C, double leafWidth_m, double emissivity) {
  const double rhoCp = airDensity_kg_m3(air_C) * kAirHeat_J_kgK;
  const double outside = vapour_kg_m3(relativeHumidity * saturationOverWater_Pa(air_C), air_C);
  const auto film_W_m2K = [&](double t_C) { // up from a cold plate and down from it, both sides together
    return (1.32 + 0.59) * std::pow(std::abs(t_C - air_C) / leafWidth_m, 0.25);
  };
  const auto settles = [&](double t_C) { // over ice below 0
    return std::max(0.0, film_W_m2K(t_C) / (rhoCp * kVapourOverHeat) * (outside - vapour_kg_m3(saturationPressure_Pa(t_C), t_C)));
  };
  const auto released = [&](double t_C) { return t_C < 0.0 ? kSublimation_J_kg : evaporation_J_kg(t_C); };
  LeafNight night;
  night.leaf_C = balanced_C(air_C, [&](double t_C) {
    return 2.0 * emissivity * radiated_W_m2(t_C) + film_W_m2K(t_C) * (t_C - air_C) - released(t_C) * settles(t_C) -
           emissivity * (skyDownward_W_m2 + radiated_W_m2(ground_C));
  });
  night.deposit_kg_m2s = settles(night.leaf_C);
  if (night.deposit_kg_m2s > 0.0) night.kind = night.leaf_C < 0.0 ? Deposit::frost : Deposit::dew;
  return night;
}

} // namespace muffle
