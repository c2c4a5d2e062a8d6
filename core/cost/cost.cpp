// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/cost/cost.h"

#include "core/cost/fuel_orders.h"
#include "core/plan/names.h"

#include <algorithm>
#include <cmath>
#include <utility>

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

std::vector<Bought> kitOf(const Plan& plan) {
  std::vector<Bought> kit;
  for (const Kit& k : plan.kit) kit.push_back({nameOf(k), k.capital, k.life_years, k.hoursPerWinter});
  for (const Heater& h : plan.heaters)
    if (h.price > 0.0) kit.push_back({nameOf(plan, h), h.price, h.life_years, 0.0});
  const auto bought = [&kit](const auto& store) {
    if (store.price > 0.0) kit.push_back({nameOf(store), store.price, store.life_years, 0.0});
  };
  for (const GroundPipes& p : plan.groundPipes) bought(p);
  for (const WaterLoop& w : plan.waterLoops) bought(w);
  for (const SoilCable& c : plan.soilCables) bought(c);
  for (const MassBlock& m : plan.mass) bought(m);
  for (const CompostPile& c : plan.compost) { // used up within the year
    const double stands_days = c.piles > 1 ? c.everyDays : kWinterDays;
    const double built = c.piles * (1.0 + (c.topUpEvery_days > 0.0 ? kTopUp * std::floor(stands_days / c.topUpEvery_days) : 0.0));
    if (c.price > 0.0 || c.hoursToBuild > 0.0) kit.push_back({nameOf(c), built * c.price, 1.0, built * c.hoursToBuild});
  }
  return kit;
}

double moneyOfStore(const Ledger& ledger, const Plan& plan, std::size_t store) {
  double money = 0.0;
  for (const MeterUse use : {MeterUse::cable, MeterUse::storeFan, MeterUse::storePump, MeterUse::collectorPump})
    money += ledger.money(plan, plan.prices, use, store);
  return money;
}

const MaterialPrice* priceOf(const Prices& prices, std::string_view material) {
  const auto it = std::find_if(prices.materials.begin(), prices.materials.end(), [&](const MaterialPrice& p) { return p.material == material; });
  return it == prices.materials.end() ? nullptr : &*it;
}

MaterialPrice& priceOf(Prices& prices, std::string_view material) {
  if (const MaterialPrice* known = priceOf(std::as_const(prices), material)) return prices.materials[static_cast<std::size_t>(known - prices.materials.data())];
  return prices.materials.emplace_back(MaterialPrice{.material = std::string(material)});
}

SkinCost skinCost(const Skin& skin, double area_m2, const Prices& prices) {
  SkinCost cost;
  for (const Layer& layer : skin.layers) {
    const MaterialPrice* price = priceOf(prices, layer.material);
    if (!price || price->price_per_m2 <= 0.0) continue;
    ++cost.priced;
    cost.capital += area_m2 * price->price_per_m2;
  }
  return cost;
}

namespace {
/// Of what the meters have counted.
double carbonDioxide_kg(const Plan& plan, const Prices& prices, const Ledger& ledger) {
  double kg = prices.electricityCarbon_kg_kWh * ledger.sum(Metered::electricity);
  for (const Meter& m : ledger.meters()) {
    if (m.of != Metered::fuel || m.index >= plan.heaters.size()) continue;
    const Heater& heater = plan.heaters[m.index];
    if (factsOf(carrierOf(heater)).isFossil) kg += m.amount * carbonDioxide_kg_kWh(carrierOf(heater));
  }
  return kg;
}
} // namespace

Cost winterCost(const Plan& plan, const Prices& prices, const Ledger& ledger, double winters, const std::vector<Bought>& kit) {
  Cost cost;
  cost.energy = ledger.money(plan, prices) / winters + prices.electricityStanding_per_day * kWinterDays;
  cost.spread = prices.electricitySpread * ledger.money(plan, prices, Metered::electricity) / winters;
  for (const Meter& m : ledger.meters()) // prices that may be off are so for the whole winter, and all one way
    if (m.of == Metered::fuel && m.index < plan.heaters.size())
      cost.spread += plan.heaters[m.index].fuelPriceSpread * m.amount * plan.heaters[m.index].fuelPrice_kWh / winters;
  for (const FuelWinter& fuel : fuelOfWinter(plan, ledger, winters)) cost.energy += fuel.deliveryCost;
  cost.hours = ledger.sum(Metered::work) / winters;
  for (const Bought& k : kit) {
    cost.kit += k.capital * annuityFactor(prices.interest, k.life_years);
    cost.hours += k.hoursPerWinter;
  }
  cost.hoursMoney = cost.hours * prices.hour;
  cost.carbon_kg = carbonDioxide_kg(plan, prices, ledger) / winters;
  cost.carbon = cost.carbon_kg / 1000.0 * prices.carbon_per_tonne;
  return cost;
}

} // namespace muffle
