// SPDX-License-Identifier: GPL-3.0-or-later
//
// A small house under smooth weather, on which a method shows its order.
#pragma once

#include "core/network/solver.h"

#include <algorithm>
#include <cmath>

namespace muffle {

/// A nonlinear, driven network: film, air, floor, sky. The heated air stays above the film, since natural convection
/// has no second derivative where its difference passes zero, and no method keeps its order there.
inline Network smoothHouse(bool soil) {
  Network net;
  const int out = net.addBoundary("out", Driver::sine(-4.0, 6.0, 86400.0, 50400.0));
  const int sky = net.addBoundary("sky", Driver::sine(-18.0, 5.0, 86400.0, 50400.0));
  const int air = net.addNode("air", 400e3, 3.0);
  const int film = net.addNode("film", 60e3, 0.0);
  const int floor = net.addNode("floor", soil ? 0.0 : 1e6, 6.0);
  net.addNatural(air, film, 90.0, 1.7, 1.0 / 3.0);
  net.addConductance(film, out, 900.0);
  net.addRadiative(film, sky, 40.0);
  net.addRadiative(floor, film, 20.0);
  net.addConductance(floor, air, 150.0);
  net.addConductance(air, out, 40.0);
  if (soil) {
    Solid solid{.id = "soil", .area_m2 = 50.0, .from = floor, .to = net.addBoundary("deep", Driver::constant(9.0)), .initial_C = 7.0};
    solid.layers = {{0.3, 1.2, 1700.0, 1200.0, 6}, {0.9, 1.2, 1700.0, 1200.0, 5}};
    net.addSolid(solid);
  }
  net.sources.push_back({floor, Driver::sine(1500.0, 1500.0, 86400.0, 43200.0), "sun"});
  net.sources.push_back({air, Driver::constant(4000.0), "stove"});
  return net;
}

/// Air at every full hour of the second day; the first day lets the start die away.
inline std::vector<double> secondDay(double step_s, const SolverOptions& options) {
  const Network net = smoothHouse(false); // a soil started out of balance remembers its first day for weeks
  Solver s = *Solver::prepare(net, options);
  const int air = net.find("air");
  const int perHour = static_cast<int>(3600.0 / step_s + 0.5);
  std::vector<double> T;
  for (int hour = 1; hour <= 48; ++hour) {
    for (int i = 0; i < perHour; ++i) s.advance(step_s);
    if (hour > 24) T.push_back(s.temperature_C(air));
  }
  return T;
}

inline double furthestApart(const std::vector<double>& a, const std::vector<double>& b) {
  double worst = 0.0;
  for (std::size_t i = 0; i < a.size(); ++i) worst = std::max(worst, std::abs(a[i] - b[i]));
  return worst;
}

} // namespace muffle
