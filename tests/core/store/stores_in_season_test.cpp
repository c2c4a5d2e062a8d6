// SPDX-License-Identifier: GPL-3.0-or-later
//
// Stores in a house over a winter.
#include "core/assemble/assemble.h"
#include "core/log/read.h"
#include "core/plan/heaters.h"
#include "core/plan/store_list.h"
#include "core/run/store_runner.h"
#include "core/simulate/simulate.h"
#include "core/weather/before.h"
#include "tests/support/every_store.h"
#include "tests/support/near.h"
#include "tests/support/yard.h"
#include "words/words.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <numeric>

namespace muffle::stores_in_season_test {
namespace {

using testing::yard;

/// Ten weeks from mid November that grow colder, with clear days.
std::shared_ptr<const Weather> tenWeeks(const Site& site) {
  Log log;
  Channel outside{.name = "outside", .role = Role::outside, .id = "", .unitIn = "C", .unitWhy = {}, .raw = {}, .flag = {}};
  const UtcSeconds start = daysSinceEpoch({2030, 11, 15}) * 86400;
  for (int i = 0; i < 70 * 144; ++i) {
    log.time.push_back(start + i * 600);
    const double day = i / 144.0, hour = i / 6.0;
    outside.raw.push_back(static_cast<float>(5.0 - 0.1 * day + 2.0 * std::sin(day / 3.0) + 5.0 * std::cos(2 * kPi * (hour - 14.5) / 24.0)));
  }
  outside.flag.assign(outside.raw.size(), 0);
  log.channels.push_back(outside);
  return std::make_shared<const Weather>(*weatherFromLog(log, site));
}

Simulation run(const Plan& plan) {
  EXPECT_TRUE(check(plan).empty()) << (check(plan).empty() ? "" : english(check(plan).front()));
  return *simulate(plan, makeScene(tenWeeks(plan.site), plan), {.series = true});
}

using testing::hotBed;

Plan everything() {
  Plan p = testing::yardWithEveryStore();
  p.heaters = {{.id = "heater", .name = "fan heater", .power_W = 9000.0, .price = 0.0, .life_years = 10.0}};
  return p;
}

/// Mean of a series over days of the log.
double mean(const std::vector<float>& series, int fromDay, int toDay) {
  const auto begin = series.begin() + fromDay * 144, end = series.begin() + toDay * 144;
  return std::accumulate(begin, end, 0.0) / static_cast<double>(end - begin);
}

TEST(StoresInSeason, EnergyClosesWithEveryStoreInOnePlan) {
  const Simulation all = run(everything());
  EXPECT_LT(all.summary.closure, 1e-9); // of what went through it; rounding over ten thousand steps
  EXPECT_GT(all.summary.coldest_C, -10.0) << "a heated house in ten weeks that hardly freeze, whatever stands in it";
  ASSERT_EQ(all.summary.stores.size(), storesOf(everything()).size());
  for (const StoreSummary& s : all.summary.stores) EXPECT_GT(s.warmest_C, s.coldest_C);
}

TEST(StoresInSeason, ThreadsAndRepetitionChangeNothing) {
  const Plan p = everything();
  const Scene scene = makeScene(tenWeeks(p.site), p);
  const Simulation one = *simulate(p, scene), two = *simulate(p, scene, {.threads = 2});
  EXPECT_EQ(one.summary.coldest_C, two.summary.coldest_C);
  EXPECT_EQ(one.summary.stores[4].made_kWh, two.summary.stores[4].made_kWh);
}

TEST(StoresInSeason, PipesChargedInAutumnAreWarmerInWinterThanPipesLaidOnTheDayTheLogBegins) {
  Plan charged = yard(), late = yard();
  charged.groundPipes.push_back({.rule = {15.0, -10.0}}); // all autumn in, nothing out
  late.groundPipes = charged.groundPipes;
  late.warmUp_days = 0;
  const auto soil = [](const Simulation& s) { return mean(s.series.front().stores.front().temperature_C.back(), 0, 14); };
  EXPECT_GT(soil(run(charged)), soil(run(late)) + 0.5);
}

TEST(StoresInSeason, PipesRaiseTheColdestNightAndTheirSoilCoolsOverTheWeeksThatDrawOnIt) {
  Plan bare = yard(), piped = yard();
  piped.groundPipes.push_back({});
  const Simulation without = run(bare), with = run(piped);
  EXPECT_GT(with.summary.coldest_C, without.summary.coldest_C + 0.3);
  const auto& soil = with.series.front().stores.front().temperature_C.back();
  EXPECT_LT(mean(soil, 60, 70), mean(soil, 0, 10) - 1.0);
  EXPECT_GT(with.summary.stores.front().electricity_kWh, 1.0);
}

TEST(StoresInSeason, AHotBedWarmsTheRootsOverItForWeeks) {
  Plan p = yard();
  p.compost.push_back(hotBed());
  p.compost.back().built = "11-20"; // five days into the log
  const Simulation s = run(p);
  const StoreSeries& bed = s.series.front().stores.front();
  EXPECT_TRUE(std::isnan(bed.temperature_C[0][0])); // nothing stands there yet
  EXPECT_GT(mean(bed.temperature_C[1], 20, 40), mean(s.series.front().air_C, 20, 40) + 3.0);
  EXPECT_GT(s.summary.stores.front().given_kWh, 20.0);
}

TEST(StoresInSeason, ASeriesOfPilesKeepsOneHotWhenASingleOneIsSpent) {
  Plan one = yard();
  one.compost.push_back(hotBed());
  one.compost.back().built = "09-15";
  Plan series = one;
  series.compost.back().piles = 4;
  series.compost.back().everyDays = 30.0;
  const auto late = [](const Simulation& s) { return mean(s.series.front().stores.front().temperature_C[0], 40, 70); };
  EXPECT_GT(late(run(series)), late(run(one)) + 4.0);
}

TEST(StoresInSeason, APileThatIsToppedUpStaysWarmLonger) {
  Plan once = yard();
  once.compost.push_back(hotBed());
  once.compost.back().built = "10-15";
  Plan again = once;
  again.compost.back().topUpEvery_days = 14.0;
  const auto late = [](const Simulation& s) { return mean(s.series.front().stores.front().temperature_C[0], 30, 60); };
  EXPECT_GT(late(run(again)), late(run(once)) + 4.0);
}

TEST(StoresInSeason, APumpNeverCoolsTheHouseThroughADeadPile) {
  Plan p = yard();
  CompostPile mound = hotBed();
  mound.place = PilePlace::mound;
  mound.recipe = {{"sawdust", 800.0, {}}}; // never lights
  p.compost.push_back(mound);
  EXPECT_LT(run(p).summary.stores.front().taken_kWh, 5.0); // the boundary follows the air a step late; unguarded it would be hundreds
}

TEST(StoresInSeason, ACableHoldsTheSoilBesideItAndWarmsTheLeavesUnderItsCover) {
  Plan p = yard();
  p.house.bedCovers.push_back({});
  Plan warmed = p;
  warmed.soilCables.push_back({.length_m = 40.0, .setpoint_C = 14.0});
  const Simulation cold = run(p), warm = run(warmed);
  const StoreSeries& cable = warm.series.front().stores.front();
  EXPECT_NEAR(mean(cable.temperature_C[0], 10, 70), 14.0, 0.5); // above it where the sun is stronger
  EXPECT_GT(mean(cable.temperature_C[2], 10, 70), mean(cold.series.front().rooms.front().air_C, 10, 70) + 1.0);
  EXPECT_NEAR(warm.summary.stores.front().electricity_kWh, warm.summary.cable_kWh, 1e-9); // it is paid for
}

TEST(StoresInSeason, ACableWithAThermostatOfItsOwnGoesOnAndOffWhereItIsSet) {
  Plan p = yard();
  p.house.bedCovers.push_back({});
  Plan inSoil = p, inAir = p, warmer = p;
  inSoil.soilCables.push_back({.length_m = 40.0, .setpoint_C = 12.0, .off_C = 15.0});
  inAir.soilCables.push_back({.length_m = 40.0, .setpoint_C = 6.0, .sensor = CableSensor::air});
  warmer.soilCables.push_back({.length_m = 40.0, .setpoint_C = 6.0, .sensor = CableSensor::air, .off_C = 10.0});
  const Simulation soil = run(inSoil), air = run(inAir), longer = run(warmer);
  const StoreSeries& cable = soil.series.front().stores.front();
  const double full_W = 40.0 * inSoil.soilCables[0].watts_per_m;
  for (std::size_t i = 1; i < cable.given_W.size(); ++i) { // all of it or nothing, but for the step in which it turns
    const double share = static_cast<double>(cable.given_W[i]) / full_W;
    const auto [low, high] = std::minmax({static_cast<double>(cable.temperature_C[0][i - 1]), static_cast<double>(cable.temperature_C[0][i])});
    if (high < 11.8) { EXPECT_NEAR(share, 1.0, 1e-6) << i; }
    if (low > 15.2) { EXPECT_NEAR(share, 0.0, 1e-6) << i; }
  }
  EXPECT_GT(mean(cable.temperature_C[0], 10, 70), 12.0);
  EXPECT_GT(air.summary.cable_kWh, 0.0);
  EXPECT_GT(longer.summary.cable_kWh, air.summary.cable_kWh) << "off later, it takes more";
}

TEST(StoresInSeason, ACollectorMakesTheTankWarmerAndItsHeatReachesTheHouse) {
  Plan plain = yard();
  plain.waterLoops.push_back({});
  Plan solar = plain;
  solar.waterLoops.front().collector_m2 = 6.0;
  const Simulation a = run(plain), b = run(solar);
  EXPECT_GT(b.summary.stores.front().warmest_C, a.summary.stores.front().warmest_C + 3.0);
  EXPECT_GT(b.summary.stores.front().given_kWh, a.summary.stores.front().given_kWh + 50.0);
}

TEST(StoresInSeason, ABoilerKeepsTheTankWhileItIsLitAndItsFuelIsPaidForApart) {
  Plan p = yard();
  p.waterLoops.push_back({});
  Heater& boiler = firstHeater(p, {HeaterPlace::Of::tank});
  boiler.power_W = 6000.0;
  boiler.holds_C = 50.0;
  boiler.efficiency = 0.8;
  boiler.fuelPrice_kWh = 0.08;
  const auto given_kWh = [](const Simulation& of) { return of.summary.ledger.heat_kWh(MeterUse::tankHeater); };
  const Simulation always = run(p);
  const StoreSummary& tank = always.summary.stores.front();
  EXPECT_GT(tank.coldest_C, 20.0);
  EXPECT_LE(tank.warmest_C, 50.2) << "no hotter than it is kept; the middle of two steps taken as one is read off a parabola";
  EXPECT_GT(given_kWh(always), 500.0);
  EXPECT_DOUBLE_EQ(always.summary.heater_kWh, 0.0) << "no electricity is bought for it";
  EXPECT_CLOSE(always.summary.fuel, given_kWh(always) / 0.8 * 0.08 / always.summary.winters, 1e-9, "rounding");
  EXPECT_GE(always.summary.cost.energy, always.summary.fuel);
  EXPECT_LT(always.summary.closure, 1e-9);
  boiler.for_h = 6.0;
  const Simulation evenings = run(p);
  EXPECT_LT(given_kWh(evenings), 0.95 * given_kWh(always));
  EXPECT_LT(evenings.summary.stores.front().coldest_C, tank.coldest_C - 3.0) << "it burns down towards morning";
}

TEST(StoresInSeason, ACollectorsWaterWarmsTheSoilAtThePipes) {
  Plan plain = yard();
  plain.groundPipes.push_back({});
  Plan solar = plain;
  solar.groundPipes.front().collector_m2 = 8.0;
  const Simulation a = run(plain), b = run(solar);
  constexpr std::size_t kSoilAbout = 3;
  const auto soil = [](const Simulation& s) { return mean(s.series.front().stores.front().temperature_C[kSoilAbout], 20, 70); };
  EXPECT_GT(soil(b), soil(a) + 0.5);
  EXPECT_GT(b.summary.stores.front().given_kWh, a.summary.stores.front().given_kWh);
  EXPECT_GT(b.summary.stores.front().electricity_kWh, 0.0);
  EXPECT_LT(b.summary.closure, 1e-9);
}

TEST(StoresInSeason, PipesThatServeABayWarmTheBay) {
  Plan p = yard();
  p.house.bay = WarmBay{};
  removeHeaters(p, {HeaterPlace::Of::bay});
  p.groundPipes.push_back({});
  Plan toBay = p;
  toBay.groundPipes.front().serves = PipeOutlet::bay;
  const auto bay = [](const Simulation& s) { return s.summary.rooms.front().coldest_C; };
  EXPECT_GT(bay(run(toBay)), bay(run(p)) + 0.3);
}

TEST(StoresInSeason, PipesThatServeABedBlowTheirDrierAirUnderItsCover) {
  Plan p = yard();
  p.house.bedCovers.push_back({});
  p.groundPipes.push_back({.count = 6, .depth_m = 1.0, .fan_m3_h = 60.0, .rule = {20.0, 1.0}});
  Plan toBed = p;
  toBed.groundPipes.front().serves = PipeOutlet::bed;
  // on frosty nights the house's air is dry; under the cover, over moist soil, it is not, so that what the air brings in warmth the
  // soil's water takes
  const auto damp = [](const Simulation& s) { return mean(s.series.front().rooms.front().vapour_g_kg, 40, 70); };
  EXPECT_LT(damp(run(toBed)), damp(run(p)) - 0.3);
}

TEST(StoresInSeason, AWallTakesTheDaysHeatAndGivesItByNight) {
  Plan p = yard();
  p.mass.push_back({.area_m2 = 20.0});
  const Simulation with = run(p), without = run(yard());
  EXPECT_GT(with.summary.coldest_C, without.summary.coldest_C);
  EXPECT_LT(with.summary.warmest_C, without.summary.warmest_C);
  EXPECT_GT(with.summary.stores.front().given_kWh, 20.0);
}

TEST(StoresInSeason, LayeredBarrelsAreWarmerAboveAndNearlyAsGood) {
  Plan whole = yard();
  whole.barrels.push_back({.count = 10});
  Plan layered = whole;
  layered.barrels.front().layered = true;
  const Simulation a = run(whole), b = run(layered);
  const StoreSeries& s = b.series.front().stores.front();
  EXPECT_GE(mean(s.temperature_C[1], 5, 70), mean(s.temperature_C[0], 5, 70) - 1e-3); // never colder for long: it turns over
  EXPECT_NEAR(a.summary.coldest_C, b.summary.coldest_C, 0.3);
  EXPECT_LT(b.summary.closure, 1e-9);
}

TEST(StoresInSeason, WhatTheGroundAboutPipesTakesIsCountedAsTheDeepGrounds) {
  const Plan p = everything();
  const Scene scene = makeScene(tenWeeks(p.site), p);
  const Assembly a = assemble(p, scene.weather->winters[0], scene.sun[0]);
  int counted = 0;
  for (const Link& link : a.network.links)
    for (const int end : {link.from, link.to}) {
      const Node& node = a.network.nodes[static_cast<std::size_t>(end)];
      if (!node.boundary || node.id.rfind("pipes", 0) != 0) continue;
      EXPECT_EQ(link.part, lossPathId(LossPath::deepGround)) << node.id;
      ++counted;
    }
  EXPECT_EQ(counted, 4) << "under the floor below and beside; beside the house below and above";
}

TEST(StoresInSeason, WhatBarrelsHoldFallsByWhatTheyGiveAlsoWhereTheyFreeze) {
  Plan p = yard();
  p.heaters.clear(); // they freeze in part
  p.barrels.push_back({.sunShare = 0.0});
  const Simulation s = run(p);
  const StoreSeries& barrels = s.series.front().stores.front();
  ASSERT_EQ(barrels.charge_kWh.size(), barrels.given_W.size());
  EXPECT_LT(s.summary.stores.front().coldest_C, 0.0);
  double given_kWh = 0.0;
  for (std::size_t i = 1; i < barrels.given_W.size(); ++i) {
    given_kWh += static_cast<double>(barrels.given_W[i]) * 600.0 / 3.6e6;
    ASSERT_NEAR(static_cast<double>(barrels.charge_kWh.front() - barrels.charge_kWh[i]), given_kWh, 0.01) << "single precision, summed over ten thousand steps";
  }
  EXPECT_LT(static_cast<double>(*std::min_element(barrels.charge_kWh.begin(), barrels.charge_kWh.end())),
            -p.barrels.front().count * p.barrels.front().litres * 4186.0 / 3.6e6)
      << "ice owes more than water at 0 degC would";
}

TEST(StoresInSeason, WhatAPileHoldsFallsByWhatDecayMakesAndRisesWhenItIsToppedUp) {
  Plan p = yard();
  p.compost.push_back(hotBed());
  p.compost.back().built = "11-20";
  const auto charge = [](const Simulation& of, int day) {
    return static_cast<double>(of.series.front().stores.front().charge_kWh[static_cast<std::size_t>(day) * 144]);
  };
  const Simulation alone = run(p);
  EXPECT_EQ(charge(alone, 1), 0.0) << "nothing stands there yet";
  double made_kWh = 0.0;
  for (int i = 10 * 144 + 1; i <= 50 * 144; ++i)
    made_kWh += static_cast<double>(alone.series.front().stores.front().made_W[static_cast<std::size_t>(i)]) * 600.0 / 3.6e6;
  EXPECT_NEAR(charge(alone, 10) - charge(alone, 50), made_kWh, 0.01 * made_kWh) << "piles go on by the hour";
  p.compost.back().topUpEvery_days = 20.0;
  EXPECT_GT(charge(run(p), 30), charge(alone, 30));
}

TEST(StoresInSeason, EveryStoreButACableTellsWhatItHolds) {
  const Simulation all = run(everything());
  const auto stores = storesOf(everything());
  for (std::size_t k = 0; k < stores.size(); ++k) {
    const auto& charge = all.series.front().stores[k].charge_kWh;
    EXPECT_EQ(charge.empty(), stores[k].kind == StoreKind::cable) << stores[k].id;
    if (charge.empty()) continue;
    EXPECT_GT(*std::max_element(charge.begin(), charge.end()), *std::min_element(charge.begin(), charge.end())) << stores[k].id;
  }
}

TEST(StoresInSeason, BarrelsByFreeConvectionLieNearThoseByAFixedFilm) {
  Plan fixed = yard();
  fixed.barrels.push_back({.count = 10});
  Plan free = fixed;
  free.barrels.front().film_W_m2K = 0.0;
  EXPECT_NEAR(run(fixed).summary.coldest_C, run(free).summary.coldest_C, 0.3); // 4.6 by radiation, 2 to 3 by air: near the usual 8
}

TEST(StoresInSeason, TheWeeksBeforeTheLogJoinItsFirstDays) {
  const Plan p = yard();
  const auto weather = tenWeeks(p.site);
  const Winter& logged = weather->winters.front();
  const auto before = weatherBefore(logged, p.site, 60);
  ASSERT_TRUE(before);
  EXPECT_NEAR(static_cast<double>(before->size() - 1) * before->step_s, 60.0 * 86400.0, 3600.0);
  EXPECT_EQ(before->step_s, 3600.0);
  const auto last = [&](const std::vector<double>& v) { return std::accumulate(v.end() - 7 * 24, v.end(), 0.0) / (7 * 24); };
  const double first = std::accumulate(logged.outside_C.begin(), logged.outside_C.begin() + 7 * 144, 0.0) / (7 * 144);
  EXPECT_NEAR(last(before->outside_C), first, 3.0); // a week apart in a season that falls by 0.1 to 0.2 K a day
  EXPECT_GT(*std::max_element(before->sun_W_m2.begin(), before->sun_W_m2.end()), 300.0);
}

TEST(StoresInSeason, ASceneServesOnlyTheGroundThatItsWeeksBeforeAreOf) {
  const Plan p = everything();
  const auto weather = tenWeeks(p.site);
  const Scene scene = makeScene(weather, p);
  EXPECT_TRUE(scene.serves(p, weather));
  Plan elsewhere = p;
  elsewhere.site.groundMean_C += 2.0; // the weeks before follow the place's own wave
  EXPECT_FALSE(scene.serves(elsewhere, weather));
  Plan later = p;
  later.warmUp_days += 10;
  EXPECT_FALSE(scene.serves(later, weather));
  EXPECT_FALSE(scene.serves(p, tenWeeks(p.site))); // another log
}

/// What check() says of a plan with one thing amiss.
std::string refusal(const std::function<void(Plan&)>& change) {
  Plan p = everything();
  change(p);
  const Problems problems = check(p);
  return problems.empty() ? "" : english(problems.front());
}

TEST(AbsurdStores, AreRefusedWithTheLimitThatTheyBreak) {
  EXPECT_EQ(refusal([](Plan&) {}), "");
  const auto says = [](const std::string& text, const char* words) { return text.find(words) != std::string::npos; };
  EXPECT_TRUE(says(refusal([](Plan& p) { p.groundPipes[0].spacing_m = 0.1; }), "soil must lie between them: at least 0.17 m"));
  EXPECT_TRUE(says(refusal([](Plan& p) { p.groundPipes[0].count = 60; }), "at most nine tenths of the floor"));
  EXPECT_TRUE(says(refusal([](Plan& p) { p.groundPipes[0].diameter_m = 0.9; }), "/ground_pipes/0"));
  EXPECT_TRUE(says(refusal([](Plan& p) { p.groundPipes[0].rule = {10.0, 12.0}; }), "at least 2 K must lie between"));
  EXPECT_TRUE(says(refusal([](Plan& p) { p.groundPipes[0].serves = PipeOutlet::bay; }), "partition a bay off"));
  EXPECT_TRUE(says(refusal([](Plan& p) { p.compost[0].recipe.clear(); }), "there is nothing in the pile"));
  EXPECT_TRUE(says(refusal([](Plan& p) { p.compost[0].recipe[0].ingredient = "gold"; }), "not a known ingredient"));
  EXPECT_TRUE(says(refusal([](Plan& p) { p.compost[0].water_kg = 5000.0; }), "at most 85 %"));
  EXPECT_TRUE(says(refusal([](Plan& p) { p.compost[0].recipe[0].wet_kg = 40000.0; }), "at most 3 m"));
  EXPECT_TRUE(says(refusal([](Plan& p) { p.compost[2].giveBelow_C = 38.0; }), "hotter than the pile"));
  EXPECT_TRUE(says(refusal([](Plan& p) { p.compost[0].built = "02-30"; }), "month and day"));
  EXPECT_TRUE(says(refusal([](Plan& p) {
                     p.compost[0].width_m = 12.0;
                     p.compost[0].length_m = 12.0;
                   }),
                   "/compost/0"));
  EXPECT_TRUE(says(refusal([](Plan& p) {
                     p.groundPipes[0].serves = PipeOutlet::bed;
                     p.groundPipes[0].bed = 5;
                   }),
                   "cover that bed first"));
  EXPECT_TRUE(says(refusal([](Plan& p) { p.mass[1].area_m2 = 95.0; }), "at most nine tenths of the floor"));
  EXPECT_TRUE(says(refusal([](Plan& p) { p.waterLoops[0].litres = 400000.0; }), "at most a quarter of the house"));
  EXPECT_TRUE(says(refusal([](Plan& p) { p.soilCables[0].bed = 3; }), "cover that bed first"));
  EXPECT_TRUE(says(refusal([](Plan& p) { p.soilCables[0].off_C = p.soilCables[0].setpoint_C; }), "at least 0.1 K above where it goes on"));
  EXPECT_TRUE(says(refusal([](Plan& p) {
                     p.soilCables[0].watts_per_m = 60.0;
                     p.soilCables[0].length_m = 60.0;
                   }),
                   "roots beside it are cooked"));
}

TEST(StoresInSeason, AWarmPipeBedLosesLessThroughBoardedSides) {
  const auto soil_C = [](double sides_m2K_W) {
    Plan p = yard();
    p.groundPipes.push_back({.rule = {60.0, -30.0}, .collector_m2 = 6.0}); // no fan: the sun alone warms the bed
    p.groundPipes.back().sides_m2K_W = sides_m2K_W;
    const Simulation all = run(p);
    EXPECT_LT(all.summary.closure, 1e-9);
    return mean(all.series.front().stores.front().temperature_C[3], 20, 60);
  };
  EXPECT_GT(soil_C(3.0), soil_C(0.0) + 0.1);
}

TEST(StoresInSeason, DrumsOnTheLoopGiveOnWhileThePumpRests) {
  Plan p = yard();
  p.waterLoops.push_back({.litres = 1000.0, .tankLoss_W_K = 0.0, .rule = {60.0, 4.0}});
  firstHeater(p, {HeaterPlace::Of::tank, p.waterLoops.size() - 1}).power_W = 6000.0;
  p.waterLoops.back().radiator_l = 400.0;
  const Simulation drums = run(p);
  EXPECT_LT(drums.summary.closure, 1e-9);
  const auto& store = drums.series.front().stores.front();
  ASSERT_EQ(store.temperature_C.size(), storeTraces(p, storesOf(p).front()).size());
  EXPECT_GT(mean(store.temperature_C[1], 30, 60), mean(drums.series.front().air_C, 30, 60) + 1.0) << "the drums are warmer than the air they warm";
  EXPECT_LT(mean(store.temperature_C[1], 30, 60), mean(store.temperature_C[0], 30, 60)) << "and cooler than the tank";
  // with next to no water in the radiator it is the heat exchanger of before, and a little gives a little more of the same
  p.waterLoops.back().radiator_l = 0.0;
  const Simulation bare = run(p);
  EXPECT_CLOSE(drums.summary.stores.front().given_kWh / bare.summary.stores.front().given_kWh, 1.0, 0.15, "the same house wants much the same heat");
}

TEST(StoresInSeason, ACoilInTheMoundCanWarmTheTank) {
  Plan p = yard();
  p.waterLoops.push_back({.litres = 800.0, .rule = {60.0, 4.0}});
  CompostPile mound = hotBed();
  mound.place = PilePlace::mound;
  mound.recipe.front().wet_kg = 4000.0;
  mound.recipe.back().wet_kg = 400.0;
  mound.width_m = mound.length_m = 2.5;
  mound.built = "11-10";
  mound.coilInto = CoilInto::tank;
  p.compost.push_back(mound);
  const Simulation led = run(p);
  EXPECT_LT(led.summary.closure, 1e-9);
  const auto tank = [&](const Simulation& of) { return mean(of.series.front().stores[1].temperature_C[0], 15, 35); };
  const StoreSummary& pile = led.summary.stores[0];
  EXPECT_GT(pile.given_kWh, 50.0) << "what the tank took";
  EXPECT_GT(pile.running_h, 100.0);
  EXPECT_CLOSE(pile.electricity_kWh / pile.running_h, 0.025, 1e-9, "25 W of pump for the hours it ran, and no others");
  p.compost[0].coilInto = CoilInto::house;
  const Simulation house = run(p);
  EXPECT_GT(tank(led), tank(house) + 5.0);
  EXPECT_GT(house.summary.stores[0].running_h, 50.0);
  // with the pile built when all is over, nothing warms the pump's water
  p.compost[0].built = "06-01";
  EXPECT_EQ(run(p).summary.stores[0].electricity_kWh, 0.0) << "it rests, however cold the house";
  p.compost[0].coilInto = CoilInto::tank;
  p.compost[0].tank = 1;
  const Problems bad = check(p);
  ASSERT_EQ(bad.size(), 1U);
  EXPECT_NE(english(bad.front()).find("tank 2 of 1"), std::string::npos) << english(bad.front());
}

} // namespace
} // namespace muffle::stores_in_season_test
