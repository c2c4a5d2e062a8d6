// SPDX-License-Identifier: GPL-3.0-or-later
//
// What things cost a year over their lives, and the prices at which two ways cost the same (engineering economics).
#pragma once

#include <optional>
#include <span>

namespace muffle {

struct KitPart {
  double price = 0.0;
  int life_years = 1;
  double residual = 0.0; ///< share of the price that it is still worth at its end
  double upkeep = 0.0;   ///< share of the price at every year's end
};
/// Price by the annuity, less the payment that saves up what is left of it, and its upkeep. rate >= 0.
double yearlyCost(const KitPart& part, double rate);

/// The same kit renewed at the end of every life, over the years after which all end together, at its price today.
struct KitCost {
  double yearly = 0.0;
  long horizon_years = 0;
  double present = 0.0;
};
KitCost kitCost(std::span<const KitPart> parts, double rate);

/// A way to heat: so much a year whatever it gives, and so much for a kWh of heat.
struct HeatingWay {
  double yearly = 0.0;
  double perHeat = 0.0;
  [[nodiscard]] double cost(double heat_kWh) const { return yearly + heat_kWh * perHeat; }
};
/// The heat a year at which both cost the same; nothing if there is none above 0.
std::optional<double> breakEvenHeat_kWh(const HeatingWay& a, const HeatingWay& b);
/// The price of a kWh that b takes, at its efficiency, at which it costs what a does.
double breakEvenPrice(const HeatingWay& a, double yearlyOfB, double efficiencyOfB, double heat_kWh);

} // namespace muffle
