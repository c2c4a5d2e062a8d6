// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/network/given_heat.h"

#include <algorithm>

namespace muffle {
namespace {

constexpr double kOnStep = 1e-6; // of a step: times are sums of steps

GivenHeat::Part partAt(const std::vector<GivenHeat::Part>& parts, std::size_t i) { return i < parts.size() ? parts[i] : GivenHeat::Part{}; }

} // namespace

double GivenHeat::energy_J(double from_s, double to_s) const {
  double sum_J = 0.0;
  for (auto i = static_cast<std::size_t>(from_s / step_s + kOnStep); from_s < to_s; ++i) {
    const double until_s = std::min(static_cast<double>(i + 1) * step_s, to_s);
    sum_J += partAt(parts, i).mean_W * (until_s - from_s);
    from_s = until_s;
  }
  return sum_J;
}

GivenHeat::Steps GivenHeat::steps(double from_s, double h) const {
  const double position = from_s / step_s + kOnStep;
  const auto i = static_cast<std::size_t>(position);
  if (h == step_s && position - static_cast<double>(i) < 2.0 * kOnStep)
    return i + 2 < parts.size() ? Steps{parts[i].mean_W * h, parts[i + 1].mean_W * h, parts[i + 1].at_W, parts[i + 2].at_W, false}
                                : Steps{partAt(parts, i).mean_W * h, partAt(parts, i + 1).mean_W * h, partAt(parts, i + 1).at_W, 0.0, i + 2 >= parts.size()};
  const double end_s = from_s + h;
  return {energy_J(from_s, end_s), energy_J(end_s, end_s + h), power_W(end_s), power_W(end_s + h),
          end_s / step_s + kOnStep >= static_cast<double>(parts.size()) - 1.0};
}

double GivenHeat::power_W(double t_s) const {
  const double position = t_s / step_s + kOnStep;
  const auto i = static_cast<std::size_t>(position);
  const double past = position - static_cast<double>(i) - kOnStep;
  const double now_W = partAt(parts, i).at_W;
  return past <= kOnStep ? now_W : now_W + past * (partAt(parts, i + 1).at_W - now_W);
}

} // namespace muffle
