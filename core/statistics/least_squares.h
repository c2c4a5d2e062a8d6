// SPDX-License-Identifier: GPL-3.0-or-later
//
// Ordinary least squares, y = X b + e, by a QR decomposition with column pivoting (Golub & Van Loan, Matrix Computations, 4th ed., 5.4 and 5.5),
// with each coefficient's standard error (Draper & Smith, Applied Regression Analysis, 3rd ed., 5.3). Columns may be of any units: they are
// brought to one length first. The one regression of core, so that its decomposition is compiled once.
#pragma once

#include <cstddef>
#include <optional>
#include <span>
#include <vector>

namespace muffle {

struct Coefficient {
  double value = 0.0;
  double standardError = 0.0; ///< 0 where nothing is left to judge it by (as many columns as rows)
};

struct LeastSquares {
  /// One a column; nothing where the rows cannot tell it from the others (a column of zeros, or one that is a sum of others).
  std::vector<std::optional<Coefficient>> coefficients;
  std::size_t rank = 0;
  std::size_t degreesOfFreedom = 0; ///< rows less rank
  double residualVariance = 0.0;    ///< sum of squared residuals by degree of freedom; 0 if there is none left
};

/// `x` row by row, `y.size()` rows of `columns` finite numbers each, at least one of either.
LeastSquares leastSquares(std::span<const double> x, std::size_t columns, std::span<const double> y);

} // namespace muffle
