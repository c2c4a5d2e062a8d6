// SPDX-License-Identifier: GPL-3.0-or-later
//
// Setpoints that follow the clock and the forecast, over nights.
#include "core/control/held_setpoint.h"
#include "core/plan/heaters.h"
#include "core/plan/plan_json.h"
#include "core/simulate/simulate.h"
#include "tests/support/frost.h"
#include "tests/support/near.h"
#include "words/words.h"

#include <algorithm>

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

TEST(Setpoints, AreKeptInThePlansFileAndRefusedWhereTheyDoNotFit) {
  Plan p = heldTunnel();
  p.setpoints.dayFrom_h = 7.0;
  p.setpoints.nightFrom_h = 19.5;
  p.setpoints.nightBands = {{-5.0, 2.0}, {3.0, 7.0}};
  const auto again = planFromJson(planToJson(p));
  ASSERT_TRUE(again) << english(again.problem());
  EXPECT_EQ(again->setpoints, p.setpoints);
  p.setpoints.nightBands = {{3.0, 7.0}, {-5.0, 2.0}};
  EXPECT_FALSE(check(p).empty()) << "bands out of order";
  p.setpoints.nightBands = {{3.0, 39.0}};
  EXPECT_FALSE(check(p).empty()) << "above the vents";
  p.setpoints.nightBands.clear();
  p.setpoints.nightFrom_h.reset();
  EXPECT_FALSE(check(p).empty()) << "a day without an end";
}

} // namespace
} // namespace muffle
