// SPDX-License-Identifier: GPL-3.0-or-later
//
// Heaters as thermostats of the network: what holds the setpoint as it is, what goes by the clock as one whose setpoint is out of reach, a stove as one
// whose limit is what its loads burn (core/run/fire.h).
#include "core/air/leaf.h"
#include "core/assemble/assembler.h"
#include "core/calendar.h"
#include "core/control/coming_night.h"
#include "core/control/held_setpoint.h"
#include "core/house/stirred_air.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

constexpr double kOutOfReach_C = 500.0; // what goes by the clock gives all it may

bool isLockedOut(const Heater& heater, double outside_C) {
  return (heater.onlyBelow_C && outside_C >= *heater.onlyBelow_C) || (heater.onlyAbove_C && outside_C < *heater.onlyAbove_C);
}

/// Hours between two of a day's, the day round.
double onClock(double difference_h) {
  const double h = difference_h + 24.0;
  return h >= 24.0 ? h - 24.0 : h;
}

} // namespace

/// By step, whether hours, weather and forecast let it give heat; empty if they always do.
std::vector<bool> Assembler::mayHeat(const Heater& heater) const {
  const bool byClock = heater.for_h < 24.0;
  if (!byClock && !heater.onlyBelow_C && !heater.onlyAbove_C && !heater.beforeNightsBelow_C && !heater.onlyBelowPrice_kWh) return {};
  const auto named = TimeZone::named(m_plan.site.timeZone);
  const TimeZone zone = named ? *named : TimeZone::utc();
  std::vector<bool> may = withinHours(m_winter, zone, heater.from_h, heater.for_h);
  const std::vector<double> low = heater.beforeNightsBelow_C ? nightLows_C(m_winter, zone) : std::vector<double>();
  for (std::size_t i = 0; i < may.size(); ++i)
    if (isLockedOut(heater, m_winter.outside_C[i]) || (heater.beforeNightsBelow_C && low[i] >= *heater.beforeNightsBelow_C)) may[i] = false;
  if (heater.onlyBelowPrice_kWh) {
    const Tariff tariff = m_plan.prices.electricity();
    LocalClock clock(zone);
    for (std::size_t i = 0; i < may.size(); ++i) {
      const int hour = clock.hourOfWeek(m_winter.time(i));
      if (tariff.priceAt(hour / 24, hour % 24) >= *heater.onlyBelowPrice_kWh) may[i] = false;
    }
  }
  return may;
}

/// Where its heat goes beside the room's air, as shares of all that its thermostat gives: floor and covers by radiation, the air's humidity by what an unvented
/// flame makes.
std::vector<HeatShare> Assembler::elsewhere(const Heater& heater, const Assembly::Room& room, double counted) const {
  std::vector<HeatShare> shares;
  const HeaterKindFacts& facts = factsOf(heater.kind);
  if (!facts.hasFlue && counted < 1.0) shares.push_back({room.vapour, 1.0 - counted});
  if (heater.through > 0) shares.push_back({warmedWithin(static_cast<std::size_t>(heater.through) - 1), counted * heater.massShare});
  const double radiant = facts.radiantShare * counted * toRoom(heater);
  addStirred(shares, heater, counted * toRoom(heater) - radiant);
  if (radiant <= 0.0) return shares;
  // a body that stands between floor and covers sees as much of one as of the other
  std::vector<int> around;
  if (room.air == m_a.air)
    for (std::size_t g = 0; g < m_a.inner.size(); ++g)
      if (m_a.inner[g] >= 0 && !(m_house.roofVoid && g == static_cast<std::size_t>(FaceGroup::roof)))
        around.push_back(m_a.inner[g]); // a ceiling hides the roof
  const double toFloor = around.empty() ? radiant : 0.5 * radiant;
  if (room.floor >= 0) shares.push_back({room.floor, toFloor});
  for (const int sheet : around) shares.push_back({sheet, 0.5 * radiant / static_cast<double>(around.size())});
  return shares;
}

