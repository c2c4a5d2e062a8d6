// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <vector>

namespace muffle {

struct SolverOptions {
  /// A stage is accepted when its next Newton update would be below this, K. Changes the answer by a fifth of it (rms over
  /// the demo season; a step of 600 s itself is right to 2e-3 rms); tighter costs up to two more evaluations per stage.
  double newtonTolerance_K = 2e-3;
  /// A hysteresis switch is located to this closeness of its threshold, K.
  double switchTolerance_K = 1e-3;
  /// Equal steps in which nothing jumps go by two-step BDF (see bdf2_step.cpp), those after a jump as restart_step.cpp has it, for seasons: 0.4 of the time,
  /// and 0.014 K rms off instead of 0.002 K (docs/performance.md).
  bool multistep = false;
  /// Two of those steps are taken as one where the weather and the house go on in nearly straight lines (see double_step.cpp): 0.7 of the time
  /// again, and 0.03 to 0.05 K rms off.
  bool doubleSteps = true;
  /// Groups of links whose energy is wanted: by link, then by vent, the group (0..) or -1. May be empty.
  std::vector<int> groupOfLink = {};
};

} // namespace muffle
