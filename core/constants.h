// SPDX-License-Identifier: GPL-3.0-or-later
//
// Physical constants with unit and source. One row each; a test walks the table.
#pragma once

#include <array>
#include <string_view>

namespace muffle {

inline constexpr double kStefanBoltzmann_W_m2K4 = 5.670374419e-8;
inline constexpr double kZeroCelsius_K = 273.15;
inline constexpr double kGravity_m_s2 = 9.81;
inline constexpr double kDryAirGas_J_kgK = 287.042;
inline constexpr double kAirHeat_J_kgK = 1006.0;
inline constexpr double kVapourHeat_J_kgK = 1860.0;
inline constexpr double kEvaporation_J_kg = 2501000.0;
inline constexpr double kWaterHeat_J_kgK = 4186.0;
inline constexpr double kWaterDensity_kg_m3 = 1000.0;
inline constexpr double kFusion_J_kg = 334000.0;
inline constexpr double kIceHeat_J_kgK = 2100.0;
inline constexpr double kSolarConstant_W_m2 = 1367.0;
inline constexpr double kStandardPressure_Pa = 101325.0;
inline constexpr double kHour_s = 3600.0;
inline constexpr double kDay_s = 86400.0;
inline constexpr double kPi = 3.14159265358979323846;

struct Constant {
  std::string_view symbol;
  double value;
  std::string_view unit;
  std::string_view source;
};

inline constexpr std::array<Constant, 13> kConstants{{
    {"sigma", kStefanBoltzmann_W_m2K4, "W/(m2 K4)", "CODATA 2018, exact value cut at ten digits"},
    {"T0", kZeroCelsius_K, "K", "definition of the Celsius scale"},
    {"g", kGravity_m_s2, "m/s2", "rounded standard gravity 9.80665"},
    {"Rda", kDryAirGas_J_kgK, "J/(kg K)", "ASHRAE Fundamentals, Psychrometrics"},
    {"cp,a", kAirHeat_J_kgK, "J/(kg K)", "ASHRAE Fundamentals, Psychrometrics"},
    {"cp,v", kVapourHeat_J_kgK, "J/(kg K)", "ASHRAE Fundamentals, Psychrometrics"},
    {"h_fg", kEvaporation_J_kg, "J/kg", "ASHRAE Fundamentals, Psychrometrics, at 0 degC"},
    {"c_w", kWaterHeat_J_kgK, "J/(kg K)", "steam tables near 15 degC"},
    {"rho_w", kWaterDensity_kg_m3, "kg/m3", "rounded; 999.7 at 10 degC"},
    {"h_if", kFusion_J_kg, "J/kg", "steam tables, 333.6 at 0 degC rounded"},
    {"c_ice", kIceHeat_J_kgK, "J/(kg K)", "steam tables near 0 degC"},
    {"G_sc", kSolarConstant_W_m2, "W/m2", "World Radiation Centre 1981, as in Duffie and Beckman"},
    {"p0", kStandardPressure_Pa, "Pa", "ISO 2533 standard atmosphere"},
}};

/// Kelvin of a Celsius temperature.
constexpr double kelvin(double celsius) { return celsius + kZeroCelsius_K; }
constexpr double radians(double degrees) { return degrees * kPi / 180.0; }
constexpr double degrees(double radians) { return radians * 180.0 / kPi; }

} // namespace muffle
