// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/store_rules.h"

#include "core/plan/measure_table.h"

#include <algorithm>
#include <vector>

namespace muffle {
namespace {

constexpr double kHeldWithin_K = 0.05;  // tenfold what a double step may leave a setpoint by
constexpr double kLeafBelowAir_K = 5.0; // at most, on a clear night under film: where leaves are held, the air is warmer by as much

struct Span {
  double from_C, to_C;
};

/// What heaters of the house hold its air at: each by its stage, and those that may stand beside them.
std::vector<Span> heldAt(const Plan& plan) {
  double lower_K = kNextStage_K * static_cast<double>(std::count_if(plan.measures.begin(), plan.measures.end(),
                                                                    [](const Measure& m) { return m.kind == MeasureKind::heater; }));
  double higher_K = 0.0;
  for (const Heater& h : plan.heaters) {
    lower_K = std::max(lower_K, h.stage_K + h.sensorError_K);
    higher_K = std::max(higher_K, -h.stage_K - h.sensorError_K);
  }
  lower_K += kHeldWithin_K;
  higher_K += kHeldWithin_K;
  const Setpoints& s = plan.setpoints;
  const bool slides = !s.nightBands.empty() || !s.dayBands.empty() || s.swingAtMost_K || s.ramp_h > 0.0 || s.felt == HeldTemperature::leaf;
  if (!slides) return {{s.night_C - lower_K, s.night_C + higher_K}, {s.day_C - lower_K, s.day_C + higher_K}};
  double least_C = std::min(s.leastNight_C(), s.day_C);
  for (const SetpointBand& band : s.dayBands) least_C = std::min(least_C, band.setpoint_C);
  return {{least_C - lower_K, s.warmest_C() + higher_K + (s.felt == HeldTemperature::leaf ? kLeafBelowAir_K : 0.0)}};
}

} // namespace

bool isHeldWithinARule(const Plan& plan) {
  std::vector<Span> undecided;
  const auto rule = [&](const StoreRule& r) {
    undecided.push_back({r.giveBelow_C, r.giveBelow_C + kRuleBand_K});
    undecided.push_back({r.chargeAbove_C - kRuleBand_K, r.chargeAbove_C});
  };
  for (const GroundPipes& pipes : plan.groundPipes) rule(pipes.rule);
  for (const WaterLoop& loop : plan.waterLoops) rule(loop.rule);
  for (const CompostPile& pile : plan.compost)
    if (pile.place != PilePlace::hotBed) undecided.push_back({pile.giveBelow_C, pile.giveBelow_C + kRuleBand_K});
  const std::vector<Span> held = heldAt(plan);
  return std::any_of(undecided.begin(), undecided.end(), [&](const Span& u) {
    return std::any_of(held.begin(), held.end(), [&](const Span& h) { return h.from_C <= u.to_C && u.from_C <= h.to_C; });
  });
}

} // namespace muffle
