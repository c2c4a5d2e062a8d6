// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/network/restart_step.h"

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
const std::vector<double>& RestartStep::responseTo(StepContext& c, std::size_t j, double s) {
  auto& end = m_stage.response(j);
  if (m_stage.hasResponse(j)) return end;
  auto& first = m_firstResponse[j];
  std::fill(first.begin(), first.end(), 0.0);
  c.addHeat(first, j, s);
  c.flows.solve(first.data());
  const auto& C = c.flows.capacity_J_K();
  for (std::size_t i = 0; i < end.size(); ++i) end[i] = kFirst * C[i] * first[i];
  c.addHeat(end, j, s);
  c.flows.solve(end.data());
  m_stage.setHasResponse(j);
  return end;
}

/// By the powers as they are; `first` is the first stage's weight in the second (kFirst), 0 for the first itself.
bool RestartStep::solveStage(StepContext& c, FlowState& stage, double s, double first) {
  const std::size_t free = c.explicitPart.size();
  const double* __restrict const C = c.flows.capacity_J_K().data();
  const double* __restrict const start = c.start.T.data();
  const double* __restrict const middle = c.middle.T.data();
  double* __restrict const explicitPart = c.explicitPart.data();
  for (std::size_t i = 0; i < free; ++i) explicitPart[i] = first * C[i] * (middle[i] - start[i]);
  for (std::size_t j = 0; j < c.power.size(); ++j) c.addHeat(c.explicitPart, j, s * c.power[j]);
  m_stage.reuse(c, stage, s);
  return m_stage.settle(c, stage, s, false);
}

/// Moves both stages by what the powers have changed. The furthest that anything moved.
double RestartStep::moveStages(StepContext& c) {
  const auto move = [&](FlowState& stage, const std::vector<std::vector<double>>& response) {
    const double furthest = c.moveByPowers(stage, c.powerTried, response);
    c.flows.addFreeToReported(m_stage.slopes(), c.delta.data(), stage.f.data());
    return furthest;
  };
  const double first = move(c.middle, m_firstResponse);
  return std::max(first, move(c.end, m_stage.responses()));
}

/// Both stages, with the heaters that hold the setpoints at the step's end.
bool RestartStep::solve(StepContext& c, double s) {
  const std::size_t free = c.explicitPart.size();
  std::copy_n(c.start.T.begin(), free, c.middle.T.begin());
  for (int round = 0; round < kMaxStageRounds; ++round) {
    if (!solveStage(c, c.middle, s, 0.0)) return false;
    if (round == 0)
      for (std::size_t i = 0; i < free; ++i) c.end.T[i] = 1.5 * c.middle.T[i] - 0.5 * c.start.T[i];
    if (!solveStage(c, c.end, s, kFirst)) return false;
    std::fill(c.delta.begin(), c.delta.end(), 0.0);
    const IdealThermostats::Outcome found = c.findPowers(c.end, [&](std::size_t j) -> const std::vector<double>& { return responseTo(c, j, s); });
    if (found != IdealThermostats::Outcome::moved) return found == IdealThermostats::Outcome::unchanged;
    m_endBefore = c.end.T;
    if (moveStages(c) < kAlongSlopes_K && !c.flows.ventTurns(m_endBefore, c.end.T)) return true;
  }
  return false;
}

/// One step that asks nothing of those before. False, with nothing changed that one by TR-BDF2 needs, if that will not do.
bool RestartStep::advance(StepContext& c, double h) {
  const double s = kStage * h;
  c.startIsExact = false;
  c.flows.modulate(c.time + 0.5 * h);
  c.takeSetpoints(c.time + 0.5 * h);
  m_powerAtStart = c.power;
  c.flows.drive(c.time + s, c.middle);
  c.flows.drive(c.time + h, c.end);
  m_stage.swapFactors(c);
  const bool done = solve(c, s) && c.isPossible(c.end) && c.flows.freezing().overshoot_K(c.start.T, c.end.T) <= kFreezingOvershoot_K;
  m_stage.swapFactors(c);
  if (!done) {
    c.power = m_powerAtStart;
    return false;
  }
  const double first = h - s;
  for (std::size_t r = c.explicitPart.size(); r < c.energy_J.size(); ++r) c.step_J[r] = first * c.middle.f[r] + s * c.end.f[r];
  for (std::size_t v = 0; v < c.valueIntegral.size(); ++v) c.stepValue[v] = first * c.middle.value[v] + s * c.end.value[v];
  for (std::size_t j = 0; j < c.power.size(); ++j) c.stepHeat_J[j] = h * c.power[j];
  c.count(c.step_J, c.stepValue, c.stepHeat_J, h);
  std::swap(c.start, c.end);
  c.smoothSteps = 1;
  c.equalStep_s = c.flows.settleFreezing(c.end.T, c.start.T) ? 0.0 : h; // what stores heat otherwise has no step before
  c.flows.settleRelays(c.start.T, h);
  return true;
}

} // namespace muffle
