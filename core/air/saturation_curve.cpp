// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/air/saturation_curve.h"

#include "core/air/moist_air.h"

namespace muffle {

SaturationCurve::SaturationCurve(double pressure_Pa) {
  const auto g_kg = [&](double t_C) { return 1000.0 * humidityRatio(std::min(saturationPressure_Pa(t_C), 0.9 * pressure_Pa), pressure_Pa); };
  // the slope is taken from within the piece, for ice and water meet at an angle
  const auto slope = [&](double t_C, double into) { return into * (4.0 * g_kg(t_C + 1e-3 * into) - g_kg(t_C + 2e-3 * into) - 3.0 * g_kg(t_C)) / 2e-3; };
  constexpr double kBelowWater = 1e-9; // just under 0 degC is still ice
  for (int i = 0; i < kPieces; ++i) {
    const double low = kFrom_C + i;
    const double high = low + 1.0 == 0.0 ? -kBelowWater : low + 1.0;
    const double a = g_kg(low);
    const double b = slope(low, 1.0);
    const double rise = g_kg(high) - a;
    const double end = slope(high, -1.0);
    m_piece[static_cast<std::size_t>(i)] = {a, b, 3.0 * rise - 2.0 * b - end, b + end - 2.0 * rise};
  }
}

} // namespace muffle
