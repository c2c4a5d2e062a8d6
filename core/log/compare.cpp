// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/log/compare.h"

#include "core/statistics/least_squares.h"

#include <cmath>
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
  Comparison c{summed(first), summed(second), {}};
  if (c.first.nights < kLeastCompared || c.second.nights < kLeastCompared) return std::nullopt;
  std::vector<double> x, y;
  for (const auto* nights : {&first, &second})
    for (const Night& n : *nights) {
      if (!counts(n)) continue;
      const double cloud = std::strcmp(n.sky(), "cloudy") == 0 ? 1.0 : std::strcmp(n.sky(), "part") == 0 ? 0.5 : 0.0;
      x.insert(x.end(), {1.0, nights == &second ? 1.0 : 0.0, n.outsideLow->value, cloud, n.meanWind_m_s, n.heater_kWh});
      y.push_back(*n.lift_K());
    }
  constexpr std::size_t kColumns = 6;
  if (const auto ofTheSecond = leastSquares(x, kColumns, y).coefficients[1]) c.atLikeNights = LiftDifference{ofTheSecond->value, ofTheSecond->standardError};
  return c;
}

} // namespace muffle
