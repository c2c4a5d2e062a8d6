// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/simulate/simulate.h"

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
