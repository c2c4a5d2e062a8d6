// SPDX-License-Identifier: GPL-3.0-or-later
//
// Setpoints that follow the clock or the weather.
#pragma once

#include <span>

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
/// `bands` by rising outside_C, at least one.
double bandSetpoint_C(std::span<const SetpointBand> bands, double outside_C);

} // namespace muffle
