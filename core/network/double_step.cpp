// SPDX-License-Identifier: GPL-3.0-or-later
//
// Double steps: two of advanceBdf2()'s equal steps taken as one, where the weather goes its way in nearly straight lines. The formula is the same,
// over 2h from the state two steps ago; the middle is read off the parabola through the three states,
//   T(h) = 3/8 T(2h) + 3/4 T(0) - 1/8 T(-2h)
// which must not put a sensor below the setpoint that its heater has power to hold: after a setback the parabola would.
// and the double step's energies E are shared out as that implies, 3/8 E + E0/8 to its first half (E0: those of the two steps before), so that
// each half balances what it stores. What is driven counts with the mean of start, middle and end.
// The caller sees two steps; the second is handed out when it asks for it.
#include "core/network/solver.h"

#include <algorithm>
#include <cmath>

namespace muffle {

namespace {

constexpr double kLongestStep_s = 900.0; // a double step of more would pass over the house's own quick answers
// both by trial on the demo houses, 0.03 to 0.05 K rms in a season; by a fifth more the air's slope is too rough for the fit of what a house stores
constexpr double kBend_K = 0.5;            // of what is driven, off the straight line in its middle
constexpr double kTurn_K = 2.0;            // of the state (of humidity g/kg), off the last two steps' line at the double step's end
constexpr int kBarredAfterBend = 3;        // steps, until it lies before the line that the next double step is predicted along
constexpr int kBarredAfterTurn = 2;        // steps: it came near the end of what was tried
constexpr double kBelowSetpoint_K = 0.005; // of a sensor in the middle; a tenth of what a night may miss its line by
constexpr double kEndInFirst = 3.0 / 8.0;
constexpr double kBeforeInFirst = 1.0 / 8.0;

} // namespace

/// Predicts m_doubleEnd. False if what is driven bends or jumps on the way, or a vent is to stand on its ramp.
bool Solver::predictDouble(double h, double s) {
  const double middle = m_time + kInside * h;
  const double end = m_time + h + kInside * h;
  if (!setpointsStay(middle) || !setpointsStay(end)) return false;
  if (m_doubleStep.layout != m_flows.layout()) m_doubleStep.isFactored = false;
  m_flows.drive(m_time + h, m_doubleEnd); // m_middle.T is still needed where free
  std::copy(m_doubleEnd.T.begin() + m_flows.freeCount(), m_doubleEnd.T.end(), m_middle.T.begin() + m_flows.freeCount());
  std::swap(m_doubleEnd.value, m_middle.value);
  m_flows.drive(m_time + 2.0 * h, m_doubleEnd);
  if (m_flows.drivenBend_K(m_start, m_middle, m_doubleEnd, s) > kBend_K) {
    m_doubleStepsBarred = kBarredAfterBend;
    return false;
  }
  if (!m_flows.modulateOver(middle, end, m_start.T, s, kBend_K)) return false;
  m_doubleEndValue = m_doubleEnd.value;
#pragma GCC unroll 4
  for (std::size_t v = 0; v < m_doubleEnd.value.size(); ++v)
    m_doubleEnd.value[v] = 0.75 * m_doubleEnd.value[v] + 0.5 * m_middle.value[v] - 0.25 * m_start.value[v];
  m_flows.setBoundaries(m_doubleEnd);
  predictStage(m_doubleEnd, s, m_doubleStep);
  return !m_flows.ventOnRamp(m_doubleEnd.T);
}

/// The double step's energies, shared out: the first half's into m_before_J and its like, the second's into m_step_J.
void Solver::splitDouble(double s) {
  const auto split = [](double now, double& before, double& last) {
    const double whole = now + (before + last) * (1.0 / 3.0);
    const double first = kEndInFirst * whole + kBeforeInFirst * (before + last);
    before = first;
    last = whole - first;
  };
#pragma GCC unroll 4
  for (std::size_t r = m_explicitPart.size(); r < m_energy_J.size(); ++r) split(s * m_doubleEnd.f[r], m_before_J[r], m_step_J[r]);
#pragma GCC unroll 4
  for (std::size_t v = 0; v < m_valueIntegral.size(); ++v) split(s * m_doubleEnd.value[v], m_beforeValue[v], m_stepValue[v]);
  for (std::size_t j = 0; j < m_power.size(); ++j) split(s * m_power[j], m_beforeHeat_J[j], m_stepHeat_J[j]);
}

/// No heater with power to spare leaves its sensor below the setpoint in the middle.
bool Solver::holdsInMiddle() const {
  for (std::size_t j = 0; j < m_power.size(); ++j) {
    const Thermostat& t = m_network->thermostats[j];
    const std::size_t sensor = m_sensorSlot[j];
    if (t.mode == Thermostat::Mode::ideal && sensor < m_explicitPart.size() && m_power[j] < m_limit[j] && m_middle.T[sensor] < m_setpoint[j] - kBelowSetpoint_K)
      return false;
  }
  return true;
}

/// Reads the middle off the double step's end, into m_middle. False, with the powers as they were, if the state turns too sharply on the way, a
/// vent stands on its ramp or a relay would switch.
bool Solver::interpolateMiddle() {
  const std::size_t free = m_explicitPart.size();
  const double* __restrict const start = m_start.T.data();
  const double* __restrict const far = m_doubleEnd.T.data();
  double* __restrict const middle = m_middle.T.data();
  long turns = 0;
  for (std::size_t i = 0; i < free; ++i) turns += std::abs(far[i] - 2.0 * start[i] + middle[i]) > kTurn_K ? 1 : 0;
  for (std::size_t i = 0; i < free; ++i) middle[i] = kEndInFirst * far[i] + 0.75 * start[i] - kBeforeInFirst * middle[i];
  if (turns == 0 && holdsInMiddle() && m_flows.freezing().overshoot_K(m_start.T, m_middle.T) <= 0.0 && !m_flows.ventOnRamp(m_doubleEnd.T) &&
      !m_flows.relayTurns(m_middle.T) && !m_flows.relayTurns(m_doubleEnd.T))
    return true;
  m_power = m_powerBefore;
  return false;
}

/// Takes two steps at once and stands in their middle. False, with nothing changed that another step needs, where that will not do.
bool Solver::advanceDouble(double h) {
  if (!m_options.doubleSteps || m_smoothSteps < 2 || h > kLongestStep_s) return false;
  if (m_doubleStepsBarred > 0) {
    --m_doubleStepsBarred;
    return false;
  }
  if (m_flows.ventOnRamp(m_start.T)) return false; // where it would end, too
  const double s = 4.0 / 3.0 * h;
  m_startIsExact = false;
  m_flows.swapFactors(m_doubleStep.factors);
  bool done = predictDouble(h, s);
  if (done && !(solveStage(m_doubleEnd, s, m_doubleStep) && interpolateMiddle())) {
    done = false;
    m_doubleStepsBarred = kBarredAfterTurn;
  }
  m_flows.swapFactors(m_doubleStep.factors);
  if (!done) return false;
  ++m_doubleSteps;
  splitDouble(s);
  count(m_before_J, m_beforeValue, m_beforeHeat_J, h);
  std::swap(m_end, m_start);    // where the double step began
  std::swap(m_start, m_middle); // its middle
  m_inDoubleStep = true;
  return true;
}

/// The double step's second half.
void Solver::finishDouble(double h) {
  count(m_step_J, m_stepValue, m_stepHeat_J, h);
  m_inDoubleStep = false;
  std::swap(m_middle, m_end);
  std::swap(m_end, m_start);
  std::swap(m_start, m_doubleEnd);
  m_start.value.swap(m_doubleEndValue);
  m_flows.setBoundaries(m_start);
  m_smoothSteps += 2;
  m_flows.settleRelays(m_start.T, 2.0 * h);
}

} // namespace muffle
