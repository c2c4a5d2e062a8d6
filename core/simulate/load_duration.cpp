// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/simulate/load_duration.h"

#include "core/results/heat_sources.h"

#include <algorithm>
#include <functional>
#include <numeric>

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

std::vector<HeaterLoad> loadByHeater(const Plan& plan, const Simulation& run, const Weather& weather, double span_h, std::size_t slices) {
  std::vector<HeaterLoad> loads;
  std::vector<std::vector<double>> hours; // by heater of `loads`: W, an hour each
  std::size_t count = 0;
  for (std::size_t w = 0; w < run.series.size() && w < run.ledgers.size() && w < weather.winters.size(); ++w) {
    const std::size_t steps = run.series[w].sun_W.empty() ? 0 : run.series[w].sun_W.size() - 1;
    std::size_t pieces = 0;
    for (const HeatSource& s : heatBySource(plan, run.series[w], run.ledgers[w], weather.winters[w].step_s, 0, steps, 1)) {
      pieces = s.kWh.size();
      if (s.of != HeatSource::Of::heater) continue;
      auto of = std::find_if(loads.begin(), loads.end(), [&](const HeaterLoad& l) { return l.heater == s.index; });
      if (of == loads.end()) {
        of = loads.insert(loads.end(), {s.index, std::vector<double>(slices, 0.0)});
        hours.emplace_back();
      }
      auto& mine = hours[static_cast<std::size_t>(of - loads.begin())];
      mine.resize(count, 0.0); // of winters in which it gave nothing
      for (const double kWh : s.kWh) mine.push_back(1000.0 * kWh);
    }
    count += pieces;
  }
  if (loads.empty() || slices == 0 || span_h <= 0.0 || run.summary.winters <= 0.0) return {};
  std::vector<double> all(count, 0.0);
  for (auto& mine : hours) {
    mine.resize(count, 0.0);
    for (std::size_t h = 0; h < count; ++h) all[h] += mine[h];
  }
  std::vector<std::size_t> order(count);
  std::iota(order.begin(), order.end(), std::size_t{0});
  std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return all[a] > all[b]; });
  const double perSlice = span_h * run.summary.winters / static_cast<double>(slices);
  for (std::size_t k = 0; k < slices; ++k) {
    const auto from = std::min(static_cast<std::size_t>(perSlice * static_cast<double>(k)), count);
    const auto to = std::min(std::max(static_cast<std::size_t>(perSlice * static_cast<double>(k + 1)), from + 1), count);
    for (std::size_t l = 0; l < loads.size() && from < to; ++l) {
      for (std::size_t h = from; h < to; ++h) loads[l].power_W[k] += hours[l][order[h]];
      loads[l].power_W[k] /= static_cast<double>(to - from);
    }
  }
  std::stable_sort(loads.begin(), loads.end(),
                   [&](const HeaterLoad& a, const HeaterLoad& b) { return plan.heaters[a.heater].stage_K < plan.heaters[b.heater].stage_K; });
  return loads;
}

} // namespace muffle
