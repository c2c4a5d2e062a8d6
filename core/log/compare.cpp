// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/log/compare.h"

#include <Eigen/Dense>

#include <cstring>

namespace muffle {
namespace {

constexpr std::size_t kLeastCompared = 8;

bool counts(const Night& n) { return n.complete && n.lift_K().has_value(); }

NightSet summed(const std::vector<Night>& nights) {
  NightSet set;
  for (const Night& n : nights) {
    if (!counts(n)) continue;
    ++set.nights;
    set.meanLift_K += *n.lift_K();
    set.meanOutsideLow_C += n.outsideLow->value;
    set.meanHeater_kWh += n.heater_kWh;
  }
  if (set.nights == 0) return set;
  const auto of = static_cast<double>(set.nights);
  set.meanLift_K /= of, set.meanOutsideLow_C /= of, set.meanHeater_kWh /= of;
  return set;
}

} // namespace

std::optional<Comparison> compareNights(const std::vector<Night>& first, const std::vector<Night>& second) {
  Comparison c{summed(first), summed(second)};
  if (c.first.nights < kLeastCompared || c.second.nights < kLeastCompared) return std::nullopt;
  constexpr Eigen::Index kColumns = 6;
  const auto rows = static_cast<Eigen::Index>(c.first.nights + c.second.nights);
  Eigen::MatrixXd x(rows, kColumns);
  Eigen::VectorXd y(rows);
  Eigen::Index row = 0;
  for (const auto* nights : {&first, &second})
    for (const Night& n : *nights) {
      if (!counts(n)) continue;
      const double cloud = std::strcmp(n.sky(), "cloudy") == 0 ? 1.0 : std::strcmp(n.sky(), "part") == 0 ? 0.5 : 0.0;
      x.row(row) << 1.0, nights == &second ? 1.0 : 0.0, n.outsideLow->value, cloud, n.meanWind_m_s, n.heater_kWh;
      y(row++) = *n.lift_K();
    }
  // a column that never varies, such as the heater of an unheated house, is left out: the decomposition finds the rank
  const Eigen::CompleteOrthogonalDecomposition<Eigen::MatrixXd> solved(x);
  const Eigen::VectorXd found = solved.solve(y);
  const auto freedom = static_cast<double>(rows - solved.rank());
  if (freedom < 1.0) return std::nullopt;
  const double variance = (y - x * found).squaredNorm() / freedom;
  const Eigen::MatrixXd inverse = solved.pseudoInverse();
  c.atLikeNights_K = found(1);
  c.standardError_K = std::sqrt(variance * inverse.row(1).squaredNorm());
  return c;
}

} // namespace muffle
