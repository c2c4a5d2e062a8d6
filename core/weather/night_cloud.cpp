// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/weather/night_cloud.h"

#include "core/constants.h"

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

constexpr double kClearest = 0.90;          // quantile that counts as clear
constexpr std::size_t kNightsBefore = 20;   // and the night itself: what comes after it must not change what it was
constexpr double kUsualAdmittance = 1200.0; // moist loam, Oke (1987): counts as kUsualNights nights, so that the first few do not decide alone
constexpr int kUsualNights = 2;
constexpr double kLeastAdmittance = 700.0, kMostAdmittance = 2500.0; // W s^1/2/m2 K: dry peat or mown grass to wet clay, Oke (1987) table 2.1

} // namespace

std::vector<std::optional<double>> cloudFromCooling(std::span<const NightFall> nights, double cloudEffect) {
  std::vector<double> rate(nights.size(), 0.0); // 1/mu, as if clear
  for (std::size_t n = 0; n < nights.size(); ++n)
    if (nights[n].isKnown) rate[n] = nights[n].fall_K / (2.0 / std::sqrt(kPi) * nights[n].clearLoss_W_m2 * std::sqrt(nights[n].hours * 3600.0));
  std::vector<std::optional<double>> cloud(nights.size());
  std::vector<double> beside;
  for (std::size_t n = 0; n < nights.size(); ++n) {
    if (!nights[n].isKnown) continue;
    beside.assign(kUsualNights, 1.0 / kUsualAdmittance);
    for (std::size_t k = n < kNightsBefore ? 0 : n - kNightsBefore; k <= n; ++k)
      if (nights[k].isKnown) beside.push_back(rate[k]);
    const auto at = beside.begin() + static_cast<long>(kClearest * static_cast<double>(beside.size() - 1));
    std::nth_element(beside.begin(), at, beside.end());
    const double clearest = std::clamp(*at, 1.0 / kMostAdmittance, 1.0 / kLeastAdmittance);
    cloud[n] = std::clamp((1.0 - rate[n] / clearest) / cloudEffect, 0.0, 1.0);
  }
  return cloud;
}

} // namespace muffle
