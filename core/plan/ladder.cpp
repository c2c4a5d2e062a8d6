// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/ladder.h"

#include "core/plan/crop_stands.h"

#include <algorithm>

namespace muffle {
namespace {

constexpr double kApart_K = 1.0; ///< vents and thermostats of greenhouses are off by half a degree each

const Setpoints* setpointsOf(const Plan& plan, HeaterPlace::Of room) {
  if (room == HeaterPlace::Of::house) return &plan.setpoints;
  return room == HeaterPlace::Of::bay && plan.house.bay ? &plan.house.bay->setpoints : nullptr;
}

/// What a setpoint may be, by the bands where there are any.
template <class Band> std::pair<double, double> span_C(double fixed_C, const std::vector<Band>& bands) {
  if (bands.empty()) return {fixed_C, fixed_C};
  const auto [low, high] =
      std::minmax_element(bands.begin(), bands.end(), [](const SetpointBand& a, const SetpointBand& b) { return a.setpoint_C < b.setpoint_C; });
  return {low->setpoint_C, high->setpoint_C};
}

bool letsAirOut(RungOf of) { return of == RungOf::vents || of == RungOf::rollUp || of == RungOf::extractFan; }

} // namespace

std::vector<Rung> rungsOf(const Plan& plan, HeaterPlace::Of room) {
  const Setpoints* s = setpointsOf(plan, room);
  if (!s) return {};
  std::vector<Rung> rungs;
  const auto level = [&](RungOf of, double at_C) { rungs.push_back({of, 0, at_C, at_C}); };
  if (room == HeaterPlace::Of::house) {
    level(RungOf::vents, plan.house.ventOpens_C);
    if (plan.house.rollUp) level(RungOf::rollUp, plan.house.rollUp->opens_C);
    if (plan.house.extractFan) level(RungOf::extractFan, plan.house.extractFan->above_C);
  }
  const auto [coldDay, mildDay] = span_C(s->day_C, s->dayBands);
  rungs.push_back({RungOf::day, 0, coldDay, mildDay});
  const auto [low, high] = span_C(s->night_C, s->nightBands);
  rungs.push_back({RungOf::night, 0, low, high});
  for (std::size_t h = 0; h < plan.heaters.size(); ++h) {
    const Heater& heater = plan.heaters[h];
    if (heater.place.of == room && heater.power_W > 0.0 && factsOf(heater.kind).control == HeatControl::thermostat)
      rungs.push_back({RungOf::heater, h, low - heater.stage_K, high - heater.stage_K});
  }
  level(RungOf::hold, s->hold_C);
  const Crops crops(plan.ownCrops);
  for (std::size_t c = 0; c < plan.crops.size(); ++c) {
    if (plan.crops[c].in != (room == HeaterPlace::Of::bay ? CropStand::In::bay : CropStand::In::house)) continue;
    const CropFacts* const crop = crops.find(plan.crops[c].crop);
    if (const auto line_C = crop ? coldLine_C(*crop) : std::nullopt) rungs.push_back({RungOf::crop, 0, *line_C, *line_C, c});
  }
  return rungs;
}

std::vector<LadderConflict> ladderConflicts(const Plan& plan, HeaterPlace::Of room) {
  const Setpoints* s = setpointsOf(plan, room);
  if (!s) return {};
  const std::vector<Rung> rungs = rungsOf(plan, room);
  const bool isHeated = std::any_of(rungs.begin(), rungs.end(), [](const Rung& r) { return r.of == RungOf::heater; });
  std::vector<LadderConflict> conflicts;
  for (const Rung& r : rungs)
    if (r.of == RungOf::crop && s->hold_C < r.low_C) conflicts.push_back({LadderConflictKind::lineHarmsCrop, r, r.low_C - s->hold_C});
  if (!isHeated) return conflicts; // a setpoint that nothing heats to is no rung to fall from
  for (const Rung& r : rungs) {
    if (r.of == RungOf::night && r.low_C < s->hold_C) conflicts.push_back({LadderConflictKind::nightBelowLine, r, s->hold_C - r.low_C});
    if (r.of == RungOf::heater && r.low_C < s->hold_C) conflicts.push_back({LadderConflictKind::heaterBelowLine, r, s->hold_C - r.low_C});
    if (letsAirOut(r.of) && r.low_C < s->warmest_C() + kApart_K)
      conflicts.push_back({LadderConflictKind::airedWhileHeated, r, std::max(0.0, r.low_C - s->warmest_C())});
  }
  // what already lies in the setpoint is not said again of each heater that follows it
  if (std::any_of(conflicts.begin(), conflicts.end(), [](const LadderConflict& c) { return c.kind == LadderConflictKind::nightBelowLine; }))
    std::erase_if(conflicts, [](const LadderConflict& c) { return c.kind == LadderConflictKind::heaterBelowLine; });
  return conflicts;
}

} // namespace muffle
