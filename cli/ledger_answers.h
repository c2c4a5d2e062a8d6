// SPDX-License-Identifier: GPL-3.0-or-later
//
// What a plan took, as JSON, read from its ledger.
#pragma once

#include "core/json/fields.h"
#include "core/simulate/simulate.h"

namespace muffle {

/// By heater of the plan: heat given, what it took, hours at full load and money a winter.
Json heatersAnswer(const Plan& plan, const Summary& summary);
/// Hours of work a winter by what they were for.
Json workAnswer(const Plan& plan, const Summary& summary);

} // namespace muffle
