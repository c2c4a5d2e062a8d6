// SPDX-License-Identifier: GPL-3.0-or-later
//
// Laws that any sound house must obey, over an invented fortnight.
#include "core/plan/heaters.h"
#include "core/simulate/load_duration.h"
#include "core/simulate/simulate.h"

#include "core/air/sky.h"
#include "core/log/read.h"
#include "core/sizing/sizing.h"
#include "core/sizing/usual_measures.h"
#include "tests/support/near.h"
#include "tests/support/yard.h"
#include "words/words.h"

#include <fmt/format.h>

namespace muffle::simulate_test {
namespace {

Plan yard() {
  Plan p = testing::yard();
  p.heaters = {{.id = "heater", .name = "fan heater", .power_W = 9000.0, .price = 0.0, .life_years = 10.0}};
  p.barrels.push_back({});
  return p;
}

Log fortnight() {
  Log log;
  Channel outside{.name = "outside", .role = Role::outside, .id = "", .unitIn = "C", .unitWhy = {}, .raw = {}, .flag = {}};
  const UtcSeconds start = daysSinceEpoch({2031, 1, 5}) * 86400;
  for (int i = 0; i < 14 * 144; ++i) {
    log.time.push_back(start + i * 600);
    const double hour = i / 6.0;
    outside.raw.push_back(static_cast<float>(-4.0 - 3.0 * std::sin(hour / 55.0) + 5.0 * std::cos(2 * kPi * (hour - 14.5) / 24.0)));
  }
  outside.flag.assign(outside.raw.size(), 0);
  log.channels.push_back(outside);
  return log;
}

Scene sceneOf(const Plan& plan) { return makeScene(std::make_shared<const Weather>(*weatherFromLog(fortnight(), plan.site)), plan); }

Summary run(const Plan& plan) { return simulate(plan, sceneOf(plan))->summary; }

TEST(Simulate, DrawingABlanketCostsItsHoursAsOftenAsItsRuleSays) {
  Plan p = yard();
  p.prices.hour = 20.0;
  p.house.blanket = NightBlanket{};
  const Summary motor = run(p);
  p.house.blanket->hoursPerDraw = 0.25;
  const Summary everyNight = run(p);
  EXPECT_CLOSE(everyNight.draws * everyNight.winters, 14.0, 1.0, "a fortnight's nights, one cut at its end");
  EXPECT_CLOSE(everyNight.cost.hours, 0.25 * everyNight.draws, 1e-9, "the same");
  EXPECT_EQ(motor.cost.hours, 0.0);
  EXPECT_EQ(motor.heater_kWh, everyNight.heater_kWh);
  EXPECT_CLOSE(everyNight.cost.total() - motor.cost.total(), 20.0 * everyNight.cost.hours, 1e-9, "at the grower's own rate");
  p.house.blanket->rule = BlanketRule::cold;
  p.house.blanket->outsideBelow_C = -8.0;
  const Summary coldNights = run(p);
  EXPECT_LT(coldNights.cost.hours, everyNight.cost.hours);
  EXPECT_GT(coldNights.heater_kWh, everyNight.heater_kWh);
}

TEST(Sizing, CountsABlanketsWorkByTheNightsItIsDrawnAndKeepsItWhenPricesChange) {
  Plan p = yard();
  Measure blanket = usualMeasure(MeasureKind::nightBlanket);
  blanket.hoursPerWinter = 0.0;
  blanket.hoursPerNight = 0.25;
  p.measures = {blanket};
  p.prices.hour = 10.0;
  auto sizing = size(p, sceneOf(p).weather);
  ASSERT_TRUE(sizing);
  ASSERT_EQ(sizing->packages.size(), 2U);
  const SizedPackage &bare = sizing->packages[0], &hung = sizing->packages[1];
  EXPECT_EQ(bare.cost.hours, 0.0);
  const double drawn_h = hung.ledger.sum(Metered::work, MeterUse::blanket) / hung.winters;
  EXPECT_GT(drawn_h, 0.25 * 150.0) << "a winter of such nights";
  EXPECT_CLOSE(hung.cost.hours, drawn_h, 1e-9, "the same");
  EXPECT_CLOSE(hung.cost.hoursMoney, 10.0 * hung.cost.hours, 1e-9, "the same");
  Prices dear = p.prices;
  dear.hour = 30.0;
  const double hours = hung.cost.hours;
  reprice(*sizing, p, dear);
  EXPECT_CLOSE(sizing->packages[1].cost.hours, hours, 1e-9, "the nights are those that were run");
  EXPECT_CLOSE(sizing->packages[1].cost.hoursMoney, 30.0 * hours, 1e-9, "the same");
}

TEST(Simulate, ClosesItsEnergyOnEveryVariant) {
  std::vector<Plan> plans(5, yard());
  plans[1].house.blanket = NightBlanket{.material = "aluminised-screen", .leak = 0.1};
  plans[2].house.shape = {ShapeKind::gable, 6.0, 12.0, 1.8, 3.2, 0.0};
  plans[2].house.roof = plans[2].house.sides = plans[2].house.ends = Skin{{{"glass-4mm", 0.05}}};
  plans[3].house.shape = {ShapeKind::leanTo, 3.0, 8.0, 1.6, 2.8, 90.0};
  plans[3].house.backWall_C = 15.0;
  plans[4].heaters.clear();
  plans[4].barrels.clear();
  plans[4].house.roof.layers.push_back({"twin-wall-8", 0.05});
  for (const Plan& p : plans) {
    ASSERT_TRUE(check(p).empty()) << english(check(p)[0]);
    EXPECT_LE(run(p).closure, 1e-6);
  }
}

TEST(Simulate, MoreOfAnythingThatKeepsWarmthNeedsLessHeat) {
  Plan p = yard();
  p.heaters.front().power_W = 30000.0;
  p.calibration = Calibration{.sun = 0.1, .date = ""}; // dull days: a second film takes light, too
  const double dull = run(p).heater_kWh;
  p.house.roof.layers.push_back({"pe-film-ir", 0.05});
  EXPECT_LT(run(p).heater_kWh, 0.93 * dull) << "the roof's loss falls by a quarter under a clear sky, which is seen through the outer film; draughts stay";
  const double bare = run(yard()).heater_kWh;
  p = yard();
  p.house.blanket = NightBlanket{.material = "aluminised-screen", .leak = 0.1};
  EXPECT_LT(run(p).heater_kWh, 0.9 * bare);
  p = yard();
  p.house.airChanges_per_h = 0.3;
  EXPECT_LT(run(p).heater_kWh, bare);
  p = yard();
  p.setpoints.night_C -= 1.0;
  EXPECT_LT(run(p).heater_kWh, bare);
}

TEST(Simulate, WaterWarmsTheColdestNightOfAnUnheatedHouse) {
  Plan p = yard();
  p.heaters.clear();
  p.barrels.clear();
  const double dry = run(p).coldest_C;
  p.barrels.push_back({});
  p.barrels.front().count = 40;
  EXPECT_GT(run(p).coldest_C, dry + 0.5);
}

TEST(Simulate, AnUnheatedFilmHouseFallsBelowOutdoorsUnderAClearSkyAndNotUnderCloud) {
  Plan p = yard();
  p.heaters.clear();
  p.site.groundMean_C = 4.0;
  // air held at the outside temperature: heat must be supplied to keep it there under a clear sky
  const auto at = [&](double skyClear) { return *steadyLoss(p, 5.0, 5.0, 0.5, skyClear); };
  const auto roofOf = [](const HeatLoss& loss) {
    for (const LossPart& part : loss.parts)
      if (part.part == LossPath::roof) return part.loss_W;
    return std::nan("");
  };
  const double clear = roofOf(at(1.0)), cloud = roofOf(at(0.0));
  EXPECT_GT(clear, 0.0);
  EXPECT_GT(clear, 3.0 * cloud);
  EXPECT_GT(at(1.0).total_W, at(0.0).total_W);
}

TEST(Simulate, SplittingTheWorkOverThreadsChangesNothing) {
  const Plan p = yard();
  const Scene scene = sceneOf(p);
  const auto a = simulate(p, scene, {.series = true, .threads = 1}), b = simulate(p, scene, {.series = true, .threads = 2});
  EXPECT_EQ(a->summary.heater_kWh, b->summary.heater_kWh);
  EXPECT_EQ(a->series[0].air_C, b->series[0].air_C);
}

TEST(Simulate, LeavesOutNightsWithoutReadingsAndSaysSo) {
  Log log = fortnight();
  for (int i = 5 * 144 + 120; i < 5 * 144 + 150; ++i) log.channels[0].raw[static_cast<std::size_t>(i)] = std::nanf("");
  const Plan p = yard();
  const auto weather = weatherFromLog(log, p.site);
  ASSERT_TRUE(weather);
  const auto result = simulate(p, makeScene(std::make_shared<const Weather>(*weather), p));
  EXPECT_EQ(result->summary.leftOut, 1);
  EXPECT_EQ(static_cast<int>(result->nights.size()), result->summary.nights + 1);
}

TEST(Simulate, SteadyLossIsTheSumOfItsPartsAndGrowsWithWind) {
  const auto calm = steadyLoss(yard(), 3.0, -11.0, 0.5, 1.0), windy = steadyLoss(yard(), 3.0, -11.0, 6.0, 1.0);
  double sum = 0.0;
  for (const LossPart& p : calm->parts) sum += p.loss_W;
  EXPECT_CLOSE(sum, calm->total_W, 1e-6, "the same numbers added");
  EXPECT_GT(windy->total_W, calm->total_W);
}

TEST(Sizing, OneChangeEachIsTheHouseWithThatChangeAlone) {
  Plan p = yard();
  p.measures = changesToTry(p);
  ASSERT_GE(p.measures.size(), 5U);
  ASSERT_TRUE(check(p).empty()) << "what is offered can be built";
  const auto weather = std::make_shared<const Weather>(*weatherFromLog(fortnight(), p.site));
  const auto list = oneChangeEach(p, weather);
  ASSERT_TRUE(list);
  ASSERT_EQ(list->packages.size(), p.measures.size() + 1) << "each has one size";
  for (const SizedPackage& line : list->packages) {
    EXPECT_LE(std::count_if(line.choice.begin(), line.choice.end(), [](int c) { return c >= 0; }), 1);
    const Package built = buildPackage(p, line.choice);
    const auto alone = simulate(built.plan, makeScene(weather, built.plan));
    EXPECT_EQ(alone->summary.held, line.held) << english(line.label);
    EXPECT_DOUBLE_EQ(alone->summary.cost.total(), line.cost.total()) << english(line.label) << ": the kit goes with the plan";
  }
}

TEST(Sizing, FindsTheCheapestOfAllAndTheSameOnAnyNumberOfThreads) {
  Plan p = yard();
  p.measures = {{.kind = MeasureKind::secondSkin,
                 .name = "second film",
                 .levels = {},
                 .material = "pe-film-ir",
                 .gap_m = 0.06,
                 .price = 1.9,
                 .life_years = 4.0,
                 .hoursPerWinter = 3.0},
                {.kind = MeasureKind::sealing,
                 .name = "sealing",
                 .levels = {0.3},
                 .material = "",
                 .gap_m = 0.05,
                 .price = 60.0,
                 .life_years = 3.0,
                 .hoursPerWinter = 2.0},
                {.kind = MeasureKind::heater,
                 .name = "heater",
                 .levels = {4000, 15000},
                 .material = "",
                 .gap_m = 0.05,
                 .price = 55.0,
                 .life_years = 10.0,
                 .hoursPerWinter = 0.0}};
  const auto weather = std::make_shared<const Weather>(*weatherFromLog(fortnight(), p.site));
  const auto one = size(p, weather, {1, {}}), two = size(p, weather, {2, {}});
  ASSERT_TRUE(one);
  ASSERT_EQ(one->packages.size(), 12U);
  ASSERT_EQ(one->winner, two->winner);
  ASSERT_GE(one->winner, 0);
  const double best = one->packages[static_cast<std::size_t>(one->winner)].cost.total();
  for (std::size_t i = 0; i < one->packages.size(); ++i) {
    EXPECT_EQ(one->packages[i].heater_kWh, two->packages[i].heater_kWh);
    if (one->packages[i].holds) { EXPECT_GE(one->packages[i].cost.total(), best); }
  }
  for (std::size_t k = 1; k < one->frontier.size(); ++k) {
    const auto& a = one->packages[static_cast<std::size_t>(one->frontier[k - 1])];
    const auto& b = one->packages[static_cast<std::size_t>(one->frontier[k])];
    EXPECT_GE(b.cost.total(), a.cost.total());
    EXPECT_LT(b.degreeHours_K_h, a.degreeHours_K_h);
  }
}

TEST(Sizing, RepricingGivesWhatASearchAtThosePricesGives) {
  Plan p = yard();
  p.measures = {{.kind = MeasureKind::secondSkin,
                 .name = "second film",
                 .levels = {},
                 .material = "pe-film-ir",
                 .gap_m = 0.06,
                 .price = 1.9,
                 .life_years = 4.0,
                 .hoursPerWinter = 3.0}};
  const auto weather = std::make_shared<const Weather>(*weatherFromLog(fortnight(), p.site));
  auto sizing = size(p, weather);
  Prices dear = p.prices;
  dear.electricity_per_kWh = 0.9;
  dear.hour = 20.0;
  reprice(*sizing, p, dear);
  p.prices = dear;
  const auto again = size(p, weather);
  for (std::size_t i = 0; i < again->packages.size(); ++i) EXPECT_DOUBLE_EQ(again->packages[i].cost.total(), sizing->packages[i].cost.total());
}

TEST(Sizing, RepricingReachesWhatAHeaterOnTheListBurns) {
  Plan p = yard();
  Measure burner{
      .kind = MeasureKind::heater, .name = "burner", .levels = {8000}, .material = "", .gap_m = 0.05, .price = 60.0, .life_years = 10.0, .hoursPerWinter = 0.0};
  burner.heater = HeaterKind::propane;
  p.measures = {burner};
  p.prices.fuels = {{Carrier::propane, "kWh", 0.10}};
  const auto weather = std::make_shared<const Weather>(*weatherFromLog(fortnight(), p.site));
  auto sizing = size(p, weather);
  ASSERT_GT(sizing->packages.back().heater_kWh, 0.0);
  Prices dear = p.prices;
  dear.fuels[0].price_kWh = 0.30;
  reprice(*sizing, p, dear);
  p.prices = dear;
  const auto again = size(p, weather);
  for (std::size_t i = 0; i < again->packages.size(); ++i) EXPECT_DOUBLE_EQ(again->packages[i].cost.total(), sizing->packages[i].cost.total());
}

TEST(Sizing, CanBeStopped) {
  Plan p = yard();
  p.measures = {{.kind = MeasureKind::heater,
                 .name = "heater",
                 .levels = {1000, 2000, 3000, 4000},
                 .material = "",
                 .gap_m = 0.05,
                 .price = 0.0,
                 .life_years = 10.0,
                 .hoursPerWinter = 0.0}};
  const auto weather = std::make_shared<const Weather>(*weatherFromLog(fortnight(), p.site));
  SizingOptions options;
  options.progress = [](const SizingProgress& so) { return so.done < 2; };
  const auto stopped = size(p, weather, options);
  ASSERT_TRUE(stopped);
  EXPECT_TRUE(stopped->isStopped) << "what has been run is an answer";
  EXPECT_LT(stopped->packages.size(), packageCount(p));
  const auto list = oneChangeEach(p, weather, options);
  ASSERT_FALSE(list) << "but no part of what is to be set beside one another";
  EXPECT_EQ(list.problem().kind, ProblemKind::cancelled);
}

TEST(Simulate, TellsOfAWinterUnderWayWhatTheWholeRunSaysToo) {
  const Plan plan = yard();
  const Scene scene = sceneOf(plan);
  WinterResult early;
  int told = 0;
  SimulateOptions options{.series = true};
  options.tellAt = 700;
  options.tell = [&](const WinterResult& soFar, std::size_t step) {
    EXPECT_EQ(step, 700U);
    ++told;
    early = soFar;
  };
  const auto whole = simulateWinter(plan, scene, 0, options);
  ASSERT_TRUE(whole);
  EXPECT_EQ(told, 1);
  for (std::size_t i = 0; i <= 700; ++i) ASSERT_EQ(early.series.air_C[i], whole->series.air_C[i]) << i;
  ASSERT_FALSE(early.nights.empty());
  ASSERT_LT(early.nights.size(), whole->nights.size());
  EXPECT_LE(early.nights.back().to, 700U);
  for (std::size_t n = 0; n < early.nights.size(); ++n) EXPECT_EQ(early.nights[n].coldest_C, whole->nights[n].coldest_C);

  Plan warmer = plan;
  warmer.setpoints.night_C += 3.0;
  WinterSeries mixed = simulateWinter(warmer, scene, 0, {.series = true})->series;
  const float after = mixed.air_C[900];
  takeFirst(mixed, early.series, 700);
  EXPECT_EQ(mixed.air_C[650], whole->series.air_C[650]);
  EXPECT_EQ(mixed.air_C[900], after) << "what has not been run stays as it was";
}

TEST(Simulate, TellsAtTheLastStepIfAskedForOneBeyondIt) {
  const Plan plan = yard();
  const Scene scene = sceneOf(plan);
  SimulateOptions options{.series = true};
  options.tellAt = 1u << 30;
  std::size_t at = 0;
  options.tell = [&](const WinterResult&, std::size_t step) { at = step; };
  ASSERT_TRUE(simulateWinter(plan, scene, 0, options));
  EXPECT_EQ(at, scene.weather->winters.front().size() - 1);
}

TEST(LoadDuration, HoldsTheHeatersEnergyAndFallsFromItsSize) {
  const Plan plan = yard();
  const Scene scene = sceneOf(plan);
  const auto run = simulate(plan, scene, {.series = true});
  ASSERT_TRUE(run);
  const LoadDuration load(*run, *scene.weather);
  double energy_kWh = 0.0, before = 1e9;
  for (double h = 0.0; h < 182.0 * 24.0; h += 0.5) {
    EXPECT_LE(load.power_W(h), before);
    before = load.power_W(h);
    energy_kWh += before * 0.5 / 1000.0;
  }
  // half-hour samples of steps that are each 2.2 h of a winter's 182 days, over a fall of at most 9 kW
  EXPECT_CLOSE(energy_kWh, run->summary.heater_kWh / run->summary.winters, 9.0 * 2.2, "one step of the curve at its highest");
  EXPECT_CLOSE(load.power_W(0.0), run->summary.heaterPeak_W, 0.01, "single precision of 9 kW");
  EXPECT_DOUBLE_EQ(load.hoursAbove_h(plan.heaters.front().power_W + 1.0), 0.0);
  EXPECT_GT(load.hoursAbove_h(500.0), load.hoursAbove_h(5000.0));
  EXPECT_DOUBLE_EQ(LoadDuration{}.power_W(3.0), 0.0);
}

TEST(LoadDuration, OfSeveralHeatersTheCurveIsTheirSum) {
  Plan plan = yard();
  plan.heaters.front().power_W = 3000.0;
  addHeater(plan, {.id = "help", .power_W = 6000.0, .stage_K = 1.0});
  const Scene scene = sceneOf(plan);
  const auto run = simulate(plan, scene, {.series = true});
  ASSERT_TRUE(run);
  constexpr double kSpan_h = 182.0 * 24.0;
  constexpr std::size_t kSlices = 364;
  const auto loads = loadByHeater(plan, *run, *scene.weather, kSpan_h, kSlices);
  ASSERT_EQ(loads.size(), 2U);
  EXPECT_EQ(loads[0].heater, 0U) << "the first to begin lies below";
  double before = 1e9;
  for (std::size_t k = 0; k < kSlices; ++k) {
    const double all = loads[0].power_W[k] + loads[1].power_W[k];
    EXPECT_LE(all, before * (1.0 + 1e-9)) << "hours of most heat first";
    EXPECT_LE(loads[0].power_W[k], 3000.0 * (1.0 + 1e-6));
    before = all;
  }
  for (const HeaterLoad& l : loads) {
    double kWh = 0.0;
    for (const double power : l.power_W) kWh += power / 1000.0 * kSpan_h / static_cast<double>(kSlices);
    const double billed_kWh = run->summary.ledger.heat_kWh(MeterUse::heater, l.heater) / run->summary.winters;
    EXPECT_CLOSE(kWh, billed_kWh, 0.01 * billed_kWh + 9.0 * 12.0, "slices are cut to whole hours: one slice's hours at full stretch");
  }
}

} // namespace
} // namespace muffle::simulate_test
