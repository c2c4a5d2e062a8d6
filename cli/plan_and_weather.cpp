// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/plan_and_weather.h"

#include "core/log/flags.h"

namespace muffle {

std::optional<PlanAndWeather> readPlanAndWeather(const std::string& planFile, const LogOptions& o) {
  const auto plan = readPlan(planFile);
  if (!plan) {
    report(planFile, plan.problems());
    return std::nullopt;
  }
  auto read = readLogFile(o, plan->site.timeZone);
  if (!read) {
    report(o.file, read.problems());
    return std::nullopt;
  }
  flagProblems(read->log, plan->site.place);
  auto weather = weatherFromLog(read->log, plan->site);
  if (!weather) {
    report(o.file, weather.problems());
    return std::nullopt;
  }
  return PlanAndWeather{*plan, std::make_shared<const Weather>(std::move(*weather)), *TimeZone::named(plan->site.timeZone)};
}

} // namespace muffle
