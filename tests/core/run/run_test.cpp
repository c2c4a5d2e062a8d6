// SPDX-License-Identifier: GPL-3.0-or-later
//
// A run that is stopped, kept, gone on with, and that things befall.
#include "core/run/run.h"
#include "core/simulate/simulate.h"
#include "tests/support/every_store.h"
#include "tests/support/near.h"
#include "words/words.h"

#include <cmath>
#include <ctime>
#include <memory>
#include <random>
#include <set>

namespace muffle::run_test {
namespace {

using testing::yardWithEveryStore;

constexpr std::size_t kDay = 144; // steps of ten minutes
constexpr UtcSeconds kStart = 1'922'918'400 - 1'922'918'400 % 86400;

/// Days about freezing, some clear.
std::shared_ptr<const Weather> someDays(const Site& site, int days) {
  Log log;
  Channel outside;
  outside.role = Role::outside;
  for (int i = 0; i < days * static_cast<int>(kDay); ++i) {
    log.time.push_back(kStart + i * 600);
    const double day = i / 144.0, hour = i / 6.0;
    outside.raw.push_back(static_cast<float>(-1.0 + 3.0 * std::sin(day / 2.0) + 5.0 * std::cos(2.0 * kPi * (hour - 14.5) / 24.0)));
  }
  outside.flag.assign(outside.raw.size(), 0);
  log.channels.push_back(std::move(outside));
  return std::make_shared<const Weather>(*weatherFromLog(log, site));
}

Plan heatedYard() {
  Plan p = yardWithEveryStore();
  p.heaters = {{.id = "heater"}};
  p.heaters.front().power_W = 20000.0;
  return p;
}

/// A run and what it must not outlive.
struct OnTheWay {
  OnTheWay(Plan itsPlan, int days, Scenario scenario)
      : plan(std::move(itsPlan)), scene(makeScene(someDays(plan.site, days), plan)),
        run(std::move(*muffle::Run::prepare(plan, assemble(plan, scene.weather->winters.front(), scene.sun.front()), scene.weather->winters.front(),
                                            std::move(scenario)))) {
    run.begin();
  }
  const Plan plan;
  const Scene scene;
  muffle::Run run;
};
std::unique_ptr<OnTheWay> begun(const Plan& plan, int days, Scenario scenario = {}) {
  EXPECT_TRUE(check(plan).empty()) << english(check(plan).front());
  return std::make_unique<OnTheWay>(plan, days, std::move(scenario));
}

Scenario mainsOff(UtcSeconds from, UtcSeconds to) {
  Scenario s;
  s.mainsOff = {{from, to}};
  return s;
}

void expectAlike(const muffle::Run& a, const muffle::Run& b) {
  ASSERT_EQ(a.step(), b.step());
  for (std::size_t n = 0; n < a.solver().network().nodes.size(); ++n)
    ASSERT_EQ(a.solver().temperature_C(static_cast<int>(n)), b.solver().temperature_C(static_cast<int>(n))) << a.solver().network().nodes[n].id;
  ASSERT_EQ(a.solver().balance().thermostat_J, b.solver().balance().thermostat_J);
  for (std::size_t p = 0; p < a.stores().piles().size(); ++p) {
    ASSERT_EQ(a.stores().piles()[p].state.degradable_kg, b.stores().piles()[p].state.degradable_kg);
    ASSERT_EQ(a.stores().pumped_h(p), b.stores().pumped_h(p));
  }
}

TEST(Run, StoppedAtAHundredStepsAndGoneOnWithEndsWhereTheUnbrokenOneDoesToTheLastBit) {
  const auto unbroken = begun(heatedYard(), 12);
  std::mt19937 random(3);
  std::uniform_int_distribution<std::size_t> some(1, 12 * kDay - 2);
  std::set<std::size_t> stops;
  while (stops.size() < 100) stops.insert(some(random));
  std::vector<RunState> kept;
  auto& run = unbroken->run;
  while (!run.isDone()) {
    if (stops.contains(run.step())) kept.push_back(run.keep());
    ASSERT_TRUE(run.advance());
  }
  const RunState end = run.keep();
  auto other = begun(heatedYard(), 12);
  for (const RunState& state : kept) {
    other->run.goOn(state);
    while (!other->run.isDone()) ASSERT_TRUE(other->run.advance());
    expectAlike(other->run, run);
  }
  run.goOn(end);
  expectAlike(run, other->run);
}

TEST(Run, WithTheMainsOffNothingElectricRunsAndWhatWasBeforeIsUntouched) {
  const UtcSeconds dusk = kStart + 5 * 86400 + 17 * 3600, dawn = dusk + 14 * 3600;
  const auto usual = begun(heatedYard(), 7), dark = begun(heatedYard(), 7, mainsOff(dusk, dawn));
  double coldest_K = 0.0;
  while (!usual->run.isDone()) {
    const UtcSeconds from = usual->run.winter().time(usual->run.step());
    ASSERT_TRUE(usual->run.advance());
    ASSERT_TRUE(dark->run.advance());
    if (from < dusk) { expectAlike(usual->run, dark->run); }
    const Spell off{dusk, dawn};
    EXPECT_EQ(dark->run.circumstances().mains, !off.covers(from));
    if (!off.covers(from)) continue;
    const Assembly& a = dark->run.assembly();
    for (const int t : a.electric) EXPECT_EQ(dark->run.solver().lastPower_W(t), 0.0);
    for (const StoreNodes& store : a.stores) {
      if (store.runs < 0) continue;
      EXPECT_EQ(dark->run.solver().signalNow(store.runs), 0.0);
    }
    const double fell_K = usual->run.solver().temperature_C(a.air) - dark->run.solver().temperature_C(a.air);
    coldest_K = std::max(coldest_K, fell_K);
  }
  EXPECT_GT(coldest_K, 1.0) << "a film tunnel in a night of frost without its heater";
  EXPECT_LT(dark->run.solver().balance().closure(), 1e-9);
  EXPECT_LT(std::abs(usual->run.solver().temperature_C(usual->run.assembly().air) - dark->run.solver().temperature_C(dark->run.assembly().air)), 0.5)
      << "the heater has caught up";
}

TEST(Run, GoneOnWithUnderAScenarioIsAsIfItHadBeenThereFromTheStart) {
  const UtcSeconds dusk = kStart + 3 * 86400 + 18 * 3600, dawn = dusk + 12 * 3600;
  const Scenario off = mainsOff(dusk, dawn);
  const auto whole = begun(heatedYard(), 5, off), kept = begun(heatedYard(), 5);
  while (kept->run.step() < 3 * kDay) ASSERT_TRUE(kept->run.advance());
  const RunState state = kept->run.keep();
  while (!kept->run.isDone()) ASSERT_TRUE(kept->run.advance());
  const RunState usual = kept->run.keep();
  kept->run.goOn(state, off);
  while (!kept->run.isDone()) ASSERT_TRUE(kept->run.advance());
  while (!whole->run.isDone()) ASSERT_TRUE(whole->run.advance());
  expectAlike(kept->run, whole->run);
  kept->run.goOn(state, {}); // and as often as wanted
  while (!kept->run.isDone()) ASSERT_TRUE(kept->run.advance());
  whole->run.goOn(usual);
  expectAlike(kept->run, whole->run);
}

TEST(Run, WhatIsNamedFailsAlone) {
  Plan plan = heatedYard();
  const std::string heater = plan.heaters.front().id;
  const UtcSeconds from = kStart + 2 * 86400, to = from + 86400;
  Scenario scenario;
  scenario.failures = {{heater, {from, to}}};
  const auto run = begun(plan, 4, scenario);
  double cable_J = 0.0;
  while (!run->run.isDone()) {
    const bool fails = Spell{from, to}.covers(run->run.winter().time(run->run.step()));
    ASSERT_TRUE(run->run.advance());
    if (!fails) continue;
    EXPECT_EQ(run->run.solver().lastPower_W(run->run.assembly().heaters.at(0).thermostat), 0.0);
    for (const StoreNodes& store : run->run.assembly().stores)
      if (store.cable()) cable_J += run->run.solver().lastPower_W(store.cable()->thermostat);
  }
  EXPECT_GT(cable_J, 0.0) << "the cable is fed as before";
}

TEST(Run, WithNobodyThereNoPileIsToppedUp) {
  Plan plan = heatedYard();
  for (CompostPile& pile : plan.compost) {
    pile.topUpEvery_days = 2.0;
    pile.built = "12-01";
  }
  const auto toppedUp = [&](const Scenario& scenario) {
    const auto on = begun(plan, 12, scenario);
    while (!on->run.isDone()) EXPECT_TRUE(on->run.advance());
    int times = 0;
    for (const PilePresent& pile : on->run.stores().piles()) times += pile.toppedUp;
    return times;
  };
  EXPECT_GT(toppedUp({}), 0);
  Scenario away;
  away.nobodyThere = {{kStart, kStart + 30 * 86400}};
  EXPECT_EQ(toppedUp(away), 0);
}

TEST(Run, AHundredFailuresOutOfOneWinterCostTheNightsTheyRun) {
  Plan plan = testing::yard();
  plan.heaters = {{.id = "heater"}};
  plan.heaters.front().power_W = 20000.0;
  const auto on = begun(plan, 101);
  std::vector<RunState> dusks;
  const std::clock_t begin = std::clock();
  while (!on->run.isDone()) {
    if (on->run.step() % kDay == 102 && dusks.size() < 100) dusks.push_back(on->run.keep());
    ASSERT_TRUE(on->run.advance());
  }
  const double winter = static_cast<double>(std::clock() - begin) / static_cast<double>(on->run.step());
  const std::clock_t again = std::clock();
  for (const RunState& dusk : dusks) {
    const UtcSeconds t = on->run.winter().time(dusk.step);
    on->run.goOn(dusk, mainsOff(t, t + 12 * 3600));
    for (std::size_t i = 0; i < kDay / 2 && !on->run.isDone(); ++i) ASSERT_TRUE(on->run.advance());
  }
  const double nights = static_cast<double>(std::clock() - again) / (static_cast<double>(dusks.size()) * kDay / 2);
  // a step after the failure, when everything moves, costs more than one of a whole winter; keeping a state and going back to it, little
  EXPECT_LT(nights, 3.0 * winter);
}

TEST(Run, AColderWinterNeverNeedsLessHeat) {
  Plan plan = testing::yard();
  plan.heaters = {{.id = "heater"}};
  plan.heaters.front().power_W = 40000.0;
  const Scene scene = makeScene(someDays(plan.site, 20), plan);
  double before_kWh = 0.0;
  for (const double kelvin : {0.0, 1.0, 2.0, 3.0}) {
    const auto run = simulate(plan, colderBy(scene, kelvin));
    ASSERT_TRUE(run);
    EXPECT_GT(run->summary.heater_kWh, before_kWh);
    before_kWh = run->summary.heater_kWh;
  }
}

} // namespace
} // namespace muffle::run_test
