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
#pragma once

#include "core/network/factored_stage.h"

namespace muffle {

class Bdf2Step {
public:
  Bdf2Step() = default;
  explicit Bdf2Step(const StepContext& c) : m_stage(c) {}
  void forget() { m_stage.forget(); }
  bool advance(StepContext& c, double h);

private:
  bool predict(StepContext& c, double h);
  static void accept(StepContext& c, double h, double s);

  FactoredStage m_stage;
};

} // namespace muffle
