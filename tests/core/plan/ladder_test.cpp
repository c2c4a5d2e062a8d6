// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/ladder.h"

#include "core/plan/heaters.h"
#include "tests/support/frost.h"
#include "tests/support/near.h"
#include "tests/support/random_house.h"

#include <algorithm>

namespace muffle {
namespace {

Plan withHeaters() {
  Plan p = testing::filmTunnel();
  p.setpoints = {1.0, 4.0, 8.0};
  addHeater(p, {.id = "first", .power_W = 3000.0});
  addHeater(p, {.id = "second", .kind = HeaterKind::oil, .power_W = 9000.0, .stage_K = 2.0});
  return p;
}
bool has(const std::vector<LadderConflict>& all, LadderConflictKind kind) {
  return std::any_of(all.begin(), all.end(), [&](const LadderConflict& c) { return c.kind == kind; });
}
constexpr auto kHouse = HeaterPlace::Of::house;

TEST(Ladder, EachHeaterBeginsByItsStageBelowTheNightSetpoint) {
  const auto rungs = rungsOf(withHeaters(), kHouse);
  std::vector<double> begins;
  for (const Rung& r : rungs)
    if (r.of == RungOf::heater) begins.push_back(r.low_C);
  EXPECT_EQ(begins, (std::vector<double>{4.0, 2.0}));
  EXPECT_TRUE(ladderConflicts(withHeaters(), kHouse).empty());
}

TEST(Ladder, WhatFollowsTheWeatherSlopesAndItsHeatersWithIt) {
  Plan p = withHeaters();
  p.setpoints.nightBands = {{-10.0, 3.0}, {0.0, 9.0}};
  for (const Rung& r : rungsOf(p, kHouse)) {
    if (r.of == RungOf::night) { EXPECT_TRUE(r.low_C == 3.0 && r.high_C == 9.0 && r.followsWeather()); }
    if (r.of == RungOf::heater && r.heater == 1) { EXPECT_TRUE(r.low_C == 1.0 && r.high_C == 7.0); }
    if (r.of == RungOf::day) { EXPECT_FALSE(r.followsWeather()); }
  }
}

TEST(Ladder, SaysWhatIsAtOdds) {
  Plan p = withHeaters();
  p.heaters[1].stage_K = 3.5;
  const auto late = ladderConflicts(p, kHouse);
  ASSERT_EQ(late.size(), 1U);
  EXPECT_EQ(late[0].kind, LadderConflictKind::heaterBelowLine);
  EXPECT_EQ(late[0].rung.heater, 1U);
  EXPECT_CLOSE(late[0].by_K, 0.5, 1e-12, "4 - 3.5 under 1");
  p = withHeaters();
  p.setpoints.night_C = 0.0;
  EXPECT_TRUE(has(ladderConflicts(p, kHouse), LadderConflictKind::nightBelowLine));
  EXPECT_FALSE(has(ladderConflicts(p, kHouse), LadderConflictKind::heaterBelowLine)) << "said once, of the setpoint";
  p = withHeaters();
  p.house.ventOpens_C = 8.5;
  p.house.ventFull_C = 14.0;
  ASSERT_TRUE(check(p).empty());
  EXPECT_TRUE(has(ladderConflicts(p, kHouse), LadderConflictKind::airedWhileHeated));
  p.heaters.clear();
  EXPECT_TRUE(ladderConflicts(p, kHouse).empty()) << "nothing is heated";
}

TEST(Ladder, ABayHasItsOwnAndAHouseWithoutOneHasNone) {
  Plan p = withHeaters();
  EXPECT_TRUE(rungsOf(p, HeaterPlace::Of::bay).empty());
  p.house.bay = WarmBay{};
  addHeater(p, {.id = "bay", .place = {HeaterPlace::Of::bay}, .power_W = 2000.0});
  const auto rungs = rungsOf(p, HeaterPlace::Of::bay);
  EXPECT_EQ(std::count_if(rungs.begin(), rungs.end(), [](const Rung& r) { return r.of == RungOf::heater; }), 1);
  EXPECT_EQ(std::count_if(rungs.begin(), rungs.end(), [](const Rung& r) { return r.of == RungOf::vents; }), 0) << "it has no vents";
}

TEST(Ladder, OfAHouseThatHoldsItsLineNoHeaterBeginsBelowIt) {
  // what is said to be at odds is so: a heater big enough whose rungs are in order holds every night
  int held = 0;
  for (unsigned seed = 0; seed < testing::kManyHouses; seed += 10) {
    Plan p = testing::randomPlan(seed);
    p.heaters.clear();
    addHeater(p, {.power_W = 200000.0, .stage_K = 0.5 * (seed % 5)});
    p.setpoints.night_C = p.setpoints.day_C = p.setpoints.hold_C + 1.0;
    if (!check(p).empty()) continue;
    const Simulation run = *simulate(p, makeScene(testing::randomWeather(seed, p), p));
    const bool below = has(ladderConflicts(p, kHouse), LadderConflictKind::heaterBelowLine);
    EXPECT_EQ(below, p.heaters[0].stage_K > 1.0) << seed;
    if (below) continue;
    ++held;
    EXPECT_EQ(run.summary.held, run.summary.nights) << seed;
  }
  EXPECT_GT(held, 0);
}

} // namespace
} // namespace muffle
