// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/air/moist_air.h"

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

/// Bisection on an increasing function; 80 halvings reach the last bit of the bracket.
template <class F> double rootOfIncreasing(F f, double low, double high) {
  for (int i = 0; i < 80; ++i) {
    const double middle = 0.5 * (low + high);
    (f(middle) < 0.0 ? low : high) = middle;
  }
  return 0.5 * (low + high);
}

constexpr double kMassRatio = 0.621945; // molar mass of water over that of dry air

} // namespace

double saturationPressure_Pa(double t_C) {
  const double T = kelvin(t_C);
  if (t_C < 0.0) {
    return std::exp(-5.6745359e3 / T + 6.3925247 - 9.677843e-3 * T + 6.2215701e-7 * T * T + 2.0747825e-9 * T * T * T - 9.484024e-13 * T * T * T * T +
                    4.1635019 * std::log(T));
  }
  return saturationOverWater_Pa(t_C);
}

double saturationOverWater_Pa(double t_C) {
  const double T = kelvin(t_C);
  return std::exp(-5.8002206e3 / T + 1.3914993 - 4.8640239e-2 * T + 4.1764768e-5 * T * T - 1.4452093e-8 * T * T * T + 6.5459673 * std::log(T));
}

double dewPoint_C(double vapour_Pa) {
  // Newton on ln p_ws, which is nearly a straight line in 1/T: four rounds reach rounding from any start.
  const double target = std::log(std::clamp(vapour_Pa, 0.0015, 1.5e6));
  double t_C = 10.0;
  for (int i = 0; i < 12; ++i) {
    const double here = std::log(saturationPressure_Pa(t_C));
    const double slope = (std::log(saturationPressure_Pa(t_C + 0.01)) - std::log(saturationPressure_Pa(t_C - 0.01))) / 0.02;
    const double step = (target - here) / slope;
    t_C = std::clamp(t_C + step, -100.0, 200.0);
    if (std::abs(step) < 1e-9) break;
  }
  return t_C;
}

double humidityRatio(double vapour_Pa, double pressure_Pa) { return kMassRatio * vapour_Pa / (pressure_Pa - vapour_Pa); }

double vapourPressure_Pa(double humidityRatio, double pressure_Pa) { return pressure_Pa * humidityRatio / (kMassRatio + humidityRatio); }

double relativeHumidity(double t_C, double g_kg, double pressure_Pa) { return vapourPressure_Pa(g_kg / 1000.0, pressure_Pa) / saturationPressure_Pa(t_C); }

double enthalpy_J_kg(double t_C, double humidityRatio) { return kAirHeat_J_kgK * t_C + humidityRatio * (kEvaporation_J_kg + kVapourHeat_J_kgK * t_C); }

double specificVolume_m3_kg(double t_C, double humidityRatio, double pressure_Pa) {
  return kDryAirGas_J_kgK * kelvin(t_C) * (1.0 + 1.607858 * humidityRatio) / pressure_Pa;
}

double humidityRatioFromWetBulb(double t_C, double wetBulb_C, double pressure_Pa) {
  const double saturated = humidityRatio(saturationPressure_Pa(wetBulb_C), pressure_Pa);
  if (wetBulb_C >= 0.0) { return ((2501.0 - 2.326 * wetBulb_C) * saturated - 1.006 * (t_C - wetBulb_C)) / (2501.0 + 1.86 * t_C - 4.186 * wetBulb_C); }
  return ((2830.0 - 0.24 * wetBulb_C) * saturated - 1.006 * (t_C - wetBulb_C)) / (2830.0 + 1.86 * t_C - 2.1 * wetBulb_C);
}

double wetBulb_C(double t_C, double humidityRatio, double pressure_Pa) {
  return rootOfIncreasing([&](double t) { return humidityRatioFromWetBulb(t_C, t, pressure_Pa) - humidityRatio; }, -95.0, t_C);
}

double airDensity_kg_m3(double t_C, double pressure_Pa) { return pressure_Pa / (kDryAirGas_J_kgK * kelvin(t_C)); }

double pressureAtElevation_Pa(double elevation_m) { return kStandardPressure_Pa * std::pow(1.0 - 2.25577e-5 * elevation_m, 5.25588); }

} // namespace muffle
