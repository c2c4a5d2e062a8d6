// SPDX-License-Identifier: GPL-3.0-or-later
//
// What each thing on the list does for the cheapest plan, by the plan that differs from it in that thing alone: what leaving it out or taking it would cost,
// and the price at which it would turn.
#pragma once

#include "core/sizing/sizing.h"

#include <optional>
#include <vector>

namespace muffle {

struct MeasureVerdict {
  std::size_t measure = 0; ///< among the plan's
  bool isTaken = false;    ///< in the cheapest plan
  int level = 0;           ///< that it has there; of one that is not taken the best it could have
  int other = -1;          ///< the package that differs from the winner in it
  bool otherHolds = false;
  int misses = 0;     ///< nights that the other misses
  double extra = 0.0; ///< money a winter that the other costs more; below 0 only of one that does not hold
  /// Measure::price at which both would cost the same: one that is not taken pays below it, one that is pays up to it. Nothing where no price does it: it would
  /// cost more as a gift, or its price is not what decides.
  std::optional<double> turnsAt = {};
};

/// One for each measure of the plan that was sized, in its order; none without a winner. Measures whose neighbour was not run are left out.
std::vector<MeasureVerdict> verdicts(const Sizing& sizing, const Plan& plan);

/// Where none holds, the package that comes closest: fewest nights missed, then least cold, then cheapest. -1 for none.
int closestToHolding(const Sizing& sizing);

} // namespace muffle
