// SPDX-License-Identifier: GPL-3.0-or-later
//
// What a house loses, from both ways of finding it: watts over lift, which knows no model and scatters with the weather, and the fitted
// plan, which uses every hour and is only as right as the model's form. Their errors have nothing to do with one another, so the two are
// weighed by them: 1/s^2 each. The fitted plan's s is its covers' standard error and 5 % for its form, the closeness in which two
// sound models of one house agree (the demo's tunnel and this model differ by that much after a fit: docs/performance.md).
#pragma once

#include "core/fit/calibrate.h"
#include "core/fit/explain.h"

namespace muffle {

struct HouseLoss {
  double UA_W_K = 0.0;
  double standardError_W_K = 0.0;
  double fitted_W_K = 0.0; ///< the calibrated plan's own
};
/// The plan as entered or calibrated; its calibration gives way to the fit's. Problem as of againstParts().
Result<HouseLoss> houseLoss(const Plan& plan, const QuickFit& quick, const Calibrated& fit);

/// 1/s^2 of two values; s > 0.
HouseLoss weighed(double first_W_K, double firstError_W_K, double second_W_K, double secondError_W_K);

} // namespace muffle
