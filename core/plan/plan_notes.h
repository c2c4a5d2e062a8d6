// SPDX-License-Identifier: GPL-3.0-or-later
//
// What a sound plan says that has no effect: not wrong, but its grower may think otherwise.
#pragma once

#include "core/plan/plan.h"
#include "core/status.h"

namespace muffle {

/// Each with its JSON pointer, why it has no effect, and what would. The plan must have passed check().
Problems planNotes(const Plan& plan);

} // namespace muffle
