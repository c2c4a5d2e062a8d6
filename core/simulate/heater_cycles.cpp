// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/simulate/heater_cycles.h"

#include "core/results/heat_sources.h"
#include "core/run/air_response.h"

#include <algorithm>

namespace muffle {
namespace {

void take(HeaterCycles& sum, double& running_s, const HeaterCycle& cycle, double leastRun_s) {
  constexpr double kHour_s = 3600.0;
  const double starts = kHour_s / (cycle.run_s + cycle.rest_s);
  sum.starts += starts;
  running_s += starts * cycle.run_s;
  sum.mostStarts_per_h = std::max(sum.mostStarts_per_h, starts);
  sum.below_K = std::max(sum.below_K, cycle.below_K);
  if (cycle.run_s < leastRun_s) sum.shortStarts += starts;
}

} // namespace

std::vector<HeaterCycles> heaterCycles(const Plan& plan, const Weather& weather, const Simulation& run) {
  std::vector<HeaterCycles> all;
  if (run.ledgers.empty() || weather.winters.empty()) return all;
  // the house as it stands on its setpoint through a calm night as cold as the coldest: within minutes it is much the same on all of them
  double coldest_C = weather.winters.front().outside_C.front();
  for (const Winter& winter : weather.winters) coldest_C = std::min(coldest_C, *std::min_element(winter.outside_C.begin(), winter.outside_C.end()));
  constexpr double kWind_m_s = 1.0, kClear = 0.5;
  const Winter night = steadyWinter(plan.site, coldest_C, kWind_m_s, kClear);
  const Assembly assembly = assemble(plan, night, sunOnHouse(plan.house.shape, night), plan.setpoints.night_C);
  std::vector<double> temperature_C;
  for (const Node& node : assembly.network.nodes) temperature_C.push_back(node.initial_C);
  for (const Assembly::HeaterNodes& nodes : assembly.heaters) {
    const Heater& heater = plan.heaters[nodes.index];
    if (heater.place.of != HeaterPlace::Of::house || factsOf(heater.kind).control != HeatControl::thermostat) continue;
    const auto response = airResponse(assembly.network, 0.0, temperature_C, static_cast<std::size_t>(nodes.thermostat));
    if (!response) continue;
    HeaterCycles sum{nodes.index};
    double running_s = 0.0;
    for (const Ledger& ledger : run.ledgers)
      for (const Meter& meter : ledger.meters()) {
        if (meter.use != MeterUse::heater || meter.index != nodes.index || meter.amount <= 0.0) continue;
        for (const double kWh : heatByHour_kWh(plan, meter))
          if (const auto cycle = cycleOf(heater, *response, 1000.0 * kWh, heater.power_W)) take(sum, running_s, *cycle, factsOf(heater.kind).leastRun_s);
      }
    if (sum.starts <= 0.0) continue;
    sum.mean_run_s = running_s / sum.starts;
    sum.starts /= run.summary.winters;
    sum.shortStarts /= run.summary.winters;
    all.push_back(sum);
  }
  return all;
}

} // namespace muffle
