// SPDX-License-Identifier: GPL-3.0-or-later
//
// Laws that hold for any house in any weather, asked of houses that nobody had in mind.
#include "core/simulate/simulate.h"
#include "tests/support/near.h"
#include "tests/support/random_house.h"

namespace muffle {
namespace {

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
  p.heater = Heater{"heater", 400.0 * p.house.shape.floor_m2(), 0.0, 10.0}; // more than any of them needs
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
    less = p;
    less.house.airChanges_per_h *= 0.5;
    less.house.windAirChanges *= 0.5;
    EXPECT_LE(run(less, log).summary.heater_kWh, allowed) << "seed " << seed << ": half the draughts";
    less = p;
    less.house.floor.edgeDepth_m = 0.6;
    less.house.floor.edgeInsulation_m2K_W = 1.4;
    EXPECT_LE(run(less, log).summary.heater_kWh, before * 1.01 + 0.05) << "seed " << seed << ": a skirt, which also keeps out days warmer than the soil";
    if (!p.house.blanket) continue;
    less = p;
    less.materials.push_back({.id = "thicker", .name = "thicker", .emissivity = 0.85, .solarTransmittance = 0.15, .solarReflectance = 0.55,
                              .resistance_m2K_W = 3.0, .capacity_J_m2K = 250.0, .note = "", .innerEmissivity = {}});
    Plan thin = less;
    thin.materials.back().resistance_m2K_W = 0.1;
    thin.house.blanket->material = less.house.blanket->material = "thicker";
    EXPECT_LE(run(less, log).summary.heater_kWh, run(thin, log).summary.heater_kWh * 1.003 + 0.05) << "seed " << seed << ": a thicker blanket";
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
      EXPECT_CLOSE(a.nights[k].coldest_C, b.nights[k].coldest_C, 2.0 * kRun_K, "the sun moves by a second in that hour; a step may fall otherwise") << "seed " << seed;
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

} // namespace
} // namespace muffle
