// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/site/climate.h"

#include "core/statistics/least_squares.h"

#include <cmath>
#include <map>
#include <numbers>
#include <set>

namespace muffle {
namespace {

constexpr std::size_t kMostOfAYear_days = 274;
constexpr int kWindow_days = 14, kEnough_days = 10;
constexpr double kYear_days = 365.25;

/// Whether the nights of the window beside `day` (earlier or later) were logged and had no frost.
bool frostlessBeside(const std::map<std::int64_t, double>& lows, std::int64_t day, int direction) {
  int free = 0;
  for (int k = 1; k <= kWindow_days; ++k) {
    const auto found = lows.find(day + direction * k);
    if (found == lows.end()) continue;
    if (found->second <= 0.0) return false;
    ++free;
  }
  return free >= kEnough_days;
}

} // namespace

std::vector<LoggedWinter> loggedWinters(const std::vector<Night>& nights, double latitude_deg) {
  std::map<int, LoggedWinter> winters;
  std::map<std::int64_t, double> lows;
  std::map<int, std::pair<std::int64_t, std::int64_t>> frost; // first and last of each winter
  for (const Night& night : nights) {
    if (!night.outsideLow) continue;
    const bool secondHalf = night.date.month >= 7;
    const int year = latitude_deg < 0.0 ? night.date.year : night.date.year - (secondHalf ? 0 : 1);
    const std::int64_t day = daysSinceEpoch(night.date);
    lows[day] = night.outsideLow->value;
    const auto [at, isNew] = winters.try_emplace(year, LoggedWinter{year, *night.outsideLow, {}, {}});
    if (!isNew && night.outsideLow->value < at->second.low.value) at->second.low = *night.outsideLow;
    if (night.outsideLow->value > 0.0) continue;
    const auto [days, first] = frost.try_emplace(year, day, day);
    if (!first) days->second.second = day;
  }
  std::vector<LoggedWinter> list;
  for (auto& [year, winter] : winters) {
    if (const auto found = frost.find(year); found != frost.end()) {
      if (frostlessBeside(lows, found->second.first, -1)) winter.firstFrost = dateFromDays(found->second.first);
      if (frostlessBeside(lows, found->second.second, 1)) winter.lastFrost = dateFromDays(found->second.second);
    }
    list.push_back(winter);
  }
  return list;
}

std::optional<AirYear> airYear(const std::vector<Night>& nights) {
  std::set<int> days;
  std::vector<double> waves, means;
  for (const Night& night : nights) {
    if (!night.complete || !night.outsideLow || !night.dayHigh) continue;
    const int day = dayOfYear(night.date);
    days.insert(day);
    const double turn = 2.0 * std::numbers::pi * day / kYear_days;
    waves.insert(waves.end(), {1.0, std::cos(turn), std::sin(turn)});
    means.push_back(0.5 * (night.outsideLow->value + night.dayHigh->value));
  }
  if (days.size() < kMostOfAYear_days) return std::nullopt;
  const auto found = leastSquares(waves, 3, means).coefficients;
  const double mean = found[0]->value, cosine = found[1]->value, sine = found[2]->value; // of most of a year's days, so all three are told
  // coldest where the wave is opposite to its crest
  double coldest = std::atan2(-sine, -cosine) / (2.0 * std::numbers::pi) * kYear_days;
  if (coldest < 1.0) coldest += kYear_days;
  return AirYear{mean, std::hypot(cosine, sine), std::min(coldest, 366.0), days.size()};
}

} // namespace muffle
