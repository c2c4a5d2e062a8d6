// SPDX-License-Identifier: GPL-3.0-or-later
//
// The compiled flows against the links' own definitions, and their slopes against differences of the flows.
#include "core/air/moist_air.h"
#include "core/network/flows.h"
#include "core/network/solver.h"
#include "tests/support/mixed_house.h"
#include "tests/support/near.h"

#include <gtest/gtest.h>

#include <algorithm>

namespace muffle {
namespace {

/// Heat into each node by the definitions of links, vents and sources, without anything compiled.
std::vector<double> byDefinition(const Network& net, const std::vector<double>& T, double t) {
  std::vector<double> f(net.nodes.size(), 0.0);
  for (const Link& l : net.links) {
    const auto from = static_cast<std::size_t>(l.from);
    const auto to = static_cast<std::size_t>(l.to);
    const double strength = l.modulator < 0 ? 1.0 : net.tables[static_cast<std::size_t>(l.modulator)].at(t);
    const auto saturated_g_kg = [&](std::size_t node) { return 1000.0 * humidityRatio(saturationPressure_Pa(T[node]), net.pressure_Pa); };
    if (l.vapour >= 0) {
      const auto vapour = static_cast<std::size_t>(l.vapour);
      const double film = strength * l.coefficient * std::pow(std::pow(T[from] - T[to], 2) + kNaturalSmoothing_K2, l.exponent / 2.0);
      const double excess = T[vapour] - saturated_g_kg(to);
      const double latent = (excess > 0.0 ? 1.0 : l.wetShare) * film * kEvaporation_J_kg / 1000.0 / (kAirHeat_J_kgK * 0.905) * excess;
      f[to] += latent;
      f[vapour] -= latent;
    }
    const double q = strength * (l.kind == LinkKind::evaporative ? l.coefficient * (saturated_g_kg(from) - T[to]) : l.flow_W(T[from], T[to]));
    f[to] += q;
    if (l.kind != LinkKind::advective || net.nodes[from].boundary) f[from] -= q;
  }
  for (const Vent& v : net.vents) {
    const double opening = std::clamp((T[static_cast<std::size_t>(v.sensor)] - v.opens_C) / (v.full_C - v.opens_C), 0.0, 1.0);
    const double locked = v.modulator < 0 ? 1.0 : net.tables[static_cast<std::size_t>(v.modulator)].at(t);
    const double q = locked * opening * v.conductance_W_K * (T[static_cast<std::size_t>(v.from)] - T[static_cast<std::size_t>(v.to)]);
    f[static_cast<std::size_t>(v.from)] -= q;
    f[static_cast<std::size_t>(v.to)] += q;
  }
  for (const Source& s : net.sources) f[static_cast<std::size_t>(s.node)] += s.power.at(t, net.tables);
  return f;
}

struct Compiled {
  explicit Compiled(const Network& net) : flows(std::make_shared<const Network>(net), {}), state(flows.makeState()), slopes(flows.makeSlopes()) {}
  /// Puts the given temperatures and time; boundaries take their own.
  void put(const Network& net, std::vector<double>& T, double t) {
    for (std::size_t i = 0; i < T.size(); ++i) state.T[flows.slot(static_cast<int>(i))] = T[i];
    flows.drive(t, state);
    for (std::size_t i = 0; i < T.size(); ++i)
      if (net.nodes[i].boundary) T[i] = state.T[flows.slot(static_cast<int>(i))];
  }
  NetworkFlows flows;
  FlowState state;
  FlowSlopes slopes;
};

// thousands of watts and sums of T_K^4 near 6e9 x 1e-7 W round to 1e-8; the curve of saturation is right to 1e-6 of 5 g/kg at 1 kW per g/kg
constexpr double kRounding_W = 5e-3;

TEST(NetworkFlows, AreThoseOfTheLinksDefinitions) {
  const Network net = mixedHouse();
  std::vector<double> T{9.0, 4.0, 12.0, 8.0, 0.0, 0.0, 6.3, 0.0};
  for (const double t : {0.0, 1800.0, 3600.0, 7200.0}) { // blanket open, half an hour on, closed, partly closed
    Compiled c(net);
    c.put(net, T, t);
    c.flows.modulate(t, c.state);
    c.flows.evaluate(c.state, c.state.f);
    const auto expected = byDefinition(net, T, t);
    for (std::size_t i = 0; i < T.size(); ++i) EXPECT_CLOSE(c.state.f[c.flows.slot(static_cast<int>(i))], expected[i], kRounding_W, "rounding");
  }
}

TEST(NetworkFlows, AChangeOfWindIsTakenUpWithoutEvaluatingAgain) {
  const Network net = mixedHouse();
  std::vector<double> T{9.0, 4.0, 12.0, 8.0, 0.0, 0.0, 6.3, 0.0};
  Compiled c(net);
  c.put(net, T, 0.0);
  c.flows.modulate(0.0, c.state);
  c.flows.evaluate(c.state, c.state.f);
  ASSERT_TRUE(c.flows.modulate(1200.0, c.state)) << "only the wind changed, and it drives conductances alone";
  Network still = net; // the same instant's sources and boundaries under the wind of 1200 s
  for (Signal& s : still.tables)
    if (!s.hold && s.value[0] == 0.5) s.value.assign(3, 0.5 + 1200.0 / 3600.0);
  const auto expected = byDefinition(still, T, 0.0);
  for (std::size_t i = 0; i < T.size(); ++i) EXPECT_CLOSE(c.state.f[c.flows.slot(static_cast<int>(i))], expected[i], kRounding_W, "rounding");
  EXPECT_FALSE(c.flows.modulate(3600.0, c.state)) << "the blanket closes over curved links: flows and slopes are to be evaluated anew";
}

TEST(NetworkFlows, SlopesAgreeWithDifferencesOfTheFlows) {
  const Network net = mixedHouse();
  const std::vector<double> at{9.0, 4.0, 12.0, 8.0, 0.0, 0.0, 6.3, 0.0};
  const double t = 7200.0, s = 1e6; // with s so large the capacities are a small part of C - s J
  Compiled c(net);
  std::vector<double> T = at;
  c.put(net, T, t);
  c.flows.modulate(t, c.state);
  c.flows.evaluate(c.state, c.state.f, &c.slopes);
  const auto free = static_cast<std::size_t>(c.flows.freeCount());
  c.flows.factor(s, c.slopes);
  // (C - s J) applied to the answer of a solve must give back the right-hand side; J by central differences
  std::vector<double> rhs(free), x(c.state.T.size(), 0.0);
  for (std::size_t i = 0; i < free; ++i) rhs[i] = x[i] = 1e8 * (1.0 + static_cast<double>(i));
  c.flows.solve(x.data());
  std::vector<double> back(free, 0.0);
  constexpr double kNudge_K = 1e-3;
  for (std::size_t j = 0; j < free; ++j) {
    const double keep = c.state.T[j];
    c.state.T[j] = keep + kNudge_K;
    c.flows.evaluate(c.state, c.state.f);
    const auto up = c.state.f;
    c.state.T[j] = keep - kNudge_K;
    c.flows.evaluate(c.state, c.state.f);
    c.state.T[j] = keep;
    for (std::size_t i = 0; i < free; ++i) back[i] -= s * (up[i] - c.state.f[i]) / (2.0 * kNudge_K) * x[j];
    back[j] += c.flows.capacity_J_K()[j] * x[j];
  }
  for (std::size_t i = 0; i < free; ++i) EXPECT_NEAR(back[i] / rhs[i], 1.0, 1e-5) << "central differences over 2 mK: the third derivative leaves (1e-3)^2";
}

TEST(Solver, EnergyOfATrackedGroupIsWhatItsLinksCarried) {
  Network net;
  const int air = net.addNode("air", 300e3, 10.0);
  const int store = net.addNode("store", 4e6, 14.0);
  const int out = net.addBoundary("out", Driver::constant(0.0));
  net.addConductance(air, store, 80.0);
  net.addConductance(air, out, 50.0);
  net.addRadiative(air, out, 5.0);
  Solver s = *Solver::prepare(net, {.groupOfLink = {1, 0, 0}});
  double lost = 0.0, exchanged = 0.0;
  for (int i = 0; i < 200; ++i) {
    s.advance(600.0);
    lost += s.groupEnergy_J(0);
    exchanged += s.groupEnergy_J(1);
  }
  const double stored = 4e6 * (s.temperature_C(store) - 14.0);
  EXPECT_CLOSE(-exchanged, -stored, 1e-3, "rounding of 1e7 J: all that the store gave went through its one link");
  EXPECT_CLOSE(lost, -s.balance().boundary_J[static_cast<std::size_t>(out)], 1e-3, "rounding of 1e7 J: both losses end outside");
}

TEST(Solver, SourcesOnOneTableKeepTheirEnergiesApart) {
  Network net;
  const int floor = net.addNode("floor", 1e6, 5.0);
  net.addConductance(floor, net.addBoundary("out", Driver::constant(0.0)), 10.0);
  Signal sun;
  sun.value = {0.0, 400.0};
  sun.step_s = 86400.0;
  const int table = net.addSignal(sun);
  net.sources.push_back({floor, Driver::table(table, 2.0), "twice"});
  net.sources.push_back({floor, Driver::table(table, 1.0, 50.0), "once and a lamp"});
  Solver s = *Solver::prepare(net);
  for (int i = 0; i < 144; ++i) s.advance(600.0);
  const EnergyBalance balance = s.balance();
  EXPECT_CLOSE(balance.source_J[0], 2.0 * 200.0 * 86400.0, 1.0, "a straight rise is summed exactly, to rounding of 3e7 J");
  EXPECT_CLOSE(balance.source_J[1], (200.0 + 50.0) * 86400.0, 1.0, "the same");
  EXPECT_LE(balance.closure(), 1e-12);
}

} // namespace
} // namespace muffle
