// SPDX-License-Identifier: GPL-3.0-or-later
//
// Tariffs, bills and lives: laws that every price must keep, and figures by hand.
#include "core/cost/life.h"
#include "core/heater/tariff.h"
#include "tests/support/near.h"

#include <numeric>
#include <random>

namespace muffle {
namespace {

std::vector<double> someHours(unsigned seed, std::size_t hours) {
  std::mt19937 random(seed);
  std::uniform_real_distribution<double> uniform(0.0, 3.0);
  std::vector<double> kWh(hours);
  for (double& x : kWh) x = std::max(0.0, uniform(random) - 1.0);
  return kWh;
}

TEST(Tariffs, EveryHourBelongsToOneWindowAndTheBillToItsHours) {
  Tariff tariff{.windows = {{0x1F, 16, 20, 0.48}, {0x60, 22, 8, 0.12}, {0x7F, 0, 5, 0.16}}, .price_per_kWh = 0.24, .standing_per_day = 0.4, .vat = 0.05};
  for (unsigned seed = 0; seed < 20; ++seed) {
    const auto kWh = someHours(seed, 24 * 30);
    const ElectricityBill bill = electricityBill(tariff, kWh, static_cast<int>(seed % 7));
    EXPECT_CLOSE(std::accumulate(bill.kWhByWindow.begin(), bill.kWhByWindow.end(), 0.0), bill.bought_kWh, 1e-9, "rounding");
    EXPECT_CLOSE(bill.total, 1.05 * (bill.energy + 30 * 0.4), 1e-9, "rounding");
    EXPECT_GE(bill.energy, 0.12 * bill.bought_kWh - 1e-9) << "no kWh is cheaper than the cheapest";
    EXPECT_LE(bill.energy, 0.48 * bill.bought_kWh + 1e-9);
  }
}

TEST(Tariffs, AWindowOverMidnightHoldsBothItsEnds) {
  const TariffWindow night{.weekdays = 0x7F, .from_h = 22, .to_h = 8};
  EXPECT_TRUE(night.holds(0, 22) && night.holds(0, 3) && !night.holds(0, 8) && !night.holds(0, 21));
  const TariffWindow weekend{.weekdays = 0x60};
  EXPECT_TRUE(weekend.holds(5, 12) && weekend.holds(6, 0) && !weekend.holds(4, 23));
}

TEST(FuelBills, WholeUnitsInWholeOrdersAndWhatIsLeft) {
  const FuelBill bill = fuelBill({.kWhPerUnit = 10.0, .pricePerUnit = 5.0, .unitsPerOrder = 2, .deliveryCharge = 3.0}, std::vector<double>(48, 0.52));
  EXPECT_CLOSE(bill.need_units, 48 * 0.052, 1e-12, "rounding");
  EXPECT_EQ(bill.units, 3);
  EXPECT_EQ(bill.orders, 2);
  EXPECT_CLOSE(bill.total, 3 * 5.0 + 2 * 3.0, 1e-12, "rounding");
  ASSERT_TRUE(bill.firstUnitGone_day);
  EXPECT_EQ(*bill.firstUnitGone_day, 0) << "the twentieth hour";
  EXPECT_FALSE(fuelBill({.kWhPerUnit = 1000.0}, std::vector<double>(48, 0.5)).firstUnitGone_day);
}

TEST(Lives, AResidualIsWorthLessThanItsPriceAndUpkeepAddsUp) {
  const KitPart bare{1000.0, 10, 0.0, 0.0}, kept{1000.0, 10, 0.3, 0.0}, tended{1000.0, 10, 0.0, 0.02};
  EXPECT_LT(yearlyCost(kept, 0.04), yearlyCost(bare, 0.04));
  EXPECT_CLOSE(yearlyCost(tended, 0.04) - yearlyCost(bare, 0.04), 20.0, 1e-9, "rounding");
  EXPECT_CLOSE(yearlyCost(bare, 0.0), 100.0, 1e-9, "without interest a tenth");
  EXPECT_EQ(kitCost(std::vector<KitPart>{{1.0, 4, 0, 0}, {1.0, 6, 0, 0}}, 0.03).horizon_years, 12);
}

TEST(BreakEven, BothCostTheSameThere) {
  const HeatingWay a{16.0, 0.3}, b{340.0, 0.09};
  const auto heat = breakEvenHeat_kWh(a, b);
  ASSERT_TRUE(heat);
  EXPECT_CLOSE(a.cost(*heat), b.cost(*heat), 1e-9, "rounding");
  EXPECT_FALSE(breakEvenHeat_kWh({340.0, 0.3}, {16.0, 0.09})) << "dearer in both";
  const double price = breakEvenPrice(a, b.yearly, 0.65, 5000.0);
  EXPECT_CLOSE(HeatingWay({b.yearly, price / 0.65}).cost(5000.0), a.cost(5000.0), 1e-9, "rounding");
}

} // namespace
} // namespace muffle
