// SPDX-License-Identifier: GPL-3.0-or-later
//
// Setpoints that follow the clock and the forecast, over nights.
#include "core/control/asked_setpoints.h"
#include "core/control/held_setpoint.h"
#include "core/plan/heaters.h"
#include "core/plan/plan_json.h"
#include "core/simulate/simulate.h"
#include "tests/support/frost.h"
#include "tests/support/near.h"
#include "words/words.h"

#include <algorithm>
#include <random>

namespace muffle {
namespace {

using testing::filmTunnel;
using testing::frost;

Plan heldTunnel() {
  Plan p = filmTunnel();
  p.site.timeZone = "UTC";
  p.setpoints = {0.0, 4.0, 6.0};
  addHeater(p, {.power_W = 40000.0});
  return p;
}

TEST(Setpoints, ByTheClockTheHouseFollowsThem) {
  Plan p = heldTunnel();
  p.setpoints.dayFrom_h = 8.0;
  p.setpoints.nightFrom_h = 17.0;
  p.setpoints.ramp_h = 2.0;
  ASSERT_TRUE(check(p).empty());
  const auto run = simulate(p, makeScene(frost(p.site), p), {.series = true});
  ASSERT_TRUE(run);
  const auto& air = run->series[0].air_C;
  const auto at = [&](double hour) { return static_cast<double>(air[2 * 144 + static_cast<std::size_t>(hour * 6.0)]); };
  EXPECT_CLOSE(at(3.0), 4.0, 0.05, "held at night");
  EXPECT_CLOSE(at(18.0), 6.0 - 2.0 * 50.0 / 120.0, 0.03, "half way down, of the step that began ten minutes before");
  EXPECT_CLOSE(at(22.0), 4.0, 0.05, "and down");
}

TEST(Setpoints, AColderForecastHoldsACoolerNightWhereTheBandsSaySo) {
  Plan p = heldTunnel();
  p.setpoints.nightBands = {{-10.0, 1.0}, {0.0, 8.0}};
  ASSERT_TRUE(check(p).empty());
  const Winter winter = frost(p.site)->winters[0];
  const std::vector<double> night = nightOf(winter);
  const auto held = heldSetpoint_C(p.setpoints, winter, TimeZone::utc(), night);
  const double low = *std::min_element(winter.outside_C.begin(), winter.outside_C.end());
  for (std::size_t i = 200; i + 200 < held.size(); ++i) // nights that are whole
    EXPECT_CLOSE(held[i], night[i] > 0.0 ? 1.0 + (low + 10.0) * 0.7 : p.setpoints.day_C, 0.05, "every night is alike");
  const auto warm = simulate(heldTunnel(), makeScene(frost(p.site), p));
  const auto banded = simulate(p, makeScene(frost(p.site), p));
  ASSERT_TRUE(warm && banded);
  EXPECT_LT(banded->summary.ledger.heat_kWh(MeterUse::heater), warm->summary.ledger.heat_kWh(MeterUse::heater)) << "2.4 against 4 degC at night";
}

TEST(Setpoints, AMildDayIsHeldWarmerWhereTheBandsSaySoAndWithinTheSwing) {
  Plan p = heldTunnel();
  p.setpoints.dayBands = {{-5.0, 6.0}, {10.0, 12.0}};
  ASSERT_TRUE(check(p).empty());
  const Winter winter = frost(p.site)->winters[0];
  const std::vector<double> night = nightOf(winter);
  const double high = *std::max_element(winter.outside_C.begin(), winter.outside_C.end());
  const double byHigh_C = 6.0 + std::clamp((high + 5.0) / 15.0, 0.0, 1.0) * 6.0;
  const auto held = heldSetpoint_C(p.setpoints, winter, TimeZone::utc(), night);
  for (std::size_t i = 200; i + 200 < held.size(); ++i) EXPECT_CLOSE(held[i], night[i] > 0.0 ? p.setpoints.night_C : byHigh_C, 0.05, "every day is alike");
  p.setpoints.swingAtMost_K = 1.5;
  ASSERT_TRUE(check(p).empty());
  const auto narrow = heldSetpoint_C(p.setpoints, winter, TimeZone::utc(), night);
  for (std::size_t i = 0; i < narrow.size(); ++i) {
    EXPECT_LE(narrow[i], p.setpoints.night_C + 1.5 + 1e-12);
    EXPECT_LE(narrow[i], held[i] + 1e-12) << "a limit lowers the day's and leaves the night's";
  }
  EXPECT_CLOSE(p.setpoints.warmest_C(), p.setpoints.night_C + 1.5, 1e-12, "no heater is asked for more");
}

TEST(Setpoints, AWarmerForecastNeverAsksForLessWhereBandsRise) {
  std::mt19937 random(29);
  const auto between = [&](double low, double high) { return std::uniform_real_distribution<double>(low, high)(random); };
  for (int house = 0; house < 40; ++house) {
    Plan p = heldTunnel();
    double outside = between(-20.0, -10.0), setpoint = between(-2.0, 3.0);
    for (int band = 0; band < 4; ++band) {
      p.setpoints.nightBands.push_back({outside, setpoint});
      p.setpoints.dayBands.push_back({outside + 8.0, setpoint + 1.0});
      outside += between(1.0, 6.0);
      setpoint += between(0.0, 3.0);
    }
    if (house % 2) p.setpoints.swingAtMost_K = between(0.0, 4.0);
    if (house % 3 == 0) p.setpoints.dayFrom_h = 7.0, p.setpoints.nightFrom_h = 16.5, p.setpoints.ramp_h = between(0.0, 3.0);
    Winter winter = frost(p.site)->winters[0];
    const std::vector<double> night = nightOf(winter);
    const auto cold = heldSetpoint_C(p.setpoints, winter, TimeZone::utc(), night);
    for (double& outside_C : winter.outside_C) outside_C += 3.0;
    const auto mild = heldSetpoint_C(p.setpoints, winter, TimeZone::utc(), night);
    for (std::size_t i = 0; i < cold.size(); ++i) {
      EXPECT_GE(mild[i], cold[i] - 1e-12);
      EXPECT_LE(mild[i], p.setpoints.warmest_C() + 1e-12);
    }
  }
}

TEST(Setpoints, WhatIsAskedNightByNightIsWhatHeatersAreGiven) {
  Plan p = heldTunnel();
  p.setpoints.nightBands = {{-10.0, 1.0}, {0.0, 8.0}};
  p.setpoints.dayBands = {{-5.0, 6.0}, {10.0, 12.0}};
  p.setpoints.swingAtMost_K = 5.0;
  const auto weather = frost(p.site);
  const Winter& winter = weather->winters[0];
  const auto held = heldSetpoint_C(p.setpoints, winter, TimeZone::utc(), nightOf(winter));
  const auto nights = askedNights(p.setpoints, *weather, TimeZone::utc()), days = askedDays(p.setpoints, *weather, TimeZone::utc());
  const auto warmest = [](const std::vector<AskedSetpoint>& asked) {
    return std::max_element(asked.begin(), asked.end(), [](const AskedSetpoint& a, const AskedSetpoint& b) { return a.setpoint_C < b.setpoint_C; })->setpoint_C;
  };
  EXPECT_CLOSE(std::max(warmest(nights), warmest(days)), *std::max_element(held.begin(), held.end()), 1e-12, "the same law");
  const double days_of_log = winter.step_s * static_cast<double>(winter.size()) / 86400.0;
  EXPECT_NEAR(static_cast<double>(nights.size()), days_of_log, 1.5) << "one each, the first and last in part";
  EXPECT_NEAR(static_cast<double>(days.size()), days_of_log, 1.5);
}

TEST(Setpoints, AreKeptInThePlansFileAndRefusedWhereTheyDoNotFit) {
  Plan p = heldTunnel();
  p.setpoints.dayFrom_h = 7.0;
  p.setpoints.nightFrom_h = 19.5;
  p.setpoints.nightBands = {{-5.0, 2.0}, {3.0, 7.0}};
  p.setpoints.dayBands = {{0.0, 8.0}, {9.0, 11.0}};
  p.setpoints.swingAtMost_K = 6.0;
  const auto again = planFromJson(planToJson(p));
  ASSERT_TRUE(again) << english(again.problem());
  EXPECT_EQ(again->setpoints, p.setpoints);
  p.setpoints.nightBands = {{3.0, 7.0}, {-5.0, 2.0}};
  EXPECT_FALSE(check(p).empty()) << "bands out of order";
  p.setpoints.nightBands = {{3.0, 39.0}};
  EXPECT_FALSE(check(p).empty()) << "above the vents";
  p.setpoints.nightBands.clear();
  p.setpoints.dayBands = {{9.0, 11.0}, {0.0, 8.0}};
  EXPECT_FALSE(check(p).empty()) << "bands of days out of order";
  p.setpoints.dayBands = {{9.0, 11.0}, {0.0, 8.0}, {-3.0, 6.0}};
  const Problems all = check(p);
  ASSERT_EQ(all.size(), 2U);
  EXPECT_EQ(english(all[0].allowed), english(all[1].allowed)) << "each says what is needed";
  p.setpoints.dayBands.clear();
  p.setpoints.nightFrom_h.reset();
  EXPECT_FALSE(check(p).empty()) << "a day without an end";
}

} // namespace
} // namespace muffle
