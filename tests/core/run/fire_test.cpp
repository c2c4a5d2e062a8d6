// SPDX-License-Identifier: GPL-3.0-or-later
//
// A stove's burn curve is known beforehand: the season goes on in its long steps while it burns, and gives what was burnt.
#include "core/plan/heaters.h"
#include "core/run/run.h"
#include "core/simulate/simulate.h"
#include "tests/support/frost.h"
#include "tests/support/near.h"

#include <gtest/gtest.h>

#include <cmath>

namespace muffle::fire_test {
namespace {

Plan stoveHouse(double power_W, double load_kg, int loads, double every_h) {
  Plan p = testing::filmTunnel();
  p.setpoints = {0.0, 2.0, 2.0};
  addHeater(
      p,
      {.id = "stove", .kind = HeaterKind::woodStove, .power_W = power_W, .from_h = 18.0, .stoking = {.load_kg = load_kg, .loads = loads, .every_h = every_h}});
  addHeater(p, {.id = "fan", .power_W = 2000.0});
  return p;
}

struct Burnt {
  explicit Burnt(Plan itsPlan)
      : plan(std::move(itsPlan)), scene(makeScene(testing::frost(plan.site), plan)), winter(scene.weather->winters.front()),
        run(std::move(*Run::prepare(plan, assemble(plan, winter, scene.sun.front()), winter, {}))) {
    run.begin();
  }
  [[nodiscard]] double air_C() const { return run.solver().temperature_C(run.assembly().air); }
  /// By the curve itself: of every load, from when it was put on to the step the run stands at.
  [[nodiscard]] double burnt_J() const {
    const BurnCurve curve = burnCurve(plan.heaters.front());
    double sum = 0.0;
    for (const std::size_t at : run.fire()->loads(0)) sum += curve.given_J(static_cast<double>(run.step() - at) * winter.step_s);
    return sum;
  }
  [[nodiscard]] double given_J() const { return run.solver().balance().thermostat_J[static_cast<std::size_t>(run.assembly().heaters.front().thermostat)]; }

  const Plan plan;
  const Scene scene;
  const Winter& winter;
  Run run;
};

TEST(Fire, GivesWhatItsLoadsBurnAndTheSeasonGoesOnInDoubleSteps) {
  for (const Plan& plan : {stoveHouse(6000.0, 8.0, 3, 2.5), stoveHouse(3000.0, 3.0, 1, 4.0), stoveHouse(12000.0, 10.0, 5, 1.0)}) {
    Burnt season(plan);
    while (!season.run.isDone()) ASSERT_TRUE(season.run.advance(1));
    ASSERT_GT(season.run.fire()->loads(0).size(), 3U);
    EXPECT_CLOSE(season.given_J() / season.burnt_J(), 1.0, 1e-7, "a load is ash when a ten-millionth of it is left");
    EXPECT_LT(season.run.solver().balance().closure(), 1e-9);
    EXPECT_GT(season.run.solver().doubleSteps(), static_cast<long>(season.winter.size() / 8)) << "though it burns most of the night";
  }
}

TEST(Fire, TheAirIsThatOfFineSteps) {
  for (const HeaterKind kind : {HeaterKind::woodStove, HeaterKind::massStove}) // alight within twenty minutes and within ten
    for (const double power_W : {3000.0, 8000.0, 12000.0}) {
      Plan plan = stoveHouse(power_W, 8.0, 3, 2.5);
      plan.heaters.front().kind = kind;
      Burnt season(plan), fine(plan);
      double square = 0.0, low = 1e9, high = -1e9;
      while (!season.run.isDone()) {
        ASSERT_TRUE(season.run.advance(1));
        ASSERT_TRUE(fine.run.advanceFinely(10, [] {}));
        square += std::pow(season.air_C() - fine.air_C(), 2);
        low = std::min(low, fine.air_C());
        high = std::max(high, fine.air_C());
      }
      EXPECT_LE(std::sqrt(square / static_cast<double>(season.run.step())), 0.01 * (high - low)) << "a hundredth of the swing, as elsewhere";
    }
}

TEST(Fire, NobodyThereInTheMiddleOfANightLosesNoHeat) {
  const Plan plan = stoveHouse(6000.0, 8.0, 4, 1.5);
  for (const std::size_t from : {2U * 144U + 116U, 2U * 144U + 117U, 2U * 144U + 121U, 2U * 144U + 126U}) { // also in the middle of two steps taken as one
    Burnt season(plan);
    while (season.run.step() < from) ASSERT_TRUE(season.run.advance(1));
    season.run.goOn(season.run.keep(), {.nobodyThere = {{season.winter.time(from), season.winter.time(from + 200)}}});
    while (!season.run.isDone()) ASSERT_TRUE(season.run.advance(1));
    EXPECT_CLOSE(season.given_J() / season.burnt_J(), 1.0, 1e-7, "what was lit burns on, and no more");
    EXPECT_LT(season.run.solver().balance().closure(), 1e-9);
  }
}

} // namespace
} // namespace muffle::fire_test
