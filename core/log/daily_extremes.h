// SPDX-License-Identifier: GPL-3.0-or-later
//
// A max/min thermometer's readings put to the mornings and afternoons they are of. A low falls about sunrise, a high 1.86 h after the
// sun's noon (Parton and Logan 1981). A low read up to four hours before sunrise is that morning's, for sheets are kept in the dark.
#pragma once

#include "core/log/log.h"
#include "core/sun/position.h"

#include <cstdint>
#include <map>

namespace muffle {

constexpr double kHighAfterNoon_h = 1.86; ///< of air 1.5 m above the ground, Parton and Logan (1981), table 1

/// By the place's own date, days since 1970; degC.
struct DailyExtremes {
  std::map<std::int64_t, double> lows, highs;
};

/// Either channel may be null.
DailyExtremes dailyExtremes(const Log& log, const Channel* lowest, const Channel* highest, const Place& place, const TimeZone& zone);

/// Sunrise, sunset and noon on a date, UTC seconds; six hours before and after noon where the sun does not rise or set.
struct DayLight {
  double rise_utc, noon_utc, set_utc;
};
DayLight dayLight(std::int64_t day, const Place& place);

} // namespace muffle
