// SPDX-License-Identifier: GPL-3.0-or-later
//
// Heaters as a list: where they stand, in what turn they give, what they take.
#include "core/plan/heaters.h"

#include "core/plan/plan_json.h"
#include "core/plan/store_list.h"
#include "core/simulate/simulate.h"
#include "tests/support/frost.h"
#include "tests/support/near.h"

namespace muffle {
namespace {

Plan houseToHeat() {
  Plan p;
  p.site.place = {48.0, 0.0, 100.0};
  p.house.shape = {ShapeKind::gable, 6, 18, 2.0, 3.4, 90};
  p.setpoints = {3.9, 6.0, 6.0};
  return p;
}

Simulation run(const Plan& p) { return *simulate(p, makeScene(testing::frost(p.site), p)); }

std::vector<std::string> refusals(const Plan& p) {
  std::vector<std::string> where;
  for (const Problem& problem : check(p)) where.push_back(problem.where);
  return where;
}

TEST(Heaters, OneThatIsSplitInTwoHoldsTheSameNightsAtTheSameHeat) {
  Plan one = houseToHeat(), two = houseToHeat();
  one.heaters = {{.id = "whole", .power_W = 9000.0}};
  two.heaters = {{.id = "first", .power_W = 5000.0}, {.id = "second", .power_W = 4000.0}};
  const Summary a = run(one).summary, b = run(two).summary;
  EXPECT_EQ(a.held, b.held);
  EXPECT_CLOSE(b.heater_kWh, a.heater_kWh, 1e-3 * a.heater_kWh, "steps are handed on at other moments");
  EXPECT_CLOSE(b.coldest_C, a.coldest_C, 0.01, "the same");
  EXPECT_GT(b.ledger.heat_kWh(MeterUse::heater, 0), b.ledger.heat_kWh(MeterUse::heater, 1)) << "the first gives before the second";
  EXPECT_GT(b.ledger.heat_kWh(MeterUse::heater, 1), 0.0);
}

TEST(Heaters, ALaterStageGivesOnlyWhatTheEarlierOnesCannotWhateverTheirOrder) {
  Plan p = houseToHeat();
  p.heaters = {{.id = "backup", .power_W = 20000.0, .stage_K = 2.0}, {.id = "main", .power_W = 4000.0}};
  const Simulation both = run(p);
  EXPECT_GT(both.summary.ledger.heat_kWh(MeterUse::heater, 0), 0.0);
  EXPECT_GE(both.summary.coldest_C, 3.99) << "two kelvin below the setpoint the backup holds";
  p.heaters.erase(p.heaters.begin());
  const Simulation alone = run(p);
  EXPECT_LT(alone.summary.coldest_C, 3.9);
  EXPECT_CLOSE(both.summary.ledger.heat_kWh(MeterUse::heater, 1), alone.summary.heater_kWh, 0.02 * alone.summary.heater_kWh,
               "the main one hardly gives less for the backup: a floor that is warmer by what it saved");
}

TEST(Heaters, WhatTheyTakeIsWhatTheyGiveByTheirEfficiencyAndTheBillIsThat) {
  Plan p = houseToHeat();
  p.heaters = {{.id = "a", .power_W = 9000.0, .efficiency = 0.5}};
  p.prices.electricity_per_kWh = 0.2;
  const Simulation half = run(p);
  const double given_kWh = half.summary.heater_kWh;
  EXPECT_CLOSE(half.summary.ledger.sum(Metered::electricity), 2.0 * given_kWh, 1e-9 * given_kWh, "rounding");
  EXPECT_CLOSE(half.summary.cost.energy, 0.4 * given_kWh / half.summary.winters, 1e-9 * given_kWh, "rounding");
}

TEST(Heaters, OneThatTheClockHoldsBackGivesNothingThen) {
  Plan p = houseToHeat();
  p.site.timeZone = "UTC";
  p.heaters = {{.id = "a", .power_W = 30000.0, .from_h = 20.0, .for_h = 8.0}};
  const auto weather = testing::frost(p.site);
  const Simulation night = *simulate(p, makeScene(weather, p), {.series = true});
  const Winter& winter = weather->winters.front();
  for (std::size_t i = 1; i < winter.size(); ++i) {
    const auto hour = static_cast<double>(winter.time(i - 1) % 86400) / 3600.0;
    if (hour >= 4.0 && hour < 20.0) { ASSERT_EQ(night.series[0].heater_W[i], 0.0F) << hour; }
  }
  EXPECT_GT(night.summary.heater_kWh, 0.0);
}

TEST(Heaters, TheHoursOfAMeterComeToItsSum) {
  Plan p = houseToHeat();
  p.heaters = {{.id = "a", .power_W = 9000.0}};
  p.house.blanket = NightBlanket{.hoursPerDraw = 0.2};
  BedCover bed;
  bed.count = 3;
  bed.hoursPerLift = 0.05;
  p.house.bedCovers = {bed};
  const Scene scene = makeScene(testing::frost(p.site), p);
  const auto winter = simulateWinter(p, scene, 0, {.series = true});
  ASSERT_TRUE(winter);
  for (const Meter& m : winter->ledger.meters()) {
    if (m.of != Metered::electricity) continue;
    double sum = 0.0;
    for (const float kWh : m.hour) sum += static_cast<double>(kWh);
    EXPECT_CLOSE(sum, m.amount, 1e-4 * m.amount, "hours are kept as floats");
  }
  const double days = static_cast<double>(scene.weather->winters[0].size() - 1) * scene.weather->winters[0].step_s / 86400.0;
  EXPECT_CLOSE(winter->ledger.sum(Metered::work, MeterUse::bedCover), days * 3 * 0.05, 1e-9, "rounding");
  EXPECT_CLOSE(winter->ledger.sum(Metered::work, MeterUse::blanket), winter->draws * 0.2, 1e-9, "rounding");
  EXPECT_TRUE(simulateWinter(p, scene, 0)->ledger.meters().front().hour.empty()) << "who wants no hours pays for none";
}

TEST(Heaters, WhatIsNotThereOrDoesNotFitIsRefusedByItsPlace) {
  Plan p = houseToHeat();
  p.heaters = {{.id = "a"}, {.id = "a"}};
  EXPECT_EQ(refusals(p), std::vector<std::string>{"/heaters/1/id"});
  p.heaters = {{.id = "a", .place = {HeaterPlace::Of::bay}}, {.id = "b", .place = {HeaterPlace::Of::tank, 0}}};
  EXPECT_EQ(refusals(p), (std::vector<std::string>{"/heaters/0/in", "/heaters/1/in"}));
  p.heaters = {{.id = "a", .kind = HeaterKind::boiler}};
  EXPECT_EQ(refusals(p), std::vector<std::string>{"/heaters/0/kind"});
  Json document = planToJson(houseToHeat());
  document["heaters"] = Json::array({{{"in", "cellar"}, {"power_W", 100}}, {{"power_W", 100}}});
  const auto read = planFromJson(document);
  ASSERT_FALSE(read);
  EXPECT_EQ(read.problem().where, "/heaters/0/in");
  document["heaters"][0]["in"] = "house";
  EXPECT_EQ(planFromJson(document)->heaters[0].id, "heater") << "one is given to those that have none";
  EXPECT_EQ(planFromJson(document)->heaters[1].id, "heater-2");
}

TEST(Heaters, APowerForAPlaceThatIsNotThereOrOfNothingPutsNothingThere) {
  Plan p = houseToHeat();
  const Plan before = p;
  setHeaterPower(p, {HeaterPlace::Of::bay}, 2000.0);
  setHeaterPower(p, {HeaterPlace::Of::tank, 3}, 2000.0);
  setHeaterPower(p, {HeaterPlace::Of::house}, 0.0);
  EXPECT_EQ(p, before);
  setHeaterPower(p, {HeaterPlace::Of::house}, 1500.0);
  EXPECT_EQ(heaterPower_W(p, {HeaterPlace::Of::house}), 1500.0);
  setHeaterPower(p, {HeaterPlace::Of::house}, 0.0);
  EXPECT_EQ(heaterPower_W(p, {HeaterPlace::Of::house}), 0.0);
}

TEST(Heaters, GoWithTheirTankAndThoseBehindItMoveUp) {
  Plan p = houseToHeat();
  p.waterLoops.resize(3);
  for (std::size_t t = 0; t < 3; ++t) firstHeater(p, {HeaterPlace::Of::tank, t}).power_W = 1000.0 * static_cast<double>(t + 1);
  p.compost.resize(3);
  for (int c = 0; c < 3; ++c) p.compost[static_cast<std::size_t>(c)].coilInto = CoilInto::tank, p.compost[static_cast<std::size_t>(c)].tank = c;
  removeStore(p, StoreKind::loop, 1);
  ASSERT_EQ(p.heaters.size(), 2U);
  EXPECT_EQ(heaterPower_W(p, {HeaterPlace::Of::tank, 0}), 1000.0);
  EXPECT_EQ(heaterPower_W(p, {HeaterPlace::Of::tank, 1}), 3000.0);
  EXPECT_EQ(p.compost[0].tank, 0);
  EXPECT_EQ(p.compost[1].coilInto, CoilInto::house) << "its tank is gone";
  EXPECT_EQ(p.compost[2].coilInto, CoilInto::tank);
  EXPECT_EQ(p.compost[2].tank, 1);
}

} // namespace
} // namespace muffle
