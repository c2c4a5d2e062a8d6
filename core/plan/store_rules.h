// SPDX-License-Identifier: GPL-3.0-or-later
//
// Where the thermostats of stores and those of heaters meet.
#pragma once

#include "core/plan/plan.h"

namespace muffle {

/// Whether a setpoint of the house lies where a store's thermostat may be on or off, as it was before: two houses that are held alike may then be given
/// to by their stores differently, and the one that loses less may need more heat.
bool isHeldWithinARule(const Plan& plan);

} // namespace muffle
