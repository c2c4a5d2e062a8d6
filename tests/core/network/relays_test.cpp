// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/network/relays.h"

#include "core/air/moist_air.h"
#include "core/network/solver.h"
#include "tests/support/near.h"

#include <gtest/gtest.h>

namespace muffle {
namespace {

/// Moist air over a pane that a cold sky chills by night: it condenses, and by day dries again.
struct Pane {
  Network net;
  int air, vapour, pane;
  int film;
};

Pane pane(double holds_g) {
  Pane p;
  Network& net = p.net;
  const int out = net.addBoundary("out", Driver::sine(4.0, 7.0, 86400.0, 50400.0));
  p.air = net.addBoundary("air", Driver::sine(9.0, 5.0, 86400.0, 50400.0));
  p.vapour = net.addBoundary("vapour", Driver::constant(5.0));
  p.pane = net.addNode("pane", 9e3, 6.0);
  net.addConductance(p.pane, out, 12.0);
  Link& film = net.addNatural(p.air, p.pane, 1.0, 1.7, 1.0 / 3.0);
  film.vapour = p.vapour;
  film.relay = 0;
  p.film = static_cast<int>(net.links.size()) - 1;
  net.relays.push_back({"wet", SurfaceWater{p.film, 1.0, holds_g}});
  return p;
}

TEST(Relays, WhatCondensesByNightDriesByDayAndNoMoreThanWasThere) {
  for (const bool multistep : {false, true}) {
    Pane p = pane(500.0);
    Solver solver = *Solver::prepare(p.net, {.multistep = multistep});
    double most_g = 0.0, latent_J = 0.0, dried_J = 0.0, condensed_J = 0.0;
    bool dried = false;
    for (int i = 0; i < 144 * 3; ++i) {
      ASSERT_TRUE(solver.advance(600.0));
      const double before = latent_J;
      latent_J = -solver.balance().boundary_J[static_cast<std::size_t>(p.vapour)];
      (latent_J > before ? dried_J : condensed_J) += std::abs(latent_J - before);
      most_g = std::max(most_g, solver.water_g(0));
      dried = dried || (most_g > 10.0 && !solver.relayIsOn(0));
    }
    EXPECT_GT(most_g, 10.0);
    EXPECT_TRUE(dried);
    EXPECT_LT(std::min(dried_J, condensed_J), std::max(dried_J, condensed_J) * 1.02) << "water that was never there gives no heat";
    EXPECT_GT(std::min(dried_J, condensed_J), 0.85 * std::max(dried_J, condensed_J)) << "nearly all that condensed has dried";
    EXPECT_LE(solver.balance().closure(), 1e-9);
  }
}

TEST(Relays, APaneHoldsOnlySoMuchAndTheRestRunsOff) {
  Pane p = pane(20.0);
  Solver solver = *Solver::prepare(p.net, {});
  for (int i = 0; i < 144 * 2; ++i) {
    ASSERT_TRUE(solver.advance(600.0));
    EXPECT_LE(solver.water_g(0), 20.0);
  }
}

TEST(Relays, AThermostatSwitchesALinkBetweenTwoStrengthsWithHysteresis) {
  Network net;
  const int out = net.addBoundary("out", Driver::sine(4.0, 10.0, 86400.0, 43200.0));
  const int room = net.addNode("room", 200e3, 10.0);
  net.relays.push_back({"blanket", SwitchedByTemperature{room, 3.0, 5.0}});
  const auto strength = [&](double value, bool hold) {
    Signal s;
    s.value = {value, value};
    s.hold = hold;
    s.step_s = 86400.0;
    return net.addSignal(std::move(s));
  };
  const int heldSwitch = net.addSwitch(0, strength(0.1, true), strength(1.0, true));
  const int slidingSwitch = net.addSwitch(0, strength(0.1, false), strength(1.0, false)); // what it chooses from may change by degrees; it jumps
  net.addConductance(room, out, 50.0);
  for (const auto& [modulator, multistep] : {std::pair{heldSwitch, false}, {heldSwitch, true}, {slidingSwitch, true}}) {
    net.links.front().modulator = modulator;
    Solver solver = *Solver::prepare(net, {.multistep = multistep});
    int switches = 0;
    bool was = solver.relayIsOn(0);
    for (int i = 0; i < 144 * 4; ++i) {
      ASSERT_TRUE(solver.advance(600.0));
      const bool on = solver.relayIsOn(0);
      const double T = solver.temperature_C(room);
      if (on != was) {
        ++switches;
        if (on) { EXPECT_LE(T, 3.0); }
        if (!on) { EXPECT_GE(T, 5.0); }
      }
      if (T < 3.0) { EXPECT_TRUE(on); }
      if (T > 5.0) { EXPECT_FALSE(on); }
      EXPECT_CLOSE(solver.linkFlow_W(0), (on ? 5.0 : 50.0) * (T - 4.0 - 10.0 * std::cos(2.0 * kPi * (solver.time_s() - 43200.0) / 86400.0)), 1e-6, "rounding");
      was = on;
    }
    EXPECT_GE(switches, 3);
    EXPECT_LE(switches, 9) << "it does not flutter";
    EXPECT_LE(solver.balance().closure(), 1e-9);
  }
}

TEST(Relays, AreRefusedWhereTheyCannotWork) {
  Pane p = pane(20.0);
  std::get<SurfaceWater>(p.net.relays[0].by).holds_g = 0.5;
  EXPECT_FALSE(Solver::prepare(p.net));
  std::get<SurfaceWater>(p.net.relays[0].by).holds_g = 20.0;
  std::get<SurfaceWater>(p.net.relays[0].by).film = 0;
  EXPECT_FALSE(Solver::prepare(p.net)) << "a plain conductance has no film";
  Network net;
  const int a = net.addNode("a", 1e3, 0.0);
  net.addConductance(a, net.addBoundary("b", Driver::constant(1.0)), 1.0).modulator = net.addSwitch(0, 0, 0);
  EXPECT_FALSE(Solver::prepare(net)) << "a switch without its relay";
}

} // namespace
} // namespace muffle
