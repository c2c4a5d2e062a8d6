// SPDX-License-Identifier: GPL-3.0-or-later
//
// The part of the solver that holds thermostats: ideal ones by the step's linear response, those with hysteresis by finding
// the moment they switch.
#include "core/network/solver.h"
#include "core/network/tr_bdf2.h"

#include <algorithm>
#include <cmath>

namespace muffle {

using namespace trBdf2;

namespace {

constexpr int kMaxCorrections = 8; // of correction and Newton

} // namespace

/// What a watt of an ideal thermostat adds to the middle stage's right-hand side; to be solved into K/W.
void Solver::middleUnit(std::size_t j, double s) {
  auto& middle = m_responseMiddle[j];
  std::fill(middle.begin(), middle.end(), 0.0);
  for (const Heated& at : m_heated[j]) middle[at.slot] += (m_flows.capacity_J_K()[at.slot] > 0.0 ? 2.0 : 1.0) * at.share * s;
}

/// The same at the end stage, once the middle's response is known.
void Solver::endUnit(std::size_t j, double h, double s) {
  const auto& C = m_flows.capacity_J_K();
  const auto& middle = m_responseMiddle[j];
  auto& end = m_responseEnd[j];
  // s J r = C r - rhs, so that w h J r needs no product with J
  for (std::size_t i = 0; i < middle.size(); ++i) end[i] = kW / kD * C[i] * middle[i];
  for (const Heated& at : m_heated[j]) end[at.slot] += C[at.slot] > 0.0 ? at.share * (h - 2.0 * kW * h) : at.share * s;
}

/// How both stages move with a watt of each ideal thermostat.
void Solver::unitResponses(double h) {
  const double s = kD * h;
  for (std::size_t k = 0; k < m_power.size(); ++k) {
    if (m_network->thermostats[k].mode != Thermostat::Mode::ideal || (k == m_besideStages && m_besideIsCurrent)) continue;
    middleUnit(k, s);
    m_flows.solve(m_responseMiddle[k].data());
    endUnit(k, h, s);
    m_flows.solve(m_responseEnd[k].data());
  }
}

/// Moves the ideal thermostats' powers so that by the step's linear response each sensor ends on its setpoint, or the
/// power at a limit. The powers before are in m_powerBefore.
IdealThermostats::Outcome Solver::choosePowers(double h) {
  m_powerBefore = m_power;
  for (std::size_t j = 0; j < m_power.size(); ++j) m_error_K[j] = m_setpoint[j] - m_end.T[m_sensorSlot[j]];
  bool known = false;
  IdealThermostats::ResponsesBy responses([&](std::size_t j) -> const std::vector<double>& {
    if (!known) unitResponses(h);
    known = true;
    return m_responseEnd[j];
  });
  return m_ideal.find(m_power, m_error_K, m_setpoint, m_limit, m_options.newtonTolerance_K, m_options.newtonTolerance_K, responses);
}

/// Moves a stage's temperatures by its response to what the powers have changed since `before`, and leaves the moves in m_delta. The
/// furthest that anything moved, K.
double Solver::moveByPowers(FlowState& stage, const std::vector<double>& before, const std::vector<std::vector<double>>& response) {
  const std::size_t free = m_explicitPart.size();
  std::fill(m_delta.begin(), m_delta.end(), 0.0);
  for (std::size_t j = 0; j < m_power.size(); ++j) {
    const double change = m_power[j] - before[j];
    if (change == 0.0) continue;
    for (std::size_t i = 0; i < free; ++i) m_delta[i] += change * response[j][i];
  }
  double furthest = 0.0;
  for (std::size_t i = 0; i < free; ++i) {
    stage.T[i] += m_delta[i];
    furthest = std::max(furthest, std::abs(m_delta[i]));
  }
  return furthest;
}

/// Moves a stage by its response to the powers' change; m_explicitPart belongs to the stage and the new powers.
void Solver::shift(FlowState& stage, double s, const std::vector<std::vector<double>>& response, double& furthest) {
  const std::size_t free = m_explicitPart.size();
  furthest = std::max(furthest, moveByPowers(stage, m_powerBefore, response));
  if (stage.reported) m_flows.addFreeToReported(m_slopes, m_delta.data(), stage.f.data());
  const bool exactToo = &stage == &m_end && m_haveNextFlows; // the exact flows move along with those of the linear solve
  if (exactToo)
    for (std::size_t i = 0; i < free; ++i) m_nextFlows[i] -= stage.f[i];
  imply(stage, s, free);
  if (!exactToo) return;
  for (std::size_t i = 0; i < free; ++i) m_nextFlows[i] += stage.f[i];
  m_flows.addFreeToReported(m_slopes, m_delta.data(), m_nextFlows.data());
}

/// Ideal thermostats on their setpoints or at a limit, and the end stage exact. The powers are chosen on the linear stages
/// first, so that as a rule the one exact evaluation is of the temperatures that stay.
bool Solver::holdSetpoints(double h) {
  const double s = kD * h;
  for (int round = 0; round < kMaxCorrections; ++round) {
    const IdealThermostats::Outcome found = choosePowers(h);
    if (found == IdealThermostats::Outcome::unsettled) return false;
    const bool moved = found == IdealThermostats::Outcome::moved;
    if (!moved && round > 0) return true;
    double furthest = 0.0;
    bool curved = false;
    if (moved) {
      explicitPartOfMiddle(s);
      shift(m_middle, s, m_responseMiddle, furthest);
      curved = m_flows.isNonlinear() && furthest * contraction(furthest) >= m_options.newtonTolerance_K;
      if (curved && !refine(m_middle, s, furthest)) return false;
      explicitPartOfEnd(h, s);
      shift(m_end, s, m_responseEnd, furthest);
      m_endSlopesOff_K += furthest;
      if (round > 0 && !curved) return true;
    }
    if (!settleEnd(h, curved)) return false;
    if (!m_flows.isNonlinear()) return true;
  }
  return true;
}

double Solver::limitAt(std::size_t j, double time_s) const {
  const Thermostat& t = m_network->thermostats[j];
  const double most_W = m_limitShare[j] * t.power_W;
  return t.limitSignal < 0 ? most_W : most_W * std::max(m_network->tables[static_cast<std::size_t>(t.limitSignal)].at(time_s), 0.0);
}

/// Of the ideal thermostats; limits of all.
void Solver::takeSetpoints(double time_s) {
  for (std::size_t j = 0; j < m_power.size(); ++j) {
    const Thermostat& t = m_network->thermostats[j];
    m_limit[j] = limitAt(j, time_s);
    if (t.mode == Thermostat::Mode::ideal)
      m_setpoint[j] = t.setpointSignal >= 0 ? m_network->tables[static_cast<std::size_t>(t.setpointSignal)].at(time_s) : t.setpoint_C;
  }
}

bool Solver::advanceSmooth(double h) {
  takeSetpoints(m_time + 0.5 * h);
  bool anyIdeal = false;
  for (std::size_t j = 0; j < m_power.size(); ++j) {
    const Thermostat& t = m_network->thermostats[j];
    if (t.mode == Thermostat::Mode::hysteresis) {
      m_power[j] = m_on[j] ? m_limit[j] : 0.0;
      continue;
    }
    anyIdeal = true;
  }
  return solveStages(h) && (anyIdeal ? holdSetpoints(h) : settleEnd(h));
}

/// Thermostats whose thresholds the state has already passed.
void Solver::passThresholds() {
  for (std::size_t j = 0; j < m_power.size(); ++j) {
    const Thermostat& t = m_network->thermostats[j];
    if (t.mode != Thermostat::Mode::hysteresis) continue;
    const double T = m_start.T[m_sensorSlot[j]];
    if (!m_on[j] && T <= t.on_C + m_options.switchTolerance_K) {
      m_on[j] = true;
      ++m_starts[j];
    } else if (m_on[j] && T >= t.off_C - m_options.switchTolerance_K) {
      m_on[j] = false;
    }
  }
}

double Solver::crossingTarget(std::size_t j) const { return m_on[j] ? m_network->thermostats[j].off_C : m_network->thermostats[j].on_C; }

/// Time into the trial step at which a hysteresis thermostat first passes its threshold; h if none does.
double Solver::switchTime(double h, std::size_t& which) {
  double first = h;
  for (std::size_t j = 0; j < m_power.size(); ++j) {
    if (m_network->thermostats[j].mode != Thermostat::Mode::hysteresis) continue;
    const std::size_t s = m_sensorSlot[j];
    const double sign = m_on[j] ? 1.0 : -1.0;
    const double target = crossingTarget(j);
    const double g0 = sign * (m_start.T[s] - target);
    const double gm = sign * (m_middle.T[s] - target);
    const double g1 = sign * (m_end.T[s] - target);
    if (g0 >= 0.0 || (gm < 0.0 && g1 < 0.0)) continue;
    const double at = gm >= 0.0 ? kGamma * h * g0 / (g0 - gm) : kGamma * h + (1.0 - kGamma) * h * gm / (gm - g1);
    if (at < first) {
      first = at;
      which = j;
    }
  }
  return first;
}

/// Shortens the step until the thermostat ends it on its threshold; `used` is the step found.
bool Solver::bisectSwitch(double h, double guess, std::size_t which, double& used) {
  const std::size_t s = m_sensorSlot[which];
  const double sign = m_on[which] ? 1.0 : -1.0;
  const double target = crossingTarget(which);
  double low = 0.0;
  double high = h;
  double gLow = sign * (m_start.T[s] - target);
  double gHigh = sign * (m_end.T[s] - target);
  double at = guess;
  for (int k = 0; k < 40; ++k) {
    at = std::clamp(at, low + 0.02 * (high - low), high - 0.02 * (high - low));
    if (!solveStages(at) || !settleEnd(at)) return false;
    const double g = sign * (m_end.T[s] - target);
    if (std::abs(g) < m_options.switchTolerance_K || high - low < 1e-3) break;
    if (g < 0.0) {
      low = at;
      gLow = g;
      if (gHigh > 0.0) gHigh *= 0.7; // keeps false position from creeping
    } else {
      high = at;
      gHigh = g;
      gLow *= 0.7;
    }
    at = gHigh > gLow && gHigh > 0.0 ? low + (high - low) * gLow / (gLow - gHigh) : 0.5 * (low + high);
  }
  used = at;
  return true;
}

} // namespace muffle
