// SPDX-License-Identifier: GPL-3.0-or-later
//
// A season's bill by a tariff of hours: of the kWh that were taken when they were taken.
#include "core/cost/cost.h"
#include "core/simulate/simulate.h"
#include "core/sizing/sizing.h"
#include "tests/support/frost.h"
#include "tests/support/near.h"
#include "tests/support/random_house.h"
#include "words/words.h"

#include <numeric>

namespace muffle {
namespace {

Plan tunnelOfTwo() {
  Plan p = testing::filmTunnel();
  p.setpoints = {1.0, 3.0, 3.0};
  addHeater(p, {.power_W = 4000.0});
  addHeater(p, {.id = "oil", .kind = HeaterKind::oil, .power_W = 6000.0, .stage_K = 1.0, .fuelPrice_kWh = 0.1});
  p.prices.electricity_per_kWh = 0.4;
  return p;
}

Simulation runOf(const Plan& p, const SimulateOptions& options = {}) {
  EXPECT_TRUE(check(p).empty()) << english(check(p).front());
  auto run = simulate(p, makeScene(testing::frost(p.site), p), options);
  EXPECT_TRUE(run);
  return std::move(*run);
}

TEST(TariffBill, WindowsOfTheSamePriceChangeNothing) {
  Plan p = tunnelOfTwo();
  const double flat = runOf(p).summary.cost.energy;
  p.prices.electricityWindows = {{0x7F, 22, 6, 0.4}, {0x1F, 9, 17, 0.4}};
  EXPECT_CLOSE(runOf(p).summary.cost.energy, flat, 1e-12, "rounding");
}

TEST(TariffBill, EveryKilowattHourIsCountedInItsHourOfTheWeek) {
  Plan p = tunnelOfTwo();
  p.prices.electricityWindows = {{0x7F, 22, 6, 0.2}};
  const Simulation run = runOf(p, {.series = true});
  int metered = 0;
  for (const Meter& m : run.summary.ledger.meters()) {
    if (m.of != Metered::electricity || m.amount <= 0.0) continue;
    ++metered;
    ASSERT_EQ(m.week.size(), 168U);
    EXPECT_CLOSE(std::accumulate(m.week.begin(), m.week.end(), 0.0), m.amount, 1e-9, "rounding");
  }
  const auto byWindow = run.summary.ledger.electricity_kWh(p.prices.electricity());
  ASSERT_EQ(byWindow.size(), 2U);
  EXPECT_CLOSE(byWindow[0] + byWindow[1], run.summary.ledger.sum(Metered::electricity), 1e-9, "every kWh is in one");
  EXPECT_GT(byWindow[0], byWindow[1]) << "frost is by night";
  EXPECT_EQ(metered, 2) << "the electric heater, and what the oil heater takes for itself";
  // by hand, of the hours of the winter
  const auto zone = TimeZone::named(p.site.timeZone);
  const auto weather = testing::frost(p.site);
  const Winter& winter = weather->winters[0];
  double money = 0.0;
  for (const Meter& m : run.ledgers[0].meters())
    for (std::size_t h = 0; h < m.hour.size(); ++h) {
      const double hour = zone->localHour(winter.time(0) + static_cast<UtcSeconds>(h) * 3600);
      money += m.of == Metered::electricity ? static_cast<double>(m.hour[h]) * (hour >= 22.0 || hour < 6.0 ? 0.2 : 0.4)
               : m.of == Metered::fuel      ? static_cast<double>(m.hour[h]) * 0.1
                                            : 0.0;
    }
  EXPECT_CLOSE(run.summary.cost.energy * run.summary.winters, money, 1e-5, "hours are kept in single precision");
}

TEST(TariffBill, ACheaperWindowNeverCostsMoreAndAStandingChargeIsPaidByTheDay) {
  for (unsigned seed = 0; seed < 20; ++seed) {
    Plan p = testing::randomPlan(seed);
    const auto weather = testing::randomWeather(seed, p);
    const auto costOf = [&](const Plan& plan) { return simulate(plan, makeScene(weather, plan))->summary.cost.energy; };
    const double flat = costOf(p);
    p.prices.electricityWindows = {{0x7F, 23, 7, 0.5 * p.prices.electricity_per_kWh}};
    const double night = costOf(p);
    EXPECT_LE(night, flat + 1e-9) << seed;
    EXPECT_GE(night, 0.5 * flat - 1e-9 - (flat - night)) << seed;
    p.prices.electricityStanding_per_day = 0.5;
    EXPECT_CLOSE(costOf(p) - night, 0.5 * kWinterDays, 1e-9, "by the day") << seed;
  }
}

TEST(TariffBill, ASearchBillsByTheHourAndIsRankedAgainByOtherPricesOfTheSameHours) {
  Plan p = tunnelOfTwo();
  p.measures = {{.kind = MeasureKind::sealing,
                 .name = "sealing",
                 .levels = {0.3},
                 .material = "",
                 .gap_m = 0.05,
                 .price = 60.0,
                 .life_years = 3.0,
                 .hoursPerWinter = 2.0}};
  p.prices.electricityWindows = {{0x7F, 22, 6, 0.2}};
  const auto weather = testing::frost(p.site);
  auto sizing = size(p, weather);
  ASSERT_TRUE(sizing);
  EXPECT_CLOSE(sizing->packages[0].cost.energy, runOf(p).summary.cost.energy, 1e-9, "the plan as it is");
  Prices dearer = p.prices;
  dearer.electricityWindows[0].price_per_kWh = 0.3;
  Plan then = p;
  then.prices = dearer;
  reprice(*sizing, p, dearer);
  EXPECT_CLOSE(sizing->packages[0].cost.energy, runOf(then).summary.cost.energy, 1e-9, "ranked again, not run again");
}

TEST(TariffBill, AWindowWithoutAnHourIsRefused) {
  Plan p = tunnelOfTwo();
  p.prices.electricityWindows = {{0x7F, 5, 5, 0.2}};
  ASSERT_FALSE(check(p).empty());
  EXPECT_NE(english(check(p).front()).find("0 to 24"), std::string::npos);
}

} // namespace
} // namespace muffle
