// SPDX-License-Identifier: GPL-3.0-or-later
//
// What a plan's house, ground and stores have come to when a log begins: they are run through the place's weather of the weeks before it, whatever
// the plan holds, so that no state is set by one reading or by a setpoint.
#pragma once

#include "core/run/run.h"
#include "core/simulate/simulate.h"

#include <optional>
#include <vector>

namespace muffle {

/// Nothing if no solution was found, or `stop` was set. before.winter must be there.
std::optional<StateBefore> runBefore(const Plan& plan, const Scene::Before& before, const std::atomic<bool>* stop = nullptr);
/// Everything is as the weeks before the log leave it; without any its first days are run twice. False if no solution was found; a run that was stopped
/// by `stop` has begun nowhere.
bool startRun(Run& run, const Plan& plan, const Scene::Before* before, const std::atomic<bool>* stop = nullptr);

} // namespace muffle
