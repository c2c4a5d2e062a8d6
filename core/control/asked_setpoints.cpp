// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/control/asked_setpoints.h"

#include "core/control/coming_night.h"
#include "core/control/held_setpoint.h"

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

/// Whether from one step to another the clock passes that hour of the day.
bool passes(LocalClock& clock, const Winter& winter, std::size_t to, double hour) {
  const auto since = [&](std::size_t i) { return std::fmod(clock.hour(winter.time(i)) - hour + 24.0, 24.0); };
  return since(to) < since(to - 1);
}

} // namespace

std::vector<AskedSetpoint> askedNights(const Setpoints& setpoints, const Weather& weather, const TimeZone& zone) {
  std::vector<AskedSetpoint> asked;
  LocalClock clock(zone);
  for (const Winter& winter : weather.winters) {
    const std::vector<double> low = nightLows_C(winter, zone);
    for (std::size_t i = 0; i < low.size(); ++i)
      if (i == 0 || passes(clock, winter, i, 12.0)) asked.push_back({low[i], nightSetpoint_C(setpoints, low[i])});
  }
  return asked;
}

std::vector<AskedSetpoint> askedDays(const Setpoints& setpoints, const Weather& weather, const TimeZone& zone) {
  std::vector<AskedSetpoint> asked;
  LocalClock clock(zone);
  for (const Winter& winter : weather.winters) {
    const std::vector<double> low = nightLows_C(winter, zone), high = dayHighs_C(winter, zone);
    for (std::size_t i = 0; i < low.size(); ++i) {
      const double now_C = daySetpoint_C(setpoints, high[i], low[i]);
      if (i == 0 || passes(clock, winter, i, 0.0))
        asked.push_back({high[i], now_C});
      else
        asked.back().setpoint_C = std::max(asked.back().setpoint_C, now_C);
    }
  }
  return asked;
}

} // namespace muffle
