// SPDX-License-Identifier: GPL-3.0-or-later
//
// Setpoints that follow the clock or the weather.
#pragma once

#include <algorithm>
#include <vector>

namespace muffle {

/// By the clock: the night's until `dayFrom_h`, then rising in a straight line over `ramp_h` to the day's; from `nightFrom_h` back in the same time. Hours of
/// the day, 0..24; a ramp that would outlast its part of the day ends where the other begins.
double clockSetpoint_C(double day_C, double night_C, double dayFrom_h, double nightFrom_h, double ramp_h, double hour);

/// A setpoint for an outside temperature: at a band, between two in a straight line, beyond them as at the last.
struct SetpointBand {
  double outside_C = 0.0;
  double setpoint_C = 0.0;
  bool operator==(const SetpointBand&) const = default;
};
/// By the low that is forecast for the night, and by the high that is forecast for the day.
struct NightBand : SetpointBand {};
struct DayBand : SetpointBand {};

/// `bands` by rising outside_C, at least one.
template <class Band> double bandSetpoint_C(const std::vector<Band>& bands, double outside_C) {
  const auto above = std::find_if(bands.begin(), bands.end(), [&](const SetpointBand& b) { return b.outside_C >= outside_C; });
  if (above == bands.end()) return bands.back().setpoint_C;
  if (above == bands.begin()) return above->setpoint_C;
  const SetpointBand& below = *(above - 1);
  return below.setpoint_C + (outside_C - below.outside_C) / (above->outside_C - below.outside_C) * (above->setpoint_C - below.setpoint_C);
}

} // namespace muffle
