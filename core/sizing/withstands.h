// SPDX-License-Identifier: GPL-3.0-or-later
//
// What a plan is to withstand beside the logged nights (Ask): a night rarer than the log's, any one heater out, a power cut at the worst moment. Each is run.
#pragma once

#include "core/sizing/package_scenes.h"

#include <optional>

namespace muffle {

/// Whether the plan asks for anything of that.
bool asksMore(const Ask& ask);

/// What the package does not withstand; nothing where it does all. A problem if it cannot be run.
Result<std::optional<Message>> whatFails(const Plan& package, PackageScenes& scenes, const std::atomic<bool>* stop);

/// By how much the log's coldest night is warmer than the one that comes once in so many years, K; 0 where it is colder. Problem as of gumbelByLikelihood().
Result<double> rareNightColderBy_K(const Plan& plan, const Weather& weather, double years);

} // namespace muffle
