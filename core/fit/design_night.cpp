// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/fit/design_night.h"

#include "core/constants.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

constexpr double kEuler = 0.57721566490153286;

std::optional<Problem> wrong(std::span<const double> lows) {
  if (lows.size() < 3) return Problem{ProblemKind::badInput, "", Message{"fit.winters-lows", lows.size()}, Message{"fit.three-winters-needed"}};
  const auto [least, most] = std::minmax_element(lows.begin(), lows.end());
  if (*most - *least < 1e-9) return Problem{ProblemKind::badInput, "", Message{"fit.all-winters-one-low"}, Message{"fit.lows-must-differ"}};
  return std::nullopt;
}

double reduced(double years) { return -std::log(-std::log(1.0 - 1.0 / years)); }

} // namespace

double Gumbel::returnLow_C(double years) const { return m_C - b_K * reduced(years); }

double Gumbel::returnError_K(double years, std::size_t winters) const {
  const double y = reduced(years);
  return b_K * std::sqrt((1.109 + 0.514 * y + 0.608 * y * y) / static_cast<double>(winters));
}

Result<Gumbel> gumbelByMoments(std::span<const double> lows) {
  if (auto problem = wrong(lows)) return *problem;
  const auto n = static_cast<double>(lows.size());
  double mean = 0.0, squares = 0.0;
  for (const double x : lows) mean += x / n;
  for (const double x : lows) squares += (x - mean) * (x - mean);
  const double b = std::sqrt(squares / (n - 1.0)) * std::sqrt(6.0) / kPi;
  return Gumbel{mean + kEuler * b, b};
}

// With z = -x, maxima: b = mean(z) - sum(z e^(-z/b))/sum(e^(-z/b)), m_z = -b ln(mean(e^(-z/b))). The right side falls in b more
// slowly than the left rises, so that bisection finds the one root.
Result<Gumbel> gumbelByLikelihood(std::span<const double> lows) {
  const auto start = gumbelByMoments(lows);
  if (!start) return start.problem();
  const auto n = static_cast<double>(lows.size());
  double mean = 0.0;
  for (const double x : lows) mean -= x / n;
  const auto sums = [&](double b) {
    double weight = 0.0, weighted = 0.0;
    for (const double x : lows) {
      const double w = std::exp(-(-x - mean) / b); // from the mean, so that nothing overflows
      weight += w;
      weighted += -x * w;
    }
    return std::pair{weight, weighted};
  };
  double low = 0.05 * start->b_K, high = 20.0 * start->b_K;
  for (int k = 0; k < 200; ++k) {
    const double b = 0.5 * (low + high);
    const auto [weight, weighted] = sums(b);
    (b < mean - weighted / weight ? low : high) = b;
  }
  const double b = 0.5 * (low + high);
  const double mode = mean - b * std::log(sums(b).first / n);
  return Gumbel{-mode, b};
}

std::optional<LoggedLows> loggedLows(const std::vector<Night>& nights) {
  std::vector<double> lows;
  for (const Night& n : nights)
    if (n.complete && n.outsideLow) lows.push_back(n.outsideLow->value);
  if (lows.empty()) return std::nullopt;
  std::sort(lows.begin(), lows.end());
  constexpr double kShare = 0.01;
  return LoggedLows{lows.size(), lows.front(), lows[static_cast<std::size_t>(kShare * static_cast<double>(lows.size() - 1))]};
}

} // namespace muffle
