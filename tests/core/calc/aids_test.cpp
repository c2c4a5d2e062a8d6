// SPDX-License-Identifier: GPL-3.0-or-later
//
// Measuring aids: values as people write them, worked out with what their readings are off by.
#include "core/calc/aids.h"

#include "tests/support/near.h"
#include "words/words.h"

#include <cmath>
#include <random>

namespace muffle {
namespace {

std::vector<Measured> typicalOf(const Aid& aid) {
  std::vector<Measured> inputs;
  for (const AidInput& i : aid.inputs) inputs.push_back(*readMeasured(i.typical, i.kind));
  return inputs;
}

TEST(Quantity, IsReadWithAnyOfItsUnits) {
  EXPECT_CLOSE(readMeasured("5.2 kW", QuantityKind::power)->value, 5200.0, 1e-9, "rounding");
  EXPECT_CLOSE(readMeasured("5200", QuantityKind::power)->value, 5200.0, 1e-9, "the first unit where none is written");
  EXPECT_CLOSE(readMeasured("5,2kW", QuantityKind::power)->value, 5200.0, 1e-9, "a decimal comma, no blank");
  EXPECT_CLOSE(readMeasured("14 F", QuantityKind::temperature)->value, -10.0, 1e-12, "the definition");
  EXPECT_CLOSE(readMeasured("14 \xC2\xB0"
                            "F",
                            QuantityKind::difference)
                   ->value,
               14.0 / 1.8, 1e-12, "a difference has no zero point");
  const auto flow = readMeasured("310 +-15 L/h", QuantityKind::flow);
  EXPECT_CLOSE(flow->value, 310e-3 / 3600.0, 1e-12, "rounding");
  EXPECT_CLOSE(flow->uncertain, 15e-3 / 3600.0, 1e-12, "rounding");
  EXPECT_CLOSE(readMeasured("1.4 gal/min", QuantityKind::flow)->value, 1.4 * 3.785411784e-3 / 60.0, 1e-12, "the gallon's definition");
}

TEST(Quantity, SaysWhichUnitsAreAllowed) {
  for (const char* text : {"5.2 L/h", "many", "", "5 +-x W", "5 +- -1 W"}) {
    const auto power = readMeasured(text, QuantityKind::power);
    ASSERT_FALSE(power) << text;
    EXPECT_NE(english(power.problem().allowed).find("kW"), std::string::npos) << text;
  }
}

TEST(Quantity, IsShownWithTheDigitsItBears) {
  EXPECT_EQ(textOf({310e-3 / 3600.0, 15e-3 / 3600.0}, QuantityKind::flow), "310 \xC2\xB1 15 L/h");
  EXPECT_EQ(textOf({811.0, 32.4}, QuantityKind::power), "811 \xC2\xB1 32 W");
  EXPECT_EQ(textOf({-10.0, 0.25}, QuantityKind::temperature), "-10.00 \xC2\xB1 0.25 \xC2\xB0"
                                                              "C");
}

TEST(Aids, EachAnswersItsOwnTypicalReadings) {
  for (const Aid& aid : aids()) {
    const auto answer = work(aid, typicalOf(aid));
    ASSERT_TRUE(answer) << aid.name << english(answer.problem());
    ASSERT_EQ(answer->size(), aid.outputs.size()) << aid.name;
    for (const Measured& m : *answer) {
      EXPECT_TRUE(std::isfinite(m.value)) << aid.name;
      EXPECT_GT(m.value, 0.0) << aid.name;
      EXPECT_LT(m.uncertain, 0.2 * m.value) << aid.name << ": typical readings are good for something";
    }
  }
}

TEST(Aids, TheReverseUndoesTheAid) {
  const auto flow = work(*aidNamed("flow_from_power"), {{5200.0, 0.0}, {12.0, 0.0}});
  const auto power = work(*aidNamed("power_from_flow"), {{flow->front().value, 0.0}, {12.0, 0.0}});
  EXPECT_CLOSE(power->front().value, 5200.0, 1e-8, "rounding");
  const auto fuel = work(*aidNamed("fuel_for_heat"), {{5.5e8, 0.0}, {3.6e10, 0.0}, {0.85, 0.0}});
  const auto heat = work(*aidNamed("heat_from_fuel"), {{fuel->front().value, 0.0}, {3.6e10, 0.0}, {0.85, 0.0}});
  EXPECT_CLOSE(heat->front().value, 5.5e8, 1e-4, "rounding");
}

TEST(Aids, ATankOfTenBarrelsCoolingOverTheNight) {
  // 1980 L by 4.5 K in ten hours: 4.186e6 x 1.98 x 4.5 / 36000
  const auto answer = work(*aidNamed("tank_power"), typicalOf(*aidNamed("tank_power")));
  EXPECT_CLOSE((*answer)[0].value, 1036.0, 1.0, "three digits of the hand's sum");
}

TEST(Aids, TheUncertaintyIsThatOfManyReadings) {
  // against drawing each reading many times from its spread
  const Aid& aid = *aidNamed("loss_from_duty");
  const auto inputs = typicalOf(aid);
  const auto answer = work(aid, inputs);
  std::mt19937 random(5);
  std::normal_distribution<double> normal;
  double sum = 0.0, squares = 0.0;
  constexpr int kDraws = 20000;
  for (int i = 0; i < kDraws; ++i) {
    std::vector<double> x;
    for (const Measured& m : inputs) x.push_back(m.value + m.uncertain * normal(random));
    const double y = aid.compute(x)[0];
    sum += y;
    squares += y * y;
  }
  const double spread = std::sqrt(squares / kDraws - sum / kDraws * sum / kDraws);
  EXPECT_CLOSE((*answer)[0].uncertain, spread, 0.03 * spread, "a spread of 20 000 draws is known within 0.5 %, the law's curve adds 1 %");
}

TEST(Aids, SayWhyThereIsNoAnswer) {
  const auto back = work(*aidNamed("meter_pair"), {{3.6e9, 0.0}, {3.5e9, 0.0}, {3600.0, 0.0}});
  ASSERT_FALSE(back);
  EXPECT_NE(english(back.problem().allowed).find("changed over"), std::string::npos);
  const auto warm = work(*aidNamed("loss_from_duty"), {{9000.0, 0.0}, {60.0, 0.0}, {60.0, 0.0}, {3.0, 0.0}, {3.0, 0.0}});
  EXPECT_FALSE(warm);
  const auto range = work(*aidNamed("tank_power"), {{-1.0, 0.0}, {14.0, 0.0}, {9.0, 0.0}, {3600.0, 0.0}});
  ASSERT_FALSE(range);
  EXPECT_EQ(range.problem().where, "volume");
}

} // namespace
} // namespace muffle
