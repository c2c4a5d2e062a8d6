// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/network/given_heat.h"

#include <algorithm>

namespace muffle {
namespace {

constexpr double kOnStep = 1e-6; // of a step: times are sums of steps

double valueAt(const std::vector<double>& by, std::size_t i) { return i < by.size() ? by[i] : 0.0; }

} // namespace

double GivenHeat::energy_J(double from_s, double to_s) const {
  double sum_J = 0.0;
  for (auto i = static_cast<std::size_t>(from_s / step_s + kOnStep); from_s < to_s; ++i) {
    const double until_s = std::min(static_cast<double>(i + 1) * step_s, to_s);
    sum_J += valueAt(mean_W, i) * (until_s - from_s);
    from_s = until_s;
  }
  return sum_J;
}

GivenHeat::Steps GivenHeat::steps(double from_s, double h) const {
  const double position = from_s / step_s + kOnStep;
  const auto i = static_cast<std::size_t>(position);
  if (h == step_s && position - static_cast<double>(i) < 2.0 * kOnStep)
    return {valueAt(mean_W, i) * h, valueAt(mean_W, i + 1) * h, valueAt(at_W, i + 1), valueAt(at_W, i + 2), i + 1 >= mean_W.size()};
  const double end_s = from_s + h;
  return {energy_J(from_s, end_s), energy_J(end_s, end_s + h), power_W(end_s), power_W(end_s + h),
          end_s / step_s + kOnStep >= static_cast<double>(mean_W.size())};
}

double GivenHeat::power_W(double t_s) const {
  const double position = t_s / step_s + kOnStep;
  const auto i = static_cast<std::size_t>(position);
  const double past = position - static_cast<double>(i) - kOnStep;
  const double now_W = valueAt(at_W, i);
  return past <= kOnStep ? now_W : now_W + past * (valueAt(at_W, i + 1) - now_W);
}

} // namespace muffle
