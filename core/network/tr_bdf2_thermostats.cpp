// SPDX-License-Identifier: GPL-3.0-or-later
//
// How a TR-BDF2 step holds thermostats: ideal ones by the step's linear response, those with hysteresis by finding the moment they switch.
#include "core/network/tr_bdf2.h"
#include "core/network/tr_bdf2_step.h"

#include <algorithm>
#include <cmath>

namespace muffle {

using namespace trBdf2;

namespace {

constexpr int kMaxCorrections = 8; // of correction and Newton

} // namespace

/// What a watt of an ideal thermostat adds to the middle stage's right-hand side; to be solved into K/W.
void TrBdf2Step::middleUnit(StepContext& c, std::size_t j, double s) {
  auto& middle = m_responseMiddle[j];
  std::fill(middle.begin(), middle.end(), 0.0);
  for (const StepContext::Heated& at : c.heated[j]) middle[at.slot] += (c.flows.capacity_J_K()[at.slot] > 0.0 ? 2.0 : 1.0) * at.share * s;
}

/// The same at the end stage, once the middle's response is known.
void TrBdf2Step::endUnit(StepContext& c, std::size_t j, double h, double s) {
  const auto& C = c.flows.capacity_J_K();
  const auto& middle = m_responseMiddle[j];
  auto& end = m_responseEnd[j];
  // s J r = C r - rhs, so that w h J r needs no product with J
  for (std::size_t i = 0; i < middle.size(); ++i) end[i] = kW / kD * C[i] * middle[i];
  for (const StepContext::Heated& at : c.heated[j]) end[at.slot] += C[at.slot] > 0.0 ? at.share * (h - 2.0 * kW * h) : at.share * s;
}

/// How both stages move with a watt of each ideal thermostat.
void TrBdf2Step::unitResponses(StepContext& c, double h) {
  const double s = kD * h;
  for (std::size_t k = 0; k < c.power.size(); ++k) {
    if (c.network->thermostats[k].mode != Thermostat::Mode::ideal || (k == m_besideStages && m_besideIsCurrent)) continue;
    middleUnit(c, k, s);
    c.flows.solve(m_responseMiddle[k].data());
    endUnit(c, k, h, s);
    c.flows.solve(m_responseEnd[k].data());
  }
}

/// Moves the ideal thermostats' powers so that by the step's linear response each sensor ends on its setpoint, or the
/// power at a limit. The powers before are in c.powerBefore.
IdealThermostats::Outcome TrBdf2Step::choosePowers(StepContext& c, double h) {
  c.powerBefore = c.power;
  for (std::size_t j = 0; j < c.power.size(); ++j) c.error_K[j] = c.setpoint[j] - c.end.T[c.sensorSlot[j]];
  bool known = false;
  IdealThermostats::ResponsesBy responses([&](std::size_t j) -> const std::vector<double>& {
    if (!known) unitResponses(c, h);
    known = true;
    return m_responseEnd[j];
  });
  return c.ideal.find(c.power, c.error_K, c.setpoint, c.limit, c.options.newtonTolerance_K, c.options.newtonTolerance_K, responses);
}

/// Moves a stage by its response to the powers' change; c.explicitPart belongs to the stage and the new powers.
void TrBdf2Step::shift(StepContext& c, FlowState& stage, double s, const std::vector<std::vector<double>>& response, double& furthest) {
  const std::size_t free = c.explicitPart.size();
  furthest = std::max(furthest, c.moveByPowers(stage, c.powerBefore, response));
  if (stage.reported) c.flows.addFreeToReported(m_slopes, c.delta.data(), stage.f.data());
  const bool exactToo = &stage == &c.end && m_haveNextFlows; // the exact flows move along with those of the linear solve
  if (exactToo)
    for (std::size_t i = 0; i < free; ++i) m_nextFlows[i] -= stage.f[i];
  imply(c, stage, s, free);
  if (!exactToo) return;
  for (std::size_t i = 0; i < free; ++i) m_nextFlows[i] += stage.f[i];
  c.flows.addFreeToReported(m_slopes, c.delta.data(), m_nextFlows.data());
}

/// Ideal thermostats on their setpoints or at a limit, and the end stage exact. The powers are chosen on the linear stages
/// first, so that as a rule the one exact evaluation is of the temperatures that stay.
bool TrBdf2Step::holdSetpoints(StepContext& c, double h) {
  const double s = kD * h;
  for (int round = 0; round < kMaxCorrections; ++round) {
    const IdealThermostats::Outcome found = choosePowers(c, h);
    if (found == IdealThermostats::Outcome::unsettled) return false;
    const bool moved = found == IdealThermostats::Outcome::moved;
    if (!moved && round > 0) return true;
    double furthest = 0.0;
    bool curved = false;
    if (moved) {
      explicitPartOfMiddle(c, s);
      shift(c, c.middle, s, m_responseMiddle, furthest);
      curved = c.flows.isNonlinear() && furthest * contraction(furthest) >= c.options.newtonTolerance_K;
      if (curved && !refine(c, c.middle, s, furthest)) return false;
      explicitPartOfEnd(c, h, s);
      shift(c, c.end, s, m_responseEnd, furthest);
      m_endSlopesOff_K += furthest;
      if (round > 0 && !curved) return true;
    }
    if (!settleEnd(c, h, curved)) return false;
    if (!c.flows.isNonlinear()) return true;
  }
  return true;
}

bool TrBdf2Step::advanceSmooth(StepContext& c, double h) {
  c.takeSetpoints(c.time + 0.5 * h);
  bool anyIdeal = false;
  for (std::size_t j = 0; j < c.power.size(); ++j) {
    const Thermostat& t = c.network->thermostats[j];
    if (t.mode == Thermostat::Mode::hysteresis) {
      c.power[j] = c.on[j] ? c.limit[j] : 0.0;
      continue;
    }
    anyIdeal = true;
  }
  return solveStages(c, h) && (anyIdeal ? holdSetpoints(c, h) : settleEnd(c, h));
}

/// Thermostats whose thresholds the state has already passed.
void TrBdf2Step::passThresholds(StepContext& c) {
  for (std::size_t j = 0; j < c.power.size(); ++j) {
    const Thermostat& t = c.network->thermostats[j];
    if (t.mode != Thermostat::Mode::hysteresis) continue;
    const double T = c.start.T[c.sensorSlot[j]];
    if (!c.on[j] && T <= t.on_C + c.options.switchTolerance_K) {
      c.on[j] = true;
      ++c.starts[j];
    } else if (c.on[j] && T >= t.off_C - c.options.switchTolerance_K) {
      c.on[j] = false;
    }
  }
}

double TrBdf2Step::crossingTarget(StepContext& c, std::size_t j) const { return c.on[j] ? c.network->thermostats[j].off_C : c.network->thermostats[j].on_C; }

/// Time into the trial step at which a hysteresis thermostat first passes its threshold; h if none does.
double TrBdf2Step::switchTime(StepContext& c, double h, std::size_t& which) {
  double first = h;
  for (std::size_t j = 0; j < c.power.size(); ++j) {
    if (c.network->thermostats[j].mode != Thermostat::Mode::hysteresis) continue;
    const std::size_t s = c.sensorSlot[j];
    const double sign = c.on[j] ? 1.0 : -1.0;
    const double target = crossingTarget(c, j);
    const double g0 = sign * (c.start.T[s] - target);
    const double gm = sign * (c.middle.T[s] - target);
    const double g1 = sign * (c.end.T[s] - target);
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
bool TrBdf2Step::bisectSwitch(StepContext& c, double h, double guess, std::size_t which, double& used) {
  const std::size_t s = c.sensorSlot[which];
  const double sign = c.on[which] ? 1.0 : -1.0;
  const double target = crossingTarget(c, which);
  double low = 0.0;
  double high = h;
  double gLow = sign * (c.start.T[s] - target);
  double gHigh = sign * (c.end.T[s] - target);
  double at = guess;
  for (int k = 0; k < 40; ++k) {
    at = std::clamp(at, low + 0.02 * (high - low), high - 0.02 * (high - low));
    if (!solveStages(c, at) || !settleEnd(c, at)) return false;
    const double g = sign * (c.end.T[s] - target);
    if (std::abs(g) < c.options.switchTolerance_K || high - low < 1e-3) break;
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
