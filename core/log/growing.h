// SPDX-License-Identifier: GPL-3.0-or-later
//
// Growing warmth: degrees above a base, over hours or days; what is above a cap counts as the cap.
#pragma once

#include <span>

namespace muffle {

/// Of readings `step_s` apart, each standing for its step, K h; NaN stands for nothing.
double growingDegreeHours_K_h(std::span<const double> temperature_C, double step_s, double base_C, double cap_C);
/// Of one day by the mean of its extremes, K d; no cap.
double growingDegreeDay_K_d(double least_C, double most_C, double base_C);

} // namespace muffle
