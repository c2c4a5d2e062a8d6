// SPDX-License-Identifier: GPL-3.0-or-later
//
// What setpoints that follow the weather come to, night by night and day by day of logged winters.
#pragma once

#include "core/calendar.h"
#include "core/weather/weather.h"

#include <vector>

namespace muffle {

struct AskedSetpoint {
  double outside_C = 0.0;  ///< the low of the night, from noon to noon; the high of the day, from midnight to midnight
  double setpoint_C = 0.0; ///< asked for then; of a day the most, where its two nights limit it differently
};

/// In turn; the first and last of a winter may be part of a day. The setpoints must have passed check().
std::vector<AskedSetpoint> askedNights(const Setpoints& setpoints, const Weather& weather, const TimeZone& zone);
std::vector<AskedSetpoint> askedDays(const Setpoints& setpoints, const Weather& weather, const TimeZone& zone);

} // namespace muffle
