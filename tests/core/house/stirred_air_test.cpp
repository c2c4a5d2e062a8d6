// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/house/stirred_air.h"

#include "core/plan/heaters.h"
#include "core/simulate/simulate.h"
#include "tests/support/frost.h"
#include "tests/support/near.h"
#include "tests/support/random_house.h"
#include "words/words.h"

#include <cmath>
#include <numeric>

namespace muffle {
namespace {

double sumOf(const std::vector<double>& values) { return std::accumulate(values.begin(), values.end(), 0.0); }

TEST(StirredAir, ForcedFilmsAreThoseOfTheCorrelation) {
  EXPECT_CLOSE(forcedAtWalls_W_m2K(30.0), 0.19 * 15.195, 1e-3, "30^0.8 is 15.195");
  EXPECT_CLOSE(forcedAtRoof_W_m2K(10.0), 0.49 * 6.3096, 1e-4, "10^0.8 is 6.3096");
}

TEST(StirredAir, TakesNothingWhereItIsStillMoreTheFasterItGoesAndNeverAll) {
  const auto shares = [](double forced) { return stirredShares(std::vector<StirredFace>{{60.0, 1.7, forced}, {40.0, 1.5, 0.4 * forced}}, 5000.0); };
  EXPECT_CLOSE(sumOf(shares(0.0)), 0.0, 1e-12, "still air");
  double before = 0.0;
  for (const double forced : {0.5, 1.0, 3.0, 10.0, 100.0, 1e4}) {
    EXPECT_GT(sumOf(shares(forced)), before);
    before = sumOf(shares(forced));
    EXPECT_LT(before, 1.0);
  }
  EXPECT_GT(before, 0.99) << "in a gale nothing is left to free convection";
}

TEST(StirredAir, WithTheFreeFilmBesideItTheCoversTakeAllTheHeat) {
  const StirredFace face{80.0, 1.6, 2.5};
  const double heat_W = 6000.0, share = stirredShares(std::vector{face}, heat_W)[0];
  // the rest is what free convection takes at the same difference: (1 - s) Q = A k dT^(4/3), and all of it A (k^3 dT + f^3)^(1/3) dT
  const double by_K = std::pow((1.0 - share) * heat_W / (face.area_m2 * face.free_W_m2K43), 0.75);
  EXPECT_CLOSE(face.area_m2 * std::cbrt(std::pow(1.6, 3) * by_K + std::pow(2.5, 3)) * by_K, heat_W, 1e-6 * heat_W, "sixty halvings");
}

TEST(StirredAir, AFanThatStirsCostsHeatAndKeepsTheEnergyWhole) {
  for (unsigned seed = 1; seed <= (testing::isSanitized() ? 3U : 25U); ++seed) {
    Plan p = testing::randomPlan(seed);
    const auto weather = testing::randomWeather(seed, p, 4);
    addHeater(p, {.power_W = 400.0 * p.house.shape.floor_m2()});
    double before_kWh = 0.0;
    for (const double changes_per_h : {0.0, 10.0, 60.0}) {
      p.heaters.front().stirs_m3_h = changes_per_h * p.house.shape.volume_m3();
      ASSERT_TRUE(check(p).empty());
      const auto run = simulate(p, makeScene(weather, p));
      ASSERT_TRUE(run) << english(run.problem());
      EXPECT_LT(run->summary.closure, 1e-9) << seed;
      EXPECT_GE(run->summary.heater_kWh, before_kWh * (1.0 - 1e-4) - 0.01) << seed << ": a thinner film never saves heat";
      before_kWh = run->summary.heater_kWh;
    }
  }
}

TEST(StirredAir, OnlyAThermostatsFanInTheHouseStirs) {
  Plan p = testing::filmTunnel();
  addHeater(p, {.kind = HeaterKind::woodStove, .stirs_m3_h = 300.0});
  ASSERT_FALSE(check(p).empty());
  EXPECT_NE(english(check(p).front()).find("stirs"), std::string::npos);
}

} // namespace
} // namespace muffle
