// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/simulate/store_nights.h"

#include <algorithm>
#include <cmath>

namespace muffle {

double energyOver_kWh(const std::vector<float>& power_W, std::size_t from, std::size_t to, double step_s) {
  double sum_W = 0.0;
  for (std::size_t i = from + 1; i <= to && i < power_W.size(); ++i) sum_W += static_cast<double>(power_W[i]);
  return sum_W * step_s / 3.6e6;
}

std::vector<const NightResult*> coldestNights(const Simulation& run, std::size_t stores, std::size_t count) {
  std::vector<const NightResult*> nights;
  for (const NightResult& n : run.nights)
    if (n.assessable) nights.push_back(&n);
  if (nights.size() <= count) return {};
  std::partial_sort(nights.begin(), nights.begin() + static_cast<std::ptrdiff_t>(count), nights.end(),
                    [](const NightResult* a, const NightResult* b) { return a->outsideLow_C < b->outsideLow_C; });
  nights.resize(count);
  if (std::any_of(nights.begin(), nights.end(),
                  [&](const NightResult* n) { return n->winter >= run.series.size() || run.series[n->winter].stores.size() != stores; }))
    return {};
  return nights;
}

StoreDay storeDay(const std::vector<float>& given_W, const NightResult& night, double step_s) {
  const auto half = static_cast<std::size_t>(43200.0 / step_s);
  const std::size_t middle = (night.from + night.to) / 2;
  StoreDay day;
  for (std::size_t i = middle > half ? middle - half + 1 : 1; i <= middle + half && i < given_W.size(); ++i) {
    const double given_kWh = static_cast<double>(given_W[i]) * step_s / 3.6e6;
    (given_kWh > 0.0 ? day.given_kWh : day.taken_kWh) += std::abs(given_kWh);
  }
  return day;
}

} // namespace muffle
