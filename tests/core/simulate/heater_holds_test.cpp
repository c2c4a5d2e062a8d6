// SPDX-License-Identifier: GPL-3.0-or-later
//
// A heater that is big enough holds its night setpoint, every night, however big it is.
#include "core/simulate/simulate.h"
#include "tests/support/near.h"
#include "tests/support/random_house.h"

namespace muffle {
namespace {

using testing::randomPlan;
using testing::randomWeather;

Summary heated(Plan plan, const Scene& scene, double power_W) {
  plan.heaters = {{.id = "heater", .name = "heater", .power_W = power_W, .price = 0.0, .life_years = 10.0}};
  auto run = simulate(plan, scene);
  EXPECT_TRUE(run);
  return run->summary;
}

TEST(HeaterHolds, ManyHousesWhoseLineIsTheNightSetpoint) {
  for (unsigned seed = 0; seed < testing::kManyHouses; ++seed) {
    const Plan plan = randomPlan(seed);
    const Scene scene = makeScene(randomWeather(seed, plan), plan);
    const double peak_W = std::max(heated(plan, scene, 1e6).heaterPeak_W, 1000.0);
    int before = 0;
    for (const double share : {0.3, 0.6, 0.9, 1.02, 2.0, 6.0, 20.0}) {
      const Summary s = heated(plan, scene, share * peak_W);
      ASSERT_GE(s.held, before) << "seed " << seed << ": a bigger heater, " << share << " of the peak load, holds fewer nights";
      before = s.held;
      if (share < 1.0) continue;
      ASSERT_EQ(s.held, s.nights) << "seed " << seed << ": " << share << " of the peak load; coldest " << s.coldest_C << ", line " << plan.setpoints.hold_C;
      ASSERT_GE(s.coldest_C, plan.setpoints.hold_C - 0.01) << "seed " << seed << ": the setpoint is met at steps' ends; a sensor's last digit is 0.1";
    }
  }
}

} // namespace
} // namespace muffle
