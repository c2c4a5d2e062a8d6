// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/cost/cost.h"

#include "core/sizing/sizing.h"
#include "tests/support/near.h"
#include "words/words.h"

#include <cmath>

namespace muffle {
namespace {

TEST(Cost, AnnuityPaysTheLoanBack) {
  for (const double rate : {0.01, 0.04, 0.12}) {
    for (const double years : {1.0, 5.0, 20.0}) {
      double owed = 1.0;
      for (int y = 0; y < static_cast<int>(years); ++y) owed = owed * (1.0 + rate) - annuityFactor(rate, years);
      EXPECT_CLOSE(owed, 0.0, 1e-10, "rounding over twenty years of interest");
    }
  }
  EXPECT_CLOSE(annuityFactor(0.0, 8.0), 1.0 / 8.0, 1e-12, "without interest it is shared out evenly");
  EXPECT_CLOSE(annuityFactor(1e-9, 8.0), 1.0 / 8.0, 1e-6, "and comes near to it smoothly");
}

TEST(Cost, AWinterIsPowerKitAndHours) {
  Plan plan;
  plan.heaters = {{.id = "heater"}, {.id = "boiler", .kind = HeaterKind::boiler, .fuelPrice_kWh = 0.1}};
  Prices& prices = plan.prices;
  prices.electricity_per_kWh = 0.25;
  prices.interest = 0.05;
  prices.hour = 12.0;
  Ledger two; // winters
  two.add(two.meter(Metered::electricity, MeterUse::heater, 0), 1500.0, 1500.0);
  two.add(two.meter(Metered::electricity, MeterUse::roomFan, 0), 500.0);
  two.add(two.meter(Metered::fuel, MeterUse::tankHeater, 1), 400.0, 320.0);
  two.add(two.meter(Metered::work, MeterUse::blanket, 0), 20.0);
  const Cost c = winterCost(plan, prices, two, 2.0, {{{}, 200.0, 4.0, 3.0}, {{}, 300.0, 15.0, 1.0}});
  EXPECT_CLOSE(c.energy, 1000.0 * 0.25 + 200.0 * 0.1, 1e-9, "rounding");
  EXPECT_CLOSE(c.kit, 200.0 * annuityFactor(0.05, 4.0) + 300.0 * annuityFactor(0.05, 15.0), 1e-9, "rounding");
  EXPECT_CLOSE(c.hours, 10.0 + 4.0, 1e-12, "rounding");
  EXPECT_CLOSE(c.total(), c.energy + c.kit + 14.0 * 12.0, 1e-9, "rounding");
}

TEST(Cost, HoursAreShownThoughTheyAreWorthNothing) {
  Prices prices;
  prices.hour = 0.0;
  const Cost c = winterCost({}, prices, {}, 1.0, {{{}, 0.0, 4.0, 3.0}});
  EXPECT_DOUBLE_EQ(c.hours, 3.0);
  EXPECT_DOUBLE_EQ(c.hoursMoney, 0.0);
}

TEST(Sizing, CountsItsPackagesWithoutOverflow) {
  Plan plan;
  EXPECT_EQ(packageCount(plan), 1U);
  Measure sized;
  sized.kind = MeasureKind::barrels;
  sized.levels = {5, 10, 20};
  plan.measures.assign(3, sized);
  EXPECT_EQ(packageCount(plan), 64U);
  Measure film;
  film.kind = MeasureKind::secondSkin;
  plan.measures.push_back(film);
  EXPECT_EQ(packageCount(plan), 128U);
  plan.measures.assign(60, sized);
  EXPECT_GT(packageCount(plan), 4096U);
}

TEST(SkinCost, IsOfTheLayersThatHaveAPrice) {
  Prices prices;
  priceOf(prices, "pe-film").price_per_m2 = 1.5;
  priceOf(prices, "bubble-wrap").price_per_m2 = 3.0;
  const SkinCost cost = skinCost({{{"pe-film", 0.05}, {"fleece", 0.05}, {"bubble-wrap", 0.05}}}, 100.0, prices);
  EXPECT_EQ(cost.priced, 2);
  EXPECT_CLOSE(cost.capital, 450.0, 1e-9, "closed form");
  EXPECT_EQ(priceOf(std::as_const(prices), "glass-4mm"), nullptr);
}

TEST(SkinCost, PricesOfUnknownMaterialsAndTwoOfOneAreRefused) {
  Plan p;
  p.prices.materials = {{"pe-film", 1.0}, {"cobweb", 1.0}, {"pe-film", 2.0}};
  const Problems problems = check(p);
  ASSERT_EQ(problems.size(), 2U);
  EXPECT_EQ(problems[0].where, "/prices/materials/1/material");
  EXPECT_EQ(problems[1].where, "/prices/materials/2/material");
}

TEST(Sizing, BuildsWhatWasChosen) {
  Plan plan;
  plan.house.airChanges_per_h = 0.9;
  Measure sealing;
  sealing.kind = MeasureKind::sealing;
  sealing.levels = {0.4};
  sealing.price = 90.0;
  Measure blanket;
  blanket.kind = MeasureKind::nightBlanket;
  blanket.material = "woven-blanket";
  blanket.price = 6.0;
  blanket.hoursPerNight = 0.25;
  plan.measures = {sealing, blanket};
  const Package none = buildPackage(plan, {-1, -1});
  EXPECT_EQ(english(none.label), "as it is");
  EXPECT_TRUE(none.kit.empty());
  const Package both = buildPackage(plan, {0, 0});
  EXPECT_DOUBLE_EQ(both.plan.house.airChanges_per_h, 0.4);
  ASSERT_TRUE(both.plan.house.blanket);
  double capital = 0.0, hours = 0.0;
  for (const Bought& k : both.kit) capital += k.capital, hours += k.hoursPerWinter;
  EXPECT_CLOSE(capital, 90.0 + 6.0 * plan.house.shape.cover_m2(), 1e-9, "rounding: the blanket is priced by the cover it hangs under");
  EXPECT_EQ(hours, 0.0) << "the blanket's work is counted by the nights that it is drawn";
  EXPECT_EQ(both.plan.house.blanket->hoursPerDraw, 0.25);
}

TEST(Cost, CarbonIsCountedWhereItIsFossilAndPricedWhereTheGrowerHasAPrice) {
  Plan plan;
  plan.heaters = {{.id = "a", .kind = HeaterKind::propane}, {.id = "b", .kind = HeaterKind::woodStove}};
  Ledger ledger;
  ledger.add(ledger.meter(Metered::electricity, MeterUse::roomFan, 0), 100.0);
  ledger.add(ledger.meter(Metered::fuel, MeterUse::heater, 0), 1000.0);
  ledger.add(ledger.meter(Metered::fuel, MeterUse::heater, 1), 5000.0);
  plan.prices.electricityCarbon_kg_kWh = 0.4;
  const Cost free = winterCost(plan, plan.prices, ledger, 2.0, {});
  // propane: 3 x 44.01/44.10 kg of carbon dioxide a kilogram, which has 46.35 MJ
  EXPECT_NEAR(free.carbon_kg, (0.4 * 100.0 + 1000.0 * 3.0 * 44.01 / 44.097 / (46.35 / 3.6)) / 2.0, 0.4)
      << "heating values by handbook differ in the third digit";
  EXPECT_EQ(free.carbon, 0.0);
  plan.prices.carbon_per_tonne = 200.0;
  const Cost priced = winterCost(plan, plan.prices, ledger, 2.0, {});
  EXPECT_DOUBLE_EQ(priced.carbon, 0.2 * free.carbon_kg);
  EXPECT_DOUBLE_EQ(priced.total(), free.total() + priced.carbon);
}

} // namespace
} // namespace muffle
