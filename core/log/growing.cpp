// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/log/growing.h"

#include <algorithm>
#include <cmath>

namespace muffle {

double growingDegreeHours_K_h(std::span<const double> temperature_C, double step_s, double base_C, double cap_C) {
  double sum = 0.0;
  for (const double t : temperature_C)
    if (std::isfinite(t)) sum += std::max(std::min(t, cap_C) - base_C, 0.0) * step_s / 3600.0;
  return sum;
}

double growingDegreeDay_K_d(double least_C, double most_C, double base_C) { return std::max((least_C + most_C) / 2.0 - base_C, 0.0); }

} // namespace muffle
