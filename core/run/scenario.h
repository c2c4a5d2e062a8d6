// SPDX-License-Identifier: GPL-3.0-or-later
//
// What befalls a run and is no part of the plan. Steps are as their beginnings are: a spell is rounded to the winter's steps.
#pragma once

#include "core/calendar.h"

#include <algorithm>
#include <string>
#include <vector>

namespace muffle {

struct Spell {
  UtcSeconds from = 0, to = 0; ///< from <= t < to
  [[nodiscard]] bool covers(UtcSeconds t) const { return t >= from && t < to; }
};
inline bool isWithin(const std::vector<Spell>& spells, UtcSeconds t) {
  return std::any_of(spells.begin(), spells.end(), [t](const Spell& s) { return s.covers(t); });
}

/// A named thing that gives nothing for a while.
struct Failure {
  std::string what; ///< a thermostat's name in the network: of a heater, a cable, a boiler; or as Assembly::fed has it, or "blanket:open" and
                    ///< "blanket:shut", of a network that was assembled as failable
  Spell when;
};

struct Scenario {
  std::vector<Spell> mainsOff = {};    ///< electric heaters, cables, fans and pumps rest
  std::vector<Spell> nobodyThere = {}; ///< piles are not topped up or watered
  std::vector<Failure> failures = {};
};

/// How things stand for a step.
struct Circumstances {
  bool mains = true;
  bool tended = true;
};

} // namespace muffle
