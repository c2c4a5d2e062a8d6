// SPDX-License-Identifier: GPL-3.0-or-later
//
// A few points that stand for a normal distribution: their mean and covariance are its own, each weighs the same (Julier & Uhlmann, A new
// extension of the Kalman filter to nonlinear systems, 1997, with no weight on the middle).
#pragma once

#include <optional>
#include <span>
#include <vector>

namespace muffle {

/// The lower triangle of a covariance, row by row, of as many variables as it is made for: 1, 3, 6, 10, 15 ... numbers.
/// Nothing if it is no covariance: of another length, a variance below 0, or a combination of the variables whose variance would be.
/// Twice as many points as variables, as offsets from the mean; a variable that is known exactly is the same in all.
std::optional<std::vector<std::vector<double>>> sigmaPoints(std::span<const double> lowerTriangle, std::size_t variables);

} // namespace muffle
