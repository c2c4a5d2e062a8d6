// SPDX-License-Identifier: GPL-3.0-or-later
//
// The step that sets out after a jump, against laws and against fine single steps.
#include "core/network/solver.h"

#include "tests/support/near.h"

namespace muffle::set_out_test {
namespace {

const SolverOptions kMultistep{.multistep = true};

/// A room of air and a slow floor against a frost of -10 degC.
struct Room {
  Network net;
  int air, floor, out;
};

Room room() {
  Room r;
  r.out = r.net.addBoundary("out", Driver::constant(-10.0));
  r.air = r.net.addNode("air", 4e5, 8.0);
  r.floor = r.net.addNode("floor", 2e7, 8.0);
  r.net.addConductance(r.air, r.out, 250.0);
  r.net.addConductance(r.air, r.floor, 300.0);
  return r;
}

/// Steps that are never alike, so that each asks nothing of those before.
double unlike(double h, int i) { return i % 2 == 0 ? h * 1.001 : h * 0.999; }

TEST(SetOut, IsOfSecondOrder) {
  const Room r = room();
  const auto after = [&](double h_s, SolverOptions options) {
    Solver s = *Solver::prepare(r.net, std::move(options));
    for (int i = 0; i < static_cast<int>(4.0 * 3600.0 / h_s); ++i) EXPECT_TRUE(s.advance(unlike(h_s, i)));
    return s.temperature_C(r.floor);
  };
  const double exact = after(7.5, {.newtonTolerance_K = 1e-12});
  const double coarse = std::abs(after(900.0, kMultistep) - exact), fine = std::abs(after(450.0, kMultistep) - exact);
  EXPECT_GT(coarse / fine, 3.2) << "4, but for the next term of the error";
  EXPECT_LT(coarse / fine, 4.8);
}

TEST(SetOut, AHeaterMeetsItsNewSetpointInTheStepItRises) {
  Room r = room();
  Signal setpoint;
  setpoint.step_s = 600.0;
  setpoint.hold = true;
  for (int i = 0; i < 30; ++i) setpoint.value.push_back(i < 12 ? 4.0 : 9.0);
  Thermostat t{.id = "heater", .sensor = r.air, .heats = r.air};
  t.setpointSignal = r.net.addSignal(std::move(setpoint));
  t.power_W = 12000.0;
  r.net.thermostats.push_back(t);
  Solver s = *Solver::prepare(r.net, kMultistep);
  for (int i = 0; i < 12; ++i) ASSERT_TRUE(s.advance(600.0));
  EXPECT_CLOSE(s.temperature_C(r.air), 4.0, 1e-6, "it holds before");
  ASSERT_TRUE(s.advance(600.0));
  EXPECT_CLOSE(s.temperature_C(r.air), 9.0, 1e-6, "and after: all links are straight");
  EXPECT_LE(s.balance().closure(), 1e-12);
}

TEST(SetOut, AVentThatOpensOnTheWayIsFollowed) {
  Room r = room();
  r.net.vents.push_back({r.air, r.out, r.air, 12.0, 16.0, 900.0, ""});
  Signal sun;
  sun.step_s = 600.0;
  for (int i = 0; i < 40; ++i) sun.value.push_back(i < 10 ? 0.0 : 9000.0);
  const int falls = r.net.addSignal(std::move(sun));
  Driver power;
  power.kind = Driver::Kind::table;
  power.signal = falls;
  power.amplitude = 1.0;
  r.net.sources.push_back({r.air, power, "sun"});
  Solver s = *Solver::prepare(r.net, kMultistep), exact = *Solver::prepare(r.net, {.newtonTolerance_K = 1e-8});
  for (int i = 0; i < 40; ++i) {
    ASSERT_TRUE(s.advance(600.0));
    for (int k = 0; k < 32; ++k) ASSERT_TRUE(exact.advance(600.0 / 32.0));
    EXPECT_CLOSE(s.temperature_C(r.air), exact.temperature_C(r.air), 0.8, "of 9 K that the air goes in one step, of four fifths of its time constant");
  }
  EXPECT_CLOSE(s.temperature_C(r.air), exact.temperature_C(r.air), 0.02, "once the air is in balance");
  EXPECT_GT(s.temperature_C(r.air), 12.0) << "the vent is open in the end";
  EXPECT_LE(s.balance().closure(), 1e-12);
}

TEST(SetOut, WaterThatFreezesLosesNoHeatOnTheWay) {
  Room r = room();
  FreezingWater water;
  water.latent_J = 3e7;
  water.interval_K = 0.2;
  water.frozenCapacity_J_K = 2e5;
  r.net.nodes[static_cast<std::size_t>(r.air)].capacity_J_K = 1e6;
  r.net.nodes[static_cast<std::size_t>(r.floor)].capacity_J_K = 2e6;
  r.net.nodes[static_cast<std::size_t>(r.floor)].water = water;
  Solver s = *Solver::prepare(r.net, kMultistep);
  double coldest = 8.0;
  for (int i = 0; i < 144; ++i) {
    ASSERT_TRUE(s.advance(600.0));
    coldest = std::min(coldest, s.temperature_C(r.floor));
  }
  EXPECT_LT(coldest, -0.2) << "it freezes through";
  EXPECT_LE(s.balance().closure(), 1e-12);
}

} // namespace
} // namespace muffle::set_out_test
