// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/control/coming_night.h"

#include <algorithm>
#include <cmath>

namespace muffle {

std::vector<double> nightLows_C(const Winter& winter, const TimeZone& zone) {
  std::vector<double> low(winter.size());
  const auto isMorning = [&](std::size_t i) { return zone.localHour(winter.time(i)) < 12.0; };
  for (std::size_t from = 0; from < winter.size();) {
    std::size_t to = from + 1; // the next noon
    while (to < winter.size() && !(isMorning(to - 1) && !isMorning(to))) ++to;
    const double least =
        *std::min_element(winter.outside_C.begin() + static_cast<std::ptrdiff_t>(from), winter.outside_C.begin() + static_cast<std::ptrdiff_t>(to));
    std::fill(low.begin() + static_cast<std::ptrdiff_t>(from), low.begin() + static_cast<std::ptrdiff_t>(to), least);
    from = to;
  }
  return low;
}

std::vector<bool> withinHours(const Winter& winter, const TimeZone& zone, double from_h, double for_h) {
  std::vector<bool> within(winter.size(), true);
  if (for_h >= 24.0) return within;
  for (std::size_t i = 0; i < winter.size(); ++i) within[i] = std::fmod(zone.localHour(winter.time(i)) - from_h + 24.0, 24.0) < for_h;
  return within;
}

} // namespace muffle
