// SPDX-License-Identifier: GPL-3.0-or-later
//
// The restart after a jump: the singly diagonally implicit method of two stages, second order and L-stable,
//   s = c h, c = 1 - 1/sqrt 2
//   C (Tc - T0) = s fc
//   C (T1 - T0) = (1 - c) h fc + s f1
// It asks nothing of the step before, nor of the flows as they jump, which TR-BDF2 begins with; for the rest both do the same (one
// stability function). Every flow carries (1 - c) h qc + s q1, and a heater has one power for the step.
// Alexander, SIAM J. Numer. Anal. 14 (1977) 1006.
#include "core/network/solver.h"

#include <algorithm>
#include <cmath>

namespace muffle {

namespace {

const double kStage = 1.0 - std::sqrt(0.5);
const double kFirst = (1.0 - kStage) / kStage; // the first stage's flows in the second, by what they did there
constexpr int kMaxStageRounds = 3;             // of the stages
constexpr double kAlongSlopes_K = 1.5;         // that powers found at the end may move a stage without its flows being asked again

} // namespace

/// How the step's end moves with a watt of thermostat j, by the matrix in force; the first stage's response with it.
const std::vector<double>& Solver::restartResponse(std::size_t j, double s, FactoredStage& factored) {
  auto& end = factored.response[j];
  if (factored.hasResponse[j]) return end;
  auto& first = m_firstResponse[j];
  std::fill(first.begin(), first.end(), 0.0);
  addHeat(first, j, s);
  m_flows.solve(first.data());
  const auto& C = m_flows.capacity_J_K();
  for (std::size_t i = 0; i < end.size(); ++i) end[i] = kFirst * C[i] * first[i];
  addHeat(end, j, s);
  m_flows.solve(end.data());
  factored.hasResponse[j] = true;
  return end;
}

/// By the powers as they are; `first` is the first stage's weight in the second (kFirst), 0 for the first itself.
bool Solver::restartStage(FlowState& stage, double s, double first) {
  const std::size_t free = m_explicitPart.size();
  const double* __restrict const C = m_flows.capacity_J_K().data();
  const double* __restrict const start = m_start.T.data();
  const double* __restrict const middle = m_middle.T.data();
  double* __restrict const explicitPart = m_explicitPart.data();
  for (std::size_t i = 0; i < free; ++i) explicitPart[i] = first * C[i] * (middle[i] - start[i]);
  for (std::size_t j = 0; j < m_power.size(); ++j) addHeat(m_explicitPart, j, s * m_power[j]);
  reuseFactors(stage, s, m_restart);
  return settleStage(stage, s, m_restart, false);
}

/// Moves both stages by what the powers have changed. The furthest that anything moved.
double Solver::moveStages() {
  const auto move = [&](FlowState& stage, const std::vector<std::vector<double>>& response) {
    const double furthest = moveByPowers(stage, m_powerTried, response);
    m_flows.addFreeToReported(m_restart.slopes, m_delta.data(), stage.f.data());
    return furthest;
  };
  const double first = move(m_middle, m_firstResponse);
  return std::max(first, move(m_end, m_restart.response));
}

/// Both stages, with the heaters that hold the setpoints at the step's end.
bool Solver::solveRestart(double s) {
  const std::size_t free = m_explicitPart.size();
  std::copy_n(m_start.T.begin(), free, m_middle.T.begin());
  for (int round = 0; round < kMaxStageRounds; ++round) {
    if (!restartStage(m_middle, s, 0.0)) return false;
    if (round == 0)
      for (std::size_t i = 0; i < free; ++i) m_end.T[i] = 1.5 * m_middle.T[i] - 0.5 * m_start.T[i];
    if (!restartStage(m_end, s, kFirst)) return false;
    std::fill(m_delta.begin(), m_delta.end(), 0.0);
    const IdealThermostats::Outcome found = findPowers(m_end, s, m_restart, &Solver::restartResponse);
    if (found != IdealThermostats::Outcome::moved) return found == IdealThermostats::Outcome::unchanged;
    m_roundFrom = m_end.T;
    if (moveStages() < kAlongSlopes_K && !m_flows.ventTurns(m_roundFrom, m_end.T)) return true;
  }
  return false;
}

/// One step that asks nothing of those before. False, with nothing changed that one by TR-BDF2 needs, if that will not do.
bool Solver::advanceRestart(double h) {
  const double s = kStage * h;
  m_startIsExact = false;
  m_flows.modulate(m_time + 0.5 * h);
  takeSetpoints(m_time + 0.5 * h);
  m_powerAtStart = m_power;
  m_flows.drive(m_time + s, m_middle);
  m_flows.drive(m_time + h, m_end);
  m_flows.swapFactors(m_restart.factors);
  const bool done = solveRestart(s) && isPossible(m_end) && m_flows.freezing().overshoot_K(m_start.T, m_end.T) <= kFreezingOvershoot_K;
  m_flows.swapFactors(m_restart.factors);
  if (!done) {
    m_power = m_powerAtStart;
    return false;
  }
  const double first = h - s;
  for (std::size_t r = m_explicitPart.size(); r < m_energy_J.size(); ++r) m_step_J[r] = first * m_middle.f[r] + s * m_end.f[r];
  for (std::size_t v = 0; v < m_valueIntegral.size(); ++v) m_stepValue[v] = first * m_middle.value[v] + s * m_end.value[v];
  for (std::size_t j = 0; j < m_power.size(); ++j) m_stepHeat_J[j] = h * m_power[j];
  count(m_step_J, m_stepValue, m_stepHeat_J, h);
  std::swap(m_start, m_end);
  m_smoothSteps = 1;
  m_equalStep_s = m_flows.settleFreezing(m_end.T, m_start.T) ? 0.0 : h; // what stores heat otherwise has no step before
  m_flows.settleRelays(m_start.T, h);
  return true;
}

} // namespace muffle
