// SPDX-License-Identifier: GPL-3.0-or-later
//
// Fuels side by side, prices with a range, heaters that wait for cheap hours, delivered heat that follows the weather.
#include "core/simulate/heat_prices.h"

#include "core/plan/heaters.h"
#include "core/plan/plan_json.h"
#include "tests/support/frost.h"
#include "tests/support/near.h"
#include "words/words.h"

#include <algorithm>

namespace muffle {
namespace {

Simulation pricedRun(const Plan& plan) {
  EXPECT_TRUE(check(plan).empty()) << english(check(plan).front());
  return std::move(*simulate(plan, makeScene(testing::frost(plan.site), plan), {.series = true}));
}

Plan heated() {
  Plan p = testing::filmTunnel();
  p.setpoints = {1.0, 4.0, 4.0};
  p.prices.electricity_per_kWh = 0.30;
  addHeater(p, {.id = "fan", .power_W = 20000.0});
  return p;
}

const HeatPrice& of(const std::vector<HeatPrice>& all, HeaterKind kind) {
  return *std::find_if(all.begin(), all.end(), [kind](const HeatPrice& p) { return p.kind == kind; });
}

TEST(HeatPrices, AreByEfficiencyOwnElectricityAndTheWeatherOfTheHoursOfHeating) {
  Plan p = heated();
  p.prices.fuels = {{Carrier::heatingOil, "litre", 0.11}, {Carrier::pellets, "bag-15kg", 0.07}};
  const Simulation run = pricedRun(p);
  const auto weather = testing::frost(p.site);
  const auto prices = heatPrices(p, *weather, run);
  EXPECT_CLOSE(*of(prices, HeaterKind::electric).perHeat, 0.30, 1e-12, "a kWh for a kWh");
  const HeaterKindFacts& oil = factsOf(HeaterKind::oil);
  EXPECT_CLOSE(*of(prices, HeaterKind::oil).perHeat, 0.11 / oil.efficiency + oil.ownPower * 0.30, 1e-12, "fuel, and its fan");
  EXPECT_FALSE(of(prices, HeaterKind::propane).perHeat) << "nobody said what it costs";
  double pump_kWh = 0.0, heat_kWh = 0.0;
  const Winter& w = weather->winters[0];
  for (std::size_t i = 1; i < w.size(); ++i) {
    heat_kWh += static_cast<double>(run.series[0].heater_W[i]) * 600.0 / 3.6e6;
    pump_kWh += static_cast<double>(run.series[0].heater_W[i]) * 600.0 / 3.6e6 / heatPumpAt({.kind = HeaterKind::heatPump}, w.outside_C[i]).cop;
  }
  EXPECT_CLOSE(*of(prices, HeaterKind::heatPump).perHeat, 0.30 * pump_kWh / heat_kWh, 1e-9, "by hand");
  EXPECT_CLOSE(*of(prices, HeaterKind::electric).perHeat * heat_kWh / run.summary.winters - p.prices.electricityStanding_per_day, run.summary.cost.energy,
               2e-3 * run.summary.cost.energy, "floats: what the plan itself pays");
  for (std::size_t k = 1; k < prices.size(); ++k) {
    EXPECT_TRUE(prices[k - 1].perHeat.has_value() || !prices[k].perHeat.has_value()) << "those without a price last";
    if (prices[k].perHeat) { EXPECT_LE(*prices[k - 1].perHeat, *prices[k].perHeat); }
  }
  p.heaters[0].kind = HeaterKind::oil;
  p.heaters[0].boughtBy = "litre";
  p.heaters[0].fuelPrice_kWh = 0.2;
  EXPECT_EQ(fuelPrice_kWh(p, Carrier::heatingOil), 0.2) << "the plan's own first";
  p.heaters.clear();
  EXPECT_TRUE(heatPrices(p, *weather, pricedRun(p)).empty()) << "no loads";
}

TEST(HeatPrices, DearHoursCountByTheHeatThatFallsIntoThem) {
  Plan p = heated();
  p.prices.electricityWindows = {{.from_h = 22, .to_h = 6, .price_per_kWh = 0.10}};
  const Simulation run = pricedRun(p);
  const auto prices = heatPrices(p, *testing::frost(p.site), run);
  const double perHeat = *of(prices, HeaterKind::electric).perHeat;
  EXPECT_GT(perHeat, 0.10);
  EXPECT_LT(perHeat, 0.30);
  EXPECT_CLOSE(perHeat, run.summary.ledger.money(p, p.prices, Metered::electricity) / run.summary.heater_kWh, 1e-3,
               "what the ledger bills: floats in the series");
}

TEST(HeatPrices, AHeaterWaitsForCheapHoursAndLeavesTheRestToTheNext) {
  Plan p = heated();
  p.prices.electricityWindows = {{.from_h = 22, .to_h = 6, .price_per_kWh = 0.10}};
  p.heaters[0].onlyBelowPrice_kWh = 0.2;
  addHeater(p, {.id = "oil", .kind = HeaterKind::oil, .power_W = 20000.0, .stage_K = 0.2, .fuelPrice_kWh = 0.11, .boughtBy = "litre"});
  const Simulation run = pricedRun(p);
  const auto byWindow = run.summary.ledger.electricity_kWh(p.prices.electricity());
  const double own_kWh = run.summary.ledger.sum(Metered::electricity, MeterUse::heaterOwn, 1);
  EXPECT_GT(byWindow[0], 10.0);
  EXPECT_LE(byWindow[1], own_kWh + 1e-6) << "in dear hours only the oil burner's fan";
  EXPECT_GT(run.summary.ledger.heat_kWh(MeterUse::heater, 1), 10.0);
  p.heaters[1].onlyBelowPrice_kWh = 0.2;
  const Problems problems = check(p);
  ASSERT_EQ(problems.size(), 1U);
  EXPECT_NE(english(problems.front()).find("only electric ones"), std::string::npos);
}

TEST(HeatPrices, ARangeOfPricesIsARangeOfWhatAWinterCosts) {
  Plan p = heated();
  p.prices.electricitySpread = 0.2;
  const Cost cost = pricedRun(p).summary.cost;
  EXPECT_CLOSE(cost.spread, 0.2 * cost.energy, 1e-9 * cost.energy, "all of it is electricity, none of it standing");
  p.prices.electricitySpread = 0.0;
  EXPECT_EQ(pricedRun(p).summary.cost.spread, 0.0);
  p.heaters[0].kind = HeaterKind::oil;
  p.heaters[0].boughtBy = "litre";
  p.heaters[0].fuelPrice_kWh = 0.1;
  p.heaters[0].fuelPriceSpread = 0.3;
  const Simulation oil = pricedRun(p);
  EXPECT_CLOSE(oil.summary.cost.spread, 0.3 * oil.summary.fuel, 1e-9 * oil.summary.fuel, "of the fuel alone");
}

TEST(HeatPrices, DeliveredHeatIsAsMuchAsTheWeatherLeaves) {
  Plan p = heated();
  p.heaters[0].kind = HeaterKind::district;
  p.heaters[0].power_W = 4000.0;
  const Simulation always = pricedRun(p);
  p.heaters[0].heatPump = {{-20.0, 0.25, 1.0}, {10.0, 0.25, 1.0}};
  const Simulation quarter = pricedRun(p);
  const auto most_W = [](const Simulation& run) { return *std::max_element(run.series[0].heater_W.begin(), run.series[0].heater_W.end()); };
  EXPECT_CLOSE(static_cast<double>(most_W(always)), 4000.0, 1.0, "its size");
  EXPECT_CLOSE(static_cast<double>(most_W(quarter)), 1000.0, 1.0, "a quarter of it");
  EXPECT_CLOSE(quarter.summary.ledger.sum(Metered::fuel, MeterUse::heater, 0), quarter.summary.ledger.heat_kWh(MeterUse::heater, 0), 1e-6, "heat for heat");
}

TEST(HeatPrices, ComeBackFromAFileAsTheyWere) {
  Plan p = heated();
  p.name = "priced";
  p.prices.fuels = {{Carrier::hardwood, "bale-10kg", 0.06}};
  p.prices.electricitySpread = 0.15;
  p.ask.hoursPerWeek = 4.5;
  p.heaters[0].onlyBelowPrice_kWh = 0.2;
  const auto back = planFromJson(planToJson(p));
  ASSERT_TRUE(back) << english(back.problem());
  EXPECT_EQ(*back, p);
  p.prices.fuels.push_back({Carrier::hardwood, "stere", 0.05});
  EXPECT_FALSE(check(p).empty()) << "one price a fuel";
}

} // namespace
} // namespace muffle
