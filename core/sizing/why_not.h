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

/// What money buys, step by step: of what was run, by rising capital, each that misses fewer nights than all that take less money, or as few for less a winter.
/// Packages that do not keep to the other wishes are left out.
std::vector<int> staircase(const Sizing& sizing, const Plan& plan);

/// A wish that alone stands in the way of some package, and what it would have to be for the one that needs least of it.
struct Loosening {
  enum class Of { misses, cold, spend, hours, supply, trench, fuelStore, noFireAsleep, resilience };
  Of of = Of::misses;
  double needs = 0.0; ///< nights, K h, money, hours a week, kW, metres, kWh; 0 for the last two
  int package = -1;   ///< that would then hold
};
/// Where none holds: each wish that would do by itself, among what was run. Empty where only more measures would.
std::vector<Loosening> loosenings(const Sizing& sizing, const Plan& plan);
/// One sentence for one of them.
Message whatWouldDo(const Loosening& loosening, const Sizing& sizing, const Plan& plan);

/// Where none holds, the package that comes closest: fewest nights missed, then least cold, then cheapest. -1 for none.
int closestToHolding(const Sizing& sizing);

} // namespace muffle
