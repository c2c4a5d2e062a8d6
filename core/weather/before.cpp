// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/weather/before.h"

#include "core/constants.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace muffle {
namespace {

constexpr std::size_t kJoin = 14;   // days of the log that it is joined to
constexpr double kWarmest_h = 14.5; // of the sun's day
constexpr double kMostSwing_K = 25.0;
constexpr double kFades_days = 10.0; // of what the log's first fortnight was off the wave, backwards: some weeks tell little of those before them

double wave_C(const Site& site, double day) { return site.groundMean_C - site.groundAmplitude_K * std::cos(2.0 * kPi * (day - site.coldestDay()) / 365.0); }

/// Every `every`th value.
template <class T> void thin(std::vector<T>& values, std::size_t every) {
  if (values.empty()) return;
  std::size_t kept = 0;
  for (std::size_t i = 0; i < values.size(); i += every) values[kept++] = values[i];
  values.resize(kept);
}

} // namespace

std::optional<Winter> weatherBefore(const Winter& logged, const Site& site, int days) {
  if (days < 1 || logged.size() < 2) return std::nullopt;
  const auto aDay = static_cast<std::size_t>(kDay_s / logged.step_s);
  const std::size_t joined = std::clamp<std::size_t>(logged.size() / std::max<std::size_t>(aDay, 1), 1, kJoin);
  double shift_K = 0.0, swing_K = 0.0;
  for (std::size_t d = 0; d < joined; ++d) {
    const auto begin = logged.outside_C.begin() + static_cast<std::ptrdiff_t>(std::min(d * aDay, logged.size() - 1));
    const auto end = logged.outside_C.begin() + static_cast<std::ptrdiff_t>(std::min((d + 1) * aDay, logged.size()));
    const auto [low, high] = std::minmax_element(begin, end);
    double sum = 0.0;
    for (auto it = begin; it != end; ++it) sum += *it;
    shift_K += sum / static_cast<double>(end - begin) - wave_C(site, logged.startDay + static_cast<double>(d));
    swing_K += *high - *low;
  }
  shift_K /= static_cast<double>(joined);
  swing_K = std::min(swing_K / static_cast<double>(joined), kMostSwing_K);
  Log log;
  Channel outside;
  outside.role = Role::outside;
  const UtcSeconds from = logged.start - static_cast<UtcSeconds>(days * kDay_s);
  for (UtcSeconds t = from; t <= logged.start; t += static_cast<UtcSeconds>(kHour_s)) {
    const double day = logged.startDay + static_cast<double>(t - logged.start) / kDay_s;
    const double hour = solarHour(static_cast<double>(t), site.place);
    // three clear days, one dull
    const bool dull = static_cast<int>(std::floor(day)) % 4 == 0;
    const double now = wave_C(site, day) + shift_K * std::exp(-static_cast<double>(logged.start - t) / kDay_s / kFades_days) +
                       (dull ? 0.25 : 0.6) * swing_K * std::cos(2.0 * kPi * (hour - kWarmest_h) / 24.0);
    log.time.push_back(t);
    outside.raw.push_back(static_cast<float>(now));
  }
  outside.flag.assign(outside.raw.size(), 0);
  log.channels.push_back(std::move(outside));
  Site place = site;
  const auto few = logged.wind_m_s.begin() + static_cast<std::ptrdiff_t>(std::min(joined * aDay, logged.size()));
  place.wind_m_s = std::accumulate(logged.wind_m_s.begin(), few, 0.0) / static_cast<double>(few - logged.wind_m_s.begin());
  Result<Weather> weather = weatherFromLog(log, place);
  if (!weather || weather->winters.empty()) return std::nullopt;
  Winter before = std::move(weather->winters.front());
  const auto every = static_cast<std::size_t>(kHour_s / before.step_s);
  if (every > 1) {
    for (auto* series :
         {&before.outside_C, &before.wind_m_s, &before.sun_W_m2, &before.diffuse_W_m2, &before.sky_C, &before.cloud, &before.rain_mm, &before.outside_g_kg})
      thin(*series, every);
    for (auto* series : {&before.zenith_deg, &before.azimuth_deg, &before.extraterrestrial_W_m2}) thin(*series, every);
    thin(before.bridged, every);
    before.step_s *= static_cast<double>(every);
    for (NightSpan& night : before.nights) {
      night.from = (night.from + every - 1) / every;
      night.to = std::min(night.to / every, before.size() - 1);
    }
  }
  return before;
}

} // namespace muffle
