// SPDX-License-Identifier: GPL-3.0-or-later
//
// The cheapest of very many packages, without running most of them: best first by bounds (branch and bound; Land and Doig 1960, Hart, Nilsson and Raphael
// 1968).
//
// A node has decided on some measures and left the others open. Its bound is what the decided ones cost and the least heat that any completion can take:
// that of a relaxed house, in which every open measure keeps in what it can and costs neither money nor light (MeasureRow::relax). Of measures that cannot be
// relaxed each level has a node of its own from the start. How large the heaters are, is decided last: one run with a heater that is never too small gives what
// the house takes at every moment, and min(size, what it takes) is less than what any heater of that size gives, since a house that fell short is
// colder and takes more later. docs/sizing.md has the proofs and what they rest on.
#pragma once

#include "core/plan/measure_rules.h"
#include "core/sizing/package_scenes.h"
#include "core/sizing/sizing.h"

namespace muffle {

/// What a bound's energy is taken lower by: less loss may cost a little heat on days when it is warmer outside than in, and through the dampness of the air.
/// A share of it, and heat for each square metre of floor and night. The most that some thousand partial choices of random houses have shown is 0.6 % beyond
/// 0.0035 kWh/m2; a season's own error is a tenth of a percent (docs/sizing.md).
constexpr double kBoundSlack = 0.02;
constexpr double kBoundSlack_kWh_m2 = 0.004;
/// What its air may be colder by in a night: the same causes, where no heater makes up for them. The most that some thousand partial choices of random houses
/// have shown is a hundredth of a kelvin.
constexpr double kBoundSlack_K = 0.03;

/// What size() does where there are more than kFewPackages. In the list of its answer are the packages that were run: those whose bound did not rule them out,
/// and those that differ from the winner in one measure.
Result<Sizing> searchPackages(const Plan& plan, PackageScenes& scenes, const SizingOptions& options);

/// The relaxed house of a choice, with kUndecided for what is left open.
Plan relaxedPlan(const Plan& plan, const Choice& choice);
/// What the search knows of every package that agrees with a choice whose heaters are all decided.
struct PackageBound {
  int misses = 0;               ///< nights at least, of those that are warmer inside than out, by more than kBoundSlack_K
  double degreeHours_K_h = 0.0; ///< a winter, at least: beyond kBoundSlack_K, and less by kBoundSlack
  double cost = 0.0; ///< money a winter at least, of one that holds
};
Result<PackageBound> boundOf(const Plan& plan, PackageScenes& scenes, const Choice& choice);
/// What its decided measures cost a winter whatever the weather: kit, its hours and standing charges.
double fixedCost(const Plan& plan, const Choice& choice);
/// Of the measures that may be left open in this plan.
std::vector<bool> relaxable(const Plan& plan);

} // namespace muffle
