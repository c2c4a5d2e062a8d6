// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/network/double_step.h"

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

void DoubleStep::reset() {
  m_stage.forget();
  m_barred = 0;
  m_taken = 0;
}

/// Predicts m_end. False if what is driven bends or jumps on the way, or a vent is to stand on its ramp.
bool DoubleStep::predict(StepContext& c, double h, double s) {
  const double middle = c.time + kInside * h;
  const double end = c.time + h + kInside * h;
  if (!c.setpointsStay(middle) || !c.setpointsStay(end) || !c.goOnGiving(h, s, true)) return false;
  c.flows.drive(c.time + h, m_end); // c.middle.T is still needed where free
  std::copy(m_end.T.begin() + c.flows.freeCount(), m_end.T.end(), c.middle.T.begin() + c.flows.freeCount());
  std::swap(m_end.value, c.middle.value);
  c.flows.drive(c.time + 2.0 * h, m_end);
  if (c.flows.drivenBend_K(c.start, c.middle, m_end, s) > kBend_K) {
    m_barred = kBarredAfterBend;
    return false;
  }
  if (!c.flows.modulateOver(middle, end, c.start.T, s, kBend_K)) return false;
  m_endValue = m_end.value;
#pragma GCC unroll 4
  for (std::size_t v = 0; v < m_end.value.size(); ++v) m_end.value[v] = 0.75 * m_end.value[v] + 0.5 * c.middle.value[v] - 0.25 * c.start.value[v];
  c.flows.setBoundaries(m_end);
  m_stage.predict(c, m_end, s);
  return !c.flows.ventOnRamp(m_end.T);
}

/// The double step's energies, shared out: the first half's into c.before_J and its like, the second's into c.step_J.
void DoubleStep::split(StepContext& c, double s) const {
  const auto share = [](double now, double& before, double& last) {
    const double whole = now + (before + last) * (1.0 / 3.0);
    const double first = kEndInFirst * whole + kBeforeInFirst * (before + last);
    before = first;
    last = whole - first;
  };
#pragma GCC unroll 4
  for (std::size_t r = c.explicitPart.size(); r < c.energy_J.size(); ++r) share(s * m_end.f[r], c.before_J[r], c.step_J[r]);
#pragma GCC unroll 4
  for (std::size_t v = 0; v < c.valueIntegral.size(); ++v) share(s * m_end.value[v], c.beforeValue[v], c.stepValue[v]);
  for (std::size_t j = 0; j < c.power.size(); ++j) share(s * c.power[j], c.beforeHeat_J[j], c.stepHeat_J[j]);
}

/// No heater with power to spare leaves its sensor below the setpoint in the middle.
bool DoubleStep::holdsInMiddle(const StepContext& c) {
  for (std::size_t j = 0; j < c.power.size(); ++j) {
    const Thermostat& t = c.network->thermostats[j];
    const std::size_t sensor = c.sensorSlot[j];
    if (t.mode == Thermostat::Mode::ideal && sensor < c.explicitPart.size() && c.power[j] < c.limit[j] && c.middle.T[sensor] < c.setpoint[j] - kBelowSetpoint_K)
      return false;
  }
  return true;
}

/// Reads the middle off the double step's end, into c.middle. False, with the powers as they were, if the state turns too sharply on the way, a
/// vent stands on its ramp or a relay would switch.
bool DoubleStep::interpolateMiddle(StepContext& c) const {
  const std::size_t free = c.explicitPart.size();
  const double* __restrict const start = c.start.T.data();
  const double* __restrict const far = m_end.T.data();
  double* __restrict const middle = c.middle.T.data();
  long turns = 0;
  for (std::size_t i = 0; i < free; ++i) turns += std::abs(far[i] - 2.0 * start[i] + middle[i]) > kTurn_K ? 1 : 0;
  for (std::size_t i = 0; i < free; ++i) middle[i] = kEndInFirst * far[i] + 0.75 * start[i] - kBeforeInFirst * middle[i];
  if (turns == 0 && holdsInMiddle(c) && c.flows.freezing().overshoot_K(c.start.T, c.middle.T) <= 0.0 && !c.flows.ventOnRamp(m_end.T) &&
      !c.flows.relayTurns(c.middle.T) && !c.flows.relayTurns(m_end.T))
    return true;
  c.power = c.powerBefore;
  return false;
}

/// Takes two steps at once and stands in their middle. False, with nothing changed that another step needs, where that will not do.
bool DoubleStep::advance(StepContext& c, double h) {
  if (!c.options.doubleSteps || c.smoothSteps < 2 || h > kLongestStep_s) return false;
  if (m_barred > 0) {
    --m_barred;
    return false;
  }
  if (c.flows.ventOnRamp(c.start.T)) return false; // where it would end, too
  const double s = 4.0 / 3.0 * h;
  c.startIsExact = false;
  m_stage.swapFactors(c);
  bool done = predict(c, h, s);
  if (done && !(m_stage.solve(c, m_end, s) && interpolateMiddle(c))) {
    done = false;
    m_barred = kBarredAfterTurn;
  }
  m_stage.swapFactors(c);
  if (!done) return false;
  ++m_taken;
  split(c, s);
  c.count(c.before_J, c.beforeValue, c.beforeHeat_J, h);
  std::swap(c.end, c.start);    // where the double step began
  std::swap(c.start, c.middle); // its middle
  c.inDoubleStep = true;
  return true;
}

/// The double step's second half.
void DoubleStep::finish(StepContext& c, double h) {
  c.count(c.step_J, c.stepValue, c.stepHeat_J, h);
  c.inDoubleStep = false;
  std::swap(c.middle, c.end);
  std::swap(c.end, c.start);
  std::swap(c.start, m_end);
  c.start.value.swap(m_endValue);
  c.flows.setBoundaries(c.start);
  c.smoothSteps += 2;
  c.flows.settleRelays(c.start.T, 2.0 * h);
}

} // namespace muffle
