// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/results/day_swings.h"

#include "tests/support/near.h"

#include <vector>

namespace muffle {
namespace {

TEST(DaySwings, AreFromTheColdestToTheWarmestOfWholeDays) {
  std::vector<float> air;
  for (int day = 0; day < 3; ++day)
    for (int hour = 0; hour < 24; ++hour) air.push_back(hour == 6 ? 2.0F : hour == 14 ? 12.0F + static_cast<float>(day) : 5.0F);
  air.push_back(40.0F); // of a day that is not whole
  DaySwings swings;
  swings.add(air, 3600.0);
  EXPECT_CLOSE(swings.mean_K(), 11.0, 1e-6, "10, 11 and 12");
  EXPECT_CLOSE(swings.most_K(), 12.0, 1e-6, "the third");
  EXPECT_EQ(swings.thawings(), 0);
}

TEST(DaySwings, ThawingsAreNotCountedOfAirThatWaversAboutFreezing) {
  DaySwings swings;
  swings.add(std::vector<float>{1.0F, -0.2F, 0.2F, -0.3F, 0.3F, -2.0F, 0.3F, -1.0F, 3.0F, -1.0F, 2.0F}, 3600.0);
  EXPECT_EQ(swings.thawings(), 2);
}

} // namespace
} // namespace muffle
