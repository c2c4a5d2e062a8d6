// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/cost/cost.h"

#include <cmath>

namespace muffle {

double annuityFactor(double rate, double years) { return rate <= 0.0 ? 1.0 / years : rate / (1.0 - std::pow(1.0 + rate, -years)); }

LifeCost lifeCost(double capital, double yearlyCost, double rate, double escalation, double years) {
  LifeCost cost{};
  if (std::abs(rate - escalation) < 1e-12)
    cost.presentRunning = yearlyCost * years / (1.0 + rate);
  else
    cost.presentRunning = yearlyCost * (1.0 - std::pow((1.0 + escalation) / (1.0 + rate), years)) / (rate - escalation);
  cost.presentTotal = capital + cost.presentRunning;
  cost.equalYearly = cost.presentTotal * annuityFactor(rate, years);
  return cost;
}

std::vector<Kit> kitOf(const Plan& plan) {
  std::vector<Kit> kit = plan.kit;
  if (plan.heater && plan.heater->price > 0.0) kit.push_back({plan.heater->name, plan.heater->price, plan.heater->life_years, 0.0});
  return kit;
}

double drawing_h(const Plan& plan, double draws) { return plan.house.blanket ? draws * plan.house.blanket->hoursPerDraw : 0.0; }

Cost winterCost(const Prices& prices, double electricity_kWh, const std::vector<Kit>& kit, double work_h) {
  Cost cost;
  cost.hours = work_h;
  cost.energy = electricity_kWh * prices.electricity_per_kWh;
  for (const Kit& k : kit) {
    cost.kit += k.capital * annuityFactor(prices.interest, k.life_years);
    cost.hours += k.hoursPerWinter;
  }
  cost.hoursMoney = cost.hours * prices.hour;
  return cost;
}

} // namespace muffle
