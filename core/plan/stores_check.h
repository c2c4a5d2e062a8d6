// SPDX-License-Identifier: GPL-3.0-or-later
//
// What keeps the stores of a plan from being built: a part of check().
#pragma once

#include "core/plan/plan.h"

#include <cstddef>

namespace muffle {

/// What a plan and its file hold at most of each.
constexpr std::size_t kMostBarrelRows = 50, kMostPipes = 8, kMostPiles = 8, kMostLoops = 4, kMostCables = 12, kMostMasses = 12;

void checkStores(const Plan& plan, Problems& problems);

} // namespace muffle
