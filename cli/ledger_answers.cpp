// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/ledger_answers.h"

#include "cli/digits.h"
#include "core/cost/fuel_orders.h"
#include "core/plan/names.h"
#include "words/words.h"

#include <algorithm>

namespace muffle {

Json heatersAnswer(const Plan& plan, const Summary& summary) {
  Json all = Json::array();
  const auto fuel = fuelOfWinter(plan, summary.ledger, summary.winters);
  for (std::size_t i = 0; i < plan.heaters.size(); ++i) {
    const Heater& heater = plan.heaters[i];
    const MeterUse use = !heater.place.isRoom() ? MeterUse::tankHeater : MeterUse::heater;
    const bool isElectric = carrierOf(heater) == Carrier::electricity;
    const double given_kWh = summary.ledger.heat_kWh(use, i);
    const double taken_kWh = summary.ledger.sum(isElectric ? Metered::electricity : Metered::fuel, use, i);
    Json& answer = all.emplace_back();
    answer = {{"id", heater.id}, {"name", english(nameOf(plan, heater))}, {"kind", factsOf(heater.kind).id}, {"in", placeId(heater.place)}, {"given_kWh", digits(given_kWh, 2)}};
    answer[isElectric ? "electricity_kWh" : "fuel_kWh"] = digits(taken_kWh, 2);
    answer["full_load_h"] = heater.power_W > 0.0 ? Json(digits(1000.0 * given_kWh / heater.power_W, 1)) : Json();
    answer["takes"] = factsOf(carrierOf(heater)).id;
    if (const double unit_kWh = kWhPerUnit(carrierOf(heater), heater.boughtBy, heater.stoking.moisture); !isElectric && unit_kWh > 0.0) {
      answer["bought_by"] = heater.boughtBy;
      answer["units"] = digits(taken_kWh / unit_kWh, 2);
      const auto mine = std::find_if(fuel.begin(), fuel.end(), [&](const FuelWinter& f) { return f.heater == i; });
      if (mine != fuel.end() && heater.delivery.units > 0.0) {
        answer["deliveries_a_winter"] = mine->deliveries;
        answer["delivery_cost_a_winter"] = digits(mine->deliveryCost, 2);
      }
      if (mine != fuel.end() && heater.delivery.stock_units > 0.0) answer["from_stock_units_a_winter"] = digits(mine->fromStock, 2);
    }
    const double own_kWh = summary.ledger.sum(Metered::electricity, MeterUse::heaterOwn, i);
    if (own_kWh > 0.0) answer["own_electricity_kWh"] = digits(own_kWh, 2);
    if (i < summary.heaters.size()) {
      answer["starts"] = summary.heaters[i].starts;
      if (factsOf(heater.kind).control == HeatControl::batches) {
        answer["loads"] = summary.heaters[i].loads;
        answer["loads_at_night"] = summary.heaters[i].atNight;
      }
    }
    if (!heater.tendedBy.empty()) answer["tended_by"] = heater.tendedBy;
    answer["tending_h"] = digits(summary.ledger.sum(Metered::work, MeterUse::stoking, i) + summary.ledger.sum(Metered::work, MeterUse::refuelling, i), 2);
    answer["cost_a_winter"] =
        digits((summary.ledger.money(plan, plan.prices, use, i) + summary.ledger.money(plan, plan.prices, MeterUse::heaterOwn, i)) / summary.winters, 2);
  }
  return all;
}

Json workAnswer(const Plan& plan, const Summary& summary) {
  Json all = Json::array();
  const auto tell = [&](const std::string& what, double hours, const std::string& by = {}) {
    if (hours <= 0.0) return;
    all.push_back({{"what", what}, {"hours_a_winter", digits(hours, 2)}});
    if (!by.empty()) all.back()["by"] = by;
  };
  for (const Meter& m : summary.ledger.meters()) {
    if (m.of != Metered::work) continue;
    const auto what = [&]() -> std::string {
      switch (m.use) {
      case MeterUse::blanket: return "drawing the blanket";
      case MeterUse::venting: return "opening and shutting vents";
      case MeterUse::bedCover: return "lifting " + english(nameOf(plan.house.bedCovers[m.index]));
      case MeterUse::stoking: return "stoking " + english(nameOf(plan, plan.heaters[m.index]));
      default: return "refuelling " + english(nameOf(plan, plan.heaters[m.index]));
      }
    };
    const bool isTending = m.use == MeterUse::stoking || m.use == MeterUse::refuelling;
    tell(what(), m.amount / summary.winters, isTending ? plan.heaters[m.index].tendedBy : std::string());
  }
  for (const Bought& k : kitOf(plan)) tell(english(k.name), k.hoursPerWinter);
  return all;
}

} // namespace muffle
