// SPDX-License-Identifier: GPL-3.0-or-later
//
// What a column's heading says of it: role, unit, whether it holds lows or highs, and the clock a time column keeps.
#pragma once

#include "core/log/log.h"

#include <optional>
#include <string>
#include <string_view>

namespace muffle {

/// A unit and the way from it to the channel's own: value x factor + offset. An energy meter's readings are made into power later.
struct UnitMark {
  std::string unit;
  double factor = 1.0;
  double offset = 0.0;
  bool isEnergy = false; ///< kWh, of a meter that counts or per interval
};

/// From a mark such as "[F]", "(km/h)" or "deg C" in a heading, or from a bare unit; nothing if there is none. `text` in lower case.
std::optional<UnitMark> unitIn(const std::string& text);
/// The rest of a cell such as "12.3 C" or "54 %" behind its number, in lower case; for unitIn().
std::string unitBehind(std::string_view cell);

/// Sets role and id from a name in some of the languages loggers speak, or in Muffle's own form ("room:house"). False where the name
/// says no place, such as "Temperature": the role is then no more than what is usual.
bool guessRole(const std::string& heading, Channel& channel);
/// "min", "lowest", ... as a word of its own; "10 min" and "high tunnel" are none.
Statistic statisticIn(const std::string& heading);
bool looksLikeTimeName(const std::string& heading);
/// "Date Time, GMT+01:00": seconds east of Greenwich.
std::optional<int> clockOffsetIn(const std::string& heading);
/// Latin-1 text as UTF-8; what is UTF-8 already stays.
std::string asUtf8(std::string_view text);

} // namespace muffle
