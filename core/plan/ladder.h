// SPDX-License-Identifier: GPL-3.0-or-later
//
// The temperatures of a room in their order: at which vents open, at which setpoints stand, at which each heater begins, and the line that must
// hold; and what of them is at odds. What cannot be run at all is refused by check().
#pragma once

#include "core/plan/plan.h"

#include <cstddef>
#include <optional>
#include <vector>

namespace muffle {

enum class RungOf { vents, rollUp, extractFan, day, night, heater, hold, crop }; ///< crop: by which cold harms one within a night

struct Rung {
  RungOf of = RungOf::hold;
  std::size_t heater = 0; ///< among the plan's
  double low_C = 0.0;     ///< on the coldest nights, or days, that its bands name
  double high_C = 0.0;    ///< on the mildest; the same where it does not follow the weather
  std::size_t crop = 0;   ///< among the plan's
  [[nodiscard]] bool followsWeather() const { return high_C > low_C; }
};

/// Of the house, or of its warm bay; heaters that a thermostat commands alone, and the crops that stand there. The rungs of a plan without such a bay are none.
std::vector<Rung> rungsOf(const Plan& plan, HeaterPlace::Of room);

enum class LadderConflictKind {
  nightBelowLine,  ///< the heaters let the room fall below the line
  heaterBelowLine, ///< this heater begins when the line is crossed already
  lineHarmsCrop,   ///< the line that must hold lies below what this crop bears
  airedWhileHeated ///< what lets air out opens less than a degree above a setpoint: heat goes out by it
};
struct LadderConflict {
  LadderConflictKind kind = LadderConflictKind::nightBelowLine;
  Rung rung;         ///< that is at odds
  double by_K = 0.0; ///< how far it is below the line, or above the setpoint
};
std::vector<LadderConflict> ladderConflicts(const Plan& plan, HeaterPlace::Of room);

} // namespace muffle
