// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cmath>

namespace muffle {

/// Rounded to what the figure can bear, so that the JSON does not pretend.
inline double digits(double value, int decimals) {
  const double scale = std::pow(10.0, decimals);
  return std::round(value * scale) / scale;
}

} // namespace muffle
