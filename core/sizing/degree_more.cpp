// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sizing/degree_more.h"

#include "core/plan/crop_stands.h"
#include "core/plan/heaters.h"
#include "core/sizing/try_each.h"

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {
constexpr double kLeast_C = 0.0, kMost_C = 20.0;
}

double nightSetpoint_C(const Plan& plan) { return plan.setpoints.leastNight_C(); }

Plan withNightSetpoint(const Plan& plan, double night_C) {
  Plan p = plan;
  const double by_K = night_C - nightSetpoint_C(plan);
  p.setpoints.night_C += by_K;
  double warmest_C = p.setpoints.nightBands.empty() ? p.setpoints.night_C : -1e9;
  for (SetpointBand& band : p.setpoints.nightBands) {
    band.setpoint_C += by_K;
    warmest_C = std::max(warmest_C, band.setpoint_C);
  }
  p.setpoints.day_C = std::max(p.setpoints.day_C, warmest_C);
  for (SetpointBand& band : p.setpoints.dayBands) band.setpoint_C = std::max(band.setpoint_C, warmest_C);
  return p;
}

Result<std::vector<DegreePoint>> degreeMore(const Plan& plan, std::shared_ptr<const Weather> weather, const SizingOptions& options, double step_K) {
  if (heaterPower_W(plan, {HeaterPlace::Of::house}) <= 0.0)
    return Problem{ProblemKind::badInput, "/heaters", Message{"sizing.no-heater-stands-house"}, Message{"sizing.setpoint-needs-one-add"}};
  const GrowthResponse crop = growthResponseOf(plan);
  const double now_C = nightSetpoint_C(plan);
  std::vector<double> setpoints{now_C};
  for (double at = now_C - step_K; at >= kLeast_C; at -= step_K) setpoints.insert(setpoints.begin(), at);
  for (double at = now_C + step_K; at <= kMost_C; at += step_K) setpoints.push_back(at);
  std::vector<Plan> plans;
  for (const double at : setpoints) plans.push_back(withNightSetpoint(plan, at));
  std::vector<DegreePoint> points(setpoints.size());
  const auto problem = tryEach(plans, weather, options, [&](std::size_t i, const Simulation& run) {
    const Summary& s = run.summary;
    DegreePoint& p = points[i];
    p = {setpoints[i], s.held, s.nights, s.coldest_C, s.heater_kWh / s.winters, s.cost.energy, s.cost.hours, s.heaterPeak_W};
    Growth growth;
    for (std::size_t w = 0; w < run.series.size(); ++w) growth += growthOver(run.series[w].air_C, run.series[w].light_W_m2, weather->winters[w].step_s, crop);
    p.growth_d = growth.days / s.winters;
    p.lightShort_d = growth.lightShort_d / s.winters;
  });
  if (problem) return *problem;
  std::erase_if(points, [](const DegreePoint& p) { return p.nights == 0; });
  return points;
}

} // namespace muffle
