// SPDX-License-Identifier: GPL-3.0-or-later
//
// What a forecast says of the night, or the day, that a moment belongs to. Over logged nights the forecast is what came.
#pragma once

#include "core/calendar.h"
#include "core/weather/weather.h"

#include <vector>

namespace muffle {

/// By step of the winter: the lowest air outside from noon to noon by the place's clock about that night, degC. The first and last of a winter may be part of a
/// day.
std::vector<double> nightLows_C(const Winter& winter, const TimeZone& zone);

/// By step of the winter: the highest air outside from midnight to midnight by the place's clock on that day, degC.
std::vector<double> dayHighs_C(const Winter& winter, const TimeZone& zone);

/// By step: whether its clock lies within so many hours from an hour of the day. 24 hours: always.
std::vector<bool> withinHours(const Winter& winter, const TimeZone& zone, double from_h, double for_h);

} // namespace muffle
