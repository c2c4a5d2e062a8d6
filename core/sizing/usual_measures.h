// SPDX-License-Identifier: GPL-3.0-or-later
//
// Measures as they are usually bought, with prices and hours to begin from: assumptions to be edited, not quotations.
#pragma once

#include "core/plan/plan.h"
#include "core/status.h"

namespace muffle {

Measure usualMeasure(MeasureKind kind);

/// What this house does not have yet, one measure each with one size, made to fit it: a second film, a wrap, blankets,
/// sealing to half, barrels, a skirt, a heater or a stronger one, a hardier crop. Where the plan has a measure of the kind
/// and material, its price, life and hours are taken.
std::vector<Measure> changesToTry(const Plan& plan);

/// A heater for this house where it has none, W: what keeps it on its night setpoint through a clear, calm night as cold as that
/// outside, in steps of 500 W; stores and ground help in a real night, so that it is on the safe side. Problem as of steadyLoss().
Result<double> usualHeater_W(const Plan& plan, double outside_C);

/// What is usually set against each other where a plan lists nothing to try: a second film, blankets, sealing, barrels, and heaters of
/// half that size up to a quarter more.
std::vector<Measure> measuresToSearch(const Plan& plan, double heater_W);

} // namespace muffle
