// SPDX-License-Identifier: GPL-3.0-or-later
//
// TR-BDF2, which asks nothing of the step before: second order, L-stable, one matrix per step for both stages.
//   gamma = 2 - sqrt 2, d = gamma/2, w = sqrt 2/4
//   trapezium to t + gamma h:   C (Tg - T) = d h (f + fg)
//   BDF2 to t + h:              C (T1 - T) = h (w f + w fg + d f1)
// Bank et al., IEEE Trans. Computer-Aided Design 4 (1985) 436; Hosea and Shampine, Appl. Numer. Math. 20 (1996) 21.
// Each stage is solved along the slopes at the start of the step. If what the links' curves leave over is more than the
// tolerance, Newton rounds from exact evaluations follow. The step's energies are summed, with the step's weights, from the
// flows that its linear solves imply, so that the balance closes whatever the tolerance; every step starts from exact flows.
//   ideal thermostats   one power per step, found from the step's linear response, within 0..power_W
//   hysteresis          the crossing is located inside the step and the step is split there
#pragma once

#include "core/network/step_context.h"

namespace muffle {

class TrBdf2Step {
public:
  TrBdf2Step() = default;
  explicit TrBdf2Step(const StepContext& c);
  /// A step, in pieces where one is too much. False if no solution was found even after halving it 12 times.
  bool advance(StepContext& c, double h);
  bool solveSteady(StepContext& c);

private:
  double contraction(double update_K) const;
  void imply(StepContext& c, FlowState& stage, double s, std::size_t count);
  const FlowState& base(StepContext& c, const FlowState& stage) const;
  void report(StepContext& c, FlowState& stage);
  double predict(StepContext& c, const FlowState& from, FlowState& to, double s, double* beside);
  bool refine(StepContext& c, FlowState& stage, double s, double previous);
  bool solveMiddle(StepContext& c, double s, double* beside);
  bool settleEnd(StepContext& c, double h, bool refineAnyway = false);
  void takeNext(StepContext& c);
  void explicitPartOfMiddle(StepContext& c, double s);
  void explicitPartOfEnd(StepContext& c, double h, double s);
  bool solveStages(StepContext& c, double h);
  void begin(StepContext& c);
  bool balanceAlgebraic(StepContext& c);
  void sumStep(StepContext& c, double outer, double last);
  void accept(StepContext& c, double h);
  bool advancePiece(StepContext& c, double h);
  void middleUnit(StepContext& c, std::size_t j, double s);
  void endUnit(StepContext& c, std::size_t j, double h, double s);
  void unitResponses(StepContext& c, double h);
  IdealThermostats::Outcome choosePowers(StepContext& c, double h);
  void shift(StepContext& c, FlowState& stage, double s, const std::vector<std::vector<double>>& response, double& furthest);
  bool holdSetpoints(StepContext& c, double h);
  bool advanceSmooth(StepContext& c, double h);
  void passThresholds(StepContext& c);
  double crossingTarget(StepContext& c, std::size_t j) const;
  double switchTime(StepContext& c, double h, std::size_t& which);
  bool bisectSwitch(StepContext& c, double h, double guess, std::size_t which, double& used);

  std::vector<double> m_nextFlows; ///< exact ones at the end, by row, while the end holds those its linear solve implies
  bool m_haveNextFlows = false;
  double m_endMoved_K = 0.0;        ///< the furthest that the end stage's linear solve moved anything
  FlowSlopes m_slopes, m_endSlopes; ///< for this step's matrix; for the next one's
  double m_slopesOff_K = 0.0;       ///< the state has moved this far since m_slopes were taken
  double m_endSlopesOff_K = 0.0;
  std::vector<double> m_storing;                                    ///< by free slot: 1, or 0 for an algebraic node
  std::vector<double> m_moved;                                      ///< by slot: what the reported rows are to follow
  std::vector<double> m_work;                                       ///< by row
  std::vector<std::vector<double>> m_responseMiddle, m_responseEnd; ///< by thermostat, free slot: K/W
  std::size_t m_besideStages = 0;                                   ///< the ideal thermostat whose responses are solved for with the stages
  bool m_besideIsCurrent = false;                                   ///< they belong to the matrix in force
};

} // namespace muffle
