// SPDX-License-Identifier: GPL-3.0-or-later
//
// A plan and the weather of a log, for the verbs that run one over the other.
#pragma once

#include "cli/input.h"
#include "core/weather/weather.h"

#include <memory>
#include <optional>

namespace muffle {

struct PlanAndWeather {
  Plan plan;
  std::shared_ptr<const Weather> weather;
  TimeZone zone;
};

/// On failure reports and returns nothing.
std::optional<PlanAndWeather> readPlanAndWeather(const std::string& planFile, const LogOptions& options);

} // namespace muffle
