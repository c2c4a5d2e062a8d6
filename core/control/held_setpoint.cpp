// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/control/held_setpoint.h"

#include "core/control/coming_night.h"

#include <algorithm>

namespace muffle {

double nightSetpoint_C(const Setpoints& setpoints, double low_C) {
  return setpoints.nightBands.empty() ? setpoints.night_C : bandSetpoint_C(setpoints.nightBands, low_C);
}

double daySetpoint_C(const Setpoints& setpoints, double high_C, double low_C) {
  const double byDay_C = setpoints.dayBands.empty() ? setpoints.day_C : bandSetpoint_C(setpoints.dayBands, high_C);
  return setpoints.swingAtMost_K ? std::min(byDay_C, nightSetpoint_C(setpoints, low_C) + *setpoints.swingAtMost_K) : byDay_C;
}

std::vector<double> heldSetpoint_C(const Setpoints& setpoints, const Winter& winter, const TimeZone& zone, const std::vector<double>& night, double lowered_K) {
  const std::vector<double> low = setpoints.nightBands.empty() ? std::vector<double>(winter.size()) : nightLows_C(winter, zone);
  const std::vector<double> high = setpoints.dayBands.empty() ? std::vector<double>(winter.size()) : dayHighs_C(winter, zone);
  const bool byClock = setpoints.dayFrom_h && setpoints.nightFrom_h;
  LocalClock clock(zone);
  std::vector<double> held(winter.size());
  for (std::size_t i = 0; i < held.size(); ++i) {
    const double atNight_C = nightSetpoint_C(setpoints, low[i]), byDay_C = daySetpoint_C(setpoints, high[i], low[i]);
    double now_C = night[i] > 0.0 ? atNight_C : byDay_C;
    if (byClock) now_C = clockSetpoint_C(byDay_C, atNight_C, *setpoints.dayFrom_h, *setpoints.nightFrom_h, setpoints.ramp_h, clock.hour(winter.time(i)));
    held[i] = now_C - lowered_K;
  }
  return held;
}

} // namespace muffle
