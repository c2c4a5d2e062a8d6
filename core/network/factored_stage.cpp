// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/network/factored_stage.h"

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

} // namespace

FactoredStage::FactoredStage(const StepContext& c)
    : m_factoredT(c.start.T.size(), 0.0), m_slopes(c.flows.makeSlopes()), m_factors(c.flows.makeFactors()),
      m_response(c.network->thermostats.size(), std::vector<double>(c.explicitPart.size(), 0.0)), m_hasResponse(c.network->thermostats.size(), false),
      m_roundFrom(c.delta.size(), 0.0) {}

/// The predictor: along the line from c.middle, where the step before it began, through c.start. And the explicit part: the move so far and
/// the heaters.
void FactoredStage::predict(StepContext& c, FlowState& stage, double s) {
  const std::size_t free = c.explicitPart.size();
  const double* __restrict const C = c.flows.capacity_J_K().data();
  const double* __restrict const start = c.start.T.data();
  const double* __restrict const from = c.middle.T.data();
  double* __restrict const T = stage.T.data();
  double* __restrict const explicitPart = c.explicitPart.data();
  for (std::size_t i = 0; i < free; ++i) {
    const double moved = start[i] - from[i];
    explicitPart[i] = C[i] * moved * (1.0 / 3.0);
    T[i] = start[i] + moved;
  }
  for (std::size_t j = 0; j < c.power.size(); ++j) c.addHeat(c.explicitPart, j, s * c.power[j]);
  reuse(c, stage, s);
}

/// The factored matrix for a stage at its predictor, if it is still good.
void FactoredStage::reuse(StepContext& c, const FlowState& stage, double s) {
  const std::size_t free = c.explicitPart.size();
  c.powerBefore = c.power;
  std::fill(c.delta.begin() + static_cast<std::ptrdiff_t>(free), c.delta.end(), 0.0);
  if (m_layout != c.flows.layout() || m_s != s) m_isFactored = false;
  if (!m_isFactored) return;
  double off = 0.0;
  const double* __restrict const T = stage.T.data();
  const double* __restrict const factoredT = m_factoredT.data();
  for (auto i = static_cast<std::size_t>(c.flows.linearCount()); i < free; ++i) off = std::max(off, std::abs(T[i] - factoredT[i]));
  m_off_K = off;
  if (m_age >= kMaxAge || off > kMaxOff_K) m_isFactored = false;
}

/// How the stage moves with a watt of thermostat j, by the matrix in force.
const std::vector<double>& FactoredStage::responseTo(StepContext& c, std::size_t j, double s) {
  auto& response = m_response[j];
  if (m_hasResponse[j]) return response;
  std::fill(response.begin(), response.end(), 0.0);
  c.addHeat(response, j, s);
  c.flows.solve(response.data());
  m_hasResponse[j] = true;
  return response;
}

/// The same, and c.delta and c.explicitPart follow. False if there are none.
bool FactoredStage::findPowersOf(StepContext& c, const FlowState& stage, double s) {
  const IdealThermostats::Outcome found = c.findPowers(stage, [&](std::size_t j) -> const std::vector<double>& { return responseTo(c, j, s); });
  if (found != IdealThermostats::Outcome::moved) return found == IdealThermostats::Outcome::unchanged;
  const std::size_t free = c.explicitPart.size();
  for (std::size_t j = 0; j < c.power.size(); ++j) {
    const double change = c.power[j] - c.powerTried[j];
    if (change == 0.0) continue;
    c.addHeat(c.explicitPart, j, s * change);
    const double* __restrict const response = m_response[j].data();
    double* __restrict const delta = c.delta.data();
    for (std::size_t i = 0; i < free; ++i) delta[i] += change * response[i];
  }
  return true;
}

/// One evaluation and solve. True when what it leaves over is small.
bool FactoredStage::newtonRound(StepContext& c, FlowState& stage, double s, bool findPower) {
  if (!m_isFactored) {
    c.flows.evaluate(stage, stage.f, &m_slopes);
    c.flows.factor(s, m_slopes);
    m_factoredT = stage.T;
    m_isFactored = true;
    m_layout = c.flows.layout();
    m_s = s;
    m_age = 0;
    m_off_K = 0.0;
    std::fill(m_hasResponse.begin(), m_hasResponse.end(), false);
  } else {
    c.flows.evaluate(stage, stage.f);
  }
  ++m_age;
  const std::size_t free = c.explicitPart.size();
  const double* __restrict const C = c.flows.capacity_J_K().data();
  const double* __restrict const explicitPart = c.explicitPart.data();
  const double* __restrict const f = stage.f.data();
  const double* __restrict const start = c.start.T.data();
  double* __restrict const T = stage.T.data();
  double* __restrict const delta = c.delta.data();
  for (std::size_t i = 0; i < free; ++i) delta[i] = explicitPart[i] + s * f[i] - C[i] * (T[i] - start[i]);
  c.flows.solve(delta);
  if (findPower && !findPowersOf(c, stage, s)) return false;
  double largest = 0.0;
  for (std::size_t i = 0; i < free; ++i) T[i] += delta[i];
  for (auto i = static_cast<std::size_t>(c.flows.linearCount()); i < free; ++i) largest = std::max(largest, std::abs(delta[i]));
  if (!std::isfinite(delta[free - 1])) return false;
  return largest * std::min(0.2, 0.004 + 0.1 * (largest + m_off_K)) < kMultistepTolerance_K; // as contraction() has it
}

/// A heater's power has changed by more than the formula follows, a vent passes the corner of its ramp, or water begins or ceases to
/// freeze.
bool FactoredStage::hasJumped(const StepContext& c, const FlowState& stage, double s) const {
  for (std::size_t j = 0; j < c.power.size(); ++j) {
    const double limit = c.limit[j];
    const auto place = [limit](double power) { return power <= 0.0 ? 0 : power >= limit ? 2 : 1; };
    if (c.power[j] == c.powerBefore[j]) continue;
    const bool reaches = place(c.power[j]) != place(c.powerBefore[j]);
    const double faster_K_s = std::abs(c.power[j] - c.powerBefore[j]) * m_response[j][c.sensorSlot[j]] / s;
    if (faster_K_s > (reaches ? kJumpToLimit_K_s : kJump_K_s)) return true;
  }
  return c.flows.ventTurns(c.start.T, stage.T) || c.flows.freezing().overshoot_K(c.start.T, stage.T) > 0.0;
}

/// Brings the stage from its predictor to its end, and its reported rows with it. False if that takes too long.
bool FactoredStage::settle(StepContext& c, FlowState& stage, double s, bool findPower) {
  for (int round = 0; round < kMaxRounds; ++round) {
    if (!findPower) m_roundFrom = stage.T;
    bool enough = newtonRound(c, stage, s, findPower);
    if (!findPower && c.flows.ventTurns(m_roundFrom, stage.T)) m_isFactored = enough = false; // by the slopes past its corner
    if (!enough) {
      if (m_off_K > kRetryOff_K || round > 0) m_isFactored = false;
      continue;
    }
    c.flows.addFreeToReported(m_slopes, c.delta.data(), stage.f.data());
    return true;
  }
  return false;
}

/// The same, with the heaters; false also if something has jumped. The powers are then as they were.
bool FactoredStage::solve(StepContext& c, FlowState& stage, double s) {
  if (settle(c, stage, s, true) && !hasJumped(c, stage, s)) return true;
  c.power = c.powerBefore;
  return false;
}

} // namespace muffle
