// SPDX-License-Identifier: GPL-3.0-or-later
//
// Moist air as an ideal mixture of dry air and water vapour.
//   p_ws(t): Hyland and Wexler (1983) as printed in ASHRAE Fundamentals, ch. Psychrometrics, over ice below 0 degC and
//            over water from 0 degC up, without enhancement factor. Valid -100..200 degC.
//   W = 0.621945 p_w / (p - p_w);  h = 1006 t + W (2 501 000 + 1860 t) J per kg dry air
//   v = 287.042 T (1 + 1.607858 W) / p
//
//   const double dew_C = dewPoint_C(0.8 * saturationPressure_Pa(5.0));
#pragma once

#include "core/constants.h"

namespace muffle {

/// Saturation vapour pressure, below 0 degC over ice. t_C in -100..200.
double saturationPressure_Pa(double t_C);
/// Over water, below 0 degC over supercooled water, as hygrometers reckon. t_C in -50..200.
double saturationOverWater_Pa(double t_C);

/// Temperature at which `vapour_Pa` saturates: dew point from 0 degC up, frost point below.
/// vapour_Pa in 0.0015..1.5e6 Pa (the range of the formula); values outside are clamped to it.
double dewPoint_C(double vapour_Pa);

/// kg water per kg dry air; vapour_Pa must stay below pressure_Pa.
double humidityRatio(double vapour_Pa, double pressure_Pa = kStandardPressure_Pa);
double vapourPressure_Pa(double humidityRatio, double pressure_Pa = kStandardPressure_Pa);

/// Of air with so many grams of water per kg of dry air, 0..1 and above where it is supersaturated.
double relativeHumidity(double t_C, double g_kg, double pressure_Pa = kStandardPressure_Pa);

/// J per kg dry air, zero at 0 degC dry.
double enthalpy_J_kg(double t_C, double humidityRatio);

/// m3 per kg dry air.
double specificVolume_m3_kg(double t_C, double humidityRatio, double pressure_Pa = kStandardPressure_Pa);

/// Thermodynamic wet bulb; over ice when the answer is below 0 degC.
double wetBulb_C(double t_C, double humidityRatio, double pressure_Pa = kStandardPressure_Pa);
double humidityRatioFromWetBulb(double t_C, double wetBulb_C, double pressure_Pa = kStandardPressure_Pa);

/// Density of dry air, kg/m3.
double airDensity_kg_m3(double t_C, double pressure_Pa = kStandardPressure_Pa);

/// Pressure of the standard atmosphere at a height above sea level (ISO 2533), valid to 11 km.
double pressureAtElevation_Pa(double elevation_m);

} // namespace muffle
