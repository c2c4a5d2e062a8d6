// SPDX-License-Identifier: GPL-3.0-or-later
//
// Boundaries and sources that something outside the network changes between steps.
#include "core/network/solver.h"

#include <gtest/gtest.h>

#include <cmath>

namespace muffle {
namespace {

struct Room {
  Network net;
  int air, pile;
  Room() {
    air = net.addNode("air", 1e6, 10.0);
    pile = net.addBoundary("pile", Driver::set(10.0));
    net.addConductance(air, pile, 100.0);
    net.sources.push_back({air, Driver::set(0.0), "collector"});
  }
};

TEST(SetDrivers, ABoundaryPullsTheNetworkToWhatItIsSetTo) {
  Room room;
  Solver s = *Solver::prepare(room.net);
  s.advance(600.0);
  EXPECT_NEAR(s.temperature_C(room.air), 10.0, 1e-9);
  s.setBoundary(room.pile, 40.0);
  while (s.time_s() < 30.0 * 86400.0) s.advance(3600.0);
  EXPECT_NEAR(s.temperature_C(room.air), 40.0, 1e-6); // 260 time constants later
  EXPECT_NEAR(s.temperature_C(room.pile), 40.0, 1e-12);
}

TEST(SetDrivers, WhatABoundaryGaveIsWhatTheRestStored) {
  for (const bool multistep : {false, true}) {
    Room room;
    Solver s = *Solver::prepare(room.net, {.multistep = multistep});
    double given_J = 0.0;
    for (int i = 0; i < 500; ++i) {
      s.setBoundary(room.pile, 20.0 + 15.0 * std::sin(i / 40.0));
      s.advance(600.0);
      given_J -= s.boundaryEnergy_J(room.pile);
    }
    const double stored_J = 1e6 * (s.temperature_C(room.air) - 10.0);
    EXPECT_NEAR(given_J, stored_J, 1e-6 * s.balance().throughput_J) << (multistep ? "two-step" : "single steps");
    EXPECT_LT(s.balance().closure(), 1e-9);
  }
}

TEST(SetDrivers, ASourcesPowerCountsFromTheStepItIsSetFor) {
  Room room;
  Solver s = *Solver::prepare(room.net);
  s.setSource(0, 500.0);
  s.advance(600.0);
  const double first_J = s.balance().source_J[0];
  EXPECT_GT(first_J, 0.0);
  EXPECT_LE(first_J, 500.0 * 600.0 + 1e-6); // it comes to it within that step
  s.advance(600.0);
  EXPECT_NEAR(s.balance().source_J[0] - first_J, 500.0 * 600.0, 1e-6);
  s.setSource(0, 0.0);
  s.advance(600.0);
  const double before_J = s.balance().source_J[0];
  s.advance(600.0);
  EXPECT_EQ(s.balance().source_J[0], before_J);
}

} // namespace
} // namespace muffle
