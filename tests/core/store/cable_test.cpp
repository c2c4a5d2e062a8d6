// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/store/cable.h"

#include "tests/support/near.h"

#include <cmath>

namespace muffle {
namespace {

/// Over a pass less halfway to the next, by adding up the lines one by one.
double addedUp_K(double watts_per_m, double conductivity, double spacing, double above) {
  double over = 0.0;
  for (int n = -4000; n <= 4000; ++n) {
    const double x = n * spacing, half = (n + 0.5) * spacing;
    over += -0.5 * std::log(x * x + above * above) + 0.5 * std::log(half * half + above * above);
  }
  return watts_per_m / (2.0 * 3.14159265358979 * conductivity) * over;
}

TEST(Cable, UnevennessIsThatOfItsLinesAddedUp) {
  for (const double above : {0.03, 0.08, 0.15})
    EXPECT_CLOSE(cableUnevenness_K(15.0, 1.2, 0.2, above), addedUp_K(15.0, 1.2, 0.2, above), 1e-3, "of a row that ends 800 m away");
}

TEST(Cable, CloserPassesOrDeeperOnesWarmMoreEvenly) {
  const double usual = cableUnevenness_K(15.0, 1.2, 0.15, 0.08);
  EXPECT_LT(usual, 0.2) << "K: roots do not tell";
  EXPECT_GT(cableUnevenness_K(15.0, 1.2, 0.45, 0.08), 5.0 * usual);
  EXPECT_LT(cableUnevenness_K(15.0, 1.2, 0.15, 0.12), 0.5 * usual);
}

} // namespace
} // namespace muffle
