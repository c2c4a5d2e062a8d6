// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/cost/fuel_orders.h"

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

double unit_kWh(const Heater& heater) { return kWhPerUnit(carrierOf(heater), heater.boughtBy, heater.stoking.moisture); }

MeterUse useOf(const Heater& heater) { return !heater.place.isRoom() ? MeterUse::tankHeater : MeterUse::heater; }

} // namespace

std::vector<FuelWinter> fuelOfWinter(const Plan& plan, const Ledger& ledger, double winters) {
  std::vector<FuelWinter> all;
  for (std::size_t i = 0; i < plan.heaters.size(); ++i) {
    const Heater& h = plan.heaters[i];
    const double each_kWh = unit_kWh(h);
    if (carrierOf(h) == Carrier::electricity || each_kWh <= 0.0 || winters <= 0.0) continue;
    FuelWinter fuel{i, ledger.sum(Metered::fuel, useOf(h), i) / winters / each_kWh, 0.0, 0, 0.0};
    fuel.fromStock = std::min(fuel.units, h.delivery.stock_units);
    if (h.delivery.units > 0.0) {
      constexpr double kRounding = 1e-9;
      fuel.deliveries = static_cast<long>(std::ceil((fuel.units - fuel.fromStock) / h.delivery.units - kRounding));
      fuel.deliveryCost = static_cast<double>(fuel.deliveries) * h.delivery.charge;
    }
    all.push_back(fuel);
  }
  return all;
}

std::optional<std::size_t> stockGone_h(const Plan& plan, std::size_t heater, const Ledger& winter) {
  const Heater& h = plan.heaters[heater];
  const double stock_kWh = h.delivery.stock_units * unit_kWh(h);
  if (stock_kWh <= 0.0) return std::nullopt;
  double taken_kWh = 0.0;
  for (const Meter& m : winter.meters())
    if (m.of == Metered::fuel && m.use == useOf(h) && m.index == heater)
      for (std::size_t hour = 0; hour < m.hour.size(); ++hour)
        if ((taken_kWh += static_cast<double>(m.hour[hour])) > stock_kWh) return hour;
  return std::nullopt;
}

} // namespace muffle
