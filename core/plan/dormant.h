// SPDX-License-Identifier: GPL-3.0-or-later
//
// A house for stock that is to rest: cool, and even. What breaks buds and bark is the swing from a sunny noon to the frost after it; what wakes a plant is
// warm days on end. So the house is aired before it warms, held at night only against the line, and no warmer by day.
#pragma once

#include "core/plan/plan.h"

namespace muffle {

/// Days above it wake what rests: chilling is counted up to 7.2 C (45 F; Weinberger 1950).
inline constexpr double kWakes_C = 7.2;

/// One setpoint day and night, half a degree over the line; vents, sides and fan open as early as they may beside it; hours are counted above kWakes_C.
void keepDormant(Plan& plan);

} // namespace muffle
