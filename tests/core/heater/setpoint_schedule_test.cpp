// SPDX-License-Identifier: GPL-3.0-or-later
//
// Setpoints by the clock and by the weather.
#include "core/heater/setpoint_schedule.h"
#include "tests/support/near.h"

#include <vector>

namespace muffle {
namespace {

TEST(SetpointSchedule, RisesAndFallsInItsRampsAndJumpsWithoutOne) {
  EXPECT_CLOSE(clockSetpoint_C(14.0, 6.0, 6.0, 18.0, 3.0, 7.5), 10.0, 1e-12, "half way up");
  EXPECT_CLOSE(clockSetpoint_C(14.0, 6.0, 6.0, 18.0, 3.0, 12.0), 14.0, 1e-12, "day");
  EXPECT_CLOSE(clockSetpoint_C(14.0, 6.0, 6.0, 18.0, 3.0, 19.0), 14.0 - 8.0 / 3.0, 1e-12, "a third down");
  EXPECT_CLOSE(clockSetpoint_C(14.0, 6.0, 6.0, 18.0, 0.0, 6.0), 14.0, 1e-12, "at once");
  EXPECT_CLOSE(clockSetpoint_C(14.0, 6.0, 22.0, 4.0, 0.0, 1.0), 14.0, 1e-12, "a day over midnight");
  for (double hour = 0.0; hour < 24.0; hour += 0.1) {
    const double at = clockSetpoint_C(14.0, 6.0, 6.0, 18.0, 3.0, hour);
    EXPECT_TRUE(at >= 6.0 && at <= 14.0);
  }
}

TEST(SetpointSchedule, BandsAreStraightBetweenAndHeldBeyond) {
  const std::vector<NightBand> bands{{{-10.0, 4.0}}, {{0.0, 10.0}}};
  EXPECT_CLOSE(bandSetpoint_C(bands, -5.0), 7.0, 1e-12, "half way");
  EXPECT_CLOSE(bandSetpoint_C(bands, -30.0), 4.0, 1e-12, "held");
  EXPECT_CLOSE(bandSetpoint_C(bands, 12.0), 10.0, 1e-12, "held");
}

} // namespace
} // namespace muffle
