// SPDX-License-Identifier: GPL-3.0-or-later
#include "book/snapshots.h"

namespace muffle {
namespace {
constexpr int kLastStates = 10;
constexpr UtcSeconds kOneDay_s = 86400, kDays = 14, kMonth_s = 30 * kOneDay_s, kMonths = 12;
constexpr int kByHand = 100;
constexpr std::size_t kHeldLogs = 10;
constexpr std::int64_t kHeldBytes = 64LL << 20;
} // namespace

std::vector<RowId> outdatedSnapshots(const std::vector<Snapshot>& all, UtcSeconds now) {
  std::vector<RowId> outdated;
  int states = 0, byHand = 0;
  std::set<UtcSeconds> days, months;
  for (auto s = all.rbegin(); s != all.rend(); ++s) { // newest first: the last of a day is met before the others
    if (s->byHand) {
      if (++byHand > kByHand) outdated.push_back(s->id);
      continue;
    }
    const UtcSeconds age = now - s->at; // a clock that was put back makes it negative: such a state is young
    const bool firstOfDay = age < kDays * kOneDay_s && days.insert(s->at / kOneDay_s).second;
    const bool firstOfMonth = age < kMonths * kMonth_s && months.insert(s->at / kMonth_s).second;
    if (++states > kLastStates && !firstOfDay && !firstOfMonth) outdated.push_back(s->id);
  }
  return outdated;
}

std::set<RowId> outdatedLogs(const std::vector<HeldLog>& newestFirst) {
  std::set<RowId> outdated, kept;
  std::int64_t bytes = 0;
  for (const HeldLog& held : newestFirst) {
    if (kept.contains(held.log) || outdated.contains(held.log)) continue;
    bytes += held.bytes;
    if (kept.size() < kHeldLogs && bytes <= kHeldBytes)
      kept.insert(held.log);
    else
      outdated.insert(held.log);
  }
  return outdated;
}

} // namespace muffle
