// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/network/solver.h"

#include <algorithm>
#include <cmath>

namespace muffle {

double EnergyBalance::closure() const {
  double in = advection_J;
  for (const double e : thermostat_J) in += e;
  for (const double e : source_J) in += e;
  for (const double e : boundary_J) in += e;
  return throughput_J > 0.0 ? std::abs(in - storageChange_J) / throughput_J : 0.0;
}

Solver::Solver(StepContext context) : m_context(std::move(context)), m_trBdf2(m_context), m_bdf2(m_context), m_double(m_context), m_restart(m_context) {
  reset();
}

Result<Solver> Solver::prepare(Network network, SolverOptions options) {
  if (Problems problems = validate(network); !problems.empty()) return problems;
  return Solver(StepContext(std::move(network), std::move(options)));
}

void Solver::reset() {
  m_context.reset();
  m_bdf2.forget();
  m_restart.forget();
  m_double.reset();
}

void Solver::setTemperatures(std::span<const double> temperature_C) {
  StepContext& c = m_context;
  for (std::size_t i = 0; i < c.network->nodes.size(); ++i) {
    if (c.network->nodes[i].boundary) continue;
    const std::size_t slot = c.flows.slot(static_cast<int>(i));
    c.start.T[slot] = c.initial[slot] = temperature_C[i];
  }
  c.flows.startFreezing(c.start.T);
  c.flows.startRelays(c.start.T);
  c.startIsExact = c.inDoubleStep = false;
  c.equalStep_s = 0.0;
}

void Solver::setLimit(std::size_t thermostat, double share) {
  StepContext& c = m_context;
  if (c.limitShare[thermostat] == share) return;
  c.limitShare[thermostat] = share;
  c.inDoubleStep = false; // what was worked out ahead is no longer so
  c.equalStep_s = 0.0;
}

void Solver::setGiven(std::size_t thermostat, std::shared_ptr<const GivenHeat> heat) {
  StepContext& c = m_context;
  auto known = std::find_if(c.given.begin(), c.given.end(), [&](const StepContext::Given& g) { return g.thermostat == thermostat; });
  if (known == c.given.end()) {
    known = c.given.insert(known, {thermostat});
    c.ideal.leaveOut(thermostat);
  }
  known->heat = std::move(heat);
  c.inDoubleStep = false; // what was worked out ahead is no longer so
  c.equalStep_s = 0.0;
}

void Solver::setRelay(int relay, bool on) {
  StepContext& c = m_context;
  if (c.flows.relays().isOn(relay) == on) return;
  c.flows.setRelay(relay, on);
  c.startIsExact = c.inDoubleStep = false;
  c.equalStep_s = 0.0;
}

bool Solver::advance(double h) {
  StepContext& c = m_context;
  std::fill(c.lastPower.begin(), c.lastPower.end(), 0.0);
  std::fill(c.lastEnergy.begin(), c.lastEnergy.end(), 0.0);
  const double end = c.time + h;
  c.beginGiven(h);
  if (c.inDoubleStep && c.equalStep_s == h) {
    m_double.finish(c, h);
  } else {
    c.inDoubleStep = false;
    const bool mayGoOn = c.options.multistep && c.equalStep_s == h;
    const bool goesOn = mayGoOn && (m_double.advance(c, h) || m_bdf2.advance(c, h));
    if (!goesOn && !(c.options.multistep && m_restart.advance(c, h)) && !m_trBdf2.advance(c, h)) return false;
  }
  c.time = end;
  c.countGiven();
  for (double& p : c.lastPower) p /= h;
  return true;
}

bool Solver::solveSteady() { return m_trBdf2.solveSteady(m_context); }

double Solver::strengthNow(int modulator) const {
  if (modulator < 0) return 1.0;
  const Signal& s = m_context.network->tables[static_cast<std::size_t>(modulator)];
  return s.relay < 0 ? s.at(m_context.time) : strengthNow(m_context.flows.relays().isOn(s.relay) ? s.then : s.otherwise);
}

double Solver::linkFlow_W(int link) const {
  const Network& net = *m_context.network;
  const auto links = static_cast<int>(net.links.size());
  if (link >= links) {
    const Vent& v = net.vents[static_cast<std::size_t>(link - links)];
    return openness(temperature_C(v.sensor), v.opens_C, v.full_C) * strengthNow(v.modulator) * v.conductance_W_K *
           (temperature_C(v.from) - temperature_C(v.to));
  }
  const Link& l = net.links[static_cast<std::size_t>(link)];
  const double wet = l.kind == LinkKind::radiative && m_context.flows.relays().isOn(l.relay) ? l.relayFactor : 1.0;
  return l.flow_W(temperature_C(l.from), temperature_C(l.to)) * wet * strengthNow(l.modulator);
}

EnergyBalance Solver::balance() const {
  EnergyBalance sum;
  sum.thermostat_J = m_context.thermostat_J;
  for (std::size_t i = 0; i < m_context.network->sources.size(); ++i) sum.source_J.push_back(m_context.flows.drivers().source(m_context.valueIntegral, i));
  sum.boundary_J.assign(m_context.network->nodes.size(), 0.0);
  for (int slot = m_context.flows.freeCount(); slot < m_context.flows.slotCount(); ++slot)
    sum.boundary_J[static_cast<std::size_t>(m_context.flows.boundaryNode(slot))] = -m_context.energy_J[static_cast<std::size_t>(slot)];
  sum.advection_J = m_context.energy_J[static_cast<std::size_t>(m_context.flows.advectionRow())];
  const auto& C = m_context.flows.capacity_J_K();
  for (std::size_t i = 0; i < C.size(); ++i)
    if (!m_context.flows.freezing().holds(static_cast<int>(i))) sum.storageChange_J += C[i] * (m_context.start.T[i] - m_context.initial[i]);
  sum.storageChange_J += m_context.flows.freezing().storage_J(m_context.initial, m_context.start.T);
  sum.throughput_J = m_context.throughput_J;
  return sum;
}

} // namespace muffle
