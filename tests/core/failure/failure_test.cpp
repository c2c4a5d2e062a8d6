// SPDX-License-Identifier: GPL-3.0-or-later
//
// Something fails at a moment: what is reported is what the season does with it, to the minute; the worst moment is no better than any other.
#include "core/failure/remedies.h"
#include "core/plan/heaters.h"
#include "core/simulate/before_run.h"
#include "tests/support/frost.h"
#include "tests/support/near.h"
#include "tests/support/random_house.h"
#include "words/words.h"

#include <algorithm>
#include <chrono>
#include <random>

namespace muffle {
namespace {

using testing::filmTunnel;
using testing::frost;

/// Held at 5 degC by ten kilowatts, on days about -3.
Plan heatedTunnel() {
  Plan p = filmTunnel();
  p.setpoints = {2.0, 5.0, 5.0};
  addHeater(p, {.id = "heater", .power_W = 20000.0});
  return p;
}

struct Yard {
  explicit Yard(Plan itsPlan) : plan(std::move(itsPlan)), scene(makeScene(frost(plan.site), plan)) { EXPECT_TRUE(check(plan).empty()); }
  [[nodiscard]] Failures failures(const std::string& what, double for_h, std::vector<double> lines_C) const {
    const auto thing = failingThing(plan, what);
    EXPECT_TRUE(thing) << (thing ? "" : english(thing.problem()));
    auto all = Failures::prepare(plan, scene, {*thing, for_h, std::move(lines_C)}, 2);
    EXPECT_TRUE(all);
    return std::move(*all);
  }
  Plan plan;
  Scene scene;
};

constexpr std::size_t kStepsADay = 144;
constexpr std::size_t kTwoInTheNight = 3 * kStepsADay + 12;

TEST(Failure, IsWhatTheSeasonDoesWithIt) {
  const Yard yard(heatedTunnel());
  const auto run = yard.failures("heater:heater", 4.0, {2.0, 0.0, -30.0}).at(0, kTwoInTheNight);
  ASSERT_TRUE(run);
  const Winter& w = yard.scene.weather->winters[0];
  const auto season =
      simulate(yard.plan, yard.scene, {.series = true, .scenario = {.failures = {{"heater", {w.time(kTwoInTheNight), w.time(kTwoInTheNight + 24)}}}}});
  ASSERT_TRUE(season);
  ASSERT_EQ(run->air_C.size(), 241U);
  for (std::size_t i = 1; i <= 24; ++i)
    EXPECT_CLOSE(run->air_C[10 * i], season->series[0].air_C[kTwoInTheNight + i], 0.25,
                 "a minute's steps against ten minutes': after ten degrees in an hour a fortieth of them");
  ASSERT_TRUE(run->minutes[0] && run->minutes[1]);
  EXPECT_GT(*run->minutes[1], *run->minutes[0]) << "a lower line is crossed later";
  EXPECT_FALSE(run->minutes[2]) << "never is not zero";
  EXPECT_CLOSE(run->otherwise_C.front(), 5.0, 0.1, "held until then");
}

TEST(Failure, MinutesToALineAreThoseOfFinerStepsWithinAPercent) {
  const Yard yard(heatedTunnel());
  const auto run = yard.failures("mains", 3.0, {2.0, 0.0}).at(0, kTwoInTheNight);
  ASSERT_TRUE(run);
  const Winter& w = yard.scene.weather->winters[0];
  auto fine = muffle::Run::prepare(yard.plan, assemble(yard.plan, w, yard.scene.sun[0]), w, {.mainsOff = {{w.time(kTwoInTheNight), w.time(w.size() - 1)}}});
  ASSERT_TRUE(fine);
  ASSERT_TRUE(startRun(*fine, yard.plan, &yard.scene.before[0]));
  while (fine->step() < kTwoInTheNight) { ASSERT_TRUE(fine->advance()); }
  std::vector<double> air{fine->solver().temperature_C(fine->assembly().air)};
  for (int i = 0; i < 18; ++i)
    ASSERT_TRUE(fine->advanceFinely(150, [&] { air.push_back(fine->solver().temperature_C(fine->assembly().air)); })); // four seconds
  for (std::size_t line = 0; line < 2; ++line) {
    const double at = line == 0 ? 2.0 : 0.0;
    const auto first = std::find_if(air.begin(), air.end(), [at](double t) { return t < at; });
    ASSERT_NE(first, air.end());
    const double minutes = static_cast<double>(first - air.begin()) / 15.0;
    ASSERT_TRUE(run->minutes[line]);
    EXPECT_CLOSE(*run->minutes[line], minutes, 0.01 * minutes + 1.0 / 15.0, "one percent and a fine step");
  }
}

TEST(Failure, TheWorstMomentIsNoBetterThanAnyOther) {
  const Yard yard(heatedTunnel());
  const Failures failures = yard.failures("mains", 3.0, {2.0});
  const auto worst = failures.worst();
  ASSERT_TRUE(worst) << english(worst.problem());
  EXPECT_GT(worst->moments, 100U);
  ASSERT_TRUE(worst->stepOfTime);
  std::mt19937 random(3);
  const auto soonest = failures.at(*worst->winterOfTime, *worst->stepOfTime);
  ASSERT_TRUE(soonest && soonest->minutes[0]);
  for (int n = 0; n < 12; ++n) {
    const auto run = failures.at(0, 1 + random() % (5 * kStepsADay));
    ASSERT_TRUE(run);
    EXPECT_GE(run->lowest_C, worst->lowest_C - 0.15) << "minutes against ten minutes";
    EXPECT_GE(run->minutes[0].value_or(1e9), *soonest->minutes[0] - 1.0);
  }
}

TEST(Failure, WhatWouldHaveHeldHoldsAndALittleLessDoesNot) {
  const Yard yard(heatedTunnel());
  const FailureQuestion question{*failingThing(yard.plan, "mains"), 3.0, {2.0}};
  const auto remedies = whatWouldHold(yard.plan, yard.scene, question, 0, kTwoInTheNight);
  ASSERT_TRUE(remedies);
  ASSERT_TRUE(remedies->backup_W);
  const auto lowest = [&](double share) {
    Plan with = yard.plan;
    addHeater(with, {.id = "backup", .kind = HeaterKind::district, .power_W = share * *remedies->backup_W, .stage_K = 3.0});
    return Failures::prepare(with, yard.scene, question)->at(0, kTwoInTheNight)->lowest_C;
  };
  EXPECT_GE(lowest(1.0), 2.0 - 0.03);
  EXPECT_LT(lowest(0.9), 2.0 - 0.03);
}

TEST(Failure, AStoveOutlivesTheMainsAndAFanDoesNot) {
  Plan p = heatedTunnel();
  addHeater(p, {.id = "stove", .kind = HeaterKind::woodStove, .power_W = 9000.0, .from_h = 22.0});
  p.house.extractFan = ExtractFan{.above_C = 25.0};
  p.house.blanket = NightBlanket{};
  const Yard yard(p);
  const auto with = yard.failures("mains", 3.0, {2.0}).at(0, kTwoInTheNight);
  p.heaters.pop_back();
  const auto without = Yard(p).failures("mains", 3.0, {2.0}).at(0, kTwoInTheNight);
  ASSERT_TRUE(with && without);
  EXPECT_GT(with->lowest_C, without->lowest_C + 1.0);
  for (const FailingThing& thing : whatCanFail(yard.plan)) {
    const auto run = yard.failures(thing.text(), 2.0, {2.0}).at(0, kTwoInTheNight);
    ASSERT_TRUE(run) << thing.text();
  }
  const auto open = yard.failures("blanket:open", 6.0, {2.0}).at(0, kTwoInTheNight);
  const auto shut = yard.failures("blanket:shut", 6.0, {2.0}).at(0, kTwoInTheNight);
  ASSERT_TRUE(open && shut);
  constexpr double kHeldWithin_K = 0.005; // the middle of two steps taken as one, by the solver's own bound
  EXPECT_LE(open->lowest_C, shut->lowest_C + kHeldWithin_K) << "a house without its blanket is no warmer at night";
}

TEST(Failure, OfABayIsJudgedByTheBaysAirAndItsLine) {
  Plan p = heatedTunnel();
  p.house.bay = WarmBay{};
  p.house.bay->setpoints = {8.0, 11.0, 11.0};
  addHeater(p, {.id = "bay-heater", .place = {HeaterPlace::Of::bay}, .power_W = 9000.0});
  const Yard yard(p);
  const auto thing = failingThing(p, "heater:bay-heater");
  ASSERT_TRUE(thing);
  EXPECT_EQ(setpointsConcerned(p, *thing).hold_C, 8.0);
  const auto run = yard.failures("heater:bay-heater", 4.0, {8.0}).at(0, kTwoInTheNight);
  ASSERT_TRUE(run);
  EXPECT_CLOSE(run->atAir_C, 11.0, 0.1, "held until then");
  EXPECT_TRUE(run->minutes[0]) << "the house beside it is at 5";
  const auto remedies = whatWouldHold(p, yard.scene, {*thing, 4.0, {8.0}}, 0, kTwoInTheNight);
  ASSERT_TRUE(remedies);
  EXPECT_TRUE(remedies->backup_W) << "in the bay";
}

TEST(Failure, NothingThatFailsAtNightMakesAHouseByChanceWarmer) {
  for (unsigned n = 0; n < 25; ++n) {
    Plan p = testing::randomPlan(n);
    addHeater(p, {.id = "first", .power_W = 6000.0});
    addHeater(p, {.id = "second", .kind = HeaterKind::propaneUnvented, .power_W = 3000.0, .stage_K = 1.0});
    if (!check(p).empty()) continue;
    const Yard yard(p);
    for (const char* what : {"mains", "heater:first", "heater:second"}) {
      const auto run = yard.failures(what, 3.0, {p.setpoints.hold_C, p.setpoints.hold_C - 3.0}).at(0, kTwoInTheNight);
      ASSERT_TRUE(run) << "house " << n << ", " << what;
      const auto least = std::min_element(run->otherwise_C.begin(), run->otherwise_C.end());
      // a fan of which the mains are off may have cooled it; none of these has one that runs at night
      EXPECT_LE(run->lowest_C, static_cast<double>(*least) + 0.1) << "house " << n << ", " << what << ": a tenth between steps of a minute and of ten";
      EXPECT_LE(run->minutes[0].value_or(1e9), run->minutes[1].value_or(1e9)) << "house " << n;
    }
  }
}

TEST(Failure, AnUnknownThingIsRefusedWithWhatThereIs) {
  const Plan p = heatedTunnel();
  const auto thing = failingThing(p, "heater:stove");
  ASSERT_FALSE(thing);
  EXPECT_NE(english(thing.problem().allowed).find("heater:heater"), std::string::npos);
  EXPECT_FALSE(Failures::prepare(p, makeScene(frost(p.site), p), {{}, 0.0, {1.0}}));
}

} // namespace
} // namespace muffle
