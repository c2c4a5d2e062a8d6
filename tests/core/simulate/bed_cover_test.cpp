// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/simulate/simulate.h"

#include "tests/support/every_store.h"
#include "tests/support/frost.h"
#include "tests/support/near.h"

#include <gtest/gtest.h>

namespace muffle {
namespace {

using testing::filmTunnel;
using testing::frost;

TEST(BedCover, HasTheAreasOfHalfAnEllipse) {
  BedCover b;
  b.width_m = 1.0;
  b.height_m = 0.5; // a semicircle
  b.length_m = 6.0;
  EXPECT_CLOSE(b.cover_m2(), kPi * 0.5 * 6.0 + kPi * 0.25, 1e-9, "a semicircle's arc and two half discs");
  EXPECT_CLOSE(b.volume_m3(), kPi * 0.125 * 6.0, 1e-9, "closed form");
}

TEST(BedCover, WithALineOfItsOwnIsJudgedBesideTheHouse) {
  Plan p = filmTunnel();
  p.setpoints.hold_C = -20.0;
  p.house.bedCovers.push_back({});
  const auto weather = frost(p.site);
  const Simulation counted = *simulate(p, makeScene(weather, p));
  EXPECT_EQ(counted.summary.held, counted.summary.nights) << "without one it has only the house's to compare with";
  p.house.bedCovers[0].hold_C = 2.0;
  const Simulation judged = *simulate(p, makeScene(weather, p));
  EXPECT_EQ(judged.summary.held, judged.summary.rooms[0].held);
  EXPECT_LT(judged.summary.held, judged.summary.nights);
  EXPECT_GT(judged.summary.degreeHours_K_h, 0.0);
}

TEST(BedCover, AndHotBedsThatTogetherTakeMoreThanTheFloorAreTold) {
  Plan p = filmTunnel();
  const double floor_m2 = p.house.shape.floor_m2();
  CompostPile bed = testing::hotBed();
  bed.width_m = 2.0;
  bed.length_m = 0.25 * floor_m2;
  bed.recipe.front().wet_kg = 200.0 * floor_m2;
  p.compost = {bed};
  ASSERT_TRUE(check(p).empty()) << check(p).front().where;
  Plan covered = p, parted = p;
  covered.house.bedCovers.push_back({.width_m = 2.0, .length_m = 0.225 * floor_m2});
  parted.house.bay = WarmBay{.length_m = 0.6 * p.house.shape.length_m};
  for (const Plan& tooMuch : {covered, parted}) {
    const Problems problems = check(tooMuch);
    ASSERT_EQ(problems.size(), 1U);
    EXPECT_EQ(problems.front().where, "/compost/0/length_m");
  }
  covered.house.bedCovers[0].length_m = 0.19 * floor_m2;
  ASSERT_TRUE(check(covered).empty());
  EXPECT_TRUE(simulate(covered, makeScene(frost(covered.site), covered))) << "what is let pass can be run";
}

TEST(BedCover, ItsAirIsWarmerAtNightThanTheHousesAndTheEnergyCloses) {
  Plan p = filmTunnel();
  const auto weather = frost(p.site);
  const Simulation bare = *simulate(p, makeScene(weather, p));
  p.house.bedCovers.push_back({});
  const Simulation covered = *simulate(p, makeScene(weather, p), {.series = true});
  ASSERT_EQ(covered.summary.rooms.size(), 1U);
  EXPECT_GT(covered.summary.rooms[0].coldest_C, covered.summary.coldest_C + 1.0) << "the soil's warmth is kept under it";
  EXPECT_CLOSE(covered.summary.coldest_C, bare.summary.coldest_C, 0.6, "one bed of six square metres in seventy-two hardly moves the house");
  EXPECT_LE(covered.summary.closure, 1e-6);
  for (const NightResult& n : covered.nights) EXPECT_GT(n.roomColdest_C.at(0), n.coldest_C);
}

TEST(BedCover, FilmThatHoldsRadiantHeatKeepsMoreThanFleeceAndTwoTunnelsAreTwoRooms) {
  Plan p = filmTunnel();
  p.house.bedCovers = {{}, {}};
  p.house.bedCovers[1].material = "bubble-wrap";
  const auto weather = frost(p.site);
  const Simulation run = *simulate(p, makeScene(weather, p));
  ASSERT_EQ(run.summary.rooms.size(), 2U);
  EXPECT_GT(run.summary.rooms[1].coldest_C, run.summary.rooms[0].coldest_C);
}

TEST(BedCover, SaysWhatDoesNotFit) {
  Plan p = filmTunnel();
  p.house.bedCovers.push_back({});
  p.house.bedCovers[0].height_m = 3.0;
  ASSERT_EQ(check(p).size(), 1U);
  EXPECT_EQ(check(p)[0].where, "/house/bed_covers/0/height_m");
  p.house.bedCovers[0].height_m = 0.5;
  p.house.bedCovers[0].count = 12;
  ASSERT_EQ(check(p).size(), 1U);
  EXPECT_EQ(check(p)[0].where, "/house/bed_covers");
  p.house.bedCovers[0].count = 2;
  p.house.bedCovers[0].material = "stone-400";
  ASSERT_EQ(check(p).size(), 1U) << "a wall over a bed";
}

} // namespace
} // namespace muffle
