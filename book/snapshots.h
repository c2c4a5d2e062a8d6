// SPDX-License-Identifier: GPL-3.0-or-later
//
// Which earlier states of a book are kept.
#pragma once

#include "book/book.h"

#include <set>
#include <vector>

namespace muffle {

/// Snapshots that give way, of all there are, oldest first. The last ten states stay, then the last of each of fourteen days, then the last
/// of each of twelve months (of 30 days); of those asked for by hand the newest hundred.
std::vector<RowId> outdatedSnapshots(const std::vector<Snapshot>& all, UtcSeconds now);

/// Logs that only snapshots hold and that give way, newest wanted first: no more than ten and no more than 64 MiB of readings stay.
struct HeldLog {
  RowId log = 0;
  std::int64_t bytes = 0;
};
std::set<RowId> outdatedLogs(const std::vector<HeldLog>& newestFirst);

} // namespace muffle
