// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/statistics/least_squares.h"

#include <Eigen/QR>

#include <cmath>

namespace muffle {

LeastSquares leastSquares(std::span<const double> x, std::size_t columns, std::span<const double> y) {
  using RowMajor = Eigen::Matrix<double, Eigen::Dynamic, Eigen::Dynamic, Eigen::RowMajor>;
  const auto rows = static_cast<Eigen::Index>(y.size()), all = static_cast<Eigen::Index>(columns);
  Eigen::MatrixXd scaled = Eigen::Map<const RowMajor>(x.data(), rows, all);
  const Eigen::VectorXd target = Eigen::Map<const Eigen::VectorXd>(y.data(), rows);
  Eigen::VectorXd length = Eigen::VectorXd::Ones(all);
  for (Eigen::Index column = 0; column < all; ++column)
    if (const double norm = scaled.col(column).norm(); norm > 0.0) length(column) = norm, scaled.col(column) /= norm;

  constexpr double kDependent = 1e-10; // of columns of length one; what is measured is known to far fewer digits
  Eigen::ColPivHouseholderQR<Eigen::MatrixXd> qr;
  qr.setThreshold(kDependent).compute(scaled);
  const Eigen::Index rank = qr.rank();
  const Eigen::VectorXd solution = qr.solve(target); // 0 where a column is left out
  LeastSquares found{std::vector<std::optional<Coefficient>>(columns), static_cast<std::size_t>(rank), y.size() - static_cast<std::size_t>(rank)};
  double squares = 0.0;
  for (Eigen::Index row = 0; row < rows; ++row) {
    double residual = target(row);
    for (Eigen::Index column = 0; column < all; ++column) residual -= scaled(row, column) * solution(column);
    squares += residual * residual;
  }
  if (found.degreesOfFreedom > 0) found.residualVariance = squares / static_cast<double>(found.degreesOfFreedom);

  // The inverse of R's leading triangle: the squared length of its row is the coefficient's variance by that of the residuals. That row times
  // R's other columns says how much of the coefficient a column left out could take over.
  const auto& r = qr.matrixQR();
  for (Eigen::Index kept = 0; kept < rank; ++kept) {
    Eigen::VectorXd row = Eigen::VectorXd::Zero(rank);
    row(kept) = 1.0 / r(kept, kept);
    for (Eigen::Index j = kept + 1; j < rank; ++j) {
      double sum = 0.0;
      for (Eigen::Index k = kept; k < j; ++k) sum += row(k) * r(k, j);
      row(j) = -sum / r(j, j);
    }
    bool shared = false;
    for (Eigen::Index out = rank; out < all; ++out) {
      double taken = 0.0;
      for (Eigen::Index k = kept; k < rank; ++k) taken += row(k) * r(k, out);
      shared = shared || std::abs(taken) > 1e-6; // a whole share is 1; rounding leaves 1e-10 and less
    }
    if (shared) continue;
    const Eigen::Index column = qr.colsPermutation().indices()(kept);
    double squared = 0.0;
    for (Eigen::Index k = kept; k < rank; ++k) squared += row(k) * row(k);
    found.coefficients[static_cast<std::size_t>(column)] =
        Coefficient{solution(column) / length(column), std::sqrt(found.residualVariance * squared) / length(column)};
  }
  return found;
}

} // namespace muffle
