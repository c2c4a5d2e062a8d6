// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sizing/why_not.h"

#include "core/plan/measure_table.h"

#include <algorithm>
#include <map>
#include <tuple>

namespace muffle {
namespace {

/// Money a winter that one unit of its price makes.
double perPrice(const Plan& plan, const Measure& m, int level) {
  Measure unit = m;
  unit.price = 1.0;
  return measureCapital(plan, unit, m.levels.empty() ? 0.0 : m.levels[static_cast<std::size_t>(level)]) * annuityFactor(plan.prices.interest, m.life_years);
}

} // namespace

std::vector<MeasureVerdict> verdicts(const Sizing& sizing, const Plan& plan) {
  std::vector<MeasureVerdict> all;
  if (sizing.winner < 0) return all;
  std::map<Choice, int> place;
  for (std::size_t i = 0; i < sizing.packages.size(); ++i) place[sizing.packages[i].choice] = static_cast<int>(i);
  const SizedPackage& winner = sizing.packages[static_cast<std::size_t>(sizing.winner)];
  for (std::size_t k = 0; k < plan.measures.size() && k < winner.choice.size(); ++k) {
    const Measure& m = plan.measures[k];
    MeasureVerdict verdict{.measure = k, .isTaken = winner.choice[k] >= 0, .level = winner.choice[k]};
    // the best of the other ways: one that holds before one that does not, then the cheaper
    for (int level = verdict.isTaken ? -1 : 0; level < (verdict.isTaken ? 0 : levelCount(m)); ++level) {
      Choice choice = winner.choice;
      choice[k] = level;
      const auto it = place.find(choice);
      if (it == place.end()) continue;
      const auto key = [&](int i) {
        const SizedPackage& p = sizing.packages[static_cast<std::size_t>(i)];
        return std::tuple(!p.holds, p.holds ? 0 : p.nights - p.held, p.cost.total());
      };
      if (verdict.other >= 0 && key(verdict.other) <= key(it->second)) continue;
      verdict.other = it->second;
      if (!verdict.isTaken) verdict.level = level;
    }
    if (verdict.other < 0) continue;
    const SizedPackage& other = sizing.packages[static_cast<std::size_t>(verdict.other)];
    verdict.otherHolds = other.holds;
    verdict.misses = other.nights - other.held;
    verdict.extra = other.cost.total() - winner.cost.total();
    if (const double each = perPrice(plan, m, verdict.level); verdict.otherHolds && each > 0.0) {
      const double price = m.price + (verdict.isTaken ? 1.0 : -1.0) * verdict.extra / each;
      if (price > 0.0) verdict.turnsAt = price;
    }
    all.push_back(verdict);
  }
  return all;
}

int closestToHolding(const Sizing& sizing) {
  const auto key = [](const SizedPackage& p) { return std::tuple(p.nights - p.held, p.degreeHours_K_h, p.cost.total()); };
  const auto it =
      std::min_element(sizing.packages.begin(), sizing.packages.end(), [&](const SizedPackage& a, const SizedPackage& b) { return key(a) < key(b); });
  return it == sizing.packages.end() ? -1 : static_cast<int>(it - sizing.packages.begin());
}

} // namespace muffle
