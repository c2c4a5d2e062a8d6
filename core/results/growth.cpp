// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/results/growth.h"

#include "core/constants.h"

#include <algorithm>
#include <cmath>

namespace muffle {

double growthRate(const GrowthResponse& crop, double temperature_C) {
  if (!(temperature_C > crop.base_C && temperature_C < crop.tooWarm_C)) return 0.0;
  const double warm = (crop.tooWarm_C - temperature_C) / (crop.tooWarm_C - crop.best_C);
  const double cold = (temperature_C - crop.base_C) / (crop.best_C - crop.base_C);
  return warm * std::pow(cold, (crop.best_C - crop.base_C) / (crop.tooWarm_C - crop.best_C));
}

double dailyLight_mol_m2(double sunlight_J_m2) {
  constexpr double kUsed = 0.45, kPhotons_mol_J = 4.57e-6;
  return sunlight_J_m2 * kUsed * kPhotons_mol_J;
}

Growth& Growth::operator+=(const Growth& other) {
  days += other.days;
  warmthDays += other.warmthDays;
  lightShort_d += other.lightShort_d;
  degreeHours_K_h += other.degreeHours_K_h;
  all_d += other.all_d;
  return *this;
}

Growth growthOver(std::span<const float> air_C, std::span<const float> light_W_m2, double step_s, const GrowthResponse& crop) {
  Growth sum;
  const auto perDay = static_cast<std::size_t>(std::lround(kDay_s / step_s));
  const std::size_t count = std::min(air_C.size(), light_W_m2.size());
  for (std::size_t from = 0; perDay > 0 && from + perDay <= count; from += perDay) {
    double warmth = 0.0, light_J_m2 = 0.0;
    for (std::size_t i = from; i < from + perDay; ++i) {
      const auto at = static_cast<double>(air_C[i]);
      warmth += growthRate(crop, at);
      if (at > crop.base_C) sum.degreeHours_K_h += (std::min(at, crop.best_C) - crop.base_C) * step_s / 3600.0;
      if (light_W_m2[i] > 0.0F) light_J_m2 += static_cast<double>(light_W_m2[i]) * step_s;
    }
    warmth /= static_cast<double>(perDay);
    const double light = std::min(1.0, dailyLight_mol_m2(light_J_m2) / crop.enoughLight_mol_m2);
    sum.days += std::min(warmth, light);
    sum.warmthDays += warmth;
    sum.lightShort_d += light < warmth ? 1.0 : 0.0;
    sum.all_d += 1.0;
  }
  return sum;
}

} // namespace muffle
