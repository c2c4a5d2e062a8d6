// SPDX-License-Identifier: GPL-3.0-or-later
//
// Nights as growers mean them: from sunset to sunrise at the site, dated by the evening they begin. Of a log that has only a max/min
// thermometer's readings the lows are known and their hours are not: they are put at sunrise.
#pragma once

#include "core/log/log.h"
#include "core/sun/position.h"

#include <optional>

namespace muffle {

struct Reading {
  double value = 0.0;
  UtcSeconds at = 0;
};

struct Night {
  Date date;
  UtcSeconds sunset = 0;
  UtcSeconds sunrise = 0;
  std::optional<Reading> outsideLow;
  std::optional<Reading> insideLow;
  std::optional<Reading> dayHigh; ///< outside, between noon and sunset before
  bool complete = false;          ///< outside readings cover it without a hole of more than an hour
  double heater_kWh = 0.0;        ///< from a heater meter, if logged
  double meanWind_m_s = 0.0;
  bool hasWind = false;
  std::optional<double> degreeHours_K_h; ///< of the inside below a line, if one was given
  std::optional<double> belowFreezing_h; ///< of the inside

  /// Lowest inside minus lowest outside, which need not fall together; nothing of a night with a hole, whose lows may be in it.
  [[nodiscard]] std::optional<double> lift_K() const {
    if (!complete || !outsideLow || !insideLow) return std::nullopt;
    return insideLow->value - outsideLow->value;
  }
  /// From the coldest outside to the coldest inside; nothing where the hours are not known.
  [[nodiscard]] std::optional<double> lag_h() const {
    if (!outsideLow || !insideLow || outsideLow->at == sunrise || insideLow->at == sunrise) return std::nullopt;
    return static_cast<double>(insideLow->at - outsideLow->at) / 3600.0;
  }
  /// "clear", "part" or "cloudy" from the fall between the day's high and the night's low; "unknown" without both.
  [[nodiscard]] const char* sky() const;
};

/// Every night that the log touches, in order. `line_C` is the setpoint that degree-hours are counted under.
std::vector<Night> cutNights(const Log& log, const Place& place, const TimeZone& zone, std::optional<double> line_C = std::nullopt);

/// Lift over the k coldest outdoor samples of a pair of series.
struct LiftAtColdest {
  double mean_K;
  double least_K;
  double coldestOutside_C;
  double liftAtColdest_K;
  double coldestInside_C;
};
LiftAtColdest liftAtColdest(const std::vector<double>& outside_C, const std::vector<double>& inside_C, std::size_t k);

} // namespace muffle
