// SPDX-License-Identifier: GPL-3.0-or-later
//
// What a winter's weather makes of the ways by which air comes and goes, step by step: draughts, the door, what keeps vents
// shut, rolled sides and a roof that draws back. Conductances carry heat as mass flow x specific heat, W/K.
//   draughts   air changes by build, upkeep and wind, or Sherman and Grimsrud by leakage area (core/house/infiltration.h)
//   lift       that drives air through leaks and door is not known before the run: a heated house's setpoint above outside, at least what a house has
//              without heat, 2 K at night and up to 20 in the sun; of a steady question the one asked
//   rolled up  wind across the house 0.35 A v (ASHRAE Fundamentals, Ventilation and Infiltration: 0.25 to 0.35 for a slanting
//              wind, 0.5 to 0.6 for one that meets the opening) and, in quadrature, each side as one tall opening at 5 K
#pragma once

#include "core/plan/plan.h"
#include "core/weather/weather.h"

#include <optional>
#include <vector>

namespace muffle {

/// By which the gauge's wind is that at a height: a power law with the exponent of open country, 0.20 (Sherman and Grimsrud's
/// terrain class III); 1 where the gauge's height is not given. height_m > 0.
double windFactor(const Site& site, double height_m);

/// Of the whole house. The plan must have passed check(); pressure_Pa > 0, here and below.
std::vector<double> draughts_W_K(const Plan& plan, const Winter& winter, double pressure_Pa, std::optional<double> inside_C = {});

/// The door's over the hours of day, the winter's mean day; 0 at night. `doors`, 1 or 2, stand one behind the other, each with its
/// part of the lift.
std::vector<double> door_W_K(const Plan& plan, const Winter& winter, int doors, double pressure_Pa, std::optional<double> inside_C = {});

/// 1 where vents may open, 0 where the rule keeps them shut.
std::vector<double> mayVent(const VentLock& lock, const Winter& winter);

/// Fully rolled up on both sides, over a length of the house > 0; the wind there is the gauge's times `wind`, >= 0.
std::vector<double> rolledUp_W_K(const RollUpSides& sides, double length_m, const Winter& winter, double pressure_Pa, double wind = 1.0);

/// 1 while the roof is drawn back: by day, warm enough outside, with a kelvin of hysteresis, and where vents may open.
std::vector<double> roofOpen(const RetractableRoof& roof, const VentLock& lock, const Winter& winter);

} // namespace muffle
