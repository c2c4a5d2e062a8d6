// SPDX-License-Identifier: GPL-3.0-or-later
//
// Long-wave radiation of the sky.
//   clear:  e0 = 0.711 + 0.56 (Tdp/100) + 0.73 (Tdp/100)^2 + 0.013 cos(2 pi h/24) + 0.00012 (p_mbar - 1000)
//   cloudy: e = e0 + (1 - e0) n ec exp(-zc / 8.2 km)
//   T_sky = e^(1/4) T_air
// Berdahl and Martin, Solar Energy 32 (1984) 663; Martin and Berdahl, Solar Energy 33 (1984) 321.
#pragma once

#include "core/constants.h"

namespace muffle {

struct SkyState {
  double emissivity = 0.0;
  double sky_C = 0.0;
  double downward_W_m2 = 0.0;
};

/// cloudFraction 0..1; cloudBase_m 0..11000; solarHour counted from local solar midnight, 0..24.
SkyState skyBerdahlMartin(double air_C, double dewPoint_C, double solarHour, double pressure_Pa, double cloudFraction, double cloudBase_m);

/// The hour term's swing of the clear-sky temperature between midnight and noon, K.
double skyHourSwing_K(double air_C, double dewPoint_C, double pressure_Pa);

/// Swinbank (QJRMS 89, 1963): 0.0552 T^1.5; air temperature only, clear sky.
double skySwinbank_C(double air_C);

/// Cloud fraction at which the day's sun would be `clearness` of a clear day's:
/// G/G_clear = 1 - 0.75 n^3.4, Kasten and Czeplak, Solar Energy 24 (1980) 177. Returns 0..1.
double cloudFromClearness(double clearness);

} // namespace muffle
