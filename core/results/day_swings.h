// SPDX-License-Identifier: GPL-3.0-or-later
//
// How evenly a house is kept: from the coldest to the warmest of each day, and how often its air passes through freezing.
#pragma once

#include <span>

namespace muffle {

class DaySwings {
public:
  /// One winter's air at steps of `step_s`, whole days of it from the first.
  void add(std::span<const float> air_C, double step_s);
  [[nodiscard]] double mean_K() const { return m_days > 0 ? m_sum_K / m_days : 0.0; }
  [[nodiscard]] double most_K() const { return m_most_K; }
  /// Thawings: times that it rose above 0 degC by half a kelvin after it had been half a kelvin below.
  [[nodiscard]] int thawings() const { return m_thawings; }

private:
  double m_sum_K = 0.0, m_most_K = 0.0;
  int m_days = 0, m_thawings = 0;
};

} // namespace muffle
