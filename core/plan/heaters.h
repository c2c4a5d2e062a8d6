// SPDX-License-Identifier: GPL-3.0-or-later
//
// The heaters of a plan by what they heat.
#pragma once

#include "core/plan/plan.h"

#include <optional>
#include <string>

namespace muffle {

/// The first there; nullptr without one.
const Heater* heaterIn(const Plan& plan, const HeaterPlace& place);
Heater* heaterIn(Plan& plan, const HeaterPlace& place);
/// The first there; one of no power is put there for want of any. The plan must have the place.
Heater& firstHeater(Plan& plan, const HeaterPlace& place);
/// Of the first there, which is put there if it is to have any. Nothing happens where the plan has no such place.
void setHeaterPower(Plan& plan, const HeaterPlace& place, double power_W);
/// Of all there together, W.
double heaterPower_W(const Plan& plan, const HeaterPlace& place);
/// Of all that heat rooms, and under bed covers.
double roomHeaters_W(const Plan& plan);
/// That have any power.
int countOfRoomHeaters(const Plan& plan);

/// A name by which no heater of the plan goes: `stem`, or with a number behind.
std::string freeHeaterId(const Plan& plan, const std::string& stem);
/// Puts it there with an id of its own.
Heater& addHeater(Plan& plan, Heater heater);
/// In place of all that stand where it is to stand.
Heater& replaceHeaters(Plan& plan, Heater heater);
void removeHeaters(Plan& plan, const HeaterPlace& place);
/// A tank, a bed cover or a mass is gone: what heated it with it, and those behind it have moved up.
void removePlace(Plan& plan, const HeaterPlace& place);

/// As it stands in the list of fuels; nullptr where it does not.
const FuelPrice* listedPrice(const Prices& prices, Carrier fuel);

/// Ids that two have, kinds and places that do not go together, rooms and tanks that are not there.
void checkHeaters(const Plan& plan, Problems& problems);
/// What a heater that may be bought must be to stand in a room; nothing if it may.
std::optional<Problem> checkRoomHeater(HeaterKind kind, std::string where);

} // namespace muffle
