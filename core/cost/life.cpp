// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/cost/life.h"

#include "core/cost/cost.h"

#include <cmath>
#include <numeric>

namespace muffle {

double yearlyCost(const KitPart& part, double rate) {
  const double annuity = annuityFactor(rate, part.life_years);
  const double saving = annuity * std::pow(1.0 + rate, -part.life_years);
  return part.price * (annuity - part.residual * saving + part.upkeep);
}

KitCost kitCost(std::span<const KitPart> parts, double rate) {
  KitCost cost;
  cost.horizon_years = 1;
  for (const KitPart& part : parts) {
    cost.yearly += yearlyCost(part, rate);
    cost.horizon_years = std::lcm(cost.horizon_years, static_cast<long>(part.life_years));
  }
  cost.present = cost.yearly / annuityFactor(rate, static_cast<double>(cost.horizon_years));
  return cost;
}

std::optional<double> breakEvenHeat_kWh(const HeatingWay& a, const HeatingWay& b) {
  if (a.perHeat == b.perHeat) return std::nullopt;
  const double heat = (b.yearly - a.yearly) / (a.perHeat - b.perHeat);
  return heat > 0.0 ? std::optional(heat) : std::nullopt;
}

double breakEvenPrice(const HeatingWay& a, double yearlyOfB, double efficiencyOfB, double heat_kWh) {
  return (a.cost(heat_kWh) - yearlyOfB) * efficiencyOfB / heat_kWh;
}

} // namespace muffle
