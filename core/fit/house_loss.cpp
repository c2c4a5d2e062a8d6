// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/fit/house_loss.h"

#include <cmath>

namespace muffle {

Weighed weighed(double first, double firstError, double second, double secondError) {
  const double a = 1.0 / (firstError * firstError), b = 1.0 / (secondError * secondError);
  return {(a * first + b * second) / (a + b), 1.0 / std::sqrt(a + b)};
}

Result<HouseStorage> houseStorage(const Calibrated& fit) {
  constexpr double kForm = 0.06; // of the model's storage
  if (!fit.balance) return Problem{ProblemKind::badInput, "log", Message{"fit.no-balance-heater-loss"}, Message{"fit.log-heaters-watts"}};
  return HouseStorage{fit.balance->C_J_K, std::hypot(fit.balance->seC_J_K, kForm * fit.balance->C_J_K)};
}

Result<HouseLoss> houseLoss(const Plan& plan, const QuickFit& quick, const Calibrated& fit) {
  constexpr double kForm = 0.05; // of the model's loss
  Plan fitted = plan;
  fitted.calibration = fit.found;
  const auto parts = againstParts(fitted, quick);
  if (!parts) return parts.problems();
  const double loss = parts->calculated_W_K;
  if (parts->standardError_W_K <= 0.0) return HouseLoss{loss, kForm * loss, loss}; // nothing to weigh it against
  const double covers = fit.standardError[0] / fit.found.skin;
  const Weighed both = weighed(parts->measured_W_K, parts->standardError_W_K, loss, loss * std::hypot(kForm, covers));
  return HouseLoss{both.value, both.standardError, loss};
}

} // namespace muffle
