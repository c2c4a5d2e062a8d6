// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/prepared_log.h"

#include "core/log/flags.h"

namespace muffle {

std::optional<PreparedLog> prepareLog(const Log& raw, const Site& site, double hold_C, const std::stop_token& stop) {
  PreparedLog prepared;
  auto log = std::make_shared<Log>(raw);
  prepared.step_s = log->step_s();
  prepared.problems = flagProblems(*log, site.place);
  if (stop.stop_requested()) return std::nullopt;
  const auto zone = TimeZone::named(site.timeZone);
  prepared.nights = cutNights(*log, site.place, zone ? *zone : TimeZone::utc(), hold_C);
  if (stop.stop_requested()) return std::nullopt;
  auto weather = weatherFromLog(*log, site);
  if (weather)
    prepared.weather = std::make_shared<const Weather>(std::move(*weather));
  else
    prepared.whyNoWeather = weather.problem();
  prepared.log = std::move(log);
  return prepared;
}

} // namespace muffle
