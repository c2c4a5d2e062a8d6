// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/run/fire.h"

#include <algorithm>

namespace muffle {
namespace {
constexpr double kOut = 16.0; // ember times after which a load is ash: a ten-millionth of it is left
}

Fire::Fire(const Plan& plan, const Assembly& assembly, const Network& network, const Winter& winter) : m_step_s(winter.step_s) {
  for (std::size_t k = 0; k < assembly.heaters.size(); ++k) {
    const Assembly::HeaterNodes& nodes = assembly.heaters[k];
    const Heater& heater = plan.heaters[nodes.index];
    if (factsOf(heater.kind).control != HeatControl::batches) continue;
    const auto thermostat = static_cast<std::size_t>(nodes.thermostat);
    m_stoves.push_back({k, thermostat, burnCurve(heater), network.thermostats[thermostat].power_W, &nodes.loads});
  }
  m_state.burning.resize(m_stoves.size());
}

/// What is put on at step i, and what all of it gives in the step from there.
void Fire::stoke(std::size_t i) {
  const double now_s = static_cast<double>(i) * m_step_s;
  for (std::size_t s = 0; s < m_stoves.size(); ++s) {
    const Stove& stove = m_stoves[s];
    Burning& fire = m_state.burning[s];
    const auto due = std::equal_range(stove.loads->begin(), stove.loads->end(), i);
    if (m_state.tended)
      for (auto load = due.first; load != due.second; ++load) {
        fire.lit_s.push_back(now_s);
        fire.put.push_back(i);
      }
    const double ash_s = stove.curve.rise_s + stove.curve.plateau_s + kOut * stove.curve.ember_s;
    std::erase_if(fire.lit_s, [&](double lit_s) { return now_s - lit_s > ash_s; });
    double given_J = 0.0;
    for (const double lit_s : fire.lit_s) given_J += stove.curve.given_J(now_s + m_step_s - lit_s) - stove.curve.given_J(now_s - lit_s);
    fire.limit = std::clamp(given_J / m_step_s / stove.most_W, 0.0, 1.0);
  }
}

void Fire::begin(Solver& solver) {
  for (Burning& fire : m_state.burning) fire = {};
  m_state.tended = true;
  step(solver, 0);
}

void Fire::change(Solver& /*solver*/, std::size_t i, const Circumstances& now) {
  if (now.tended == m_state.tended) return;
  m_state.tended = now.tended;
  const double now_s = static_cast<double>(i) * m_step_s; // what step() put on for this moment, it did not know of
  for (Burning& fire : m_state.burning) {
    std::erase(fire.lit_s, now_s);
    std::erase(fire.put, i);
  }
  stoke(i);
}

void Fire::step(Solver& solver, std::size_t i) {
  stoke(i);
  for (std::size_t s = 0; s < m_stoves.size(); ++s) solver.setLimit(m_stoves[s].thermostat, m_state.burning[s].limit);
}

double Fire::limit(std::size_t thermostat) const {
  for (std::size_t s = 0; s < m_stoves.size(); ++s)
    if (m_stoves[s].thermostat == thermostat) return m_state.burning[s].limit;
  return 1.0;
}

std::span<const std::size_t> Fire::loads(std::size_t heater) const {
  for (std::size_t s = 0; s < m_stoves.size(); ++s)
    if (m_stoves[s].heater == heater) return m_state.burning[s].put;
  return {};
}

} // namespace muffle
