// SPDX-License-Identifier: GPL-3.0-or-later
//
// How cold a night to design for: from the coldest nights of many winters, by Gumbel's distribution of extremes (1958).
//   minima    P(coldest of a winter < x) = 1 - exp(-exp((x - m)/-b)); x_T = m + b ln(-ln(1 - 1/T)), exceeded in cold once in T
//   moments   b = sd sqrt(6)/pi, m = mean + 0.57722 b
//   likelihood  with z = -x: b = mean(z) - sum(z w)/sum(w), w = exp(-z/b); m = b ln(mean(w)) (Kotz and Nadarajah, Extreme Value
//             Distributions, 2000)
#pragma once

#include "core/log/nights.h"
#include "core/status.h"

#include <optional>
#include <span>

namespace muffle {

struct Gumbel {
  double m_C = 0.0; ///< mode
  double b_K = 0.0; ///< scale, > 0
  /// The low that one winter in `years` goes below; years > 1.
  [[nodiscard]] double returnLow_C(double years) const;
  /// Standard error of that low for n winters, by the likelihood's information: b sqrt(1.109 + 0.514 y + 0.608 y^2)/sqrt n, y the
  /// reduced variate (Kimball 1949). For many winters; within 15 % at thirty.
  [[nodiscard]] double returnError_K(double years, std::size_t winters) const;
};

/// At least three lows that are not all alike.
Result<Gumbel> gumbelByMoments(std::span<const double> annualLow_C);
Result<Gumbel> gumbelByLikelihood(std::span<const double> annualLow_C);

/// What a log's own nights say.
struct LoggedLows {
  std::size_t nights = 0; ///< whole ones with an outside reading
  double coldest_C = 0.0;
  double oneInHundred_C = 0.0; ///< that one night in a hundred is colder than; the coldest of fewer than a hundred
};
/// Nothing without such a night.
std::optional<LoggedLows> loggedLows(const std::vector<Night>& nights);

} // namespace muffle
