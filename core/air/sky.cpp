// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/air/sky.h"

#include <algorithm>
#include <cmath>

namespace muffle {

SkyState skyBerdahlMartin(double air_C, double dewPoint_C, double solarHour, double pressure_Pa, double cloudFraction, double cloudBase_m) {
  const double x = dewPoint_C / 100.0;
  const double clear = 0.711 + 0.56 * x + 0.73 * x * x + 0.013 * std::cos(2.0 * kPi * solarHour / 24.0) + 0.00012 * (pressure_Pa / 100.0 - 1000.0);
  const double base_km = cloudBase_m / 1000.0;
  const double cloudEmissivity = base_km <= 4.0 ? 1.0 : 0.74 - 0.084 * (std::min(base_km, 11.0) - 4.0);
  SkyState sky;
  sky.emissivity = clear + (1.0 - clear) * cloudFraction * cloudEmissivity * std::exp(-base_km / 8.2);
  const double T = kelvin(air_C);
  sky.sky_C = std::pow(sky.emissivity, 0.25) * T - kZeroCelsius_K;
  sky.downward_W_m2 = sky.emissivity * kStefanBoltzmann_W_m2K4 * T * T * T * T;
  return sky;
}

double skyHourSwing_K(double air_C, double dewPoint_C, double pressure_Pa) {
  return skyBerdahlMartin(air_C, dewPoint_C, 0.0, pressure_Pa, 0.0, 0.0).sky_C - skyBerdahlMartin(air_C, dewPoint_C, 12.0, pressure_Pa, 0.0, 0.0).sky_C;
}

double skySwinbank_C(double air_C) { return 0.0552 * std::pow(kelvin(air_C), 1.5) - kZeroCelsius_K; }

double cloudFromClearness(double clearness) { return std::pow(std::clamp((1.0 - clearness) / 0.75, 0.0, 1.0), 1.0 / 3.4); }

} // namespace muffle
