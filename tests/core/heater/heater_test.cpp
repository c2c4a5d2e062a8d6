// SPDX-License-Identifier: GPL-3.0-or-later
//
// Kinds of heaters by themselves: what a heat pump gives in the cold, how a load burns.
#include "core/heater/heater.h"

#include "tests/support/near.h"

namespace muffle {
namespace {

TEST(HeaterKinds, StandInTheirOrderAndStandSomewhere) {
  for (std::size_t i = 0; i < heaterKinds().size(); ++i) {
    const HeaterKindFacts& facts = heaterKinds()[i];
    EXPECT_EQ(static_cast<std::size_t>(facts.kind), i) << facts.id;
    EXPECT_TRUE(facts.inRooms || facts.inTanks) << facts.id;
    EXPECT_GT(facts.efficiency, 0.0) << facts.id;
    EXPECT_TRUE(facts.efficiency <= 1.0 || facts.kind == HeaterKind::heatPump) << facts.id;
    EXPECT_TRUE(facts.hasFlue || water_kg_kWh(facts.carrier) > 0.0) << facts.id << " burns in the room: its water must be known";
  }
}

TEST(HeatPump, IsByItsPointsAndLosesToIceBelowFive) {
  Heater pump{.kind = HeaterKind::heatPump};
  pump.heatPump = {{-7.0, 0.8, 2.5}, {7.0, 1.0, 3.5}};
  EXPECT_CLOSE(heatPumpAt(pump, 7.0).cop, 3.5, 1e-12, "a point");
  EXPECT_CLOSE(heatPumpAt(pump, 20.0).capacity, 1.0, 1e-12, "beyond the last as at it");
  const HeatPumpPoint frosty = heatPumpAt(pump, 0.0); // half way, and iced
  EXPECT_CLOSE(frosty.capacity, 0.9 * 0.92, 1e-12, "rounding");
  EXPECT_CLOSE(frosty.cop, 3.0 * 0.92, 1e-12, "what it takes stays, what it gives is less");
}

TEST(BurnCurve, GivesAllThatTheLoadHoldsButTheFluesShare) {
  for (const double load_kg : {0.5, 3.0, 8.0, 25.0}) {
    Heater stove{.kind = HeaterKind::woodStove, .power_W = 7000.0};
    stove.stoking.load_kg = load_kg;
    const BurnCurve curve = burnCurve(stove);
    const double held_J = load_kg * net_kWh_kg(Carrier::hardwood, stove.stoking.moisture) * 3.6e6;
    EXPECT_CLOSE(curve.given_J(1e7) / held_J, 0.7, 1e-9, "embers of a thousand half-lives");
    EXPECT_LE(curve.peak_W, 7000.0 + 1e-6) << "no stove gives more than its size";
    double before = 0.0;
    for (double t = 60.0; t < 40000.0; t += 60.0) {
      EXPECT_GE(curve.given_J(t), before);
      EXPECT_LE(curve.given_J(t) - before, curve.peak_W * 60.0 * (1.0 + 1e-9));
      before = curve.given_J(t);
    }
  }
}

TEST(BurnCurve, ASmallLoadOnlyFlares) {
  Heater stove{.kind = HeaterKind::woodStove, .power_W = 7000.0};
  stove.stoking.load_kg = 1.0;
  const BurnCurve curve = burnCurve(stove);
  EXPECT_EQ(curve.plateau_s, 0.0);
  EXPECT_LT(curve.peak_W, 7000.0);
}

} // namespace
} // namespace muffle
