// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/log/soundness.h"

#include <fmt/format.h>

namespace muffle {

Status soundLog(const Log& log) {
  constexpr int kFirstYear = 1900, kLastYear = 2200, kMostYears = 120;
  constexpr UtcSeconds kYear_s = 31'557'600;
  const auto wrong = [](std::string what, std::string allowed) { return Problem{ProblemKind::badInput, "", std::move(what), std::move(allowed)}; };
  if (log.time.empty()) return wrong("the log has no rows", "at least one reading is needed");
  if (log.channels.empty()) return wrong("the log has no columns", "at least one sensor is needed");
  for (std::size_t i = 1; i < log.time.size(); ++i)
    if (log.time[i] <= log.time[i - 1]) return wrong(fmt::format("row {}: this time is not later than the one before", i + 1), "rows stand in order of time");
  const UtcSeconds least = daysSinceEpoch({kFirstYear, 1, 1}) * 86'400, most = daysSinceEpoch({kLastYear, 12, 31}) * 86'400;
  for (const UtcSeconds at : {log.time.front(), log.time.back()})
    if (at < least || at > most) return wrong(fmt::format("a time of {} s since 1970", at), fmt::format("years {} to {} are allowed", kFirstYear, kLastYear));
  if (log.time.back() - log.time.front() > kMostYears * kYear_s)
    return wrong(fmt::format("the log runs over {} years", (log.time.back() - log.time.front()) / kYear_s), fmt::format("at most {} are allowed", kMostYears));
  for (const Channel& c : log.channels) {
    if (c.raw.size() != log.time.size() || c.flag.size() != log.time.size())
      return wrong(fmt::format("column \"{}\" has {} readings for {} rows", c.name, c.raw.size(), log.time.size()), "as many as rows are needed");
    if (c.role > Role::note) return wrong(fmt::format("column \"{}\" has the role {}", c.name, static_cast<int>(c.role)), "0 to 10 are known");
    if (c.statistic > Statistic::highest)
      return wrong(fmt::format("column \"{}\" has the statistic {}", c.name, static_cast<int>(c.statistic)), "0 to 2 are known");
    for (const std::uint8_t flag : c.flag)
      if (flag > static_cast<std::uint8_t>(Flag::clock)) return wrong(fmt::format("column \"{}\" has the flag {}", c.name, flag), "0 to 10 are known");
  }
  return Done{};
}

} // namespace muffle
