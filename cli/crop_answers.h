// SPDX-License-Identifier: GPL-3.0-or-later
//
// What became of a plan's crops and how its thermostats went on and off, as JSON and as lines.
#pragma once

#include "core/json/fields.h"
#include "core/simulate/crop_harm.h"
#include "core/simulate/heater_cycles.h"

#include <string>

namespace muffle {

/// By crop of the plan: each part, at what it is harmed, what it came to, how often it was harmed; how it grew.
Json cropsAnswer(const Plan& plan, const Weather& weather, const TimeZone& zone, const Simulation& run);
/// "tomatoes, leaf: harmed 3 times, as cold as -1.2 C for 30 min" and so on, a line each.
std::string cropsSaid(const Plan& plan, const Weather& weather, const TimeZone& zone, const Simulation& run);
/// By heater that goes on and off by a thermostat in the house.
Json cyclesAnswer(const Plan& plan, const std::vector<HeaterCycles>& cycles);

} // namespace muffle
