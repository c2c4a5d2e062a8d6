// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/statistics/sigma_points.h"

#include <cmath>

namespace muffle {

std::optional<std::vector<std::vector<double>>> sigmaPoints(std::span<const double> lowerTriangle, std::size_t variables) {
  if (lowerTriangle.size() != variables * (variables + 1) / 2) return std::nullopt;
  const auto covariance = [&](std::size_t row, std::size_t column) { return lowerTriangle[row * (row + 1) / 2 + column]; };
  // Cholesky's root, whose column is 0 where nothing is left of a variance: what is measured twice, or not open at all
  std::vector<std::vector<double>> root(variables, std::vector<double>(variables, 0.0));
  for (std::size_t column = 0; column < variables; ++column) {
    double left = covariance(column, column);
    if (!(left >= 0.0)) return std::nullopt;
    const double nothing = 1e-9 * left;
    for (std::size_t k = 0; k < column; ++k) left -= root[column][k] * root[column][k];
    if (left < -nothing) return std::nullopt;
    const double pivot = left > nothing ? std::sqrt(left) : 0.0;
    root[column][column] = pivot;
    for (std::size_t row = column + 1; row < variables; ++row) {
      double with = covariance(row, column);
      for (std::size_t k = 0; k < column; ++k) with -= root[row][k] * root[column][k];
      if (pivot > 0.0)
        root[row][column] = with / pivot;
      else if (!(std::abs(with) <= 1e-6 * std::sqrt(covariance(row, row) * covariance(column, column))))
        return std::nullopt;
    }
  }
  const double far = std::sqrt(static_cast<double>(variables));
  std::vector<std::vector<double>> points;
  for (std::size_t column = 0; column < variables; ++column)
    for (const double side : {far, -far}) {
      std::vector<double>& point = points.emplace_back();
      for (std::size_t row = 0; row < variables; ++row) point.push_back(side * root[row][column]);
    }
  return points;
}

} // namespace muffle
