// SPDX-License-Identifier: GPL-3.0-or-later
//
// Which of the plan's measures to take: every combination is simulated over the log on all cores, priced, and the
// cheapest that holds what was asked is named, with the frontier of cost against cold and why the others lost.
#pragma once

#include "core/simulate/simulate.h"

#include <atomic>
#include <functional>

namespace muffle {

/// For each measure of the plan, -1 for "not" or the index of a level (0 for measures without levels).
using Choice = std::vector<int>;

/// The plan with the chosen measures built in and bought.
struct Package {
  Choice choice;
  Plan plan;
  std::vector<Bought> kit; ///< all of the plan's
  Message label;           ///< "as it is", or the measures by name
};
Package buildPackage(const Plan& base, const Choice& choice);

struct SizedPackage {
  Choice choice;
  Message label;
  Cost cost;
  int nights = 0, held = 0;
  double coldest_C = 0.0;
  double degreeHours_K_h = 0.0;
  double heater_kWh = 0.0; ///< a winter
  Ledger ledger = {};      ///< over all winters
  double winters = 1.0;
  bool holds = false;
  bool onFrontier = false;
};

struct Sizing {
  std::vector<SizedPackage> packages; ///< in a fixed order: the last measure varies fastest
  int winner = -1;                    ///< cheapest that holds; -1 if none does
  std::vector<int> frontier;          ///< by rising cost, degree-hours falling
  double run_ms = 0.0;
};

struct SizingOptions {
  int threads = 0;                                                ///< 0: all cores. Never changes the answer.
  std::function<bool(std::size_t done, std::size_t of)> progress; ///< called from one thread at a time; false stops
  const std::atomic<bool>* stop = nullptr;                        ///< set to give up at once, amid a run; the answer is then a cancelled problem
};

/// How many combinations of its measures a plan has, none included; never overflows, it stops counting at 1e15.
std::size_t packageCount(const Plan& plan);

/// At most 4096 combinations; more is a problem that says so.
Result<Sizing> size(const Plan& plan, std::shared_ptr<const Weather> weather, const SizingOptions& options = {});

/// The plan as it is, then each size of each of its measures alone: what one change would buy.
Result<Sizing> oneChangeEach(const Plan& plan, std::shared_ptr<const Weather> weather, const SizingOptions& options = {});

/// Ranks the same packages under other prices without simulating again.
void reprice(Sizing& sizing, const Plan& plan, const Prices& prices);

/// One sentence on why a package is not the winner.
Message whyNot(const Sizing& sizing, int package, const Plan& plan);

} // namespace muffle
