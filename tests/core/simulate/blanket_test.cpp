// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assemble/blanket.h"

#include "core/simulate/simulate.h"
#include "tests/support/frost.h"

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

TEST(Blanket, IsDrawnFromSunsetToSunriseUnlessToldOtherwise) {
  EXPECT_EQ(blanketClosed({}, evening(), *TimeZone::named("UTC")), (std::vector<double>{0, 0, 1, 1, 1, 1, 1, 1, 0, 0}));
}

TEST(Blanket, ByColdItClosesOnlyOnColdNightsAndDoesNotFlutter) {
  NightBlanket b;
  b.rule = BlanketRule::cold;
  b.outsideBelow_C = 5.0;
  EXPECT_EQ(blanketClosed(b, evening(), *TimeZone::named("UTC")), (std::vector<double>{0, 0, 1, 1, 0, 0, 1, 1, 0, 0}))
      << "5.4 keeps it shut, 6.2 opens it, 5.5 does not shut it again";
}

TEST(Blanket, ByLightItStaysOverADarkMorning) {
  NightBlanket b;
  b.rule = BlanketRule::dark;
  b.sunBelow_W_m2 = 20.0;
  EXPECT_EQ(blanketClosed(b, evening(), *TimeZone::named("UTC")), (std::vector<double>{0, 0, 1, 1, 1, 1, 1, 1, 1, 0}))
      << "21.5 is within a tenth of the threshold";
}

TEST(Blanket, AsAShadeItIsDrawnInStrongSunOnly) {
  Winter w = evening();
  w.sun_W_m2 = {300, 590, 610, 700, 560, 540, 500, 620, 100, 0};
  NightBlanket b;
  b.rule = BlanketRule::bright;
  EXPECT_EQ(blanketClosed(b, w, *TimeZone::named("UTC")), (std::vector<double>{0, 0, 1, 1, 1, 0, 0, 1, 0, 0})) << "560 is within a tenth of 600";
}

/// A winter of so many steps from midnight UTC, of which only the time matters.
Winter stepsFrom(const Date& day, std::size_t steps, double step_s) {
  Winter w;
  w.start = daysSinceEpoch(day) * 86400;
  w.step_s = step_s;
  w.outside_C.assign(steps, 0.0);
  return w;
}

NightBlanket byTheClock(double closesAt_h, double opensAt_h) { return {.rule = BlanketRule::clock, .closesAt_h = closesAt_h, .opensAt_h = opensAt_h}; }

TEST(Blanket, ByTheClockItKeepsThePlacesOwnTimePastMidnight) {
  const auto closed = blanketClosed(byTheClock(17.5, 7.0), stepsFrom({2031, 1, 10}, 24, 3600.0), *TimeZone::named("+02:00")); // hour k is k + 2 there
  for (int hour = 0; hour < 24; ++hour) {
    const int there = (hour + 2) % 24;
    EXPECT_EQ(closed[static_cast<std::size_t>(hour)], there < 7 || there >= 18 ? 1.0 : 0.0) << there << " h";
  }
  EXPECT_EQ(drawnAt(closed).size(), 2U) << "closed at the start, opened in the morning, closed in the evening";
}

TEST(Blanket, ByTheClockItMovesWithSummerTime) {
  const Date before{2030, 10, 26}; // clocks go back in the night that follows
  const auto closed = blanketClosed(byTheClock(18.0, 20.0), stepsFrom(before, 96, 1800.0), *TimeZone::named("Europe/Paris"));
  EXPECT_EQ(closed[32], 1.0) << "18 h of summer time is 16 h UTC";
  EXPECT_EQ(closed[31], 0.0);
  EXPECT_EQ(closed[48 + 32], 0.0) << "17 h the day after";
  EXPECT_EQ(closed[48 + 34], 1.0) << "18 h is 17 h UTC then";
  EXPECT_EQ(drawnAt(closed).size(), 2U);
}

