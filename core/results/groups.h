// SPDX-License-Identifier: GPL-3.0-or-later
//
// Groups of links whose heat is counted where series are wanted: losses by part, apart where they go to the sky; what each store gives and takes.
#pragma once

#include "core/assemble/assemble.h"

namespace muffle {

/// By link, then vent: the group, or -1. Of an assembly that still has its network.
std::vector<int> countedGroups(const Assembly& assembly);
/// Those of losses that the house has: the part, or for radiation to the sky kLossPathCount more.
std::vector<int> lossGroups(const Assembly& assembly);
/// What it gives; what it takes is the next.
inline int storeGroup(std::size_t store) { return 2 * (kLossPathCount + static_cast<int>(store)); }

} // namespace muffle
