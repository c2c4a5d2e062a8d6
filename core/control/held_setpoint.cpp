// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/control/held_setpoint.h"

#include "core/control/coming_night.h"

namespace muffle {

std::vector<double> heldSetpoint_C(const Setpoints& setpoints, const Winter& winter, const TimeZone& zone, const std::vector<double>& night, double lowered_K) {
  const std::vector<double> low = setpoints.nightBands.empty() ? std::vector<double>() : nightLows_C(winter, zone);
  const bool byClock = setpoints.dayFrom_h && setpoints.nightFrom_h;
  std::vector<double> held(winter.size());
  if (low.empty() && !byClock) {
    const double atNight_C = setpoints.night_C - lowered_K, byDay_C = setpoints.day_C - lowered_K;
    for (std::size_t i = 0; i < held.size(); ++i) held[i] = night[i] > 0.0 ? atNight_C : byDay_C;
    return held;
  }
  for (std::size_t i = 0; i < held.size(); ++i) {
    const double atNight_C = low.empty() ? setpoints.night_C : bandSetpoint_C(setpoints.nightBands, low[i]);
    const double now_C =
        byClock ? clockSetpoint_C(setpoints.day_C, atNight_C, *setpoints.dayFrom_h, *setpoints.nightFrom_h, setpoints.ramp_h, zone.localHour(winter.time(i)))
        : night[i] > 0.0 ? atNight_C
                         : setpoints.day_C;
    held[i] = now_C - lowered_K;
  }
  return held;
}

} // namespace muffle
