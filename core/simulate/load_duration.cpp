// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/simulate/load_duration.h"

#include <algorithm>
#include <functional>

namespace muffle {

LoadDuration::LoadDuration(const Simulation& run, const Weather& weather) {
  for (const WinterSeries& s : run.series)
    if (!s.heater_W.empty()) m_load_W.insert(m_load_W.end(), s.heater_W.begin() + 1, s.heater_W.end()); // the first belongs to no step
  std::sort(m_load_W.begin(), m_load_W.end(), std::greater<>());
  if (!weather.winters.empty() && run.summary.winters > 0.0) m_hoursPerStep = weather.winters.front().step_s / 3600.0 / run.summary.winters;
}

double LoadDuration::hoursAbove_h(double power_W) const {
  const auto end = std::lower_bound(m_load_W.begin(), m_load_W.end(), power_W, [](float load, double limit) { return static_cast<double>(load) > limit; });
  return static_cast<double>(end - m_load_W.begin()) * m_hoursPerStep;
}

double LoadDuration::power_W(double hours_h) const {
  if (m_hoursPerStep <= 0.0 || hours_h < 0.0) return 0.0;
  const auto i = static_cast<std::size_t>(hours_h / m_hoursPerStep);
  return i < m_load_W.size() ? static_cast<double>(m_load_W[i]) : 0.0;
}

} // namespace muffle
