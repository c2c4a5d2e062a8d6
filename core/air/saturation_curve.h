// SPDX-License-Identifier: GPL-3.0-or-later
//
// The water that saturated air holds, in grams per kilogram of dry air, for hot loops: humidityRatio(saturationPressure_Pa(t))
// by cubic Hermite pieces of one kelvin, right to 1e-6 of its value (a test compares). The corner between ice and water at
// 0 degC lies on a knot. Valid -80..80 degC; outside it keeps the value of the end.
//
//   const SaturationCurve saturated(pressure_Pa);
//   saturated.at(5.0).g_kg          // 5.40 at sea level
#pragma once

#include "core/constants.h"

#include <algorithm>
#include <array>

namespace muffle {

class SaturationCurve {
public:
  explicit SaturationCurve(double pressure_Pa = kStandardPressure_Pa);

  struct Point {
    double g_kg;
    double slope_1_K; ///< g/kg per kelvin
  };
  [[nodiscard]] Point at(double t_C) const {
    const double x = std::clamp(t_C - kFrom_C, 0.0, kPieces - 1e-9);
    const auto i = static_cast<std::size_t>(x);
    const double u = x - static_cast<double>(i);
    const auto& [a, b, c, d] = m_piece[i];
    const bool outside = x != t_C - kFrom_C;
    return {a + u * (b + u * (c + u * d)), outside ? 0.0 : b + u * (2.0 * c + 3.0 * u * d)};
  }

private:
  static constexpr double kFrom_C = -80.0;
  static constexpr int kPieces = 160;
  std::array<std::array<double, 4>, kPieces> m_piece;
};

} // namespace muffle
