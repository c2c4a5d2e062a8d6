// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/log/soundness.h"

#include <fmt/format.h>

namespace muffle {

Status soundLog(const Log& log) {
  constexpr int kFirstYear = 1900, kLastYear = 2200, kMostYears = 120;
  constexpr UtcSeconds kYear_s = 31'557'600;
  const auto wrong = [](Message what, Message allowed) { return Problem{ProblemKind::badInput, "", std::move(what), std::move(allowed)}; };
  if (log.time.empty()) return wrong(Message{"log.log-no-rows"}, Message{"log.least-one-reading-needed"});
  if (log.channels.empty()) return wrong(Message{"log.log-no-columns"}, Message{"log.least-one-sensor-needed"});
  for (std::size_t i = 1; i < log.time.size(); ++i)
    if (log.time[i] <= log.time[i - 1]) return wrong(Message{"log.row-time-not-later", i + 1}, Message{"log.rows-stand-order-time"});
  const UtcSeconds least = daysSinceEpoch({kFirstYear, 1, 1}) * 86'400, most = daysSinceEpoch({kLastYear, 12, 31}) * 86'400;
  for (const UtcSeconds at : {log.time.front(), log.time.back()})
    if (at < least || at > most) return wrong(Message{"log.time-too-far", static_cast<long long>(at)}, Message{"log.years-allowed", kFirstYear, kLastYear});
  if (log.time.back() - log.time.front() > kMostYears * kYear_s)
    return wrong(Message{"log.log-runs-over-years", (log.time.back() - log.time.front()) / kYear_s}, Message{"log.at-most", kMostYears});
  for (const Channel& c : log.channels) {
    if (c.raw.size() != log.time.size() || c.flag.size() != log.time.size())
      return wrong(Message{"log.column-readings-rows", c.name, c.raw.size(), log.time.size()}, Message{"log.as-many-as-rows"});
    if (c.role > Role::note) return wrong(Message{"log.column-role", c.name, static_cast<int>(c.role)}, Message{"log.roles-known"});
    if (c.statistic > Statistic::highest) return wrong(Message{"log.column-statistic", c.name, static_cast<int>(c.statistic)}, Message{"log.statistics-known"});
    for (const std::uint8_t flag : c.flag)
      if (flag > static_cast<std::uint8_t>(Flag::clock)) return wrong(Message{"log.column-flag", c.name, flag}, Message{"log.roles-known"});
  }
  return Done{};
}

} // namespace muffle
