// SPDX-License-Identifier: GPL-3.0-or-later
//
// What keeps the stores of a plan from being built: a part of check().
#pragma once

#include "core/plan/plan.h"

namespace muffle {

void checkStores(const Plan& plan, Problems& problems);

} // namespace muffle
