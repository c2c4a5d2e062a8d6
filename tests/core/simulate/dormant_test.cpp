// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/dormant.h"

#include "core/plan/heaters.h"
#include "core/results/day_swings.h"
#include "core/simulate/simulate.h"
#include "tests/support/near.h"
#include "tests/support/random_house.h"
#include "words/words.h"

namespace muffle {
namespace {

TEST(Dormant, ARandomHouseKeptCoolAndEvenSwingsLessAndIsSeldomWarm) {
  unsigned tried = 0;
  double before_K = 0.0, after_K = 0.0;
  for (unsigned seed = 300; tried < testing::kManyHouses / 10; ++seed) {
    testing::Chance chance(seed);
    Plan p = testing::randomPlan(seed);
    p.setpoints = {chance.between(-3.0, 1.0), 3.0, 8.0};
    p.house.ventOpens_C = 20.0;
    p.house.ventFull_C = 26.0;
    p.house.ventAirChanges_per_h = 25.0;
    addHeater(p, {.power_W = 60.0 * p.house.shape.floor_m2()});
    if (!check(p).empty()) continue;
    ++tried;
    Plan resting = p;
    keepDormant(resting);
    ASSERT_TRUE(check(resting).empty()) << seed << ": " << english(check(resting).front());
    p.setpoints.tooWarm_C = kWakes_C; // counted alike
    const auto weather = testing::randomWeather(seed, p);
    const auto usual = simulate(p, makeScene(weather, p), {.series = true}), cool = simulate(resting, makeScene(weather, resting), {.series = true});
    ASSERT_TRUE(usual && cool) << seed;
    EXPECT_LE(cool->summary.tooWarm_h, usual->summary.tooWarm_h + 1.0) << seed << ": an hour, by rounding";
    EXPECT_LE(cool->summary.heater_kWh, usual->summary.heater_kWh + 1.0) << seed;
    DaySwings a, b;
    a.add(usual->series[0].air_C, weather->winters[0].step_s);
    b.add(cool->series[0].air_C, weather->winters[0].step_s);
    before_K += a.mean_K();
    after_K += b.mean_K();
  }
  EXPECT_LT(after_K, 0.9 * before_K) << "over them all";
}

} // namespace
} // namespace muffle
