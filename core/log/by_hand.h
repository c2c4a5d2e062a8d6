// SPDX-License-Identifier: GPL-3.0-or-later
//
// Readings written down by hand, one line each, as they are typed beside the thermometer:
//   17.1.2031            a date alone: what follows is of that day
//   7:10 -4 / 2.5        time, outside / inside
//   18:05 1,5/8          decimal comma as well; 12-hour clocks with am or pm
//   18/1 min -6 / 1.2    lows of the night, and with "max" highs of the day, from a max/min thermometer
//   7:10 -4 / 2.5 bench wet     words at the end are kept as a remark
#pragma once

#include "core/log/log.h"
#include "core/status.h"

#include <string>
#include <string_view>
#include <vector>

namespace muffle {

struct HandReading {
  UtcSeconds at = 0;
  Statistic statistic = Statistic::moment;
  std::optional<double> outside_C, inside_C; ///< at least one
  std::string remark;
};

struct HandSheet {
  std::vector<HandReading> readings; ///< in the order written
  Problems problems;                 ///< with "line N"; such a line is left out
};

/// `first` is the date of lines before any date is given; a date without a year takes the year in which it falls nearest before or on
/// the day after the last one. `fahrenheit`: the numbers' unit.
HandSheet readByHand(std::string_view text, const Date& first, const TimeZone& zone, bool fahrenheit);

/// As a log of outside and house, with columns of lows and highs where there are any. Empty if the sheet has no readings.
Log logByHand(const HandSheet& sheet);

} // namespace muffle
