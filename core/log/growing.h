// SPDX-License-Identifier: GPL-3.0-or-later
//
// Growing warmth: degrees above a base, over hours or days; what is above a cap counts as the cap.
#pragma once

#include "core/log/log.h"

#include <span>

namespace muffle {

/// Of readings `step_s` apart, each standing for its step, K h; NaN stands for nothing.
double growingDegreeHours_K_h(std::span<const double> temperature_C, double step_s, double base_C, double cap_C);
/// Of one day by the mean of its extremes, K d; no cap.
double growingDegreeDay_K_d(double least_C, double most_C, double base_C);

/// Of a temperature channel of a log, without a cap.
struct GrowingWarmth {
  double degreeHours_K_h = 0.0;
  double degreeDays_K_d = 0.0;
  std::size_t days = 0; ///< with any reading, by the place's own dates
};
GrowingWarmth growingWarmth(const Log& log, const Channel& channel, double base_C, const TimeZone& zone);

} // namespace muffle
