// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/log/daily_extremes.h"

#include <algorithm>

namespace muffle {
namespace {

constexpr double kReadBeforeSunrise_s = 4.0 * 3600.0;

} // namespace

DayLight dayLight(std::int64_t day, const Place& place) {
  const SunDay sun = sunDay(dateFromDays(day), place);
  constexpr double kQuarter_s = 21600.0;
  return {sun.rise_utc.value_or(sun.noon_utc - kQuarter_s), sun.noon_utc, sun.set_utc.value_or(sun.noon_utc + kQuarter_s)};
}

DailyExtremes dailyExtremes(const Log& log, const Channel* lowest, const Channel* highest, const Place& place, const TimeZone& zone) {
  DailyExtremes all;
  const auto take = [&](const Channel* channel, std::map<std::int64_t, double>& into, auto falls, auto better) {
    if (!channel) return;
    for (std::size_t i = 0; i < log.time.size(); ++i) {
      const double v = channel->clean(i);
      if (std::isnan(v)) continue;
      std::int64_t day = daysSinceEpoch(zone.localDate(log.time[i]));
      if (static_cast<double>(log.time[i]) < falls(dayLight(day, place))) --day;
      const auto [it, isNew] = into.try_emplace(day, v);
      if (!isNew) it->second = better(it->second, v);
    }
  };
  take(
      lowest, all.lows, [](const DayLight& d) { return d.rise_utc - kReadBeforeSunrise_s; }, [](double a, double b) { return std::min(a, b); });
  take(
      highest, all.highs, [](const DayLight& d) { return d.noon_utc + kHighAfterNoon_h * 3600.0; }, [](double a, double b) { return std::max(a, b); });
  return all;
}

} // namespace muffle
