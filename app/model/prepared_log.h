// SPDX-License-Identifier: GPL-3.0-or-later
//
// A log with everything that is worked out from it once: flags, faults, nights and weather. Made off the interface thread.
#pragma once

#include "core/log/nights.h"
#include "core/plan/plan.h"
#include "core/weather/weather.h"

#include <memory>
#include <optional>
#include <stop_token>
#include <string>
#include <vector>

namespace muffle {

struct PreparedLog {
  std::shared_ptr<const Log> log; ///< never empty
  double step_s = 0;              ///< from one reading to the next, mostly; 0 while it is being worked out
  std::vector<LogProblem> problems;
  std::vector<Night> nights;
  std::shared_ptr<const Weather> weather; ///< empty while it is being worked out, and where the log cannot give any
  std::optional<Problem> whyNoWeather;
};

/// Nothing if it was told to stop.
std::optional<PreparedLog> prepareLog(const Log& raw, const Site& site, double hold_C, const std::stop_token& stop = {});

} // namespace muffle
