// SPDX-License-Identifier: GPL-3.0-or-later
//
// How cold a night to design for: from the coldest nights of many winters, by Gumbel's distribution of extremes (1958).
//   minima    P(coldest of a winter < x) = 1 - exp(-exp((x - m)/-b)); x_T = m + b ln(-ln(1 - 1/T)), exceeded in cold once in T
//   moments   b = sd sqrt(6)/pi, m = mean + 0.57722 b
//   likelihood  b solves b = sum(x w)/sum(w) - ... (written for maxima of -x): Kotz and Nadarajah, Extreme Value Distributions
#pragma once

#include "core/status.h"

#include <span>

namespace muffle {

struct Gumbel {
  double m_C = 0.0; ///< mode
  double b_K = 0.0; ///< scale, > 0
  /// The low that one winter in `years` goes below; years > 1.
  [[nodiscard]] double returnLow_C(double years) const;
  /// Standard error of that low for n winters, by the likelihood's information: b sqrt(1.109 + 0.514 y + 0.608 y^2)/sqrt n, y the
  /// reduced variate.
  [[nodiscard]] double returnError_K(double years, std::size_t winters) const;
};

/// At least three lows that are not all alike.
Result<Gumbel> gumbelByMoments(std::span<const double> annualLow_C);
Result<Gumbel> gumbelByLikelihood(std::span<const double> annualLow_C);

} // namespace muffle
