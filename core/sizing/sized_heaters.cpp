// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sizing/sized_heaters.h"

#include "core/calendar.h"
#include "core/plan/heaters.h"
#include "core/plan/measure_rules.h"
#include "core/plan/measure_table.h"
#include "core/plan/own_measure.h"
#include "core/sizing/sizing.h"

#include <algorithm>
#include <cmath>
#include <utility>

namespace muffle {
namespace {

SizedHeaters::Prices pricesOf(const Plan& plan, const Weather& weather, const Heater& heater) {
  const auto named = TimeZone::named(plan.site.timeZone);
  const TimeZone zone = named ? *named : TimeZone::utc();
  const Tariff tariff = plan.prices.electricity();
  SizedHeaters::Prices prices;
  for (const Winter& winter : weather.winters) {
    LocalClock clock(zone);
    std::vector<float> money(winter.size()), capacity(winter.size(), 1.0F);
    for (std::size_t i = 0; i < winter.size(); ++i) {
      double perHeat = 1.0 / efficiencyOf(heater);
      if (heater.kind == HeaterKind::heatPump) {
        const HeatPumpPoint at = heatPumpAt(heater, winter.outside_C[i]);
        perHeat = 1.0 / at.cop;
        capacity[i] = static_cast<float>(at.capacity);
      }
      // by the hours that the ledger keeps (Run::hour()), in which the step that ends here began
      const auto since = static_cast<UtcSeconds>(static_cast<double>(i > 0 ? i - 1 : 0) * winter.step_s / 3600.0) * 3600;
      const int hour = clock.hourOfWeek(winter.time(0) + since);
      const double price = carrierOf(heater) == Carrier::electricity ? tariff.priceAt(hour / 24, hour % 24) : heater.fuelPrice_kWh;
      money[i] = static_cast<float>(price * perHeat);
    }
    prices.money_kWh.push_back(std::move(money));
    prices.capacity.push_back(std::move(capacity));
  }
  return prices;
}

} // namespace

std::optional<SizedHeaters> sizedHeaters(const Plan& plan, const Weather& weather) {
  constexpr std::size_t kMostSets = 400;
  constexpr double kMuchTheSame = 0.15; // of the heat, that one radiates more than another: else the bound lies too low to be of use
  SizedHeaters sized;
  std::size_t sets = 1;
  const HeaterKindFacts* like = nullptr;
  if (std::any_of(plan.measures.begin(), plan.measures.end(), [](const Measure& m) { return setsAny(m, "/heaters/"); })) return std::nullopt;
  for (std::size_t k = 0; k < plan.measures.size(); ++k) {
    const Measure& m = plan.measures[k];
    if (m.kind != MeasureKind::heater) continue;
    Plan with = plan;
    rowOf(m.kind).apply(with, m, 1000.0);
    const Heater& heater = *heaterIn(std::as_const(with), {HeaterPlace::Of::house});
    const HeaterKindFacts& facts = factsOf(heater.kind);
    if (facts.control != HeatControl::thermostat || countOfRoomHeaters(with) != 1) return std::nullopt;
    if (like && (std::abs(facts.radiantShare - like->radiantShare) > kMuchTheSame || !facts.hasFlue || !like->hasFlue)) return std::nullopt;
    if (!like || facts.radiantShare < factsOf(plan.measures[sized.measures[sized.leastRadiant]].heater).radiantShare)
      sized.leastRadiant = sized.measures.size();
    like = &facts;
    sized.measures.push_back(k);
    sized.prices.push_back(pricesOf(plan, weather, heater));
    sets *= static_cast<std::size_t>(levelCount(m)) + 1;
    if (sets > kMostSets) return std::nullopt;
  }
  if (!like) return std::nullopt;
  std::vector<int> set(sized.measures.size(), kNotBuilt);
  for (std::size_t n = 1; n < sets; ++n) { // the first varies slowest, as packages do
    for (std::size_t k = set.size(); k-- > 0;) {
      if (++set[k] < levelCount(plan.measures[sized.measures[k]])) break;
      set[k] = kNotBuilt;
    }
    sized.sets.push_back(set);
  }
  return sized;
}

LeastMoney leastMoney(const SizedHeaters& heaters, const Plan& plan, std::size_t set, std::size_t winter, std::span<const float> load_W, double step_s) {
  std::vector<std::pair<double, const SizedHeaters::Prices*>> inTurn;
  for (std::size_t h = 0; h < heaters.measures.size(); ++h)
    if (const int level = heaters.sets[set][h]; level >= 0)
      inTurn.emplace_back(plan.measures[heaters.measures[h]].levels[static_cast<std::size_t>(level)], &heaters.prices[h]);
  LeastMoney least;
  for (std::size_t i = 1; i < load_W.size(); ++i) {
    double left_W = static_cast<double>(load_W[i]);
    for (const auto& [size_W, prices] : inTurn) {
      const double gives_W = std::min(size_W * static_cast<double>(prices->capacity[winter][i]), left_W);
      least.money += gives_W * static_cast<double>(prices->money_kWh[winter][i]);
      left_W -= gives_W;
    }
    least.isShort = least.isShort || left_W > 0.0;
  }
  least.money *= step_s / 3.6e6;
  return least;
}

} // namespace muffle
