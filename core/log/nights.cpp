// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/log/nights.h"

#include "core/log/daily_extremes.h"

#include <algorithm>
#include <numeric>

namespace muffle {
namespace {

constexpr UtcSeconds kLongestReading_s = 7200; // a reading stands for the time since the one before, no longer than this
constexpr double kLargestHole_s = 3900.0;      // an hourly logger that is a little late still counts as whole

template <class F> void eachClean(const Log& log, const Channel& channel, UtcSeconds from, UtcSeconds to, F visit) {
  const auto first = static_cast<std::size_t>(std::lower_bound(log.time.begin(), log.time.end(), from) - log.time.begin());
  for (std::size_t i = first; i < log.time.size() && log.time[i] <= to; ++i)
    if (const double v = channel.clean(i); !std::isnan(v)) visit(log.time[i], v);
}

std::optional<Reading> lowest(const Log& log, const Channel& channel, UtcSeconds from, UtcSeconds to) {
  std::optional<Reading> low;
  eachClean(log, channel, from, to, [&](UtcSeconds at, double v) {
    if (!low || v < low->value) low = Reading{v, at};
  });
  return low;
}

} // namespace

const char* Night::sky() const {
  if (!dayHigh || !outsideLow) return "unknown";
  const double fall = dayHigh->value - outsideLow->value;
  return fall >= 9.0 ? "clear" : fall <= 4.5 ? "cloudy" : "part";
}

std::vector<Night> cutNights(const Log& log, const Place& place, const TimeZone& zone, std::optional<double> line_C) {
  std::vector<Night> nights;
  if (log.time.empty()) return nights;
  const Channel* outside = log.find(Role::outside);
  const Channel* inside = log.find(Role::room);
  const Channel* wind = log.find(Role::wind);
  const Channel* heater = log.find(Role::heater);
  // a max/min thermometer stands in where there are no readings by the hour
  const auto extremesOf = [&](Role role) {
    return dailyExtremes(log, log.find(role, {}, Statistic::lowest), log.find(role, {}, Statistic::highest), place, zone);
  };
  const DailyExtremes outsideExtremes = outside ? DailyExtremes{} : extremesOf(Role::outside);
  const DailyExtremes insideExtremes = inside ? DailyExtremes{} : extremesOf(Role::room);
  const std::int64_t first = daysSinceEpoch(zone.localDate(log.time.front())) - 1;
  const std::int64_t last = daysSinceEpoch(zone.localDate(log.time.back()));
  for (std::int64_t d = first; d <= last; ++d) {
    const SunDay evening = sunDay(dateFromDays(d), place);
    const SunDay morning = sunDay(dateFromDays(d + 1), place);
    if (!evening.set_utc || !morning.rise_utc) continue;
    Night night;
    night.date = dateFromDays(d);
    night.sunset = static_cast<UtcSeconds>(*evening.set_utc);
    night.sunrise = static_cast<UtcSeconds>(*morning.rise_utc);
    bool any = false;
    const auto lowOf = [&](const DailyExtremes& extremes, std::optional<Reading>& low) {
      const auto found = extremes.lows.find(d + 1);
      if (found == extremes.lows.end()) return;
      low = Reading{found->second, night.sunrise};
      any = true;
    };
    lowOf(outsideExtremes, night.outsideLow);
    lowOf(insideExtremes, night.insideLow);
    night.complete = night.outsideLow.has_value(); // it watches all night
    if (const auto high = outsideExtremes.highs.find(d); high != outsideExtremes.highs.end())
      night.dayHigh = Reading{high->second, static_cast<UtcSeconds>(evening.noon_utc + kHighAfterNoon_h * 3600.0)};
    if (!any && (night.sunrise < log.time.front() || night.sunset > log.time.back())) continue;
    if (outside) {
      night.outsideLow = lowest(log, *outside, night.sunset, night.sunrise);
      any = any || night.outsideLow;
      double hole = 0.0;
      UtcSeconds previous = night.sunset;
      eachClean(log, *outside, night.sunset, night.sunrise, [&](UtcSeconds at, double) {
        hole = std::max(hole, static_cast<double>(at - previous));
        previous = at;
      });
      hole = std::max(hole, static_cast<double>(night.sunrise - previous));
      night.complete = night.outsideLow && hole <= kLargestHole_s;
      eachClean(log, *outside, static_cast<UtcSeconds>(evening.noon_utc), night.sunset, [&](UtcSeconds at, double v) {
        if (!night.dayHigh || v > night.dayHigh->value) night.dayHigh = Reading{v, at};
      });
    }
    if (inside) {
      night.insideLow = lowest(log, *inside, night.sunset, night.sunrise);
      any = any || night.insideLow;
      double owed = 0.0, frost_s = 0.0;
      UtcSeconds previous = 0;
      eachClean(log, *inside, night.sunset, night.sunrise, [&](UtcSeconds at, double v) {
        if (previous && at - previous <= kLongestReading_s) {
          const auto step_s = static_cast<double>(at - previous);
          if (line_C) owed += std::max(0.0, *line_C - v) * step_s / 3600.0;
          if (v < 0.0) frost_s += step_s;
        }
        previous = at;
      });
      if (night.insideLow) {
        if (line_C) night.degreeHours_K_h = owed;
        night.belowFreezing_h = frost_s / 3600.0;
      }
    }
    if (wind) {
      double sum = 0.0;
      long n = 0;
      eachClean(log, *wind, night.sunset, night.sunrise, [&](UtcSeconds, double v) { sum += v, ++n; });
      if (n > 0) night.meanWind_m_s = sum / static_cast<double>(n), night.hasWind = true;
    }
    if (heater) {
      UtcSeconds previous = 0;
      eachClean(log, *heater, night.sunset, night.sunrise, [&](UtcSeconds at, double v) {
        if (previous && at - previous <= kLongestReading_s) night.heater_kWh += v * static_cast<double>(at - previous) / 3.6e6;
        previous = at;
      });
    }
    if (any) nights.push_back(night);
  }
  return nights;
}

LiftAtColdest liftAtColdest(const std::vector<double>& outside, const std::vector<double>& inside, std::size_t k) {
  std::vector<std::size_t> order(std::min(outside.size(), inside.size()));
  std::iota(order.begin(), order.end(), std::size_t{0});
  std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return outside[a] < outside[b]; });
  k = std::clamp<std::size_t>(k, 1, order.size());
  LiftAtColdest lift{0.0, 1e300, outside[order[0]], inside[order[0]] - outside[order[0]], *std::min_element(inside.begin(), inside.end())};
  for (std::size_t i = 0; i < k; ++i) {
    const double l = inside[order[i]] - outside[order[i]];
    lift.mean_K += l / static_cast<double>(k);
    lift.least_K = std::min(lift.least_K, l);
  }
  return lift;
}

} // namespace muffle
