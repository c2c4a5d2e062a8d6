// SPDX-License-Identifier: GPL-3.0-or-later
//
// How sure the cheapest plan is to be that: under prices within their ranges, at which price another would be, in a colder winter, and in a house
// as the readings leave it open. Among the packages that
// were run.
#pragma once

#include "core/sizing/package_scenes.h"
#include "core/sizing/sizing.h"

#include <optional>
#include <vector>

namespace muffle {

/// A price that may come out otherwise.
struct UncertainPrice {
  enum class Of { electricity, fuel, measure };
  Of of = Of::electricity;
  Carrier fuel = Carrier::electricity;
  std::size_t measure = 0;
  double spread = 0.0; ///< share of its range to either side; 0: none was given
  /// Another package is cheapest from that multiple of it on, and which.
  struct Turn {
    double factor = 1.0;
    int package = -1;
  };
  std::optional<Turn> below = {}, above = {};
};

struct HowSure {
  std::vector<UncertainPrice> prices; ///< that the costs of what was run depend on
  bool hasRanges = false;             ///< any of them has one
  double stays = 1.0;                 ///< share of draws of all prices within their ranges, alike within each, in which the winner stays the cheapest
  double regret = 0.0;                ///< money a winter that it costs more than the cheapest, in the mean of the draws
};
/// Needs a winner. Deterministic.
HowSure howSure(const Sizing& sizing, const Plan& plan, unsigned draws = 2000);

/// The winner, the cheapest others that hold, and what is warmest on the frontier: `rivals` of them.
Result<std::vector<ColderWinter>> colderWinters(const Sizing& sizing, const Plan& plan, PackageScenes& scenes, const SizingOptions& options = {},
                                                std::size_t rivals = 7);

/// The same in houses as the readings leave this one open, where its factors were fitted: two for each of them, which have together the covariance that the
/// fit found (core/statistics/sigma_points.h). Empty where no winner is, or nothing is known of how sure the factors are.
Result<std::vector<LikelyHouse>> likelyHouses(const Sizing& sizing, const Plan& plan, PackageScenes& scenes, const SizingOptions& options = {},
                                              std::size_t rivals = 3);

/// Of how many likely houses the winner is what.
struct LikelyInShort {
  int houses = 0, held = 0;
  std::optional<int> cheapest = {};                      ///< of them; none where prices are others since
  int mostMissed = 0;                                    ///< nights
  std::optional<double> leastExtra = {}, mostExtra = {}; ///< money a winter, where it holds
};
LikelyInShort inShort(const Sizing& sizing);

} // namespace muffle
