// SPDX-License-Identifier: GPL-3.0-or-later
//
// What a house loses, from readings alone: a heater of known power, the air inside and outside.
//   balance     P = UA (Ti - To) + C dTi/dt, least squares by QR over the middle samples of regular readings, the slope by
//               central differences; standard errors from the residuals
//   cool-down   ln(Ti - To) falls by t/tau without heat: a straight line with intercept, the error by the delta method
//   robust line the median slope of all pairs of points (Theil 1950, Sen 1968), with the interval by Kendall's statistic
#pragma once

#include "core/status.h"

#include <span>
#include <vector>

namespace muffle {

struct HeatBalance {
  double UA_W_K = 0.0;
  double C_J_K = 0.0;
  double seUA_W_K = 0.0;
  double seC_J_K = 0.0;
  double residual_W = 0.0; ///< standard deviation
  std::size_t samples = 0;
};

/// Series of one length, step_s apart; NaN where there is no reading, and then neither its neighbours count. Problem with fewer
/// than ten usable samples, or where they cannot tell the two apart.
Result<HeatBalance> fitHeatBalance(std::span<const double> inside_C, std::span<const double> outside_C, std::span<const double> heater_W, double step_s);

struct CoolDown {
  double timeConstant_s = 0.0;
  double se_s = 0.0;
};
/// No heat, a steady outside. Samples at or below the outside are left out; problem with fewer than three.
Result<CoolDown> fitCoolDown(std::span<const double> inside_C, double outside_C, double step_s);

struct RobustLine {
  double slope = 0.0;
  double intercept = 0.0;       ///< median of y - slope x
  double low = 0.0, high = 0.0; ///< of the slope, 95 %
};
/// Problem with fewer than four points or no two different x.
Result<RobustLine> robustLine(std::span<const double> x, std::span<const double> y);

} // namespace muffle
