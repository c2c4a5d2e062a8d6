// SPDX-License-Identifier: GPL-3.0-or-later
//
// What fuels hold and what burning makes of them: laws between the table's columns, and figures by hand.
#include "core/heater/carrier.h"

#include "tests/support/near.h"

namespace muffle {
namespace {

TEST(Carriers, StandInTheirOrderAndNoneIsMadeOfMoreThanItself) {
  for (std::size_t i = 0; i < carriers().size(); ++i) {
    const CarrierFacts& facts = carriers()[i];
    EXPECT_EQ(static_cast<std::size_t>(facts.kind), i) << facts.id;
    EXPECT_LE(facts.carbon + facts.hydrogen, 1.0 + 1e-9) << facts.id;
    EXPECT_GE(facts.gross_MJ_kg, facts.net_MJ_kg) << facts.id;
  }
}

TEST(Carriers, GrossIsNetWithTheWatersHeat) {
  for (const CarrierFacts& facts : carriers()) {
    if (facts.net_MJ_kg <= 0.0) continue;
    const double water_kg = 18.015 / 2.016 * facts.hydrogen;
    EXPECT_CLOSE(facts.gross_MJ_kg - facts.net_MJ_kg, 2.443 * water_kg, 0.03 * facts.gross_MJ_kg * 0.25,
                 "oxygen and nitrogen of mixtures, to a few tenths of a MJ/kg");
  }
}

TEST(Carriers, PropaneByHand) {
  // C3H8: 3 x 44.009 / 44.097 and 4 x 18.015 / 44.097 kg from a kg; 46.35 MJ/kg
  EXPECT_CLOSE(carbonDioxide_kg_kWh(Carrier::propane), 3 * 44.009 / 44.097 / (46.35 / 3.6), 1e-4, "the table's shares of carbon to four digits");
  EXPECT_CLOSE(water_kg_kWh(Carrier::propane), 4 * 18.015 / 44.097 / (46.35 / 3.6), 1e-4, "the same");
  EXPECT_CLOSE(kWhPerUnit(Carrier::propane, "bottle-11kg"), 11.0 * 46.35 / 3.6, 1e-9, "rounding");
  EXPECT_CLOSE(kWhPerUnit(Carrier::propane, "litre"), 0.508 * 46.35 / 3.6, 1e-9, "rounding");
}

TEST(Carriers, WetWoodHoldsLess) {
  double before = 10.0;
  for (const double moisture : {0.0, 0.1, 0.2, 0.35, 0.5}) {
    const double now = net_kWh_kg(Carrier::hardwood, moisture);
    EXPECT_LT(now, before);
    EXPECT_GT(water_kg_kWh(Carrier::hardwood, moisture), moisture > 0.0 ? water_kg_kWh(Carrier::hardwood, 0.0) : 0.0);
    before = now;
  }
  EXPECT_EQ(net_kWh_kg(Carrier::propane, 0.3), net_kWh_kg(Carrier::propane)) << "gas is never wet";
  EXPECT_CLOSE(net_kWh_kg(Carrier::hardwood, 0.2), (18.4 * 0.8 - 2.443 * 0.2) / 3.6, 1e-12, "rounding");
}

TEST(Carriers, OneTreesWoodIsLikeAnothersByTheKilogramAndUnlikeItByTheStack) {
  for (const CarrierFacts& wood : carriers()) {
    EXPECT_EQ(isWood(wood.kind), kWhPerUnit(wood.kind, "stere") > 0.0) << wood.id;
    if (!isWood(wood.kind)) continue;
    EXPECT_NEAR(net_kWh_kg(wood.kind) / net_kWh_kg(Carrier::beech), 1.0, 0.06) << wood.id;
  }
  EXPECT_GT(kWhPerUnit(Carrier::beech, "stere"), 1.4 * kWhPerUnit(Carrier::spruce, "stere"));
  EXPECT_NEAR(kWhPerUnit(Carrier::beech, "stere"), 1900.0, 150.0) << "what handbooks give for a stacked cubic metre";
}

TEST(Carriers, EveryUnitHoldsSomethingAndUnknownOnesNothing) {
  for (const CarrierFacts& facts : carriers()) {
    EXPECT_STREQ(unitsOf(facts.kind).front().id, "kWh") << facts.id;
    for (const FuelUnit& unit : unitsOf(facts.kind)) EXPECT_GT(kWhPerUnit(facts.kind, unit.id), 0.0) << facts.id << " by the " << unit.id;
    EXPECT_EQ(kWhPerUnit(facts.kind, "handful"), 0.0);
  }
}

} // namespace
} // namespace muffle
