// SPDX-License-Identifier: GPL-3.0-or-later
//
// Which heaters, in which sizes and which turn, carry a load at least cost: exact on a trace of hourly loads, without any simulation. The first gives what
// it can, the next what is left, and so on.
#pragma once

#include <optional>
#include <span>
#include <vector>

namespace muffle {

/// A kind that may be bought in whole steps of its size.
struct HeaterOffer {
  double capital_kW = 0.0;       ///< money a year for a kW of size
  std::vector<double> price_kWh; ///< for a kWh of heat, by hour of the trace
  double perStartDay = 0.0;      ///< work, for every day on which it gives any heat
  double step_kW = 0.5;
  std::vector<double> capacity = {}; ///< by hour, of its size; empty: 1
};

struct HeaterUnit {
  std::size_t offer = 0;
  int steps = 1;
  bool operator==(const HeaterUnit&) const = default;
};

struct HeaterChoice {
  std::vector<HeaterUnit> units; ///< in their turn
  std::vector<double> heat_kWh;  ///< by unit
  std::vector<int> startDays;    ///< by unit
  double cost = 0.0;             ///< a year
};

struct ChoiceRules {
  int maxUnits = 2;
  int maxSteps = 12;
  bool kindsMayRepeat = false;
  bool anyOneOut = false; ///< with any one of them out, the others can still carry every hour
};

struct ChosenHeaters {
  HeaterChoice best;
  std::optional<HeaterChoice> second;       ///< the cheapest of other sizes or kinds
  std::vector<std::optional<double>> alone; ///< cost with one unit of that kind alone; nothing if it cannot carry the load
};

/// What these carry; nothing if more than 1e-9 kW of some hour is left.
std::optional<HeaterChoice> carried(std::span<const HeaterOffer> offers, std::span<const double> load_kW, std::vector<HeaterUnit> units);

/// Every choice by the rules is tried, smaller than the peak from the hours alone. Nothing if none carries the load.
std::optional<ChosenHeaters> chooseHeaters(std::span<const HeaterOffer> offers, std::span<const double> load_kW, const ChoiceRules& rules);

/// Of two units of any size: the first carries up to a base, the second the rest; the base that costs least, to `step_kW`.
struct TwoHeaters {
  std::size_t base = 0; ///< offer that comes first
  double base_kW = 0.0, peak_kW = 0.0, base_kWh = 0.0, peak_kWh = 0.0;
  int baseDays = 0, peakDays = 0;
  double cost = 0.0;
};
TwoHeaters splitLoad(const HeaterOffer& a, const HeaterOffer& b, std::span<const double> load_kW, double step_kW);

} // namespace muffle
