// SPDX-License-Identifier: GPL-3.0-or-later
//
// Several files, one log: what a second file adds to the first.
#pragma once

#include "core/log/log.h"

namespace muffle {

struct Merged {
  Log log;
  long added = 0;     ///< readings that were not there
  long same = 0;      ///< readings that were there already
  long different = 0; ///< readings at a time that had another; what was there stays
  std::size_t newChannels = 0;
};

/// Channels are the same if role, id and statistic are. Channels keep their places, new ones follow, so that decisions stay true.
/// Flags are to be set anew.
Merged mergeLogs(const Log& base, const Log& more);

} // namespace muffle