/// To the covers of the house, or the blanket that hangs before them, what its fan carries there of that share of warm air.
void Assembler::addStirred(std::vector<HeatShare>& shares, const Heater& heater, double warmAir) const {
  if (heater.stirs_m3_h <= 0.0 || warmAir <= 0.0) return;
  const Room& house = m_rooms.front();
  const double changes_per_h = heater.stirs_m3_h / house.space.volume_m3;
  std::vector<StirredFace> faces;
  std::vector<int> nodes;
  for (const CoverPart& part : house.covers->parts()) {
    if (part.overBed) continue;
    const bool isRoof = part.group == FaceGroup::roof;
    faces.push_back({part.area_m2, insideFilm_W_m2K43(part.group), isRoof ? forcedAtRoof_W_m2K(changes_per_h) : forcedAtWalls_W_m2K(changes_per_h)});
    nodes.push_back(part.blanket ? part.blanket->innerNode : part.sheets.back().innerNode);
  }
  const std::vector<double> stirred = stirredShares(faces, heater.power_W * warmAir);
  for (std::size_t i = 0; i < nodes.size(); ++i)
    if (stirred[i] > 0.0) shares.push_back({nodes[i], warmAir * stirred[i]});
}

/// A mass where a flue leads through it or a cable lies in it: the middle of a wall, the foot of what lies on the ground.
int Assembler::warmedWithin(std::size_t mass) const {
  return m_net.find(fmt::format("mass {} {}", mass + 1, m_plan.mass[mass].kind == MassKind::wall ? "middle" : "foot"));
}

/// What a thermostat feels that hangs among the leaves. It takes too little heat to be seen.
int Assembler::leaf() {
  if (m_leaf >= 0) return m_leaf;
  constexpr double kSize_m2 = 1e-3;
  m_leaf = m_net.addNode("leaf", 0.0, m_plan.setpoints.night_C);
  m_net.addConductance(m_leaf, m_a.air, kLeafAir_W_m2K * kSize_m2);
  m_net.addConductance(m_leaf, m_a.floor, kLeafRadiation_W_m2K * kSize_m2);
  m_net.addConductance(m_leaf, m_a.above, kLeafRadiation_W_m2K * kSize_m2);
  return m_leaf;
}

/// The steps at which a stove's loads are put on: from its hour on, every so often, on the days it is lit.
std::vector<std::size_t> Assembler::loadsOf(const Heater& stove) const {
  const auto named = TimeZone::named(m_plan.site.timeZone);
  const TimeZone zone = named ? *named : TimeZone::utc();
  Heater lit = stove;
  lit.for_h = 24.0; // the hour says when it begins
  const std::vector<bool> may = mayHeat(lit);
  std::vector<std::size_t> steps;
  LocalClock clock(zone);
  double hour = clock.hour(m_winter.time(0));
  for (std::size_t i = 1; i < m_winter.size(); ++i) {
    const double next = clock.hour(m_winter.time(i));
    const double moved = onClock(next - hour), due = onClock(stove.from_h - hour);
    hour = next;
    if (due <= 0.0 || due > moved || (!may.empty() && !may[i])) continue;
    for (int n = 0; n < stove.stoking.loads; ++n) {
      const std::size_t at = i + static_cast<std::size_t>(std::lround(n * stove.stoking.every_h * 3600.0 / m_winter.step_s));
      if (at < m_winter.size()) steps.push_back(at);
    }
  }
  std::sort(steps.begin(), steps.end());
  return steps;
}

