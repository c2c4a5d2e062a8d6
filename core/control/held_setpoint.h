// SPDX-License-Identifier: GPL-3.0-or-later
//
// The setpoint of a room's heaters over a winter.
#pragma once

#include "core/calendar.h"
#include "core/weather/weather.h"

#include <vector>

namespace muffle {

/// Of a night with that forecast low; of a day with that forecast high and the low of the night that goes with it. degC.
double nightSetpoint_C(const Setpoints& setpoints, double low_C);
double daySetpoint_C(const Setpoints& setpoints, double high_C, double low_C);

/// By step, from each on until the next: by the clock or by the sun (`night`: 1 from sunset to sunrise), the night's by the low that is forecast where
/// there are bands; all lowered by so much. The setpoints must have passed check().
std::vector<double> heldSetpoint_C(const Setpoints& setpoints, const Winter& winter, const TimeZone& zone, const std::vector<double>& night,
                                   double lowered_K = 0.0);

} // namespace muffle
