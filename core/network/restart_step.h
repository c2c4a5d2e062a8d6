// SPDX-License-Identifier: GPL-3.0-or-later
//
// The restart after a jump: the singly diagonally implicit method of two stages, second order and L-stable,
//   s = c h, c = 1 - 1/sqrt 2
//   C (Tc - T0) = s fc
//   C (T1 - T0) = (1 - c) h fc + s f1
// It asks nothing of the step before, nor of the flows as they jump, which TR-BDF2 begins with; for the rest both do the same (one
// stability function). Every flow carries (1 - c) h qc + s q1, and a heater has one power for the step.
// Alexander, SIAM J. Numer. Anal. 14 (1977) 1006.
#pragma once

#include "core/network/factored_stage.h"

namespace muffle {

class RestartStep {
public:
  RestartStep() = default;
  explicit RestartStep(const StepContext& c) : m_stage(c), m_firstResponse(m_stage.responses()), m_endBefore(c.delta), m_powerAtStart(c.setpoint) {}
  void forget() { m_stage.forget(); }
  bool advance(StepContext& c, double h);

private:
  const std::vector<double>& responseTo(StepContext& c, std::size_t thermostat, double s);
  bool solveStage(StepContext& c, FlowState& stage, double s, double first);
  double moveStages(StepContext& c);
  bool solve(StepContext& c, double s);

  FactoredStage m_stage;                            ///< of both stages; its responses are those of the end
  std::vector<std::vector<double>> m_firstResponse; ///< those of the first stage
  std::vector<double> m_endBefore;                  ///< the end's temperatures before the round in hand
  std::vector<double> m_powerAtStart;
};

} // namespace muffle
