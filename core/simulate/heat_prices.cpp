// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/simulate/heat_prices.h"

#include "core/plan/heaters.h"

#include <algorithm>
#include <array>

namespace muffle {
namespace {

constexpr std::array kUsual{HeaterKind::electric,    HeaterKind::heatPump,  HeaterKind::propane,          HeaterKind::gas,     HeaterKind::oil,
                            HeaterKind::pelletStove, HeaterKind::woodStove, HeaterKind::paraffinUnvented, HeaterKind::district};

/// A winter's heat of the rooms, and what electricity would have cost for it: as it is, and by a heat pump.
struct Loads {
  double heat_kWh = 0.0, electricity = 0.0, pump = 0.0;
};

Loads loadsOf(const Plan& plan, const Weather& weather, const Simulation& run) {
  const auto named = TimeZone::named(plan.site.timeZone);
  LocalClock clock(named ? *named : TimeZone::utc());
  const Tariff tariff = plan.prices.electricity();
  const Heater usual{.kind = HeaterKind::heatPump};
  Loads sum;
  for (std::size_t w = 0; w < run.series.size() && w < weather.winters.size(); ++w) {
    const Winter& winter = weather.winters[w];
    for (std::size_t i = 1; i < run.series[w].heater_W.size(); ++i) {
      const double heat_kWh = static_cast<double>(run.series[w].heater_W[i]) * winter.step_s / 3.6e6;
      if (heat_kWh <= 0.0) continue;
      const int hour = clock.hourOfWeek(winter.time(i - 1));
      const double price = tariff.priceAt(hour / 24, hour % 24);
      const double pump_kWh = heat_kWh / heatPumpAt(usual, winter.outside_C[i]).cop;
      sum.heat_kWh += heat_kWh;
      sum.electricity += heat_kWh * price;
      sum.pump += pump_kWh * price;
    }
  }
  return sum;
}

} // namespace

std::optional<double> fuelPrice_kWh(const Plan& plan, Carrier fuel) {
  for (const Heater& h : plan.heaters)
    if (carrierOf(h) == fuel && h.fuelPrice_kWh > 0.0) return h.fuelPrice_kWh;
  const FuelPrice* listed = listedPrice(plan.prices, fuel);
  return listed && listed->price_kWh > 0.0 ? std::optional(listed->price_kWh) : std::nullopt;
}

std::vector<HeatPrice> heatPrices(const Plan& plan, const Weather& weather, const Simulation& run) {
  std::vector<HeatPrice> all;
  const Loads loads = loadsOf(plan, weather, run);
  if (loads.heat_kWh <= 0.0) return all;
  const double power = loads.electricity / loads.heat_kWh; // of a kWh, as the hours of heating have it
  for (const HeaterKind kind : kUsual) {
    const HeaterKindFacts& facts = factsOf(kind);
    HeatPrice price{kind, facts.carrier, {}};
    if (kind == HeaterKind::heatPump) {
      price.perHeat = loads.pump / loads.heat_kWh;
    } else if (facts.carrier == Carrier::electricity) {
      price.perHeat = power / facts.efficiency;
    } else if (const auto fuel = fuelPrice_kWh(plan, facts.carrier)) {
      price.perHeat = *fuel / facts.efficiency + facts.ownPower * power;
    }
    all.push_back(price);
  }
  std::stable_sort(all.begin(), all.end(), [](const HeatPrice& a, const HeatPrice& b) {
    return a.perHeat.has_value() != b.perHeat.has_value() ? a.perHeat.has_value() : a.perHeat && *a.perHeat < *b.perHeat;
  });
  return all;
}

} // namespace muffle