Thermostat Assembler::thermostatOf(const Heater& heater, Assembly::HeaterNodes& nodes) {
  Thermostat t;
  t.id = heater.id;
  const HeaterKindFacts& facts = factsOf(heater.kind);
  if (!facts.hasFlue) nodes.counted = 1.0 / (1.0 + latentShare(carrierOf(heater)));
  t.power_W = heater.power_W / nodes.counted;
  const auto holds = [&](const Assembly::Room& room, const Setpoints& setpoints) {
    t.sensor = t.heats = room.air;
    if (facts.control == HeatControl::thermostat) {
      const auto named = TimeZone::named(m_plan.site.timeZone);
      if (setpoints.felt == HeldTemperature::leaf) t.sensor = leaf();
      t.setpointSignal = signal(heldSetpoint_C(setpoints, m_winter, named ? *named : TimeZone::utc(), m_night, heater.stage_K + heater.sensorError_K), true);
    } else {
      t.setpoint_C = kOutOfReach_C;
    }
    t.elsewhere = elsewhere(heater, room, nodes.counted);
  };
  switch (heater.place.of) {
  case HeaterPlace::Of::house: holds({m_a.air, m_a.vapour, m_a.floor}, m_plan.setpoints); break;
  case HeaterPlace::Of::bay: holds(m_a.rooms[*otherRoom(m_plan, RoomKind::bay)], m_house.bay->setpoints); break;
  case HeaterPlace::Of::tank: // a stove that is fed so as to hold it, or a boiler with a thermostat of its own
    t.sensor = t.heats = m_tanks[heater.place.index];
    t.setpoint_C = heater.holds_C - heater.stage_K;
    break;
  case HeaterPlace::Of::bed:
    t.sensor = t.heats = bedRoom(heater.place.index).air;
    t.setpoint_C = facts.control == HeatControl::thermostat ? heater.holds_C - heater.stage_K - heater.sensorError_K : kOutOfReach_C;
    t.elsewhere = elsewhere(heater, bedRoom(heater.place.index), nodes.counted);
    break;
  case HeaterPlace::Of::mass:
    t.sensor = t.heats = warmedWithin(heater.place.index);
    t.setpoint_C = heater.holds_C - heater.stage_K - heater.sensorError_K;
    break;
  case HeaterPlace::Of::unknown: break; // no plan has it: check()
  }
  if (facts.control == HeatControl::batches) {
    nodes.loads = loadsOf(heater);
    const BurnCurve curve = burnCurve(heater);
    const double burns_s = curve.rise_s + curve.plateau_s; // loads that may stand at their plateau together, and embers of those before
    const double together = std::min<double>(heater.stoking.loads, 1.0 + std::ceil((burns_s + 3.0 * curve.ember_s) / (heater.stoking.every_h * 3600.0)));
    t.power_W = curve.peak_W * together;
    return t;
  }
  nodes.may = mayHeat(heater);
  const std::vector<bool>& may = nodes.may;
  const bool isHeatPump = heater.kind == HeaterKind::heatPump;
  const bool byCurve = isHeatPump || (heater.kind == HeaterKind::district && !heater.heatPump.empty());
  if (may.empty() && !byCurve) return t;
  std::vector<double> limit(m_winter.size(), 1.0);
  if (byCurve) {
    if (isHeatPump) nodes.perHeat.resize(m_winter.size());
    Heater curve = heater;
    if (!isHeatPump) curve.defrostLoss = 0.0; // no ice on what is delivered
    double most = 0.0;
    for (std::size_t i = 0; i < limit.size(); ++i) {
      const HeatPumpPoint at = heatPumpAt(curve, m_winter.outside_C[i]);
      limit[i] = at.capacity;
      if (isHeatPump) nodes.perHeat[i] = 1.0 / at.cop;
      most = std::max(most, at.capacity);
    }
    if (most > 0.0)
      for (double& l : limit) l /= most;
    t.power_W *= most;
  }
  for (std::size_t i = 0; i < may.size(); ++i)
    if (!may[i]) limit[i] = 0.0;
  t.limitSignal = signal(std::move(limit), true);
  return t;
}

void Assembler::heaters() {
  for (std::size_t i = 0; i < m_plan.heaters.size(); ++i) {
    const Heater& heater = m_plan.heaters[i];
    if (heater.power_W <= 0.0) continue;
    Assembly::HeaterNodes nodes{i, static_cast<int>(m_net.thermostats.size()), heater.place};
    m_net.thermostats.push_back(thermostatOf(heater, nodes));
    if (factsOf(heater.kind).needsMains) m_a.electric.push_back(nodes.thermostat);
    m_a.heaters.push_back(std::move(nodes));
  }
}

} // namespace muffle
