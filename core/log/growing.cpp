// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/log/growing.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>
#include <utility>
#include <vector>

namespace muffle {

double growingDegreeHours_K_h(std::span<const double> temperature_C, double step_s, double base_C, double cap_C) {
  double sum = 0.0;
  for (const double t : temperature_C)
    if (std::isfinite(t)) sum += std::max(std::min(t, cap_C) - base_C, 0.0) * step_s / 3600.0;
  return sum;
}

double growingDegreeDay_K_d(double least_C, double most_C, double base_C) { return std::max((least_C + most_C) / 2.0 - base_C, 0.0); }

GrowingWarmth growingWarmth(const Log& log, const Channel& channel, double base_C, const TimeZone& zone) {
  std::vector<double> all;
  std::map<std::int64_t, std::pair<double, double>> days; // least and most of each
  std::int64_t today = 0;
  UtcSeconds until = std::numeric_limits<UtcSeconds>::min(); // the place's next midnight
  for (std::size_t i = 0; i < log.time.size(); ++i) {
    const double v = channel.clean(i);
    all.push_back(v);
    if (std::isnan(v)) continue;
    if (log.time[i] >= until) {
      today = daysSinceEpoch(zone.localDate(log.time[i]));
      until = zone.fromLocal((today + 1) * 86400);
    }
    auto [day, isNew] = days.try_emplace(today, v, v);
    day->second.first = std::min(day->second.first, v);
    day->second.second = std::max(day->second.second, v);
  }
  GrowingWarmth sum{growingDegreeHours_K_h(all, log.step_s(), base_C, std::numeric_limits<double>::infinity()), 0.0, days.size()};
  for (const auto& [day, extremes] : days) sum.degreeDays_K_d += growingDegreeDay_K_d(extremes.first, extremes.second, base_C);
  return sum;
}

} // namespace muffle
