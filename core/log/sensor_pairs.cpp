// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/log/flags.h"

#include <algorithm>
#include <map>

namespace muffle {
namespace {

constexpr double kApart_K = 3.0;   // nearer than this two sensors cannot be told apart by a jump
constexpr double kReaches_K = 1.2; // how near each must come to where the other was
constexpr std::size_t kDays = 20;
constexpr double kDrift_K = 0.8; // twice what a good thermometer is off by
constexpr double kTimesSpread = 3.0;

double median(std::vector<double> v) {
  std::nth_element(v.begin(), v.begin() + static_cast<long>(v.size() / 2), v.end());
  return v[v.size() / 2];
}

} // namespace

std::vector<Stretch> changedOver(std::span<const double> a, std::span<const double> b) {
  std::vector<Stretch> found;
  const std::size_t none = a.size();
  std::size_t since = none, before = none;
  for (std::size_t i = 0; i < a.size(); ++i) {
    if (std::isnan(a[i]) || std::isnan(b[i])) continue;
    if (before != none && std::abs(a[before] - b[before]) > kApart_K && std::abs(a[i] - b[before]) < kReaches_K && std::abs(b[i] - a[before]) < kReaches_K) {
      if (since != none) found.push_back({since, i - 1});
      since = since == none ? i : none;
    }
    before = i;
  }
  return found;
}

std::optional<double> jumpAtHeater_K(const Log& log, const Channel& inside, const Channel& heater) {
  constexpr UtcSeconds kOften_s = 900;
  constexpr std::size_t kStarts = 10;
  constexpr double kOn = 0.6, kOff = 0.1; // of the most it gave
  double most = 0.0;
  for (std::size_t i = 0; i < log.time.size(); ++i)
    if (const double w = heater.clean(i); w > most) most = w;
  if (most <= 0.0) return std::nullopt;
  std::vector<double> jumps;
  for (std::size_t i = 1; i < log.time.size(); ++i) {
    if (log.time[i] - log.time[i - 1] > kOften_s || !(heater.clean(i - 1) < kOff * most && heater.clean(i) > kOn * most)) continue;
    if (const double jump = inside.clean(i) - inside.clean(i - 1); !std::isnan(jump)) jumps.push_back(jump);
  }
  if (jumps.size() < kStarts) return std::nullopt;
  return median(std::move(jumps));
}

bool Drift::isReal() const { return std::abs(change_K) > kDrift_K && std::abs(change_K) > kTimesSpread * spread_K; }

std::optional<Drift> driftBetween(const Log& log, const Channel& a, const Channel& b) {
  std::map<std::int64_t, std::pair<double, int>> sums;
  for (std::size_t i = 0; i < log.time.size(); ++i)
    if (const double d = b.clean(i) - a.clean(i); !std::isnan(d)) {
      auto& [sum, n] = sums[log.time[i] / 86400];
      sum += d;
      ++n;
    }
  if (sums.size() < kDays) return std::nullopt;
  std::vector<double> day, difference;
  for (const auto& [d, sum] : sums) day.push_back(static_cast<double>(d)), difference.push_back(sum.first / sum.second);
  const auto tenth = std::max<std::ptrdiff_t>(static_cast<std::ptrdiff_t>(difference.size() / 10), 2);
  const double first = median({difference.begin(), difference.begin() + tenth}), last = median({difference.end() - tenth, difference.end()});
  std::vector<double> off;
  for (std::size_t k = 0; k < day.size(); ++k)
    off.push_back(std::abs(difference[k] - first - (last - first) * (day[k] - day.front()) / (day.back() - day.front())));
  constexpr double kOfNormal = 1.4826; // median of the absolute deviations to a standard deviation
  return Drift{last - first, kOfNormal * median(off)};
}

} // namespace muffle
