// SPDX-License-Identifier: GPL-3.0-or-later
//
// Weights of TR-BDF2 as given in solver.h.
#pragma once

#include <cmath>

namespace muffle::trBdf2 {

inline const double kGamma = 2.0 - std::sqrt(2.0); ///< the trapezium reaches this far into the step
inline const double kD = kGamma / 2.0;             ///< weight of the new value in both stages
inline const double kW = std::sqrt(2.0) / 4.0;     ///< weight of the start and the middle over the whole step

} // namespace muffle::trBdf2
