// SPDX-License-Identifier: GPL-3.0-or-later
//
// What a search that was stopped has run, so that the next of the same plan and weather goes on from there.
#pragma once

#include "core/sizing/sizing.h"

#include <map>
#include <memory>
#include <vector>

namespace muffle {

/// What a run of a relaxed house says (docs/sizing.md).
struct RelaxedSeason {
  int misses = 0;               ///< in nights that are warmer inside than out
  double degreeHours_K_h = 0.0; ///< a winter, of those nights
  double money = 0.0;           ///< for the heaters' heat, a winter
  std::vector<double> least;    ///< the same with each set of heaters, at least; of a heater that was never too small
  std::vector<bool> neverShort; ///< whether that set is never too small for it
};

struct SearchMemory {
  Plan plan;
  std::shared_ptr<const Weather> weather;
  std::map<Choice, SizedPackage> packages;
  std::map<Choice, RelaxedSeason> traces, tests;
};

/// What is remembered, if it is of that plan and weather.
inline const SearchMemory* memoryOf(const SizingOptions& options, const Plan& plan, const std::shared_ptr<const Weather>& weather) {
  const SearchMemory* memory = options.goOn.get();
  return memory && memory->plan == plan && memory->weather == weather ? memory : nullptr;
}

/// A package as it was run; nothing where it is not known, or what it was tried against was broken off.
inline const SizedPackage* remembered(const SearchMemory* memory, const Choice& choice) {
  if (!memory) return nullptr;
  const auto it = memory->packages.find(choice);
  return it == memory->packages.end() || (it->second.fails && !it->second.isTried) ? nullptr : &it->second;
}

} // namespace muffle
