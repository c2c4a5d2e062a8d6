// SPDX-License-Identifier: GPL-3.0-or-later
//
// Stores in a house over a winter.
#include "core/log/read.h"
#include "core/simulate/piles.h"
#include "core/simulate/simulate.h"
#include "core/weather/before.h"
#include "tests/support/near.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace muffle {
namespace {

Plan yard() {
  Plan p;
  p.site.place = {45.0, 3.0, 700.0};
  p.site.timeZone = "UTC";
  p.house.shape = {ShapeKind::arch, 7.0, 14.0, 0.9, 3.3, 80.0};
  p.setpoints = {1.0, 2.5, 4.0};
  return p;
}

/// Ten weeks from mid November that grow colder, with clear days.
std::shared_ptr<const Weather> tenWeeks(const Site& site) {
  Log log;
  Channel outside{.name = "outside", .role = Role::outside, .id = "", .unitIn = "C", .unitWhy = "", .raw = {}, .flag = {}};
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
  EXPECT_TRUE(check(plan).empty()) << (check(plan).empty() ? "" : check(plan).front().text());
  return *simulate(plan, makeScene(tenWeeks(plan.site), plan), {.series = true});
}

CompostPile hotBed() {
  CompostPile c;
  c.recipe = {{"horse-manure", 900.0, {}}, {"straw", 60.0, {}}};
  c.width_m = 1.5;
  c.length_m = 2.0;
  return c;
}

Plan everything() {
  Plan p = yard();
  p.house.bedCovers.push_back({});
  p.barrels.push_back({});
  p.groundPipes.push_back({});
  p.groundPipes.push_back({.name = "beside", .place = PipePlace::beside, .count = 1, .length_m = 25.0, .depth_m = 1.5, .rule = {24.0, 6.0}});
  p.compost.push_back(hotBed());
  CompostPile chamber = hotBed();
  chamber.place = PilePlace::chamber;
  chamber.fan_m3_h = 200.0;
  p.compost.push_back(chamber);
  CompostPile mound = hotBed();
  mound.place = PilePlace::mound;
  mound.recipe.front().wet_kg = 4000.0;
  mound.recipe.back().wet_kg = 400.0;
  mound.width_m = mound.length_m = 2.5;
  p.compost.push_back(mound);
  p.waterLoops.push_back({});
  p.waterLoops.back().collector_m2 = 4.0;
  p.soilCables.push_back({});
  p.heater = Heater{"fan heater", 9000.0, 0.0, 10.0};
  return p;
}

TEST(StoresInSeason, EnergyClosesWithEveryStoreInOnePlan) {
  const Simulation all = run(everything());
  EXPECT_LT(all.summary.closure, 1e-9);
  ASSERT_EQ(all.summary.stores.size(), 8u);
  for (const StoreSummary& s : all.summary.stores) {
    EXPECT_GT(s.warmest_C, s.coldest_C);
    printf("given %.1f taken %.1f el %.2f made %.1f runs %.1f stag %.1f cold %.1f warm %.1f\n", s.given_kWh, s.taken_kWh, s.electricity_kWh, s.made_kWh, s.running_h, s.stagnant_h, s.coldest_C, s.warmest_C);
  }
  printf("ms %.1f nodes\n", all.summary.run_ms);
}

} // namespace
} // namespace muffle
