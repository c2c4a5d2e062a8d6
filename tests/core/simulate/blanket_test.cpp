// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/simulate/blanket.h"

#include <gtest/gtest.h>

#include <numeric>

namespace muffle {
namespace {

/// Ten steps: dusk, a night of six, a dark morning.
Winter evening() {
  Winter w;
  w.outside_C = {6, 5.2, 4.8, 5.4, 6.2, 5.5, 4.9, 4.0, 4.0, 4.0};
  w.sun_W_m2 = {60, 20, 0, 0, 0, 0, 0, 5, 21.5, 40};
  NightSpan night;
  night.from = 2;
  night.to = 8;
  w.nights.push_back(night);
  return w;
}

TEST(Blanket, IsDrawnFromSunsetToSunriseUnlessToldOtherwise) { EXPECT_EQ(blanketClosed({}, evening()), (std::vector<double>{0, 0, 1, 1, 1, 1, 1, 1, 0, 0})); }

TEST(Blanket, ByColdItClosesOnlyOnColdNightsAndDoesNotFlutter) {
  NightBlanket b;
  b.rule = BlanketRule::cold;
  b.outsideBelow_C = 5.0;
  EXPECT_EQ(blanketClosed(b, evening()), (std::vector<double>{0, 0, 1, 1, 0, 0, 1, 1, 0, 0})) << "5.4 keeps it shut, 6.2 opens it, 5.5 does not shut it again";
}

TEST(Blanket, ByLightItStaysOverADarkMorning) {
  NightBlanket b;
  b.rule = BlanketRule::dark;
  b.sunBelow_W_m2 = 20.0;
  EXPECT_EQ(blanketClosed(b, evening()), (std::vector<double>{0, 0, 1, 1, 1, 1, 1, 1, 1, 0})) << "21.5 is within a tenth of the threshold";
}

} // namespace
} // namespace muffle
