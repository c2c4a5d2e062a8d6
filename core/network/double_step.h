// SPDX-License-Identifier: GPL-3.0-or-later
//
// Double steps: two of Bdf2Step's equal steps taken as one, where the weather goes its way in nearly straight lines. The formula is the same,
// over 2h from the state two steps ago; the middle is read off the parabola through the three states,
//   T(h) = 3/8 T(2h) + 3/4 T(0) - 1/8 T(-2h)
// which must not put a sensor below the setpoint that its heater has power to hold: after a setback the parabola would.
// and the double step's energies E are shared out as that implies, 3/8 E + E0/8 to its first half (E0: those of the two steps before), so that
// each half balances what it stores. What is driven counts with the mean of start, middle and end.
// The caller sees two steps; the second is handed out when it asks for it.
#pragma once

#include "core/network/factored_stage.h"

namespace muffle {

class DoubleStep {
public:
  DoubleStep() = default;
  explicit DoubleStep(const StepContext& c) : m_stage(c), m_end(c.start), m_endValue(c.stepValue) {}
  void reset();
  bool advance(StepContext& c, double h);
  void finish(StepContext& c, double h);
  /// Pairs of steps taken as one.
  [[nodiscard]] long taken() const { return m_taken; }

private:
  bool predict(StepContext& c, double h, double s);
  void split(StepContext& c, double s) const;
  [[nodiscard]] static bool holdsInMiddle(const StepContext& c);
  bool interpolateMiddle(StepContext& c) const;

  FactoredStage m_stage;
  FlowState m_end;                ///< where it ends
  std::vector<double> m_endValue; ///< the driven values there, without the middle's bend
  int m_barred = 0;               ///< steps to go until the next is tried
  long m_taken = 0;
};

} // namespace muffle
