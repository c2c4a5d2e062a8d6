// SPDX-License-Identifier: GPL-3.0-or-later
//
// Fuel that comes in deliveries, and what stands in the yard.
#include "core/cost/cost.h"
#include "core/cost/fuel_orders.h"
#include "core/plan/plan_json.h"
#include "tests/support/near.h"

#include <random>

namespace muffle {
namespace {

Plan withBottles(double units, double charge, double stock) {
  Plan p;
  p.heaters = {{.id = "gas", .kind = HeaterKind::propane, .fuelPrice_kWh = 0.2, .boughtBy = "bottle-11kg"}};
  p.heaters[0].delivery = {units, charge, stock};
  return p;
}

Ledger twoWinters(const Plan& p, double bottles_a_winter) {
  Ledger ledger;
  const double kWh = 2.0 * bottles_a_winter * kWhPerUnit(Carrier::propane, p.heaters[0].boughtBy);
  ledger.add(ledger.meter(Metered::fuel, MeterUse::heater, 0), kWh, kWh);
  return ledger;
}

TEST(FuelOrders, WholeDeliveriesAfterWhatStandsInTheYard) {
  const Plan p = withBottles(4.0, 12.0, 3.0);
  const auto fuel = fuelOfWinter(p, twoWinters(p, 14.5), 2.0);
  ASSERT_EQ(fuel.size(), 1U);
  EXPECT_CLOSE(fuel[0].units, 14.5, 1e-9, "bottles a winter");
  EXPECT_EQ(fuel[0].deliveries, 3) << "11.5 bottles, four at a time";
  EXPECT_DOUBLE_EQ(fuel[0].deliveryCost, 36.0);
  EXPECT_EQ(fuelOfWinter(p, twoWinters(p, 2.9), 2.0)[0].deliveries, 0) << "the yard has it";
  EXPECT_EQ(fuelOfWinter(p, twoWinters(p, 7.0), 2.0)[0].deliveries, 1) << "four more to the bottle";
}

TEST(FuelOrders, WhatADeliveryIsChargedStandsInTheWintersCost) {
  const Plan with = withBottles(4.0, 12.0, 0.0), without = withBottles(0.0, 12.0, 0.0);
  const Ledger ledger = twoWinters(with, 10.0);
  EXPECT_CLOSE(winterCost(with, with.prices, ledger, 2.0, {}).energy - winterCost(without, without.prices, ledger, 2.0, {}).energy, 36.0, 1e-9,
               "three deliveries");
}

TEST(FuelOrders, LargerDeliveriesNeverComeMoreOftenAndStockNeverCosts) {
  std::mt19937 random(5);
  const auto between = [&](double low, double high) { return std::uniform_real_distribution<double>(low, high)(random); };
  for (int k = 0; k < 500; ++k) {
    const double units = between(1.0, 20.0), charge = between(0.0, 50.0), stock = between(0.0, 30.0), need = between(0.0, 60.0);
    const auto of = [&](double size, double inYard) {
      const Plan p = withBottles(size, charge, inYard);
      return fuelOfWinter(p, twoWinters(p, need), 2.0)[0];
    };
    EXPECT_LE(of(units * between(1.0, 3.0), stock).deliveries, of(units, stock).deliveries);
    EXPECT_LE(of(units, stock + between(0.0, 9.0)).deliveryCost, of(units, stock).deliveryCost);
    const FuelWinter fuel = of(units, stock);
    EXPECT_GE(fuel.fromStock + static_cast<double>(fuel.deliveries) * units, fuel.units - 1e-6) << "it is enough";
    EXPECT_LT(fuel.fromStock + static_cast<double>(fuel.deliveries - 1) * units, std::max(fuel.units, 1e-12)) << "and not one too many";
  }
}

TEST(FuelOrders, AStockIsGoneInTheHourThatTakesItsLast) {
  Plan p = withBottles(0.0, 0.0, 1.95);
  const double bottle_kWh = kWhPerUnit(Carrier::propane, p.heaters[0].boughtBy);
  Ledger winter(100);
  const std::size_t meter = winter.meter(Metered::fuel, MeterUse::heater, 0);
  for (std::size_t hour = 0; hour < 100; ++hour) winter.note(meter, bottle_kWh / 10.0, hour);
  EXPECT_EQ(stockGone_h(p, 0, winter), 19U) << "the twentieth tenth of a bottle";
  p.heaters[0].delivery.stock_units = 11.0;
  EXPECT_FALSE(stockGone_h(p, 0, winter)) << "it lasts";
  p.heaters[0].delivery.stock_units = 0.0;
  EXPECT_FALSE(stockGone_h(p, 0, winter)) << "there was none";
}

TEST(FuelOrders, AreKeptInThePlansFile) {
  const Plan p = withBottles(6.0, 9.5, 2.0);
  const auto again = planFromJson(planToJson(p));
  ASSERT_TRUE(again);
  EXPECT_EQ(again->heaters[0].delivery, p.heaters[0].delivery);
}

} // namespace
} // namespace muffle
