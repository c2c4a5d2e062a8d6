// SPDX-License-Identifier: GPL-3.0-or-later
//
// The part of the solver that goes on in equal steps while nothing jumps, by two-step BDF (second order, L-stable):
//   C (T1 - T0) = s f1 + C (T0 - T-1)/3,   s = 2h/3
// One exact evaluation and one solve a step: the predictor is 2 T0 - T-1, near enough to the answer that one Newton
// update from there will do, and that its matrix may be a few steps old.
// Every flow q of the network carries the step's energy E1 = s q1 + E0/3, so that what is counted balances what is stored as
// exactly as in a single step. A jump (a relay, a setpoint, a heater's power, ice) would be smeared over the
// steps that follow it: such a step is handed back and goes by TR-BDF2, which asks nothing of the step before.
// Hairer and Wanner, Solving Ordinary Differential Equations II, ch. V.1 and IV.8 (reused matrices).
#include "core/network/solver.h"

#include <algorithm>
#include <cmath>

namespace muffle {

namespace {

constexpr int kMaxAge = 24;                   // solves with one matrix
constexpr double kMaxOff_K = 6.0;             // the state has moved on since it was factored
constexpr double kRetryOff_K = 2.0;           // within this a second round goes by the same matrix
constexpr int kMaxRounds = 3;                 // of evaluation and solve
constexpr double kMultistepTolerance_K = 0.4; // of the bound on what a round leaves over; raises a season's rms error by 0.003 K
constexpr double kJump_K_s = 1.2e-3;          // that a heater's power moves its sensor faster from one step to the next, however big the heater
constexpr double kJumpToLimit_K_s = 0.4e-3;   // the same where it reaches or leaves a limit
constexpr double kPowerTolerance_K = 1e-4;
constexpr double kOnSetpoint_K = 1e-9; // only the last digits are off
constexpr double kWarmEnough_K = 4.0;  // over a new setpoint, for its heater to stay off

} // namespace

Solver::FactoredStage Solver::makeFactoredStage() const {
  FactoredStage factored;
  factored.factoredT.assign(m_start.T.size(), 0.0);
  factored.slopes = m_flows.makeSlopes();
  factored.factors = m_flows.makeFactors();
  factored.response.assign(m_network->thermostats.size(), std::vector<double>(m_explicitPart.size(), 0.0));
  factored.hasResponse.assign(m_network->thermostats.size(), false);
  return factored;
}

/// False if a heater that is on may not give as much from then on, or one at its limit more, at once; what changes little by little is taken up.
bool Solver::limitsStay(double time_s) {
  for (std::size_t j = 0; j < m_power.size(); ++j) {
    const int signal = m_network->thermostats[j].limitSignal;
    if (signal < 0) continue;
    const double then = limitAt(j, time_s);
    if (then == m_limit[j]) continue;
    if (m_network->tables[static_cast<std::size_t>(signal)].hold && (m_power[j] > then || m_power[j] == m_limit[j])) return false;
    m_limit[j] = then;
  }
  return true;
}

/// False if a setpoint is another then, unless its heater is off and stays so as far as one can see: that one is taken up.
bool Solver::setpointsStay(double time_s) {
  for (std::size_t j = 0; j < m_power.size(); ++j) {
    const Thermostat& t = m_network->thermostats[j];
    if (t.setpointSignal < 0) continue;
    const double then = m_network->tables[static_cast<std::size_t>(t.setpointSignal)].at(time_s);
    if (then == m_setpoint[j]) continue;
    if (m_limit[j] > 0.0 && (m_power[j] > 0.0 || m_start.T[m_sensorSlot[j]] < then + kWarmEnough_K)) return false;
    m_setpoint[j] = then;
  }
  return !m_limitsVary || limitsStay(time_s);
}

/// The predictor: along the line from m_middle, where the step before it began, through m_start. And the explicit part: the move so far and
/// the heaters.
void Solver::predictStage(FlowState& stage, double s, FactoredStage& factored) {
  const std::size_t free = m_explicitPart.size();
  const double* __restrict const C = m_flows.capacity_J_K().data();
  const double* __restrict const start = m_start.T.data();
  const double* __restrict const from = m_middle.T.data();
  double* __restrict const T = stage.T.data();
  double* __restrict const explicitPart = m_explicitPart.data();
  for (std::size_t i = 0; i < free; ++i) {
    const double moved = start[i] - from[i];
    explicitPart[i] = C[i] * moved * (1.0 / 3.0);
    T[i] = start[i] + moved;
  }
  for (std::size_t j = 0; j < m_power.size(); ++j) addHeat(m_explicitPart, j, s * m_power[j]);
  reuseFactors(stage, s, factored);
}

/// The factored matrix for a stage at its predictor, if it is still good.
void Solver::reuseFactors(const FlowState& stage, double s, FactoredStage& factored) {
  const std::size_t free = m_explicitPart.size();
  m_powerBefore = m_power;
  std::fill(m_delta.begin() + static_cast<std::ptrdiff_t>(free), m_delta.end(), 0.0);
  if (factored.layout != m_flows.layout() || factored.s != s) factored.isFactored = false;
  if (!factored.isFactored) return;
  double off = 0.0;
  const double* __restrict const T = stage.T.data();
  const double* __restrict const factoredT = factored.factoredT.data();
  for (auto i = static_cast<std::size_t>(m_flows.linearCount()); i < free; ++i) off = std::max(off, std::abs(T[i] - factoredT[i]));
  factored.off_K = off;
  if (factored.age >= kMaxAge || off > kMaxOff_K) factored.isFactored = false;
}

/// False if something jumps at the start of the step.
bool Solver::predictBdf2(double h) {
  if (!m_flows.modulate(m_time + kInside * h) || !setpointsStay(m_time + kInside * h)) return false;
  const std::size_t free = m_explicitPart.size();
  std::copy_n(m_end.T.begin(), free, m_middle.T.begin()); // for a double step to come
  m_flows.drive(m_time + h, m_end);
  predictStage(m_end, 2.0 / 3.0 * h, m_singleStep);
  return !m_flows.ventTurns(m_start.T, m_end.T);
}

/// How the stage moves with a watt of thermostat j, by the matrix in force.
const std::vector<double>& Solver::stageResponse(std::size_t j, double s, FactoredStage& factored) {
  auto& response = factored.response[j];
  if (factored.hasResponse[j]) return response;
  std::fill(response.begin(), response.end(), 0.0);
  addHeat(response, j, s);
  m_flows.solve(response.data());
  factored.hasResponse[j] = true;
  return response;
}

/// Ideal thermostats' powers, so that with m_delta and by their responses each sensor of the stage ends on its setpoint, or the power at a
/// limit. Those before are in m_powerTried.
IdealThermostats::Outcome Solver::findPowers(const FlowState& stage, double s, FactoredStage& factored, ResponseOf responseOf) {
  m_powerTried = m_power;
  for (std::size_t j = 0; j < m_power.size(); ++j) m_error_K[j] = m_setpoint[j] - stage.T[m_sensorSlot[j]] - m_delta[m_sensorSlot[j]];
  IdealThermostats::ResponsesBy responses([&](std::size_t j) -> const std::vector<double>& { return (this->*responseOf)(j, s, factored); });
  return m_ideal.find(m_power, m_error_K, m_setpoint, m_limit, kOnSetpoint_K, kPowerTolerance_K, responses);
}

/// The same, and m_delta and m_explicitPart follow. False if there are none.
bool Solver::stagePowers(const FlowState& stage, double s, FactoredStage& factored) {
  const IdealThermostats::Outcome found = findPowers(stage, s, factored, &Solver::stageResponse);
  if (found != IdealThermostats::Outcome::moved) return found == IdealThermostats::Outcome::unchanged;
  const std::size_t free = m_explicitPart.size();
  for (std::size_t j = 0; j < m_power.size(); ++j) {
    const double change = m_power[j] - m_powerTried[j];
    if (change == 0.0) continue;
    addHeat(m_explicitPart, j, s * change);
    const double* __restrict const response = factored.response[j].data();
    double* __restrict const delta = m_delta.data();
    for (std::size_t i = 0; i < free; ++i) delta[i] += change * response[i];
  }
  return true;
}

/// One evaluation and solve. True when what it leaves over is small.
bool Solver::newtonRound(FlowState& stage, double s, FactoredStage& factored, bool findPower) {
  if (!factored.isFactored) {
    m_flows.evaluate(stage, stage.f, &factored.slopes);
    m_flows.factor(s, factored.slopes);
    factored.factoredT = stage.T;
    factored.isFactored = true;
    factored.layout = m_flows.layout();
    factored.s = s;
    factored.age = 0;
    factored.off_K = 0.0;
    std::fill(factored.hasResponse.begin(), factored.hasResponse.end(), false);
  } else {
    m_flows.evaluate(stage, stage.f);
  }
  ++factored.age;
  const std::size_t free = m_explicitPart.size();
  const double* __restrict const C = m_flows.capacity_J_K().data();
  const double* __restrict const explicitPart = m_explicitPart.data();
  const double* __restrict const f = stage.f.data();
  const double* __restrict const start = m_start.T.data();
  double* __restrict const T = stage.T.data();
  double* __restrict const delta = m_delta.data();
  for (std::size_t i = 0; i < free; ++i) delta[i] = explicitPart[i] + s * f[i] - C[i] * (T[i] - start[i]);
  m_flows.solve(delta);
  if (findPower && !stagePowers(stage, s, factored)) return false;
  double largest = 0.0;
  for (std::size_t i = 0; i < free; ++i) T[i] += delta[i];
  for (auto i = static_cast<std::size_t>(m_flows.linearCount()); i < free; ++i) largest = std::max(largest, std::abs(delta[i]));
  if (!std::isfinite(delta[free - 1])) return false;
  return largest * std::min(0.2, 0.004 + 0.1 * (largest + factored.off_K)) < kMultistepTolerance_K; // as contraction() has it
}

/// A heater's power has changed by more than the formula follows, a vent passes the corner of its ramp, or water begins or ceases to
/// freeze.
bool Solver::hasJumped(const FlowState& stage, double s, const FactoredStage& factored) const {
  for (std::size_t j = 0; j < m_power.size(); ++j) {
    const double limit = m_limit[j];
    const auto place = [limit](double power) { return power <= 0.0 ? 0 : power >= limit ? 2 : 1; };
    if (m_power[j] == m_powerBefore[j]) continue;
    const bool reaches = place(m_power[j]) != place(m_powerBefore[j]);
    const double faster_K_s = std::abs(m_power[j] - m_powerBefore[j]) * factored.response[j][m_sensorSlot[j]] / s;
    if (faster_K_s > (reaches ? kJumpToLimit_K_s : kJump_K_s)) return true;
  }
  return m_flows.ventTurns(m_start.T, stage.T) || m_flows.freezing().overshoot_K(m_start.T, stage.T) > 0.0;
}

/// Brings the stage from its predictor to its end, and its reported rows with it. False if that takes too long.
bool Solver::settleStage(FlowState& stage, double s, FactoredStage& factored, bool findPower) {
  for (int round = 0; round < kMaxRounds; ++round) {
    if (!findPower) m_roundFrom = stage.T;
    bool enough = newtonRound(stage, s, factored, findPower);
    if (!findPower && m_flows.ventTurns(m_roundFrom, stage.T)) factored.isFactored = enough = false; // by the slopes past its corner
    if (!enough) {
      if (factored.off_K > kRetryOff_K || round > 0) factored.isFactored = false;
      continue;
    }
    m_flows.addFreeToReported(factored.slopes, m_delta.data(), stage.f.data());
    return true;
  }
  return false;
}

/// The same, with the heaters; false also if something has jumped. The powers are then as they were.
bool Solver::solveStage(FlowState& stage, double s, FactoredStage& factored) {
  if (settleStage(stage, s, factored, true) && !hasJumped(stage, s, factored)) return true;
  m_power = m_powerBefore;
  return false;
}

/// Counts the energies, driven values and heaters' heat of a step.
void Solver::count(const std::vector<double>& energy_J, const std::vector<double>& value, const std::vector<double>& heat_J, double h) {
  const auto slots = static_cast<std::size_t>(m_flows.slotCount());
#pragma GCC unroll 4
  for (std::size_t r = m_explicitPart.size(); r < m_energy_J.size(); ++r) {
    m_energy_J[r] += energy_J[r];
    m_lastEnergy[r] = energy_J[r];
    if (r < slots) m_throughput_J += std::abs(energy_J[r]);
  }
#pragma GCC unroll 4
  for (std::size_t v = 0; v < m_valueIntegral.size(); ++v) m_valueIntegral[v] += value[v];
#pragma GCC unroll 4
  for (const NetworkDrivers::Term& t : m_flows.drivers().sourceTerms()) m_throughput_J += std::abs(t.factor * value[static_cast<std::size_t>(t.value)]);
  for (std::size_t j = 0; j < m_power.size(); ++j) {
    m_thermostat_J[j] += heat_J[j];
    m_throughput_J += heat_J[j];
    m_lastPower[j] = heat_J[j]; // advance() makes it a power
  }
  m_time += h;
}

/// Takes the step.
void Solver::acceptBdf2(double h, double s) {
  const auto shift = [](double now, double& before, double& last) {
    before = last;
    last = now + before * (1.0 / 3.0);
  };
#pragma GCC unroll 4
  for (std::size_t r = m_explicitPart.size(); r < m_energy_J.size(); ++r) shift(s * m_end.f[r], m_before_J[r], m_step_J[r]);
#pragma GCC unroll 4
  for (std::size_t v = 0; v < m_valueIntegral.size(); ++v) shift(s * m_end.value[v], m_beforeValue[v], m_stepValue[v]);
  for (std::size_t j = 0; j < m_power.size(); ++j) shift(s * m_power[j], m_beforeHeat_J[j], m_stepHeat_J[j]);
  count(m_step_J, m_stepValue, m_stepHeat_J, h);
  std::swap(m_start, m_end);
  ++m_smoothSteps;
  // water that appears on a film or is gone changes some links a little: the line of the last step still holds within a few
  // minutes of its time, and only the matrix is made anew; a thermostat's switch shows in the modulators of the next step
  m_flows.settleRelays(m_start.T, h);
}

/// One step of the length of the one before. False, with nothing changed that a step by TR-BDF2 needs, if something jumps.
bool Solver::advanceBdf2(double h) {
  const double s = 2.0 / 3.0 * h;
  m_startIsExact = false;
  if (!predictBdf2(h)) return false;
  m_flows.swapFactors(m_singleStep.factors);
  const bool done = solveStage(m_end, s, m_singleStep);
  m_flows.swapFactors(m_singleStep.factors);
  if (done) acceptBdf2(h, s);
  return done;
}

} // namespace muffle
