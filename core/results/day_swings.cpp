// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/results/day_swings.h"

#include "core/constants.h"

#include <algorithm>
#include <cmath>

namespace muffle {

void DaySwings::add(std::span<const float> air_C, double step_s) {
  const auto perDay = static_cast<std::size_t>(std::lround(kDay_s / step_s));
  for (std::size_t from = 0; perDay > 0 && from + perDay <= air_C.size(); from += perDay) {
    const auto day = air_C.subspan(from, perDay);
    const auto [low, high] = std::minmax_element(day.begin(), day.end());
    const auto swing_K = static_cast<double>(*high - *low);
    m_sum_K += swing_K;
    m_most_K = std::max(m_most_K, swing_K);
    ++m_days;
  }
  constexpr float kSure_K = 0.5F; // a sensor that wavers about freezing is no thaw
  bool isFrozen = false;
  for (const float at : air_C) {
    if (at < -kSure_K) isFrozen = true;
    if (isFrozen && at > kSure_K) {
      isFrozen = false;
      ++m_thawings;
    }
  }
}

} // namespace muffle
