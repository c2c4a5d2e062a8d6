// SPDX-License-Identifier: GPL-3.0-or-later
//
// Measures as they are usually bought, with prices and hours to begin from: assumptions to be edited, not quotations.
#pragma once

#include "core/plan/plan.h"

namespace muffle {

Measure usualMeasure(MeasureKind kind);

/// What this house does not have yet, one measure each with one size, made to fit it: a second film, a wrap, blankets,
/// sealing to half, barrels, a skirt, a heater or a stronger one, a hardier crop. Where the plan has a measure of the kind
/// and material, its price, life and hours are taken.
std::vector<Measure> changesToTry(const Plan& plan);

} // namespace muffle
