// SPDX-License-Identifier: GPL-3.0-or-later
//
// Several versions of a plan, each simulated over the same weather, side by side.
#pragma once

#include "core/sizing/sizing.h"

#include <functional>
#include <memory>
#include <optional>
#include <vector>

namespace muffle {

/// Calls take(i, run), one at a time and in no fixed order, for every plan that passes check(); the others are left out. Runs hold
/// series. The first problem of a run ends it all; so does options.progress, by answering false.
std::optional<Problem> tryEach(const std::vector<Plan>& plans, const std::shared_ptr<const Weather>& weather, const SizingOptions& options,
                               const std::function<void(std::size_t, const Simulation&)>& take);

} // namespace muffle
