// SPDX-License-Identifier: GPL-3.0-or-later
//
// What a house loses, from both ways of finding it: watts over lift, which knows no model and scatters with the weather, and the fitted
// plan, which uses every hour and is only as right as the model's form. Their errors have nothing to do with one another, so the two are
// weighed by them: 1/s^2 each. The fitted plan's s is its covers' standard error and 5 % for its form, the closeness in which two
// sound models of one house agree (the demo's tunnel and this model differ by that much after a fit: docs/performance.md).
// What a house gives back for each kelvin its air falls is the fitted plan's, asked by the hours' balance of its nights, with 6 % for the
// form, found alike. The readings' own balance is no second opinion on it: noise in the air's slope makes it too small, and where a
// thermostat keeps the air level that is all the slope there is.
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

struct HouseStorage {
  double C_J_K = 0.0;
  double standardError_J_K = 0.0;
};
/// Problem if the log has no heater.
Result<HouseStorage> houseStorage(const Calibrated& fit);

/// 1/s^2 of two values; s > 0.
struct Weighed {
  double value = 0.0, standardError = 0.0;
};
Weighed weighed(double first, double firstError, double second, double secondError);

} // namespace muffle
