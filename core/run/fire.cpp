// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/run/fire.h"

#include <algorithm>

namespace muffle {
namespace {
constexpr double kOut = 16.0; // ember times after which a load is ash: a ten-millionth of it is left
// Of a stove's power, that a step may end off its curve to give its energy. By trial in a tunnel of film, 3 to 12 kW: the air is off tenfold finer steps
// by 0.2 to 0.6 % of its swing.
constexpr double kNear = 0.02;
// Off a line: more than that only what is alight within a step. One of 8 kW: at worst 0.21 K then, 0.41 where that is no jump.
constexpr double kBend = 0.6;
} // namespace

Fire::Fire(const Plan& plan, const Assembly& assembly, const Network& network, const Winter& winter) : m_step_s(winter.step_s), m_steps(winter.size()) {
  for (std::size_t k = 0; k < assembly.heaters.size(); ++k) {
    const Assembly::HeaterNodes& nodes = assembly.heaters[k];
    const Heater& heater = plan.heaters[nodes.index];
    if (factsOf(heater.kind).control != HeatControl::batches) continue;
    const auto thermostat = static_cast<std::size_t>(nodes.thermostat);
    Stove stove{k, thermostat, {}, network.thermostats[thermostat].power_W, {nodes.loads.begin(), nodes.loads.end()}};
    std::sort(stove.loads.begin(), stove.loads.end());
    const BurnCurve curve = burnCurve(heater);
    const auto ash = static_cast<std::size_t>((curve.rise_s + curve.plateau_s + kOut * curve.ember_s) / m_step_s);
    for (std::size_t age = 0; age <= ash; ++age) {
      const double from_s = static_cast<double>(age) * m_step_s;
      stove.load.push_back({curve.given_W(from_s), (curve.given_J(from_s + m_step_s) - curve.given_J(from_s)) / m_step_s});
    }
    m_stoves.push_back(std::move(stove));
  }
  m_state.put.resize(m_stoves.size());
  m_state.next.resize(m_stoves.size());
}

/// What a stove gives from step i on: by what was put on before, and by what is to be put on if somebody is there.
void Fire::foresee(Solver& solver, std::size_t which, std::size_t i) const {
  const Stove& stove = m_stoves[which];
  GivenHeat heat{m_step_s, std::vector<GivenHeat::Part>(m_steps), kNear * stove.most_W, kBend * stove.most_W};
  const auto burn = [&](std::size_t lit) {
    for (std::size_t age = lit < i ? i - lit : 0; age < stove.load.size() && lit + age < m_steps; ++age) {
      heat.parts[lit + age].at_W += stove.load[age].at_W;
      if (lit + age + 1 < m_steps) heat.parts[lit + age].mean_W += stove.load[age].mean_W; // no step begins with the last
    }
  };
  for (const std::size_t lit : m_state.put[which]) burn(lit);
  for (const std::size_t due : stove.loads)
    if (m_state.tended && due > i) burn(due);
  for (GivenHeat::Part& part : heat.parts) part = {std::min(part.at_W, stove.most_W), std::min(part.mean_W, stove.most_W)};
  solver.setGiven(stove.thermostat, std::make_shared<const GivenHeat>(std::move(heat)));
}

void Fire::goOut(Solver& solver) const {
  for (const Stove& stove : m_stoves) solver.setGiven(stove.thermostat, nullptr);
}

/// What is to be put on at step i.
void Fire::stoke(std::size_t i) {
  if (i < m_state.nextStep) return;
  m_state.nextStep = m_steps;
  for (std::size_t s = 0; s < m_stoves.size(); ++s) {
    const std::vector<std::size_t>& loads = m_stoves[s].loads;
    std::size_t& next = m_state.next[s];
    for (; next < loads.size() && loads[next] <= i; ++next)
      if (m_state.tended && loads[next] == i) m_state.put[s].push_back(i);
    if (next < loads.size()) m_state.nextStep = std::min(m_state.nextStep, loads[next]);
  }
}

void Fire::begin(Solver& solver) {
  m_state = {std::vector<std::vector<std::size_t>>(m_stoves.size()), std::vector<std::size_t>(m_stoves.size())};
  stoke(0);
  for (std::size_t s = 0; s < m_stoves.size(); ++s) foresee(solver, s, 0);
}

void Fire::change(Solver& solver, std::size_t i, const Circumstances& now) {
  if (now.tended == m_state.tended) return;
  m_state.tended = now.tended;
  for (std::size_t s = 0; s < m_stoves.size(); ++s) { // what step() put on for this moment, it did not know of
    std::erase(m_state.put[s], i);
    const std::vector<std::size_t>& loads = m_stoves[s].loads;
    m_state.next[s] = static_cast<std::size_t>(std::lower_bound(loads.begin(), loads.end(), i) - loads.begin());
  }
  m_state.nextStep = 0;
  stoke(i);
  for (std::size_t s = 0; s < m_stoves.size(); ++s) foresee(solver, s, i);
}

void Fire::step(Solver& /*solver*/, std::size_t i) { stoke(i); }

std::span<const std::size_t> Fire::loads(std::size_t heater) const {
  for (std::size_t s = 0; s < m_stoves.size(); ++s)
    if (m_stoves[s].heater == heater) return m_state.put[s];
  return {};
}

} // namespace muffle
