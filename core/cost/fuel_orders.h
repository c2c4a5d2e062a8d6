// SPDX-License-Identifier: GPL-3.0-or-later
//
// Fuel as it comes to the yard: how many deliveries a winter's fire takes, what they are charged, and how long a stock lasts.
#pragma once

#include "core/plan/plan.h"
#include "core/results/ledger.h"

#include <cstddef>
#include <optional>
#include <vector>

namespace muffle {

/// A heater's fuel in a mean winter.
struct FuelWinter {
  std::size_t heater = 0;    ///< among the plan's
  double units = 0.0;        ///< taken, of those that it is bought by
  double fromStock = 0.0;    ///< of these, in the yard already
  long deliveries = 0;       ///< for the rest, whole ones
  double deliveryCost = 0.0; ///< for all of them
};

/// Of heaters that burn or take delivered heat, in the plan's order. What is left of the last delivery is kept for the next winter: it is not in the cost.
std::vector<FuelWinter> fuelOfWinter(const Plan& plan, const Ledger& ledger, double winters);

/// The hour of a winter in which a heater has taken what stands in the yard; none where it lasts, or where there is none. The ledger of one winter, with
/// its hours.
std::optional<std::size_t> stockGone_h(const Plan& plan, std::size_t heater, const Ledger& winter);

} // namespace muffle
