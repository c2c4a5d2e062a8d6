// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/prepared_log.h"

#include "core/log/flags.h"

namespace muffle {

PreparedLog prepareLog(const Log& raw, const Site& site, double hold_C) {
  PreparedLog prepared;
  auto log = std::make_shared<Log>(raw);
  prepared.problems = flagProblems(*log, site.place);
  const auto zone = TimeZone::named(site.timeZone);
  prepared.nights = cutNights(*log, site.place, zone ? *zone : TimeZone::utc(), hold_C);
  auto weather = weatherFromLog(*log, site);
  if (weather)
    prepared.weather = std::make_shared<const Weather>(std::move(*weather));
  else
    prepared.whyNoWeather = weather.problem().text();
  prepared.log = std::move(log);
  return prepared;
}

} // namespace muffle
