// SPDX-License-Identifier: GPL-3.0-or-later
//
// The hours between a max/min thermometer's readings.
//   by day    T = Tn + (Tx - Tn) sin(pi m / (Y + 2 a)),  m hours since the low, Y the day's length, a = 1.86 h
//   by night  T = Tn' + (Ts - Tn') (exp(-b n/Z) - exp(-b)) / (1 - exp(-b)),  n hours since sunset, Z to the next low, b = 2.20
// Tn the low, Tx the high, Ts at sunset, Tn' the next low, c = -0.17 h from sunrise to the low. Parton and Logan, Agricultural
// Meteorology 23 (1981) 205, air at 1.5 m; their night curve stops short of the next low, the form here (Goudriaan and van Laar 1994)
// meets it. They found hourly errors of 1 to 3 K.
#pragma once

#include "core/log/daily_extremes.h"

#include <optional>

namespace muffle {

class DailyCurve {
public:
  DailyCurve(DailyExtremes extremes, const Place& place) : m_extremes(std::move(extremes)), m_place(place) {}
  /// degC; nothing where a low or a high beside the moment is missing.
  [[nodiscard]] std::optional<double> at(UtcSeconds t) const;

private:
  [[nodiscard]] const DayLight& lightOf(std::int64_t day) const;
  [[nodiscard]] std::optional<double> byDay(std::int64_t day, double t) const;
  DailyExtremes m_extremes;
  Place m_place;
  mutable std::map<std::int64_t, DayLight> m_light;
};

/// A log's outside readings every ten minutes where it has only lows and highs; without a channel if it has neither.
Log outsideFromExtremes(const Log& log, const Place& place, const TimeZone& zone);

} // namespace muffle
