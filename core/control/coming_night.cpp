// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/control/coming_night.h"

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

/// By step: what `of` makes of the outside air of its stretch; a stretch begins where `begins`.
template <class Begins, class Of> std::vector<double> overEach(const Winter& winter, const Begins& begins, const Of& of) {
  std::vector<double> values(winter.size());
  const auto at = [](auto& v, std::size_t i) { return v.begin() + static_cast<std::ptrdiff_t>(i); };
  for (std::size_t from = 0; from < winter.size();) {
    std::size_t to = from + 1;
    while (to < winter.size() && !begins(to)) ++to;
    std::fill(at(values, from), at(values, to), of(at(winter.outside_C, from), at(winter.outside_C, to)));
    from = to;
  }
  return values;
}

} // namespace

std::vector<double> nightLows_C(const Winter& winter, const TimeZone& zone) {
  LocalClock clock(zone);
  const auto isMorning = [&](std::size_t i) { return clock.hour(winter.time(i)) < 12.0; };
  return overEach(
      winter, [&](std::size_t i) { return isMorning(i - 1) && !isMorning(i); }, [](auto from, auto to) { return *std::min_element(from, to); });
}

std::vector<double> dayHighs_C(const Winter& winter, const TimeZone& zone) {
  LocalClock clock(zone);
  const auto hour = [&](std::size_t i) { return clock.hour(winter.time(i)); };
  return overEach(
      winter, [&](std::size_t i) { return hour(i) < 12.0 && hour(i - 1) >= 12.0; }, [](auto from, auto to) { return *std::max_element(from, to); });
}

std::vector<bool> withinHours(const Winter& winter, const TimeZone& zone, double from_h, double for_h) {
  std::vector<bool> within(winter.size(), true);
  if (for_h >= 24.0) return within;
  LocalClock clock(zone);
  for (std::size_t i = 0; i < winter.size(); ++i) within[i] = std::fmod(clock.hour(winter.time(i)) - from_h + 24.0, 24.0) < for_h;
  return within;
}

} // namespace muffle
