// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sizing/search.h"

#include "core/plan/heaters.h"
#include "core/plan/measure_table.h"
#include "core/plan/plan_json.h"
#include "core/sizing/usual_measures.h"
#include "core/sizing/why_not.h"
#include "tests/support/frost.h"
#include "tests/support/near.h"
#include "tests/support/random_house.h"
#include "words/words.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <atomic>
#include <limits>

namespace muffle {
namespace {

using testing::Chance;

const unsigned kProblems = testing::isSanitized() ? 6 : 200;
const unsigned kPartialChoices = testing::isSanitized() ? 20 : std::max(1000U, 10 * testing::kManyHouses);

/// A house with three to five things that may be added, at prices of all kinds.
Plan randomList(unsigned seed) {
  Chance chance(seed);
  for (unsigned next = 0;; ++next) {
    Plan p = testing::randomPlan(seed + 100000 * next);
    p.warmUp_days = std::min(p.warmUp_days, 2); // quick: the rules of a search are the same
    p.prices.electricity_per_kWh = chance.between(0.05, 0.6);
    p.prices.hour = chance.happens(0.5) ? chance.between(0.0, 25.0) : 0.0;
    p.ask.missesAllowed = chance.happens(0.3) ? 1 : 0;
    if (chance.happens(0.3)) p.prices.electricityWindows = {{.from_h = 22, .to_h = 6, .price_per_kWh = 0.5 * p.prices.electricity_per_kWh}};
    if (chance.happens(0.2)) p.ask.toSpend = chance.between(0.0, 40.0) * p.house.shape.floor_m2();
    if (chance.happens(0.4)) { // heated already, to above its line, and less on cold nights
      addHeater(p, {.power_W = std::round(chance.between(20.0, 150.0) * p.house.shape.floor_m2())});
      p.setpoints.shift(chance.between(0.0, 4.0));
      const double low_C = p.setpoints.night_C - 15.0;
      if (chance.happens(0.3)) p.setpoints.nightBands = {{{low_C, p.setpoints.hold_C + chance.between(0.0, 1.0)}}, {{low_C + 10.0, p.setpoints.night_C}}};
    }
    for (const MeasureRow& row : measureTable()) {
      if (!chance.happens(row.kind == MeasureKind::heater ? 0.85 : 0.35)) continue;
      std::vector<Measure> offers = row.suggest(p, row.usual);
      if (offers.empty()) continue;
      Measure m = offers.front();
      m.price *= chance.between(0.1, 3.0);
      m.life_years = chance.between(1.0, 20.0);
      if (!m.levels.empty() && chance.happens(0.5)) m.levels.push_back(m.kind == MeasureKind::sealing ? 0.7 * m.levels[0] : 2.0 * m.levels[0]);
      if (row.levelOf == LevelOf::count)
        for (double& level : m.levels) level = std::round(level);
      if (m.kind == MeasureKind::heater && chance.happens(0.35)) { // and one that burns something before it
        p.prices.fuels = {{Carrier::propane, "kWh", chance.between(0.05, 0.4)}};
        Measure burner = m;
        burner.heater = HeaterKind::propane;
        burner.price *= chance.between(0.3, 2.0);
        for (double& level : burner.levels) level = std::round(level * chance.between(0.4, 1.2));
        p.measures.push_back(std::move(burner));
        if (chance.happens(0.5)) p.setpoints.shift(0.6); // the second stands half a degree lower
      }
      p.measures.push_back(std::move(m));
    }
    // what is fixed, ruled out, excluded and needed, degree-hours in place of nights, and limits
    for (std::size_t k = 0; k < p.measures.size(); ++k) {
      p.measures[k].id = "m" + std::to_string(k);
      if (chance.happens(0.1)) p.measures[k].offer = chance.oneOf({Offer::fixed, Offer::ruledOut});
      if (k > 0 && chance.happens(0.1)) (chance.happens(0.5) ? p.measures[k].excludes : p.measures[k].needs) = {"m0"};
    }
    if (chance.happens(0.2)) p.ask.coldAllowed_K_h = chance.between(0.0, 3000.0);
    if (chance.happens(0.1)) p.ask.supply_kW = chance.between(1.0, 20.0);
    if (chance.happens(0.1)) p.ask.trench_m = chance.between(0.0, 60.0);
    if (p.measures.size() >= 2 && packageCount(p) <= 48 && check(p).empty()) return p;
  }
}

const SizedPackage& winnerOf(const Sizing& s) { return s.packages[static_cast<std::size_t>(s.winner)]; }

TEST(Search, ALowerSetpointIsTakenAsFarAsTheNightsBearIt) {
  Plan p = testing::filmTunnel();
  p.prices.electricity_per_kWh = 0.3;
  p.setpoints.hold_C = 1.0;
  p.setpoints.night_C = 6.0;
  p.setpoints.day_C = 10.0;
  p.measures = {usualMeasure(MeasureKind::secondSkin), usualMeasure(MeasureKind::nightSetpoint), usualMeasure(MeasureKind::heater),
                usualMeasure(MeasureKind::barrels)};
  p.measures[1].levels = {2, 4, 8}; // the last lies below the line
  p.measures[2].levels = {3000, 6000, 12000, 20000};
  p.measures[3].levels = {5, 10};
  const auto weather = testing::frost(p.site);
  PackageScenes scenes(weather);
  const auto found = searchPackages(p, scenes, {}), all = size(p, weather, {.exhaustive = true});
  ASSERT_TRUE(found && all && found->winner >= 0 && all->winner >= 0);
  const SizedPackage &cheapest = found->packages[static_cast<std::size_t>(found->winner)], &least = all->packages[static_cast<std::size_t>(all->winner)];
  EXPECT_TRUE(found->provedLeast);
  EXPECT_EQ(cheapest.choice, least.choice);
  EXPECT_GE(cheapest.choice[1], 0) << "a night kept less warm costs less";
  EXPECT_LT(cheapest.choice[1], 2) << "but not below the line";
}

TEST(Search, BedsUnderACoverKeepTheLineInAHouseThatNobodyHeats) {
  Plan p = testing::filmTunnel();
  p.prices.electricity_per_kWh = 0.4;
  p.setpoints.hold_C = -1.5; // the house falls to -6, under fleece it is -1.4
  p.setpoints.night_C = -1.0;
  p.crops.push_back({});
  p.measures = {usualMeasure(MeasureKind::coveredBeds), usualMeasure(MeasureKind::heater)};
  p.measures[0].levels = {1, 5};
  p.measures[1].levels = {6000, 12000, 20000};
  const auto weather = testing::frost(p.site);
  PackageScenes scenes(weather);
  const auto found = searchPackages(p, scenes, {}), all = size(p, weather, {.exhaustive = true});
  ASSERT_TRUE(found && all && found->winner >= 0 && all->winner >= 0);
  EXPECT_EQ(winnerOf(*found).choice, winnerOf(*all).choice);
  ASSERT_EQ(winnerOf(*found).choice, (Choice{1, kNotBuilt})) << "where the house may be so cold nothing need be heated";
  const Plan made = buildPackage(p, winnerOf(*found).choice).plan;
  ASSERT_EQ(made.house.bedCovers.size(), 1U);
  EXPECT_EQ(made.house.bedCovers[0].hold_C, -1.5) << "the line goes under the cover";
  EXPECT_EQ(made.setpoints.hold_C, -6.5);
  EXPECT_EQ(made.crops[0].in, CropStand::In::bed) << "and the crop with it";
  p.setpoints.hold_C = -1.0;
  const auto harder = size(p, weather, {.exhaustive = true});
  ASSERT_TRUE(harder);
  for (const SizedPackage& package : harder->packages) {
    if (package.choice != Choice{1, kNotBuilt}) continue;
    EXPECT_FALSE(package.holds) << "the beds' own line is judged, not the house's alone";
  }
}

TEST(Search, OnColdNightsASetpointMayBeLowerThanOnMildOnes) {
  Plan p = testing::filmTunnel();
  p.prices.electricity_per_kWh = 0.3;
  p.setpoints.hold_C = 1.0;
  p.setpoints.night_C = 6.0;
  p.setpoints.day_C = 8.0;
  p.measures = {usualMeasure(MeasureKind::nightBand)};
  p.measures[0].levels = {4.5};
  addHeater(p, {.power_W = 30000.0});
  const auto weather = testing::frost(p.site);
  const auto all = size(p, weather, {.exhaustive = true});
  ASSERT_TRUE(all && all->winner >= 0);
  EXPECT_EQ(winnerOf(*all).choice[0], 0) << "it holds its line and takes less heat";
  const Plan made = buildPackage(p, {0}).plan;
  ASSERT_EQ(made.setpoints.nightBands.size(), 2U);
  EXPECT_EQ(made.setpoints.leastNight_C(), 1.5);
  EXPECT_EQ(made.setpoints.nightBands.back().setpoint_C, 6.0) << "mild nights as before";
}

TEST(Search, FindsWhatTryingEveryCombinationFinds) {
  std::size_t covered = 0, runs = 0;
  for (unsigned seed = 1; seed <= kProblems; ++seed) {
    const Plan p = randomList(seed);
    const auto weather = testing::randomWeather(seed, p, 4);
    const auto all = size(p, weather, {.exhaustive = true});
    PackageScenes scenes(weather);
    const auto found = searchPackages(p, scenes, {});
    ASSERT_EQ(static_cast<bool>(all), static_cast<bool>(found)) << seed;
    if (!all) { // rules that leave nothing
      EXPECT_EQ(all.problem().what, found.problem().what) << seed;
      continue;
    }
    ASSERT_EQ(all->winner < 0, found->winner < 0) << seed << ": either holds or neither does";
    EXPECT_TRUE(found->provedLeast);
    covered += found->covered;
    runs += found->runs;
    if (all->winner < 0) continue;
    EXPECT_EQ(winnerOf(*found).choice, winnerOf(*all).choice) << seed << ": " << english(winnerOf(*found).label) << " for " << winnerOf(*found).cost.total()
                                                              << ", " << english(winnerOf(*all).label) << " for " << winnerOf(*all).cost.total();
    EXPECT_DOUBLE_EQ(winnerOf(*found).cost.total(), winnerOf(*all).cost.total()) << seed;
    EXPECT_DOUBLE_EQ(found->bound, winnerOf(*found).cost.total()) << seed;
  }
  if (!testing::isSanitized()) { EXPECT_LT(runs, covered) << "and runs fewer, even of so few"; } // of six problems chance decides
}

TEST(Search, NothingIsKnownBeforehandOfAHouseHeldWhereAStoresThermostatMayBeOnOrOff) {
  Plan p = testing::filmTunnel();
  addHeater(p, {.power_W = 20000.0});
  p.setpoints.night_C = p.setpoints.day_C = 5.2; // its pump gives below 5, until 6
  p.measures = {usualMeasure(MeasureKind::sealing), usualMeasure(MeasureKind::pipeBed)};
  const auto weather = testing::frost(p.site);
  PackageScenes scenes(weather);
  const auto bare = boundOf(p, scenes, {kUndecided, kNotBuilt}), within = boundOf(p, scenes, {kUndecided, 0});
  ASSERT_TRUE(bare && within);
  EXPECT_GT(bare->cost, 100.0 + fixedCost(p, {kUndecided, kNotBuilt}));
  EXPECT_EQ(within->cost, fixedCost(p, {kUndecided, 0}));
  p.setpoints.night_C = p.setpoints.day_C = 6.2;
  const auto above = boundOf(p, scenes, {kUndecided, 0});
  ASSERT_TRUE(above);
  EXPECT_GT(above->cost, 100.0 + fixedCost(p, {kUndecided, 0}));
}

TEST(Search, NoBoundIsAboveWhatItIsABoundOf) {
  for (unsigned seed = 1; seed <= kPartialChoices; ++seed) {
    const Plan p = randomList(1000 + seed / 4);
    const auto weather = testing::randomWeather(1000 + seed / 4, p, 4);
    PackageScenes scenes(weather);
    Chance chance(seed);
    const std::vector<bool> may = relaxable(p);
    Choice part(p.measures.size()), whole(p.measures.size());
    for (std::size_t k = 0; k < part.size(); ++k) {
      whole[k] = chance.whole(-1, levelCount(p.measures[k]) - 1);
      part[k] = may[k] && chance.happens(0.6) ? kUndecided : whole[k];
    }
    const Package package = buildPackage(p, whole);
    if (!isSound(package.plan)) continue;
    const auto bound = boundOf(p, scenes, part);
    const auto run = simulate(package.plan, scenes.of(package.plan));
    ASSERT_TRUE(bound && run) << seed;
    const Summary& s = run->summary;
    EXPECT_LE(bound->misses, s.nights - s.held) << seed << ": what is relaxed misses no more nights";
    EXPECT_LE(bound->degreeHours_K_h, s.degreeHours_K_h / s.winters + 1e-9) << seed << ": nor is it colder";
    if (isTooCold(p.ask, s.nights - s.held, s.degreeHours_K_h / s.winters)) continue;
    EXPECT_LE(bound->cost, s.cost.total() + 1e-9) << seed << ": " << english(package.label);
  }
}

Plan tunnelToSize() {
  Plan p = testing::filmTunnel();
  p.prices.electricity_per_kWh = 0.3;
  p.measures = {usualMeasure(MeasureKind::secondSkin), usualMeasure(MeasureKind::nightBlanket), usualMeasure(MeasureKind::sealing),
                usualMeasure(MeasureKind::barrels),    usualMeasure(MeasureKind::skirt),        usualMeasure(MeasureKind::heater),
                usualMeasure(MeasureKind::hardier)};
  p.measures[2].levels = {0.6, 0.3};
  p.measures[3].levels = {10};
  p.measures[5].levels = {3000, 6000, 12000};
  return p;
}

TEST(Search, AnswersTheSameOnAnyNumberOfThreadsAndRunsFewOfMany) {
  const Plan p = tunnelToSize();
  const auto weather = testing::frost(p.site);
  ASSERT_GT(packageCount(p), kFewPackages);
  const auto one = size(p, weather, {.threads = 1}), three = size(p, weather, {.threads = 3});
  ASSERT_TRUE(one && three);
  EXPECT_EQ(one->covered, packageCount(p));
  EXPECT_EQ(one->runs, three->runs);
  ASSERT_EQ(one->packages.size(), three->packages.size());
  for (std::size_t i = 0; i < one->packages.size(); ++i) {
    EXPECT_EQ(one->packages[i].choice, three->packages[i].choice);
    EXPECT_EQ(one->packages[i].cost.total(), three->packages[i].cost.total());
  }
  ASSERT_GE(one->winner, 0);
  EXPECT_EQ(one->winner, three->winner);
  EXPECT_LT(one->runs, packageCount(p) / 3);
}

TEST(Search, SaysHowFarOffItMayBeWhereItsTimeIsShort) {
  const Plan p = tunnelToSize();
  const auto weather = testing::frost(p.site);
  const auto whole = size(p, weather), cut = size(p, weather, {.time_s = 0.0});
  ASSERT_TRUE(whole && cut);
  EXPECT_FALSE(cut->provedLeast);
  EXPECT_LT(cut->runs, whole->runs);
  ASSERT_GE(whole->winner, 0);
  EXPECT_LE(cut->bound, winnerOf(*whole).cost.total()) << "nothing that holds can be below it";
}

TEST(Search, TellsWhatItHasFoundAndEndsWhenAsked) {
  const Plan p = tunnelToSize();
  double found = std::numeric_limits<double>::infinity(), bound = 0.0;
  std::size_t told = 0;
  const auto whole = size(p, testing::frost(p.site), {.progress = [&](const SizingProgress& so) {
                            ++told;
                            EXPECT_EQ(so.of, 0U);
                            if (so.found) {
                              EXPECT_LE(*so.found, found) << "never dearer than before";
                              found = *so.found;
                            }
                            if (so.bound) {
                              EXPECT_GE(*so.bound, bound - 1e-9) << "a bound only rises";
                              bound = *so.bound;
                            }
                            return true;
                          }});
  ASSERT_TRUE(whole);
  EXPECT_GT(told, 3U);
  EXPECT_EQ(found, winnerOf(*whole).cost.total());
  const auto stopped = size(p, testing::frost(p.site), {.progress = [](const SizingProgress& so) { return so.done < 12; }});
  ASSERT_TRUE(stopped) << "what has been run is an answer";
  EXPECT_TRUE(stopped->isStopped);
  EXPECT_FALSE(stopped->provedLeast);
  EXPECT_LT(stopped->packages.size(), whole->packages.size());
  ASSERT_GE(stopped->winner, 0);
  EXPECT_GE(winnerOf(*stopped).cost.total(), winnerOf(*whole).cost.total());
  for (std::size_t runs = 1; runs <= whole->runs; runs += 7) {
    const auto part = size(p, testing::frost(p.site), {.progress = [runs](const SizingProgress& so) { return so.done < runs; }});
    ASSERT_TRUE(part) << runs;
    EXPECT_LE(part->bound, winnerOf(*whole).cost.total() + 1e-9) << runs << ": nothing below it, however early it was stopped";
  }
  const std::atomic<bool> atOnce{true};
  const auto nothing = size(p, testing::frost(p.site), {.stop = &atOnce});
  ASSERT_FALSE(nothing) << "nothing has";
  EXPECT_EQ(nothing.problem().kind, ProblemKind::cancelled);
}

TEST(Search, WhatIsFixedIsBuiltWhatIsRuledOutIsNotAndRulesAreKept) {
  Plan p = tunnelToSize();
  const auto weather = testing::frost(p.site);
  const auto free = size(p, weather);
  ASSERT_GE(free->winner, 0);
  for (std::size_t k = 0; k < p.measures.size(); k += testing::isSanitized() ? 3 : 1) {
    Plan other = p;
    const bool isTaken = winnerOf(*free).choice[k] >= 0;
    other.measures[k].offer = isTaken ? Offer::ruledOut : Offer::fixed;
    const auto ruled = size(other, weather);
    ASSERT_TRUE(ruled);
    for (const SizedPackage& package : ruled->packages) EXPECT_EQ(package.choice[k] >= 0, !isTaken);
    if (ruled->winner < 0) continue;
    EXPECT_GE(winnerOf(*ruled).cost.total(), winnerOf(*free).cost.total() - 1e-9) << "a rule never makes it cheaper";
  }
  p.measures[0].id = "film";
  p.measures[1].needs = {"film"};
  p.measures[3].excludes = {"film"};
  const auto together = size(p, weather);
  ASSERT_TRUE(together);
  for (const SizedPackage& package : together->packages) {
    EXPECT_TRUE(package.choice[1] < 0 || package.choice[0] >= 0) << "a blanket needs the film";
    EXPECT_TRUE(package.choice[3] < 0 || package.choice[0] < 0) << "barrels exclude it";
  }
}

TEST(Search, WhereNoneHoldsTheWishThatAloneStandsInTheWayIsNamedAndLooseningItHelps) {
  const Plan free = tunnelToSize();
  const auto weather = testing::frost(free.site);
  const auto holds = [&](const Plan& plan) { return size(plan, weather)->winner >= 0; };
  Plan poor = free;
  poor.ask.toSpend = 0.0;
  const auto none = size(poor, weather);
  ASSERT_TRUE(none);
  ASSERT_LT(none->winner, 0);
  bool isNamed = false;
  for (const Loosening& l : loosenings(*none, poor)) {
    if (l.of != Loosening::Of::spend) continue;
    isNamed = true;
    EXPECT_NE(english(whatWouldDo(l, *none, poor)).find("to spend"), std::string::npos);
    Plan richer = poor;
    richer.ask.toSpend = l.needs;
    EXPECT_TRUE(holds(richer));
  }
  EXPECT_TRUE(isNamed);
  Plan weak = free;
  weak.ask.supply_kW = 0.0;
  weak.measures[6].offer = Offer::ruledOut; // no hardier crop
  const auto cold = size(weak, weather);
  ASSERT_TRUE(cold);
  ASSERT_LT(cold->winner, 0) << "no heater may be plugged in";
  for (const Loosening& l : loosenings(*cold, weak)) {
    if (l.of != Loosening::Of::supply) continue;
    Plan stronger = weak;
    stronger.ask.supply_kW = l.needs;
    EXPECT_TRUE(holds(stronger));
  }
  Plan nothing = free;
  nothing.measures[0].offer = Offer::fixed;
  nothing.measures[0].id = "film";
  nothing.measures[1].offer = Offer::fixed;
  nothing.measures[1].excludes = {"film"};
  const auto contradiction = size(nothing, weather);
  ASSERT_FALSE(contradiction);
  EXPECT_NE(english(contradiction.problem().what).find("leaves no combination"), std::string::npos);
}

TEST(Search, WhatOnesOwnCannotSetBesideAnotherIsInNoPackage) {
  Plan p = tunnelToSize();
  Measure bay{.kind = MeasureKind::own, .name = "a long bay", .levels = {}, .material = {}}, lobby = bay;
  bay.sets = {{"/house/warm_bay", R"({"length_m": 7.0})"}};
  lobby.name = "a long lobby";
  lobby.sets = {{"/house/lobby", R"({"length_m": 7.0})"}}; // each for itself in twelve metres, not both
  p.measures = {bay, lobby, usualMeasure(MeasureKind::sealing)};
  ASSERT_TRUE(check(p).empty()) << english(check(p).front());
  const auto sized = size(p, testing::frost(p.site));
  ASSERT_TRUE(sized);
  EXPECT_EQ(sized->packages.size(), 6U);
  for (const SizedPackage& package : sized->packages) EXPECT_TRUE(package.choice[0] < 0 || package.choice[1] < 0) << english(package.label);
}

TEST(Search, StoresAreAmongWhatIsChosenAndWhatDoesNotFitTogetherIsLeftOut) {
  Plan p = testing::filmTunnel();
  p.prices.electricity_per_kWh = 0.5;
  p.measures = {usualMeasure(MeasureKind::pipeBed), usualMeasure(MeasureKind::hotBed), usualMeasure(MeasureKind::massWall), usualMeasure(MeasureKind::heater)};
  p.measures[1].levels = {1, 12};
  p.measures[3].levels = {6000, 12000};
  ASSERT_TRUE(check(p).empty()) << english(check(p).front());
  const auto weather = testing::frost(p.site);
  const auto sized = size(p, weather);
  ASSERT_TRUE(sized);
  EXPECT_LT(sized->packages.size(), packageCount(p)) << "twelve hot beds are more than a plan may have";
  for (const SizedPackage& package : sized->packages) EXPECT_TRUE(isSound(buildPackage(p, package.choice).plan));
  // each as its own plan says, with the weeks before the log that stores need
  for (const Choice& choice : {Choice{0, -1, -1, 0}, Choice{-1, 0, -1, 0}, Choice{-1, -1, 0, 0}}) {
    const auto it = std::find_if(sized->packages.begin(), sized->packages.end(), [&](const SizedPackage& s) { return s.choice == choice; });
    ASSERT_NE(it, sized->packages.end());
    const Plan alone = buildPackage(p, choice).plan;
    const auto run = simulate(alone, makeScene(weather, alone));
    EXPECT_EQ(run->summary.cost.total(), it->cost.total());
    EXPECT_EQ(run->summary.degreeHours_K_h, it->degreeHours_K_h);
  }
}

TEST(Search, KeepsToWhatThereIsToSpend) {
  Plan p = tunnelToSize();
  const auto weather = testing::frost(p.site);
  const auto free = size(p, weather);
  ASSERT_GE(free->winner, 0);
  const double spent = winnerOf(*free).capital;
  ASSERT_GT(spent, 0.0);
  p.ask.toSpend = 0.9 * spent;
  const auto tight = size(p, weather);
  ASSERT_TRUE(tight);
  if (tight->winner >= 0) {
    EXPECT_LE(winnerOf(*tight).capital, *p.ask.toSpend);
    EXPECT_GE(winnerOf(*tight).cost.total(), winnerOf(*free).cost.total()) << "a limit never makes it cheaper";
  }
  for (std::size_t i = 0; i < tight->packages.size(); ++i)
    if (tight->packages[i].capital > *p.ask.toSpend && tight->packages[i].nights == tight->packages[i].held) {
      EXPECT_FALSE(tight->packages[i].holds);
      EXPECT_NE(english(whyNot(*tight, static_cast<int>(i), p)).find("more than there is"), std::string::npos);
    }
  p.ask.toSpend = 0.0;
  const auto none = size(p, weather);
  ASSERT_TRUE(none);
  EXPECT_TRUE(none->winner < 0 || winnerOf(*none).capital == 0.0);
}

TEST(Search, WhatAHeaterOnTheListBurnsHasAPriceAndItStandsInARoom) {
  Plan p = tunnelToSize();
  Measure& heater = p.measures[5];
  for (const HeaterKindFacts& facts : heaterKinds()) {
    heater.heater = facts.kind;
    p.prices.fuels.clear();
    EXPECT_EQ(check(p).empty(), facts.inRooms) << facts.id;
    if (!facts.inRooms) continue;
    Choice choice(p.measures.size(), -1);
    choice[5] = 0;
    const Package package = buildPackage(p, choice);
    ASSERT_TRUE(check(package.plan).empty()) << facts.id << ": " << english(check(package.plan).front());
    EXPECT_EQ(*planFromJson(planToJson(package.plan)), package.plan) << facts.id << " is kept as it was taken";
    if (facts.carrier == Carrier::electricity) continue;
    const auto free = size(p, testing::frost(p.site));
    ASSERT_FALSE(free) << facts.id << " would burn for nothing";
    EXPECT_NE(english(free.problem().what).find("no price"), std::string::npos);
  }
}

TEST(Search, MoreThanAnyoneCouldRunIsRefusedWithWhatIsAllowed) {
  Plan p = tunnelToSize();
  for (int copies = 0; copies < 3; ++copies) p.measures.insert(p.measures.end(), p.measures.begin(), p.measures.begin() + 7);
  const auto tooMany = size(p, testing::frost(p.site), {.exhaustive = true});
  ASSERT_FALSE(tooMany);
  EXPECT_NE(english(tooMany.problem().allowed).find("100000"), std::string::npos) << english(tooMany.problem().allowed);
}

} // namespace
} // namespace muffle
