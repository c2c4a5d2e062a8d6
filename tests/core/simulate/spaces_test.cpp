// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assemble/spaces.h"
#include "core/plan/heaters.h"

#include "core/network/solver.h"
#include "core/plan/plan_json.h"
#include "core/simulate/simulate.h"
#include "core/sizing/sizing.h"
#include "core/sizing/usual_measures.h"
#include "tests/support/frost.h"
#include "tests/support/near.h"
#include "words/words.h"

#include <gtest/gtest.h>

namespace muffle::spaces_test {
namespace {

using testing::frost;

Plan house() {
  Plan p;
  p.site.place = {46.0, 7.0, 600.0};
  p.house.shape = {.kind = ShapeKind::gable, .width_m = 8.0, .length_m = 20.0, .eave_m = 2.2, .ridge_m = 4.0};
  p.setpoints = {2.0, 4.0, 4.0};
  p.heaters = {{.id = "heater", .name = "fan heater", .power_W = 20000.0}};
  return p;
}

Plan divided() {
  Plan p = house();
  p.house.bay = WarmBay{};
  addHeater(p, {.place = {HeaterPlace::Of::bay}, .power_W = 2000.0});
  p.house.lobby = Lobby{};
  p.house.roofVoid = RoofVoid{};
  p.house.bedCovers = {BedCover{}, BedCover{}};
  p.house.bedCovers[1].inBay = true;
  p.house.bedCovers[1].length_m = 2.0;
  p.house.door.opened = 30.0;
  return p;
}

double mean_C(const Simulation& run, std::size_t room) {
  double sum = 0.0;
  const auto& air = run.series.front().rooms.at(room).air_C;
  for (const float t : air) sum += static_cast<double>(t);
  return sum / static_cast<double>(air.size());
}

Simulation run(const Plan& p) {
  EXPECT_TRUE(check(p).empty()) << english(check(p).front());
  return *simulate(p, makeScene(frost(p.site), p), {.series = true});
}

TEST(Spaces, AddUpToTheHouseHoweverItIsDivided) {
  std::vector<Plan> plans{house(), divided()};
  plans.push_back(divided());
  plans.back().house.shape = {.kind = ShapeKind::singleSlope, .width_m = 6.0, .length_m = 18.0, .eave_m = 1.4, .ridge_m = 3.6};
  plans.push_back(divided());
  plans.back().house.shape = {.kind = ShapeKind::arch, .width_m = 6.0, .length_m = 30.0, .eave_m = 1.2, .ridge_m = 3.4, .bays = 3, .sunk_m = 0.4};
  for (const Plan& p : plans) {
    const HouseShape& s = p.house.shape;
    Space sum;
    for (const Space& space : spacesOf(p.house)) {
      sum.floor_m2 += space.floor_m2;
      sum.volume_m3 += space.volume_m3;
      sum.edgeShare += space.edgeShare;
      sum.sunk_m2 += space.sunk_m2;
      for (std::size_t g = 0; g < sum.cover_m2.size(); ++g) sum.cover_m2[g] += space.cover_m2[g];
    }
    EXPECT_CLOSE(sum.floor_m2, s.floor_m2(), 1e-9, "rounding");
    EXPECT_CLOSE(sum.volume_m3, s.volume_m3(), 1e-9, "rounding");
    EXPECT_CLOSE(sum.edgeShare, 1.0, 1e-12, "rounding");
    EXPECT_CLOSE(sum.sunk_m2, s.sunkWall_m2(), 1e-9, "rounding");
    for (const FaceGroup g : {FaceGroup::roof, FaceGroup::sides, FaceGroup::ends, FaceGroup::backWall})
      EXPECT_CLOSE(sum.cover_m2[static_cast<std::size_t>(g)], s.area_m2(g), 1e-9, "rounding");
  }
}

TEST(Spaces, EveryRoomHasAirOfItsOwnAndTheWholeCloses) {
  const Plan p = divided();
  const auto rooms = otherRooms(p);
  ASSERT_EQ(rooms.size(), 5U);
  const Simulation r = run(p);
  ASSERT_EQ(r.summary.rooms.size(), rooms.size());
  EXPECT_LE(r.summary.closure, 1e-6);
  EXPECT_EQ(rooms[0].id, "bay");
  EXPECT_EQ(rooms[4].id, "bed:2");
  EXPECT_GT(mean_C(r, 0), mean_C(r, 1)) << "a heated bay against a lobby";
  EXPECT_CLOSE(rooms[4].hold_C.value(), p.house.bay->setpoints.hold_C, 0.0, "a bed in the bay is judged by the bay's line");
}

TEST(Lobby, KeepsPartOfTheDoorsColdOutAndIsColderThanTheHouse) {
  Plan bare = house();
  bare.house.door.opened = 60.0;
  Plan lobby = bare;
  lobby.house.lobby = Lobby{};
  const Simulation without = run(bare), with = run(lobby);
  EXPECT_LT(with.summary.heater_kWh, without.summary.heater_kWh);
  double outside = 0.0, inside = 0.0;
  const auto weather = frost(bare.site);
  for (const double t : weather->winters.front().outside_C) outside += t / static_cast<double>(weather->winters.front().size());
  for (const float t : with.series.front().air_C) inside += static_cast<double>(t) / static_cast<double>(with.series.front().air_C.size());
  EXPECT_GT(mean_C(with, 0), outside);
  EXPECT_LT(mean_C(with, 0), inside);
}

TEST(RoofVoid, ACeilingSavesHeatAndTheAirOverItIsTheColder) {
  const Plan open = house();
  Plan ceiling = open;
  ceiling.house.roofVoid = RoofVoid{};
  const Simulation without = run(open), with = run(ceiling);
  EXPECT_LT(with.summary.heater_kWh, 0.9 * without.summary.heater_kWh) << "a second layer under two fifths of the cover";
  double night = 0.0, house = 0.0;
  for (const NightResult& n : with.nights) night += n.roomColdest_C.at(0), house += n.coldest_C;
  EXPECT_LT(night, house);
}

TEST(RoofVoid, AFanBringsItsAirDownAndTakesElectricity) {
  Plan p = house();
  p.house.roofVoid = RoofVoid{};
  p.house.roofVoid->ceiling.layers = {{"foam-board-50", 0.05}};
  const double apart = mean_C(run(p), 0);
  p.house.roofVoid->fan = RoomFan{.flow_m3_h = 4000.0, .rule = FanRule::always, .power_W = 200.0};
  const Simulation mixed = run(p);
  EXPECT_GT(mean_C(mixed, 0), apart + 1.0) << "the house's warmth comes up";
  EXPECT_CLOSE(mixed.summary.fan_kWh, 0.2 * 182.0 * 24.0 * mixed.summary.winters, 1e-6 * mixed.summary.fan_kWh, "it always runs");
  p.house.roofVoid->fan->rule = FanRule::night;
  const double nights_kWh = run(p).summary.fan_kWh;
  p.house.roofVoid->fan->rule = FanRule::day;
  EXPECT_CLOSE(nights_kWh + run(p).summary.fan_kWh, mixed.summary.fan_kWh, 1e-6 * mixed.summary.fan_kWh, "day and night make a day");
  p.house.roofVoid->fan->rule = FanRule::warm;
  p.house.roofVoid->fan->warmAbove_C = 60.0;
  EXPECT_CLOSE(run(p).summary.fan_kWh, 0.0, 1e-12, "it is never so warm");
}

TEST(Measures, ACeilingAndALobbyAreBuiltAtTheirPriceAndRefusedWhereTheyCannotBe) {
  Plan p = house();
  p.measures = {usualMeasure(MeasureKind::ceiling), usualMeasure(MeasureKind::lobby)};
  p.house.door.lobby = true;
  ASSERT_TRUE(check(p).empty()) << english(check(p).front());
  const Package both = buildPackage(p, {0, 0});
  ASSERT_TRUE(both.plan.house.roofVoid && both.plan.house.lobby);
  EXPECT_FALSE(both.plan.house.door.lobby) << "it has air of its own now";
  EXPECT_TRUE(check(both.plan).empty());
  double capital = 0.0;
  for (const Bought& k : both.kit) capital += k.capital;
  EXPECT_CLOSE(capital, p.measures[0].price * p.house.shape.floor_m2() + p.measures[1].price, 1e-9, "rounding");
  p.house.shape = {.kind = ShapeKind::arch, .width_m = 6.0, .length_m = 20.0, .eave_m = 0.3, .ridge_m = 3.0};
  ASSERT_EQ(check(p).size(), 1U);
  EXPECT_EQ(check(p).front().where, "/measures/0");
  p.measures = {usualMeasure(MeasureKind::lobby)};
  p.measures[0].levels = {19.0};
  ASSERT_EQ(check(p).size(), 1U);
  EXPECT_EQ(check(p).front().where, "/measures/0/levels");
}

TEST(Spaces, AreExplainedWhereTheyCannotBe) {
  const auto refused = [](const Plan& p, const std::string& where) {
    for (const Problem& problem : check(p))
      if (problem.where == where) return true;
    return false;
  };
  Plan p = house();
  p.house.bay = WarmBay{.length_m = 10.0};
  p.house.lobby = Lobby{.length_m = 9.0};
  EXPECT_TRUE(refused(p, "/house/lobby/length_m")) << "together longer than the house bears";
  p.house.lobby->length_m = 2.0;
  p.house.door.lobby = true;
  EXPECT_TRUE(refused(p, "/house/door/lobby"));
  p.house.door.lobby = false;
  p.house.roofVoid = RoofVoid{};
  p.house.shape.eave_m = 0.4;
  EXPECT_TRUE(refused(p, "/house/roof_void"));
  p.house.shape.eave_m = 2.0;
  p.house.roofVoid->ceiling.layers = {{"stone-400", 0.05}};
  EXPECT_TRUE(refused(p, "/house/roof_void/ceiling/layers/0/material"));
  p = house();
  p.house.bedCovers = {BedCover{.inBay = true}};
  EXPECT_TRUE(refused(p, "/house/bed_covers/0/in_bay"));
}

TEST(Spaces, AreKeptInThePlansFile) {
  Plan p = divided();
  p.house.roofVoid->fan = RoomFan{.flow_m3_h = 800.0, .rule = FanRule::warm};
  const auto again = planFromJson(planToJson(p));
  ASSERT_TRUE(again) << english(again.problem());
  EXPECT_EQ(planToJson(*again), planToJson(p));
}

} // namespace
} // namespace muffle::spaces_test
