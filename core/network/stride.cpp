// SPDX-License-Identifier: GPL-3.0-or-later
//
// Strides: two of cruise()'s equal steps taken as one, where the weather goes its way in nearly straight lines. The formula is the same,
// over 2h from the state two steps ago; the middle is read off the parabola through the three states,
//   T(h) = 3/8 T(2h) + 3/4 T(0) - 1/8 T(-2h)
// which must not put a sensor below the setpoint that its heater has power to hold: after a setback the parabola would.
// and the stride's energies E are shared out as that implies, 3/8 E + E0/8 to its first half (E0: those of the two steps before), so that
// each half balances what it stores. What is driven counts with the mean of start, middle and end.
// The caller sees two steps; the second is handed out when it asks for it.
#include "core/network/solver.h"

#include <algorithm>
#include <cmath>

namespace muffle {

namespace {

constexpr double kLongestStep_s = 900.0; // a stride of more would pass over the house's own quick answers
// both by trial on the demo houses, 0.03 to 0.05 K rms in a season; by a fifth more the air's slope is too rough for the fit of what a house stores
constexpr double kBend_K = 0.5;            // of what is driven, off the straight line in its middle
constexpr double kTurn_K = 2.0;            // of the state (of humidity g/kg), off the last two steps' line at the stride's end
constexpr int kBarredAfterBend = 3;        // steps, until it lies before the line that the next stride sets out along
constexpr int kBarredAfterTurn = 2;        // steps: it came near the end of what was tried
constexpr double kBelowSetpoint_K = 0.005; // of a sensor in the middle; a tenth of what a night may miss its line by
constexpr double kEndInFirst = 3.0 / 8.0;
constexpr double kBeforeInFirst = 1.0 / 8.0;

} // namespace

/// Sets m_far out. False if what is driven bends or jumps on the way, or a vent is to stand on its ramp.
bool Solver::extrapolateOver(double h, double s) {
  const double middle = m_time + kInside * h;
  const double end = m_time + h + kInside * h;
  if (!setpointsStay(middle) || !setpointsStay(end)) return false;
  if (m_double.layout != m_flows.layout()) m_double.isFactored = false;
  m_flows.drive(m_time + h, m_far); // m_middle.T is still needed where free
  std::copy(m_far.T.begin() + m_flows.freeCount(), m_far.T.end(), m_middle.T.begin() + m_flows.freeCount());
  std::swap(m_far.value, m_middle.value);
  m_flows.drive(m_time + 2.0 * h, m_far);
  if (m_flows.drivenBend_K(m_start, m_middle, m_far, s) > kBend_K) {
    m_stridesBarred = kBarredAfterBend;
    return false;
  }
  if (!m_flows.modulateOver(middle, end, m_start.T, s, kBend_K)) return false;
  m_farValue = m_far.value;
#pragma GCC unroll 4
  for (std::size_t v = 0; v < m_far.value.size(); ++v) m_far.value[v] = 0.75 * m_far.value[v] + 0.5 * m_middle.value[v] - 0.25 * m_start.value[v];
  m_flows.setBoundaries(m_far);
  setOut(m_far, s, m_double);
  return !m_flows.ventOnRamp(m_far.T);
}

/// The stride's energies, shared out: the first half's into m_before_J and its like, the second's into m_step_J.
void Solver::splitStride(double s) {
  const auto split = [](double now, double& before, double& last) {
    const double whole = now + (before + last) * (1.0 / 3.0);
    const double first = kEndInFirst * whole + kBeforeInFirst * (before + last);
    before = first;
    last = whole - first;
  };
#pragma GCC unroll 4
  for (std::size_t r = m_known.size(); r < m_energy_J.size(); ++r) split(s * m_far.f[r], m_before_J[r], m_step_J[r]);
#pragma GCC unroll 4
  for (std::size_t v = 0; v < m_valueIntegral.size(); ++v) split(s * m_far.value[v], m_beforeValue[v], m_stepValue[v]);
  for (std::size_t j = 0; j < m_power.size(); ++j) split(s * m_power[j], m_beforeHeat_J[j], m_stepHeat_J[j]);
}

/// No heater with power to spare leaves its sensor below the setpoint in the middle.
bool Solver::holdOnTheWay() const {
  for (std::size_t j = 0; j < m_power.size(); ++j) {
    const Thermostat& t = m_network->thermostats[j];
    const std::size_t sensor = m_sensorSlot[j];
    if (t.mode == Thermostat::Mode::ideal && sensor < m_known.size() && m_power[j] < m_limit[j] && m_middle.T[sensor] < m_setpoint[j] - kBelowSetpoint_K)
      return false;
  }
  return true;
}

/// Reads the middle off the stride's end, into m_middle. False, with the powers as they were, if the state turns too sharply on the way, a
/// vent stands on its ramp or a relay would switch.
bool Solver::settlesOnTheWay() {
  const std::size_t free = m_known.size();
  const double* __restrict const start = m_start.T.data();
  const double* __restrict const far = m_far.T.data();
  double* __restrict const middle = m_middle.T.data();
  long turns = 0;
  for (std::size_t i = 0; i < free; ++i) turns += std::abs(far[i] - 2.0 * start[i] + middle[i]) > kTurn_K ? 1 : 0;
  for (std::size_t i = 0; i < free; ++i) middle[i] = kEndInFirst * far[i] + 0.75 * start[i] - kBeforeInFirst * middle[i];
  if (turns == 0 && holdOnTheWay() && m_flows.freezing().overshoot_K(m_start.T, m_middle.T) <= 0.0 && !m_flows.ventOnRamp(m_far.T) &&
      !m_flows.relayTurns(m_middle.T) && !m_flows.relayTurns(m_far.T))
    return true;
  m_power = m_powerBefore;
  return false;
}

/// Takes two steps at once and stands in their middle. False, with nothing changed that another step needs, where that will not do.
bool Solver::stride(double h) {
  if (!m_options.stride || m_smoothSteps < 2 || h > kLongestStep_s) return false;
  if (m_stridesBarred > 0) {
    --m_stridesBarred;
    return false;
  }
  if (m_flows.ventOnRamp(m_start.T)) return false; // where it would end, too
  const double s = 4.0 / 3.0 * h;
  m_startKnown = false;
  m_flows.swapFactors(m_double.factors);
  bool done = extrapolateOver(h, s);
  if (done && !(solveStage(m_far, s, m_double) && settlesOnTheWay())) {
    done = false;
    m_stridesBarred = kBarredAfterTurn;
  }
  m_flows.swapFactors(m_double.factors);
  if (!done) return false;
  ++m_strides;
  splitStride(s);
  count(m_before_J, m_beforeValue, m_beforeHeat_J, h);
  std::swap(m_end, m_start);    // where the stride began
  std::swap(m_start, m_middle); // its middle
  m_midway = true;
  return true;
}

/// The stride's second half.
void Solver::finishStride(double h) {
  count(m_step_J, m_stepValue, m_stepHeat_J, h);
  m_midway = false;
  std::swap(m_middle, m_end);
  std::swap(m_end, m_start);
  std::swap(m_start, m_far);
  m_start.value.swap(m_farValue);
  m_flows.setBoundaries(m_start);
  m_smoothSteps += 2;
  m_flows.settleRelays(m_start.T, 2.0 * h);
}

} // namespace muffle
