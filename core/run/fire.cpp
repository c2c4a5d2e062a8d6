// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/run/fire.h"

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {
constexpr double kOut = 16.0;  // ember times after which a load is ash: a ten-millionth of it is left
// of a stove's power, that a line may miss what it then gives by. By trial in a tunnel with 8 kW: the air is then off fine steps by 0.044 K rms, with
// every change a jump by 0.025, and at worst by 0.15 K either way; from a tenth on the worst grows
constexpr double kNear = 0.02;
}

Fire::Fire(const Plan& plan, const Assembly& assembly, const Network& network, const Winter& winter) : m_step_s(winter.step_s), m_steps(winter.size()) {
  for (std::size_t k = 0; k < assembly.heaters.size(); ++k) {
    const Assembly::HeaterNodes& nodes = assembly.heaters[k];
    const Heater& heater = plan.heaters[nodes.index];
    if (factsOf(heater.kind).control != HeatControl::batches) continue;
    const auto thermostat = static_cast<std::size_t>(nodes.thermostat);
    Stove stove{k, thermostat, {}, {}, network.thermostats[thermostat].power_W, std::vector<unsigned char>(m_steps + 2, 0)};
    for (const std::size_t load : nodes.loads) ++stove.loadsAt.at(load);
    const BurnCurve curve = burnCurve(heater);
    const auto ash = static_cast<std::size_t>((curve.rise_s + curve.plateau_s + kOut * curve.ember_s) / m_step_s);
    for (std::size_t age = 0; age <= ash; ++age) {
      const double from_s = static_cast<double>(age) * m_step_s;
      stove.mean_W.push_back((curve.given_J(from_s + m_step_s) - curve.given_J(from_s)) / m_step_s);
      stove.at_W.push_back(curve.given_W(from_s));
    }
    m_stoves.push_back(std::move(stove));
  }
  m_state.burning.resize(m_stoves.size());
}

/// What all that is lit gives by a table of a load's steps, at or from step i.
double Fire::sum_W(const Stove& stove, const Burning& fire, const std::vector<double>& byAge_W, std::size_t i) {
  double given_W = 0.0;
  for (const std::size_t lit : fire.lit)
    if (i - lit < byAge_W.size()) given_W += byAge_W[i - lit];
  return std::min(given_W, stove.most_W);
}

double Fire::mean_W(const Stove& stove, const Burning& fire, std::size_t i) { return sum_W(stove, fire, stove.mean_W, i); }
double Fire::at_W(const Stove& stove, const Burning& fire, std::size_t i) { return sum_W(stove, fire, stove.at_W, i); }

bool Fire::isDue(const Stove& stove, std::size_t i) const { return m_state.tended && stove.loadsAt[i] > 0; }

/// What is put on at step i, and what all of it gives in the step from there.
void Fire::stoke(std::size_t i) {
  for (std::size_t s = 0; s < m_stoves.size(); ++s) {
    const Stove& stove = m_stoves[s];
    Burning& fire = m_state.burning[s];
    for (int load = 0; m_state.tended && load < stove.loadsAt[i]; ++load) {
      fire.lit.push_back(i);
      fire.put.push_back(i);
    }
    std::erase_if(fire.lit, [&](std::size_t lit) { return i - lit >= stove.mean_W.size(); });
    fire.now_W = mean_W(stove, fire, i);
  }
}

/// The solver goes on in equal steps where its line through what was given before ends where the fire then burns.
void Fire::give(Solver& solver, std::size_t i, bool asForeseen) const {
  for (std::size_t s = 0; s < m_stoves.size(); ++s) {
    const Stove& stove = m_stoves[s];
    const Burning& fire = m_state.burning[s];
    if (fire.lit.empty() && !isDue(stove, i + 1) && fire.last_W == 0.0 && fire.before_W == 0.0) {
      solver.setGiven(stove.thermostat, 0.0, 0.0, asForeseen);
      continue;
    }
    const double near_W = kNear * stove.most_W;
    const bool smooth = asForeseen && !isDue(stove, i) && std::abs(1.5 * fire.now_W - 0.5 * fire.last_W - at_W(stove, fire, i + 1)) <= near_W;
    double next_W = isDue(stove, i + 1) ? -1.0 : mean_W(stove, fire, i + 1);
    const bool isLast = i + 2 >= m_steps; // two at once would end past the log
    if (isLast || std::abs(0.75 * (fire.now_W + next_W) - 0.25 * (fire.before_W + fire.last_W) - at_W(stove, fire, i + 2)) > near_W) next_W = -1.0;
    solver.setGiven(stove.thermostat, fire.now_W, next_W, smooth);
  }
}

void Fire::goOut(Solver& solver) const {
  for (const Stove& stove : m_stoves) solver.setGiven(stove.thermostat, 0.0, 0.0, true);
}

void Fire::begin(Solver& solver) {
  for (Burning& fire : m_state.burning) fire = {};
  m_state.tended = true;
  step(solver, 0);
}

void Fire::change(Solver& solver, std::size_t i, const Circumstances& now) {
  if (now.tended == m_state.tended) return;
  m_state.tended = now.tended;
  for (Burning& fire : m_state.burning) { // what step() put on for this moment, it did not know of
    std::erase(fire.lit, i);
    std::erase(fire.put, i);
  }
  stoke(i);
  give(solver, i, false);
}

void Fire::step(Solver& solver, std::size_t i) {
  for (Burning& fire : m_state.burning) {
    fire.before_W = fire.last_W;
    fire.last_W = fire.now_W;
  }
  stoke(i);
  give(solver, i, true);
}

std::span<const std::size_t> Fire::loads(std::size_t heater) const {
  for (std::size_t s = 0; s < m_stoves.size(); ++s)
    if (m_stoves[s].heater == heater) return m_state.burning[s].put;
  return {};
}

} // namespace muffle
