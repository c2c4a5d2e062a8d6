// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/network/bdf2_step.h"

namespace muffle {

/// False if something jumps at the start of the step.
bool Bdf2Step::predict(StepContext& c, double h) {
  if (!c.flows.modulate(c.time + kInside * h) || !c.setpointsStay(c.time + kInside * h) || !c.goOnGiving(h, 2.0 / 3.0 * h, false)) return false;
  const std::size_t free = c.explicitPart.size();
  std::copy_n(c.end.T.begin(), free, c.middle.T.begin()); // for a double step to come
  c.flows.drive(c.time + h, c.end);
  m_stage.predict(c, c.end, 2.0 / 3.0 * h);
  return !c.flows.ventTurns(c.start.T, c.end.T);
}

/// Takes the step.
void Bdf2Step::accept(StepContext& c, double h, double s) {
  const auto shift = [](double now, double& before, double& last) {
    before = last;
    last = now + before * (1.0 / 3.0);
  };
#pragma GCC unroll 4
  for (std::size_t r = c.explicitPart.size(); r < c.energy_J.size(); ++r) shift(s * c.end.f[r], c.before_J[r], c.step_J[r]);
#pragma GCC unroll 4
  for (std::size_t v = 0; v < c.valueIntegral.size(); ++v) shift(s * c.end.value[v], c.beforeValue[v], c.stepValue[v]);
  for (std::size_t j = 0; j < c.power.size(); ++j) shift(s * c.power[j], c.beforeHeat_J[j], c.stepHeat_J[j]);
  c.count(c.step_J, c.stepValue, c.stepHeat_J, h);
  std::swap(c.start, c.end);
  ++c.smoothSteps;
  // water that appears on a film or is gone changes some links a little: the line of the last step still holds within a few
  // minutes of its time, and only the matrix is made anew; a thermostat's switch shows in the modulators of the next step
  c.flows.settleRelays(c.start.T, h);
}

/// One step of the length of the one before. False, with nothing changed that a step by TR-BDF2 needs, if something jumps.
bool Bdf2Step::advance(StepContext& c, double h) {
  const double s = 2.0 / 3.0 * h;
  c.startIsExact = false;
  if (!predict(c, h)) return false;
  m_stage.swapFactors(c);
  const bool done = m_stage.solve(c, c.end, s);
  m_stage.swapFactors(c);
  if (done) accept(c, h, s);
  return done;
}

} // namespace muffle
