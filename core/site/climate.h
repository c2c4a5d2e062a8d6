// SPDX-License-Identifier: GPL-3.0-or-later
//
// What a log of nights says of its place: the lowest of each winter, when frost began and ended, and the year's wave of the air,
// which the ground follows (Kusuda and Achenbach, Earth temperature and thermal diffusivity at selected stations, 1965: the
// undisturbed ground has the air's yearly mean, its surface nearly the air's yearly swing).
#pragma once

#include "core/log/nights.h"

#include <optional>
#include <vector>

namespace muffle {

struct LoggedWinter {
  int beginsIn = 0; ///< the year in which its autumn lies
  Reading low;      ///< outside
  /// Known only where frostless nights were logged before the first, or after the last: at least ten of the fourteen next to it.
  std::optional<Date> firstFrost, lastFrost;
};

/// In order; winters without one outside reading are left out. A winter runs from midsummer to midsummer of that half of the globe.
std::vector<LoggedWinter> loggedWinters(const std::vector<Night>& nights, double latitude_deg);

struct AirYear {
  double mean_C = 0.0;
  double amplitude_K = 0.0; ///< of the yearly wave, either way
  double coldestDay = 0.0;  ///< day of the year, 1..366
  std::size_t days = 0;     ///< different days of the year that had a high and a low
};

/// Least squares of mean and yearly wave on days' means (of high and low); nothing with less than nine months of the year's days,
/// where the wave would be a guess.
std::optional<AirYear> airYear(const std::vector<Night>& nights);

} // namespace muffle
