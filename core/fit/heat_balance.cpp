// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/fit/heat_balance.h"

#include "core/statistics/least_squares.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

double medianOf(std::vector<double>& v) {
  const auto middle = v.begin() + static_cast<std::ptrdiff_t>(v.size() / 2);
  std::nth_element(v.begin(), middle, v.end());
  if (v.size() % 2 == 1) return *middle;
  return 0.5 * (*middle + *std::max_element(v.begin(), middle));
}

} // namespace

Result<HeatBalance> fitHeatBalance(std::span<const double> inside, std::span<const double> outside, std::span<const double> heater, double step_s) {
  constexpr std::size_t kLeast = 10;
  std::vector<std::size_t> usable;
  for (std::size_t i = 1; i + 1 < inside.size(); ++i)
    if (std::isfinite(inside[i - 1]) && std::isfinite(inside[i]) && std::isfinite(inside[i + 1]) && std::isfinite(outside[i]) && std::isfinite(heater[i]))
      usable.push_back(i);
  if (usable.size() < kLeast)
    return Problem{ProblemKind::badInput, "", Message{"fit.samples-heater-inside-outside", usable.size()}, Message{"fit.at-least", kLeast}};
  std::vector<double> x, power;
  for (const std::size_t i : usable) {
    x.insert(x.end(), {inside[i] - outside[i], (inside[i + 1] - inside[i - 1]) / (2.0 * step_s)});
    power.push_back(heater[i]);
  }
  const LeastSquares found = leastSquares(x, 2, power);
  const auto &loss = found.coefficients[0], &mass = found.coefficients[1];
  if (!loss || !mass) return Problem{ProblemKind::noSolution, "", Message{"fit.readings-cannot-tell-loss"}, Message{"fit.heater-must-have-changed"}};
  return HeatBalance{loss->value, mass->value, loss->standardError, mass->standardError, std::sqrt(found.residualVariance), usable.size()};
}

Result<CoolDown> fitCoolDown(std::span<const double> inside, double outside_C, double step_s) {
  std::vector<double> t, y;
  for (std::size_t i = 0; i < inside.size(); ++i) {
    if (!(inside[i] > outside_C)) continue;
    t.push_back(step_s * static_cast<double>(i));
    y.push_back(std::log(inside[i] - outside_C));
  }
  if (t.size() < 3) return Problem{ProblemKind::badInput, "", Message{"fit.samples-above-outside", t.size()}, Message{"fit.three-winters-needed"}};
  const auto n = static_cast<double>(t.size());
  double meanT = 0.0, meanY = 0.0;
  for (std::size_t i = 0; i < t.size(); ++i) meanT += t[i] / n, meanY += y[i] / n;
  double tt = 0.0, ty = 0.0;
  for (std::size_t i = 0; i < t.size(); ++i) tt += (t[i] - meanT) * (t[i] - meanT), ty += (t[i] - meanT) * (y[i] - meanY);
  const double slope = ty / tt;
  if (!(slope < 0.0)) return Problem{ProblemKind::noSolution, "", Message{"fit.inside-does-not-cool"}, Message{"fit.choose-stretch-without-heat"}};
  double squares = 0.0;
  for (std::size_t i = 0; i < t.size(); ++i) squares += std::pow(y[i] - meanY - slope * (t[i] - meanT), 2);
  const double seSlope = std::sqrt(squares / (n - 2.0) / tt);
  return CoolDown{-1.0 / slope, seSlope / (slope * slope)};
}

Result<RobustLine> robustLine(std::span<const double> x, std::span<const double> y) {
  const std::size_t n = x.size();
  constexpr std::size_t kLeast = 4;
  if (n < kLeast) return Problem{ProblemKind::badInput, "", Message{"fit.points", n}, Message{"fit.at-least", kLeast}};
  std::vector<double> slopes;
  for (std::size_t i = 0; i < n; ++i)
    for (std::size_t j = i + 1; j < n; ++j)
      if (x[i] != x[j]) slopes.push_back((y[j] - y[i]) / (x[j] - x[i]));
  if (slopes.empty()) return Problem{ProblemKind::badInput, "", Message{"fit.points-have-one-x"}, Message{"fit.two-points-needed"}};
  RobustLine line;
  line.slope = medianOf(slopes);
  std::sort(slopes.begin(), slopes.end());
  const auto count = static_cast<double>(slopes.size()), points = static_cast<double>(n);
  constexpr double k95 = 1.96; // of the normal that Kendall's statistic tends to
  const double spread = k95 * std::sqrt(points * (points - 1.0) * (2.0 * points + 5.0) / 18.0);
  const auto rank = [&](double r) { return slopes[static_cast<std::size_t>(std::clamp(std::round(r), 0.0, count - 1.0))]; };
  line.low = rank((count - spread) / 2.0 - 1.0);
  line.high = rank((count + spread) / 2.0);
  std::vector<double> rest;
  for (std::size_t i = 0; i < n; ++i) rest.push_back(y[i] - line.slope * x[i]);
  line.intercept = medianOf(rest);
  return line;
}

} // namespace muffle