TEST(Blanket, ByTheHousesOwnAirItIsDrawnOnColdNightsAndNoMoreOftenThanAll) {
  Plan p = testing::filmTunnel();
  p.house.blanket = NightBlanket{.rule = BlanketRule::inside, .insideBelow_C = -2.0};
  const auto weather = testing::frost(p.site);
  const auto run = [&](const Plan& plan) { return *simulate(plan, makeScene(weather, plan), {.series = true}); };
  const Simulation inside = run(p);
  const WinterSeries& s = inside.series.front();
  int closed = 0, warmAndOpen = 0;
  for (const NightSpan& night : weather->winters.front().nights)
    for (std::size_t i = night.from + 1; i < night.to; ++i) {
      closed += s.blanket[i] > 0.0F ? 1 : 0;
      if (s.air_C[i] < -2.0F) { EXPECT_GT(s.blanket[i], 0.0F); }
      if (s.air_C[i] > -0.5F) {
        EXPECT_EQ(s.blanket[i], 0.0F);
        ++warmAndOpen;
      }
    }
  EXPECT_GT(closed, 0);
  EXPECT_GT(warmAndOpen, 0) << "evenings are mild";
  EXPECT_GT(inside.summary.draws, 0.0);
  EXPECT_LE(inside.summary.closure, 1e-6);
  p.house.blanket->rule = BlanketRule::night;
  const Simulation always = run(p);
  EXPECT_GE(always.summary.coldest_C, inside.summary.coldest_C - 0.05);
  p.house.blanket.reset();
  EXPECT_LT(run(p).summary.coldest_C, inside.summary.coldest_C);
}

/// A film house in a clear frost with a blanket of that resistance, quite tight.
double lossUnder_W(double resistance_m2K_W, bool asLayer = false, std::optional<double> inner = std::nullopt) {
  Plan p = testing::filmTunnel();
  p.house.airChanges_per_h = p.house.windAirChanges = 0.0;
  p.house.crop = {0.0, 0.0};
  p.materials.push_back(
      {.id = "cloth", .name = "cloth", .emissivity = 0.9, .resistance_m2K_W = resistance_m2K_W, .capacity_J_m2K = 900.0, .note = "", .innerEmissivity = inner});
  if (asLayer) {
    for (Skin* skin : {&p.house.roof, &p.house.sides, &p.house.ends}) {
      skin->layers.back().gap_m = 0.15; // as far as a blanket hangs below its cover
      skin->layers.push_back({"cloth", 0.05});
    }
  } else {
    p.house.blanket = NightBlanket{.material = "cloth", .leak = 0.0};
  }
  EXPECT_TRUE(check(p).empty());
  const auto loss = steadyLoss(p, 5.0, -10.0, 2.0, 0.9);
  double cover = 0.0;
  for (const LossPart& part : loss->parts)
    if (part.part == LossPath::roof || part.part == LossPath::sides || part.part == LossPath::ends) cover += part.loss_W;
  return cover;
}

TEST(Blanket, InsulatesByItsResistanceForAllThatPasses) {
  double before = 1e300;
  for (const double R : {0.03, 0.1, 0.3, 1.0, 3.0, 10.0}) {
    const double loss = lossUnder_W(R);
    EXPECT_LT(loss, before) << R;
    before = loss;
  }
  EXPECT_LT(lossUnder_W(10.0), 0.06 * lossUnder_W(0.03)) << "radiation does not go round it";
}

TEST(Blanket, QuiteTightItIsAsGoodAsTheSameClothAsALayer) {
  for (const double R : {0.05, 0.5, 2.0}) EXPECT_NEAR(lossUnder_W(R) / lossUnder_W(R, true), 1.0, 0.02) << R;
}

TEST(Blanket, OfFoilTowardsTheRoomKeepsMoreIn) { EXPECT_LT(lossUnder_W(0.1, false, 0.05), 0.95 * lossUnder_W(0.1)); }

} // namespace
} // namespace muffle
