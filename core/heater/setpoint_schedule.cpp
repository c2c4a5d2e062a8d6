// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heater/setpoint_schedule.h"

#include <algorithm>
#include <cmath>

namespace muffle {

double clockSetpoint_C(double day_C, double night_C, double dayFrom_h, double nightFrom_h, double ramp_h, double hour) {
  const auto since = [hour](double from_h) { return std::fmod(hour - from_h + 48.0, 24.0); };
  const bool isDay = since(dayFrom_h) < std::fmod(nightFrom_h - dayFrom_h + 48.0, 24.0);
  const double share = ramp_h > 0.0 ? std::clamp(since(isDay ? dayFrom_h : nightFrom_h) / ramp_h, 0.0, 1.0) : 1.0;
  return isDay ? night_C + share * (day_C - night_C) : day_C + share * (night_C - day_C);
}

} // namespace muffle
