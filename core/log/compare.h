// SPDX-License-Identifier: GPL-3.0-or-later
//
// Did it help? The lift of two sets of nights, set against each other at like nights: lift = a + b outside low + c cloud + d wind +
// e heater + g (of the second set), by least squares; g is what the change did, with its standard error.
#pragma once

#include "core/log/nights.h"

#include <cmath>
#include <optional>
#include <vector>

namespace muffle {

struct NightSet {
  std::size_t nights = 0; ///< whole ones with a lift
  double meanLift_K = 0.0, meanOutsideLow_C = 0.0, meanHeater_kWh = 0.0;
};

/// Of the lift, second set less first, at like nights.
struct LiftDifference {
  double value_K = 0.0;
  double standardError_K = 0.0;
  /// More than twice its error.
  [[nodiscard]] bool isReal() const { return std::abs(value_K) > 2.0 * standardError_K; }
};

struct Comparison {
  NightSet first, second;
  /// Nothing where the weather alone tells the sets apart, as when the one is all cloudy nights and the other all clear.
  std::optional<LiftDifference> atLikeNights;
};

/// Nothing with fewer than eight nights in either set: five things are told apart.
std::optional<Comparison> compareNights(const std::vector<Night>& first, const std::vector<Night>& second);

} // namespace muffle
