// SPDX-License-Identifier: GPL-3.0-or-later
//
// Laws that hold for any house in any weather, asked of houses that nobody had in mind.
#include "core/log/flags.h"
#include "core/log/read.h"
#include "core/plan/heaters.h"
#include "core/simulate/simulate.h"
#include "tests/support/near.h"
#include "tests/support/random_house.h"

namespace muffle::laws_test {
namespace {

using testing::Chance;
using testing::kManyHouses;
using testing::randomLog;
using testing::randomPlan;

constexpr int kDays = 5;
constexpr double kRun_K = 0.05; // what a run is off by at a step's end, in each of two

Simulation run(const Plan& p, const Log& log) {
  auto weather = weatherFromLog(log, p.site);
  EXPECT_TRUE(weather);
  auto result = simulate(p, makeScene(std::make_shared<const Weather>(std::move(*weather)), p), {});
  EXPECT_TRUE(result);
  return *result;
}

Plan heated(unsigned seed) {
  Plan p = randomPlan(seed);
  p.heaters = {
      {.id = "heater", .name = "heater", .power_W = 400.0 * p.house.shape.floor_m2(), .price = 0.0, .life_years = 10.0}}; // more than any of them needs
  return p;
}

TEST(Laws, KeepingMoreInNeverCostsHeat) {
  for (unsigned seed = 0; seed < kManyHouses; ++seed) {
    Plan p = heated(seed);
    p.house.frameAllowance = 0.25;
    const Log log = randomLog(seed, p.site, kDays);
    const double before = run(p, log).summary.heater_kWh;
    const double allowed = before * 1.003 + 0.05; // the integration's own hundredths of the fuel
    Plan less = p;
    less.house.frameAllowance = 0.0;
    EXPECT_LE(run(less, log).summary.heater_kWh, allowed) << "seed " << seed << ": frames that carry nothing";
    if (!p.house.blanket) continue;
    less = p;
    less.materials.push_back({.id = "thicker",
                              .name = "thicker",
                              .emissivity = 0.85,
                              .solarTransmittance = 0.15,
                              .solarReflectance = 0.55,
                              .resistance_m2K_W = 3.0,
                              .capacity_J_m2K = 250.0,
                              .note = "",
                              .innerEmissivity = {}});
    Plan thin = less;
    thin.materials.back().resistance_m2K_W = 0.1;
    thin.house.blanket->material = less.house.blanket->material = "thicker";
    EXPECT_LE(run(less, log).summary.heater_kWh, run(thin, log).summary.heater_kWh * 1.003 + 0.05) << "seed " << seed << ": a thicker blanket";
  }
}

/// Draughts and the frost round the floor's edge bring warmth in where it is warmer outside than in, and a house that is shut then goes without it.
TEST(Laws, WhereItIsNeverWarmerOutsideFewerDraughtsAndASkirtNeverCostHeat) {
  for (unsigned seed = 0; seed < kManyHouses; ++seed) {
    Plan p = heated(seed);
    p.house.frameAllowance = 0.25;
    Log log = randomLog(seed, p.site, kDays);
    std::vector<float>& outside_C = log.channels[0].raw;
    const float above_K = *std::max_element(outside_C.begin(), outside_C.end()) - static_cast<float>(p.setpoints.hold_C);
    for (float& t : outside_C) t -= std::max(0.0F, above_K);
    const double allowed = run(p, log).summary.heater_kWh * 1.003 + 0.05; // the integration's own hundredths of the fuel
    Plan less = p;
    less.house.airChanges_per_h *= 0.5;
    less.house.windAirChanges *= 0.5;
    EXPECT_LE(run(less, log).summary.heater_kWh, allowed) << "seed " << seed << ": half the draughts";
    less = p;
    less.house.floor.edgeDepth_m = 0.6;
    less.house.floor.edgeInsulation_m2K_W = 1.4;
    EXPECT_LE(run(less, log).summary.heater_kWh, allowed) << "seed " << seed << ": a skirt";
  }
}

TEST(Laws, AHeaterThatWaitsNeverHoldsFewerNightsAndEveryWattIsBilled) {
  for (unsigned seed = 0; seed < kManyHouses; ++seed) {
    Plan alone = heated(seed);
    alone.heaters.front().power_W *= 0.02 * (1 + seed % 12); // from far too small to enough
    Plan helped = alone;
    helped.heaters.push_back({.id = "helper", .power_W = alone.heaters.front().power_W, .stage_K = 0.5 * (seed % 7)});
    const Log log = randomLog(seed, alone.site, kDays);
    const Summary one = run(alone, log).summary, two = run(helped, log).summary;
    EXPECT_GE(two.held, one.held) << "seed " << seed;
    EXPECT_GE(two.coldest_C, one.coldest_C - kRun_K) << "seed " << seed;
    EXPECT_LE(two.ledger.heat_kWh(MeterUse::heater, 0), one.heater_kWh * 1.003 + 0.05) << "seed " << seed << ": the first has less to do, not more";
    EXPECT_NEAR(two.ledger.sum(Metered::electricity, MeterUse::heater), two.heater_kWh, 1e-9 * two.heater_kWh) << "seed " << seed;
    EXPECT_LT(two.closure, 1e-9) << "seed " << seed;
  }
}

TEST(Laws, SetpointsThatFollowTheWeatherCostMoreWhereTheyAskForMoreAndLessWithinASwing) {
  for (unsigned seed = 0; seed < kManyHouses; ++seed) {
    Chance chance(seed + 4242);
    Plan p = heated(seed);
    double outside_C = chance.between(-20.0, -6.0), above_K = 0.0;
    for (int band = 0; band < 3; ++band) {
      p.setpoints.nightBands.push_back({outside_C, p.setpoints.night_C + above_K});
      p.setpoints.dayBands.push_back({outside_C + 5.0, p.setpoints.day_C + above_K + 1.0});
      outside_C += chance.between(2.0, 8.0);
      above_K += chance.between(0.0, 1.5);
    }
    if (chance.happens(0.3)) p.setpoints.dayFrom_h = 8.0, p.setpoints.nightFrom_h = 17.0, p.setpoints.ramp_h = chance.between(0.0, 2.0);
    Plan warmer = p, narrow = p, tighter = p;
    warmer.setpoints.shift(1.0);
    narrow.setpoints.swingAtMost_K = chance.between(0.0, 2.0);
    tighter.house.airChanges_per_h *= 0.5;
    tighter.house.windAirChanges *= 0.5;
    if (!check(warmer).empty()) continue; // into the vents
    const Log log = randomLog(seed, p.site, kDays);
    const Summary as = run(p, log).summary;
    const double slack_kWh = 0.003 * as.heater_kWh + 0.05; // the integration's own hundredths of the fuel
    EXPECT_GE(run(warmer, log).summary.heater_kWh, as.heater_kWh - slack_kWh) << "seed " << seed << ": a kelvin warmer";
    EXPECT_LE(run(narrow, log).summary.heater_kWh, as.heater_kWh + slack_kWh) << "seed " << seed << ": days within a swing";
    EXPECT_LE(run(tighter, log).summary.heater_kWh, as.heater_kWh + slack_kWh) << "seed " << seed << ": half the draughts";
    EXPECT_LT(as.closure, 1e-9) << "seed " << seed;
  }
}

TEST(Laws, WhatIsStoredAsItBeginsIsNoSetpointsGift) {
  for (unsigned seed = 0; seed < kManyHouses; ++seed) {
    Plan p = heated(seed);
    if (seed % 3 == 0) {
      p.house.bay = WarmBay{.length_m = 0.3 * p.house.shape.length_m};
      addHeater(p, {.place = {HeaterPlace::Of::bay}, .power_W = 2000.0});
    }
    if (!check(p).empty()) continue; // a dome has no bay
    Plan warmer = p;
    warmer.setpoints.shift(15.0);
    if (warmer.house.bay) warmer.house.bay->setpoints.shift(15.0);
    const Weather weather = *weatherFromLog(randomLog(seed, p.site, kDays), p.site);
    const Scene scene = makeScene(std::make_shared<const Weather>(weather), p);
    const Winter& winter = scene.weather->winters.front();
    const Assembly as = assemble(p, winter, scene.sun.front()), then = assemble(warmer, winter, scene.sun.front());
    ASSERT_EQ(as.network.nodes.size(), then.network.nodes.size());
    for (std::size_t i = 0; i < as.network.nodes.size(); ++i) {
      const Node& node = as.network.nodes[i];
      if (node.boundary || node.capacity_J_K <= 0.0) continue; // what stores nothing has no state
      ASSERT_EQ(node.initial_C, then.network.nodes[i].initial_C) << "seed " << seed << ": " << node.id;
    }
  }
}

TEST(Laws, AColderLogNeverWarmsANight) {
  for (unsigned seed = 0; seed < kManyHouses; seed += 2) {
    Plan p = randomPlan(seed);
    p.warmUp_days = 12;
    const Log log = randomLog(seed, p.site, kDays);
    Log colder = log;
    for (float& t : colder.channels[0].raw) t -= 3.0F;
    const Simulation a = run(p, log), b = run(p, colder);
    ASSERT_EQ(a.nights.size(), b.nights.size());
    for (std::size_t k = 0; k < a.nights.size(); ++k) EXPECT_LE(b.nights[k].coldest_C, a.nights[k].coldest_C + kRun_K) << "seed " << seed << ", night " << k;
  }
}

TEST(Laws, AnHourToTheWestIsTheSameAnHourLater) {
  for (unsigned seed = 0; seed < kManyHouses; seed += 5) {
    Plan p = randomPlan(seed);
    const Log log = randomLog(seed, p.site, kDays);
    Plan west = p;
    west.site.place.longitude_deg -= 15.0;
    west.site.timeZone = "-01:00"; // the clock goes with it
    Log later = log;
    for (UtcSeconds& t : later.time) t += 3600;
    const Simulation a = run(p, log), b = run(west, later);
    ASSERT_EQ(a.nights.size(), b.nights.size()) << seed;
    for (std::size_t k = 0; k < a.nights.size(); ++k)
      EXPECT_CLOSE(a.nights[k].coldest_C, b.nights[k].coldest_C, 2.0 * kRun_K, "the sun moves by a second in that hour; a step may fall otherwise")
          << "seed " << seed;
  }
}

TEST(Laws, AHouseInTheDarkLiesWithinWhatIsAboutIt) {
  for (unsigned seed = 0; seed < kManyHouses; seed += 5) {
    Plan p = randomPlan(seed);
    p.calibration = Calibration{.sun = 1e-9, .date = ""};
    p.house.crop = {0.0, 0.0}; // no water that freezes or condenses gives heat
    const Log log = randomLog(seed, p.site, kDays);
    const auto weather = std::make_shared<const Weather>(*weatherFromLog(log, p.site));
    const Scene scene = makeScene(weather, p);
    const Simulation r = *simulate(p, scene, {.series = true});
    double low = 1e9, high = p.site.groundMean_C + p.site.groundAmplitude_K; // the sky's and the air's, and the ground's
    for (const Winter* w : {&weather->winters.front(), &*scene.before.front().winter})
      for (std::size_t i = 0; i < w->size(); ++i) low = std::min({low, w->sky_C[i], w->outside_C[i]}), high = std::max(high, w->outside_C[i]);
    low = std::min(low, p.site.groundMean_C - p.site.groundAmplitude_K);
    for (const float t : r.series.front().air_C) {
      ASSERT_GE(t, low - kRun_K) << "seed " << seed;
      ASSERT_LE(t, high + kRun_K) << "seed " << seed;
    }
  }
}

TEST(Laws, FourYearsLaterIsTheSame) {
  for (unsigned seed = 0; seed < kManyHouses; seed += 5) { // after a whole cycle of leap years
    const Plan p = randomPlan(seed);
    const Log log = randomLog(seed, p.site, kDays);
    Log later = log;
    for (UtcSeconds& t : later.time) t += 1461 * 86400;
    const Simulation a = run(p, log), b = run(p, later);
    ASSERT_EQ(a.nights.size(), b.nights.size()) << seed;
    for (std::size_t k = 0; k < a.nights.size(); ++k)
      EXPECT_CLOSE(a.nights[k].coldest_C, b.nights[k].coldest_C, 2.0 * kRun_K, "the sun comes back to within a minute; a step may fall otherwise")
          << "seed " << seed;
  }
}

/// A smooth spell, read every `step_s`: what lies between two readings of a logger that is slower is a straight line.
Log smoothLog(const Plan& p, int step_s) {
  Log log;
  log.channels.push_back(
      {.name = "outside", .role = Role::outside, .id = "", .statistic = Statistic::moment, .unitIn = "C", .unitWhy = {}, .raw = {}, .flag = {}});
  const bool south = p.site.place.latitude_deg < 0.0;
  const UtcSeconds start =
      daysSinceEpoch({2031, south ? 7U : 1U, 10}) * 86400 + 43200 - static_cast<UtcSeconds>(p.site.place.longitude_deg * 240.0) / 3600 * 3600;
  for (int t = 0; t <= kDays * 86400; t += step_s) {
    const double hour = 12.0 + t / 3600.0;
    log.time.push_back(start + t);
    log.channels[0].raw.push_back(static_cast<float>(-1.0 + 2.0 * std::sin(hour / 50.0) + 3.5 * std::cos(2.0 * kPi * (hour - 14.5) / 24.0)));
  }
  log.channels[0].flag.assign(log.time.size(), 0);
  return log;
}

TEST(Laws, ALoggersStepMovesNoNightByMoreThanATenth) {
  for (unsigned seed = 0; seed < kManyHouses; seed += 5) {
    const Plan p = randomPlan(seed);
    const Simulation often = run(p, smoothLog(p, 300));
    for (const int step_s : {600, 1800, 3600}) {
      const Simulation seldom = run(p, smoothLog(p, step_s));
      ASSERT_EQ(seldom.nights.size(), often.nights.size()) << seed;
      for (std::size_t k = 0; k < often.nights.size(); ++k)
        EXPECT_CLOSE(seldom.nights[k].coldest_C, often.nights[k].coldest_C, 0.1, "a chord of an hour lies 0.03 K inside such a wave, a step's end 0.05 K")
            << "seed " << seed << ", every " << step_s << " s, night " << k;
    }
  }
}

TEST(Laws, AnImaginaryPartitionChangesNothing) {
  for (unsigned seed = 0; seed < kManyHouses; seed += 5) {
    Plan p = heated(seed);
    if (p.house.shape.kind == ShapeKind::dome || p.house.shape.length_m < 4.0) continue;
    p.calibration = Calibration{.sun = 1e-9, .date = ""}; // the film that stands for it takes no light
    p.house.bedCovers.clear();
    p.barrels.clear();
    p.house.crop = {0.0, 0.0};
    p.house.door.opened = 0.0;
    Plan split = p;
    split.house.bay = WarmBay{};
    split.house.bay->length_m = 0.4 * p.house.shape.length_m;
    split.house.bay->setpoints = p.setpoints;
    replaceHeaters(split, {.place = {HeaterPlace::Of::bay}, .power_W = p.heaters.front().power_W});
    if (!check(split).empty()) continue;
    const Log log = randomLog(seed, p.site, kDays);
    const auto lossOf = [&](const Plan& plan) {
      double sum_kWh = 0.0;
      for (const double part : run(plan, log).summary.loss_kWh) sum_kWh += part;
      return sum_kWh;
    };
    const double whole = lossOf(p), parts = lossOf(split); // not the fuel: how far the soil freezes turns on tenths of a degree
    EXPECT_CLOSE(parts, whole, 0.04 * std::abs(whole) + 0.5, "both sides are held alike: nothing passes it, but by what it hides of the far end's cold")
        << "seed " << seed;
  }
}

TEST(Laws, RepetitionAndThreadsChangeNotABit) {
  for (unsigned seed = 0; seed < kManyHouses; seed += 10) {
    const Plan p = heated(seed);
    Log log = randomLog(seed, p.site, kDays); // two winters, for two threads
    const Log second = log;
    for (std::size_t i = 0; i < second.time.size(); ++i) {
      log.time.push_back(second.time[i] + 365 * 86400);
      log.channels[0].raw.push_back(second.channels[0].raw[i]);
      log.channels[0].flag.push_back(0);
    }
    const auto weather = std::make_shared<const Weather>(*weatherFromLog(log, p.site));
    const Scene scene = makeScene(weather, p);
    const Simulation once = *simulate(p, scene, {.series = true, .threads = 1}), again = *simulate(p, scene, {.series = true, .threads = 3});
    ASSERT_EQ(once.series.size(), again.series.size());
    for (std::size_t w = 0; w < once.series.size(); ++w) EXPECT_EQ(once.series[w].air_C, again.series[w].air_C) << "seed " << seed;
    EXPECT_EQ(once.summary.heater_kWh, again.summary.heater_kWh) << "seed " << seed;
  }
}

TEST(Laws, WhatIsWrittenIsReadBack) {
  for (unsigned seed = 0; seed < kManyHouses; seed += 10) {
    const Plan p = randomPlan(seed);
    Log log = randomLog(seed, p.site, kDays);
    const auto weather = std::make_shared<const Weather>(*weatherFromLog(log, p.site));
    const Simulation r = *simulate(p, makeScene(weather, p), {.series = true});
    Channel house = log.channels[0];
    house.name = "room:house", house.role = Role::room, house.id = "house";
    for (std::size_t i = 0; i < log.time.size(); ++i) house.raw[i] = r.series[0].air_C[std::min(i, r.series[0].air_C.size() - 1)];
    log.channels.push_back(house);
    auto back = readLog(writeLogCsv(log, TimeZone::utc()), {});
    ASSERT_TRUE(back) << "seed " << seed;
    EXPECT_TRUE(back->placeless.empty() && back->unsure.empty() && back->rowsLeftOut == 0 && back->cellsLeftOut == 0) << "seed " << seed;
    ASSERT_EQ(back->log.time, log.time) << "seed " << seed;
    EXPECT_TRUE(flagProblems(back->log, p.site.place).empty()) << "seed " << seed << ": a log of the model's own has no fault";
    for (const Channel& written : log.channels) {
      const Channel* read = back->log.find(written.role, written.id);
      ASSERT_NE(read, nullptr) << written.name;
      for (std::size_t i = 0; i < written.raw.size(); ++i) ASSERT_NEAR(read->raw[i], written.raw[i], 0.006) << "two decimals, seed " << seed;
    }
  }
}

} // namespace
} // namespace muffle::laws_test
