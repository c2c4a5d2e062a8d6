// SPDX-License-Identifier: GPL-3.0-or-later
//
// A level leaf in still air between the floor below and what it sees above: both its faces exchange heat with the air at 3 W/(m2 K) (free convection at
// leaves of some centimetres, h = 1.4 (dT/L)^(1/4)), and radiation at 4.6 W/(m2 K).
#pragma once

namespace muffle {

inline constexpr double kLeafAir_W_m2K = 2.0 * 3.0;
inline constexpr double kLeafRadiation_W_m2K = 4.6; ///< each face: 4 x 0.95 sigma T^3 near 5 degC

inline double leafTemperature_C(double air_C, double floor_C, double above_C) {
  return (kLeafAir_W_m2K * air_C + kLeafRadiation_W_m2K * (floor_C + above_C)) / (kLeafAir_W_m2K + 2.0 * kLeafRadiation_W_m2K);
}

} // namespace muffle
