// SPDX-License-Identifier: GPL-3.0-or-later
//
// Measured loss against the sum of the parts: which single input would explain the gap, and what it would have to be.
#pragma once

#include "core/fit/quick_fit.h"
#include "core/simulate/simulate.h"

#include <string>
#include <vector>

namespace muffle {

enum class GapInput { heaterReading, draughts, leaks, skin };

struct Explanation {
  GapInput input = GapInput::heaterReading;
  double entered = 0.0; ///< W; air changes an hour in still air, or, where draughts go by leakage area, cm2; 1 for the skin
  double needed = 0.0;
  [[nodiscard]] double factor() const { return entered > 0.0 ? needed / entered : 0.0; }
};

struct MeasuredAgainstParts {
  double measured_W_K = 0.0;
  double standardError_W_K = 0.0;
  double calculated_W_K = 0.0; ///< under the mean night of the measurement
  double inside_C = 0.0, outside_C = 0.0, wind_m_s = 0.0;
  std::vector<Explanation> explains; ///< nearest to what was entered first; empty where the two agree within two errors
};

/// Problem if the fit has no heated nights or the plan's loss cannot be found.
Result<MeasuredAgainstParts> againstParts(const Plan& plan, const QuickFit& fit);

} // namespace muffle
