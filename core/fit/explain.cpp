// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/fit/explain.h"

#include <algorithm>
#include <cmath>

namespace muffle {

Result<MeasuredAgainstParts> againstParts(const Plan& plan, const QuickFit& fit) {
  if (fit.heated.empty() || fit.UA_W_K() <= 0.0)
    return Problem{ProblemKind::badInput, "log", Message{"fit.no-nights-measured-heater"}, Message{"fit.log-heaters-watts-run"}};
  MeasuredAgainstParts both;
  both.measured_W_K = fit.UA_W_K();
  both.standardError_W_K = fit.standardError_W_K();
  double heater_W = 0.0;
  const auto n = static_cast<double>(fit.heated.size());
  for (const QuickNight& night : fit.heated) {
    both.inside_C += night.inside_C / n;
    both.outside_C += (night.inside_C - night.lift_K) / n;
    both.wind_m_s += night.wind_m_s / n;
    heater_W += night.heater_W / n;
  }
  constexpr double kHalfClear = 0.5;
  // two lifts: their difference is what a kelvin more costs, as the measured line has it; ground and sky drop out
  const double wind = both.wind_m_s > 0.0 ? both.wind_m_s : plan.site.wind_m_s;
  const double colder = both.outside_C - 5.0, milder = both.outside_C + 5.0;
  const auto cold = steadyLoss(plan, both.inside_C, colder, wind, kHalfClear), mild = steadyLoss(plan, both.inside_C, milder, wind, kHalfClear);
  if (!cold) return cold.problems();
  if (!mild) return mild.problems();
  both.calculated_W_K = (cold->total_W - mild->total_W) / (milder - colder);
  const double gap = both.measured_W_K - both.calculated_W_K;
  constexpr double kErrors = 2.0;
  if (std::abs(gap) <= kErrors * both.standardError_W_K) return both;
  const auto partOf = [&](auto is) {
    double sum = 0.0;
    for (std::size_t p = 0; p < cold->parts.size(); ++p)
      if (is(cold->parts[p].part)) sum += (cold->parts[p].loss_W - mild->parts[p].loss_W) / (milder - colder);
    return sum;
  };
  const double draughts = partOf([](LossPath p) { return p == LossPath::draughts; });
  const double skin = partOf([](LossPath p) { return p == LossPath::roof || p == LossPath::sides || p == LossPath::ends || p == LossPath::backWall; });
  both.explains.push_back({GapInput::heaterReading, heater_W, heater_W * both.calculated_W_K / both.measured_W_K});
  if (draughts + gap > 0.0 && draughts > 0.0) {
    const auto& leaks = plan.house.leakage;
    const double entered = leaks ? leaks->area_cm2 : plan.house.airChanges_per_h;
    both.explains.push_back({leaks ? GapInput::leaks : GapInput::draughts, entered, entered * (draughts + gap) / draughts});
  }
  if (skin + gap > 0.0 && skin > 0.0) both.explains.push_back({GapInput::skin, 1.0, (skin + gap) / skin});
  std::stable_sort(both.explains.begin(), both.explains.end(),
                   [](const Explanation& a, const Explanation& b) { return std::abs(std::log(a.factor())) < std::abs(std::log(b.factor())); });
  return both;
}

} // namespace muffle
