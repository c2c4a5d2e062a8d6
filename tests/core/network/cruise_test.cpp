// SPDX-License-Identifier: GPL-3.0-or-later
//
// Equal steps by two-step BDF against the single-step method and against laws.
#include "core/network/solver.h"

#include "tests/support/near.h"
#include "tests/support/smooth_house.h"

namespace muffle {
namespace {

const SolverOptions kCruise{.cruise = true};

/// A smooth house with a heater whose setpoint falls from 12 to 5 degC in the middle of every day.
Network heatedHouse() {
  Network net = smoothHouse(true);
  const int air = net.find("air");
  net.sources.pop_back(); // the stove
  net.vents.push_back({air, net.find("out"), air, 14.0, 18.0, 500.0, ""});
  Signal setpoint;
  setpoint.step_s = 600.0;
  setpoint.hold = true;
  for (int i = 0; i < 144 * 10; ++i) setpoint.value.push_back(i % 144 < 72 ? 12.0 : 5.0);
  Thermostat t{.id = "heater", .sensor = air, .heats = air};
  t.setpointSignal = net.addSignal(std::move(setpoint));
  t.power_W = 9000.0;
  net.thermostats.push_back(t);
  return net;
}

TEST(Cruise, IsOfSecondOrder) {
  const auto worst = [exact = secondDay(15.0, {.newtonTolerance_K = 1e-11})](double step_s) { return furthestApart(secondDay(step_s, kCruise), exact); };
  const double coarse = worst(1200.0), fine = worst(600.0), finer = worst(300.0);
  // 4, within the band that the next term of the error and matrices kept for a few steps leave
  EXPECT_GT(coarse / fine, 3.2);
  EXPECT_LT(coarse / fine, 4.8);
  EXPECT_GT(fine / finer, 3.2);
  EXPECT_LT(fine / finer, 4.8);
  EXPECT_LT(fine, 0.1) << "ten minutes' air within a sensor's resolution";
}

TEST(Cruise, ClosesItsEnergyAndCountsTheHeatersPowerOnce) {
  Solver s = *Solver::prepare(heatedHouse(), kCruise);
  double heat_J = 0.0;
  for (int i = 0; i < 144 * 10; ++i) {
    ASSERT_TRUE(s.advance(600.0));
    heat_J += 600.0 * s.lastPower_W(0);
    EXPECT_LE(s.lastPower_W(0), 9000.0 * (1 + 1e-12));
    EXPECT_GE(s.lastPower_W(0), 0.0);
  }
  const EnergyBalance balance = s.balance();
  EXPECT_LE(balance.closure(), 1e-12);
  EXPECT_GT(heat_J, 0.0);
  EXPECT_CLOSE(heat_J / balance.thermostat_J[0], 1.0, 1e-12, "rounding of the sum");
}

TEST(Cruise, AHeaterThatIsShutOffHeatsNoMore) {
  Solver s = *Solver::prepare(heatedHouse(), kCruise);
  int falls = 0;
  double before = 0.0;
  for (int i = 0; i < 144 * 10; ++i) {
    ASSERT_TRUE(s.advance(600.0));
    if (i % 144 == 72 && before > 500.0) {
      ++falls;
      EXPECT_EQ(s.lastPower_W(0), 0.0) << "7 K below what it held: nothing of the step before is left in the step after";
    }
    before = s.lastPower_W(0);
  }
  EXPECT_GE(falls, 5);
}

TEST(Cruise, ComesToTheSameAsSingleSteps) {
  const Network net = heatedHouse();
  const int air = net.find("air");
  Solver single = *Solver::prepare(net);
  Solver cruising = *Solver::prepare(net, kCruise);
  double square = 0.0;
  constexpr int kSteps = 144 * 10;
  for (int i = 0; i < kSteps; ++i) {
    ASSERT_TRUE(single.advance(600.0) && cruising.advance(600.0));
    square += std::pow(single.temperature_C(air) - cruising.temperature_C(air), 2);
  }
  EXPECT_LE(std::sqrt(square / kSteps), 0.05) << "the two-step method's own error at ten minutes, most of it in the hour after a fall of 7 K";
  EXPECT_CLOSE(cruising.balance().thermostat_J[0] / single.balance().thermostat_J[0], 1.0, 0.003, "the same");
}

TEST(Cruise, StepsOfOtherLengthsGoByTheSingleStepMethod) {
  const Network net = heatedHouse();
  Solver single = *Solver::prepare(net);
  Solver cruising = *Solver::prepare(net, kCruise);
  for (int i = 0; i < 200; ++i) {
    const double h = i % 2 == 0 ? 600.0 : 300.0;
    ASSERT_TRUE(single.advance(h) && cruising.advance(h));
    EXPECT_EQ(single.temperature_C(net.find("air")), cruising.temperature_C(net.find("air")));
  }
}

TEST(Cruise, AStiffFilmDoesNotRing) {
  Network net;
  const int out = net.addBoundary("out", Driver::constant(0.0));
  const int film = net.addNode("film", 10.0, 20.0);
  net.addConductance(film, out, 1000.0);
  Solver s = *Solver::prepare(net, kCruise);
  for (int i = 0; i < 4; ++i) s.advance(600.0);
  EXPECT_CLOSE(s.temperature_C(film), 0.0, 1e-6, "the method's roots vanish for a mode 60 000 times faster than the step");
}

} // namespace
} // namespace muffle
