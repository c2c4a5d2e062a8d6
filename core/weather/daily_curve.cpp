// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/weather/daily_curve.h"

#include "core/constants.h"

#include <cmath>

namespace muffle {
namespace {

constexpr double kNightDecay = 2.20;
constexpr double kLowAfterSunrise_s = -0.17 * 3600.0;
constexpr UtcSeconds kCurveStep_s = 600;

} // namespace

const DayLight& DailyCurve::lightOf(std::int64_t day) const {
  const auto it = m_light.find(day);
  return it != m_light.end() ? it->second : m_light.emplace(day, dayLight(day, m_place)).first->second;
}

std::optional<double> DailyCurve::byDay(std::int64_t day, double t) const {
  const auto low = m_extremes.lows.find(day), high = m_extremes.highs.find(day);
  if (low == m_extremes.lows.end() || high == m_extremes.highs.end()) return std::nullopt;
  const DayLight& light = lightOf(day);
  const double lowAt = light.rise_utc + kLowAfterSunrise_s;
  const double span = light.set_utc - lowAt + 2.0 * kHighAfterNoon_h * 3600.0;
  return low->second + (high->second - low->second) * std::sin(kPi * (t - lowAt) / span);
}

std::optional<double> DailyCurve::at(UtcSeconds time) const {
  const auto t = static_cast<double>(time);
  auto day = static_cast<std::int64_t>(std::floor((t + m_place.longitude_deg * 240.0) / 86400.0)); // by the sun's own midnight
  const auto lowAt = [&](std::int64_t d) { return lightOf(d).rise_utc + kLowAfterSunrise_s; };
  if (t < lowAt(day)) --day; // the night before
  if (t <= lightOf(day).set_utc) return byDay(day, t);
  const auto sunset = byDay(day, lightOf(day).set_utc);
  const auto next = m_extremes.lows.find(day + 1);
  if (!sunset || next == m_extremes.lows.end()) return std::nullopt;
  const double share = (t - lightOf(day).set_utc) / (lowAt(day + 1) - lightOf(day).set_utc);
  return next->second + (*sunset - next->second) * (std::exp(-kNightDecay * share) - std::exp(-kNightDecay)) / (1.0 - std::exp(-kNightDecay));
}

Log outsideFromExtremes(const Log& log, const Place& place, const TimeZone& zone) {
  Log hours;
  DailyExtremes extremes = dailyExtremes(log, log.find(Role::outside, {}, Statistic::lowest), log.find(Role::outside, {}, Statistic::highest), place, zone);
  if (extremes.lows.empty() || extremes.highs.empty()) return hours;
  const DailyCurve curve(std::move(extremes), place);
  Channel outside;
  outside.role = Role::outside;
  const UtcSeconds from = (log.time.front() - 2 * 86400) / kCurveStep_s * kCurveStep_s; // the first reading is of the day before it
  for (UtcSeconds t = from; t <= log.time.back() + 86400; t += kCurveStep_s)
    if (const auto v = curve.at(t)) hours.time.push_back(t), outside.raw.push_back(static_cast<float>(*v));
  outside.flag.assign(hours.time.size(), 0);
  hours.channels.push_back(std::move(outside));
  return hours;
}

} // namespace muffle
