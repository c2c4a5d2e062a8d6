// SPDX-License-Identifier: GPL-3.0-or-later
//
// What a kWh of heat in the house costs by each fuel, at the loads this house has: electricity by the hours in which it heats, a heat pump by the weather
// then, burners by their efficiency and their own electricity.
#pragma once

#include "core/simulate/simulate.h"

#include <optional>
#include <vector>

namespace muffle {

struct HeatPrice {
  HeaterKind kind = HeaterKind::electric;
  Carrier takes = Carrier::electricity;
  std::optional<double> perHeat; ///< money for a kWh of heat; nothing where the fuel has no price
};

/// Of a net kWh: a heater of the plan that takes it, or the plan's list; nothing where neither says.
std::optional<double> fuelPrice_kWh(const Plan& plan, Carrier fuel);

/// One of each usual kind that stands in a room, the cheapest first, those without a price last; needs series. Empty where the rooms' heaters gave nothing.
std::vector<HeatPrice> heatPrices(const Plan& plan, const Weather& weather, const Simulation& run);

} // namespace muffle
