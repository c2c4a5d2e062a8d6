// SPDX-License-Identifier: GPL-3.0-or-later
//
// What growers' rules of thumb would build, run over the logged nights like any other plan, so that what they cost and miss stands beside what was found.
#pragma once

#include "core/sizing/package_scenes.h"
#include "core/sizing/sizing.h"

namespace muffle {

/// Heat loss of a square metre of cover for each kelvin, W, by how many skins it has, as handbooks give it for sizing heaters (ANSI/ASAE EP406.4, usual values
/// of film and glass with their draughts).
constexpr double kThumbSingle_W_m2K = 6.2, kThumbDouble_W_m2K = 4.0;
/// Water for each square metre of floor, in guides to houses that hold themselves by the sun.
constexpr double kThumbWater_l_m2 = 100.0;

struct ThumbRule {
  Message says;
  Plan plan; ///< with what the rule builds as its list, all of it to be built
};
/// A heater by area, U and the coldest logged hour; the same under a second skin; water instead of a heater. None where the house has it already, or there is
/// no room.
std::vector<ThumbRule> thumbRules(const Plan& plan, const Weather& weather);

/// Each of them over all winters, judged by what the plan asks. Those that cannot be built are left out.
Result<std::vector<ByThumb>> runThumbRules(const Plan& plan, PackageScenes& scenes, const std::atomic<bool>* stop = nullptr);

} // namespace muffle
