// SPDX-License-Identifier: GPL-3.0-or-later
//
// Which measures of a plan may be built together: what is fixed, what is ruled out, what excludes or needs what.
#pragma once

#include "core/plan/plan.h"
#include "core/status.h"

#include <span>
#include <string>
#include <vector>

namespace muffle {

inline constexpr int kNotBuilt = -1, kUndecided = -2;

/// What a measure's own offer leaves to choose from: kNotBuilt, or the places of its sizes.
std::vector<int> placesOf(const Measure& measure);

/// Of a choice by measure: kNotBuilt, the place of a size, or kUndecided. False where what is decided breaks a rule.
bool mayBeBuilt(const Plan& plan, std::span<const int> choice);

/// Its id; one of its own is given to it where it has none.
const std::string& idOf(Plan& plan, std::size_t measure);

/// Ids that two have or that none has, and settings that cannot be set. Whether rules leave anything to build the search says.
void checkMeasureRules(const Plan& plan, Problems& problems);

} // namespace muffle
