// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/json/fields.h"
#include "core/sizing/how_sure.h"

namespace muffle {

/// `sure` where there is a winner.
Json sizeAnswer(const Plan& plan, const Sizing& sizing, const HowSure* sure = nullptr);

} // namespace muffle
