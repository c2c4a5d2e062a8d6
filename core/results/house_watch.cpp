// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/results/house_watch.h"

#include "core/assemble/blanket.h"
#include "core/calendar.h"

#include <algorithm>
#include <span>

namespace muffle {
namespace {
bool isSleeping(double hour) { return hour >= 23.0 || hour < 6.0; }

} // namespace

HouseWatch::HouseWatch(const Plan& plan, const Assembly& assembly, const Winter& winter, Ledger& ledger)
    : m_plan(plan), m_ledger(ledger), m_fan_kWh(assembly.fans.size(), 0.0), m_blanket(assembly.blanketClosed), m_air(winter.size()),
      m_heater(winter.size(), 0.0F), m_rooms(assembly.rooms.size(), std::vector<float>(winter.size())) {
  for (const Assembly::HeaterNodes& nodes : assembly.heaters) {
    const Heater& heater = plan.heaters[nodes.index];
    const bool heatsRoom = heater.place.isRoom();
    const Metered of = carrierOf(heater) == Carrier::electricity ? Metered::electricity : Metered::fuel;
    const bool isHeatPump = !nodes.perHeat.empty();
    m_heaters.push_back({&nodes, &heater, nodes.thermostat, nodes.counted, heatsRoom, isHeatPump,
                         isHeatPump || !heater.partLoad.empty() || heater.standby_W > 0.0, 1.0 / efficiencyOf(heater),
                         ledger.meter(of, heatsRoom ? MeterUse::heater : MeterUse::tankHeater, nodes.index)});
    if (heater.place.of == HeaterPlace::Of::house && factsOf(heater.kind).control == HeatControl::thermostat && (heater.band_K || heater.startUp_min))
      m_below.resize(winter.size());
    if (const double own = factsOf(heater.kind).ownPower; own > 0.0) {
      m_heaters.back().ownPower = own;
      m_heaters.back().ownMeter = ledger.meter(Metered::electricity, MeterUse::heaterOwn, nodes.index);
    }
  }
}

void HouseWatch::see(const Run& run) {
  const std::size_t i = run.step();
  const Solver& solver = run.solver();
  const Assembly& assembly = run.assembly();
  m_air[i] = static_cast<float>(solver.temperature_C(assembly.air));
  if (i > 0 && !m_heaters.empty()) seeHeaters(run);
  if (assembly.blanketRelay >= 0 && !solver.relayIsOn(assembly.blanketRelay)) m_blanket[i] = 0.0;
  const auto air_C = static_cast<double>(m_air[i]);
  m_warmest_C = std::max(m_warmest_C, air_C);
  if (i > 0 && air_C > m_plan.setpoints.tooWarm_C) m_tooWarm_h += run.winter().step_s / 3600.0;
  for (std::size_t r = 0; r < m_rooms.size(); ++r) m_rooms[r][i] = static_cast<float>(solver.temperature_C(assembly.rooms[r].air));
  if (i > 0 && !m_fan_kWh.empty()) seeFans(run);
  if (i > 0 && m_plan.house.hoursPerVenting > 0.0) seeVents(run);
}

/// In the step that ends here, of what it runs on.
double HouseWatch::taken_J(const MeteredHeater& heater, double heat_W, const Run& run) const {
  const Heater& of = *heater.heater;
  const std::size_t step = run.step() - 1;
  const double perHeat = heater.isHeatPump ? heater.nodes->perHeat[step] : heater.perHeat;
  const double load = of.power_W > 0.0 ? heat_W / of.power_W : 0.0, least = leastOf(of);
  const double on = least > 0.0 ? std::min(1.0, load / least) : 1.0; // of the step
  double taken_W = heat_W > 0.0 ? heat_W * perHeat / partLoadFactor(of, std::max(load, least)) : 0.0;
  const bool may = heater.nodes->may.empty() || heater.nodes->may[step];
  if (of.standby_W > 0.0 && may) taken_W += of.standby_W * (heat_W > 0.0 ? 1.0 - on : 1.0);
  return taken_W * run.winter().step_s;
}

/// What its thermostat's band and its own slowness let the air fall by.
void HouseWatch::seeCycle(MeteredHeater& heater, double heat_W, const Run& run) {
  const Heater& of = *heater.heater;
  if (m_below.empty() || (!of.band_K && !of.startUp_min) || of.place.of != HeaterPlace::Of::house) return;
  const Solver& solver = run.solver();
  if (!heater.response) { // once: how air follows heat is much the same all winter
    std::vector<double> now_C(solver.network().nodes.size());
    for (std::size_t n = 0; n < now_C.size(); ++n) now_C[n] = solver.temperature_C(static_cast<int>(n));
    heater.response = airResponse(solver.network(), solver.time_s(), now_C, static_cast<std::size_t>(heater.thermostat)).value_or(AirResponse{});
  }
  if (const auto cycle = cycleOf(of, *heater.response, heat_W, of.power_W))
    m_below[run.step()] = std::max(m_below[run.step()], static_cast<float>(cycle->below_K));
}

void HouseWatch::seeHeaters(const Run& run) {
  double power = 0.0; // of all that heat rooms
  const bool keepsHours = m_ledger.keepsHours();
  for (MeteredHeater& heater : m_heaters) {
    const double heat_W = run.solver().lastPower_W(heater.thermostat) * heater.counted;
    if (heat_W > 0.0) {
      if (heater.heatsRoom) power += heat_W * toRoom(*heater.heater);
      heater.starts += heater.isOn ? 0 : 1;
      seeCycle(heater, heat_W, run);
    }
    heater.isOn = heat_W > 0.0;
    if ((heat_W <= 0.0 && heater.heater->standby_W <= 0.0) || (!heater.varies && !keepsHours)) continue;
    const double taken = taken_J(heater, std::max(heat_W, 0.0), run);
    heater.taken_J += taken;
    if (!keepsHours) continue;
    m_ledger.note(heater.meter, taken / 3.6e6, run.hour());
    if (heater.ownPower > 0.0) m_ledger.note(heater.ownMeter, heater.ownPower * heat_W * run.winter().step_s / 3.6e6, run.hour());
  }
  m_heater[run.step()] = static_cast<float>(power);
  m_peak_W = std::max(m_peak_W, power);
}

/// What the fans take in the step that ends here; those that follow a room by its air at the end.
void HouseWatch::seeFans(const Run& run) {
  if (!run.circumstances().mains) return;
  const auto& fans = run.assembly().fans;
  for (std::size_t f = 0; f < fans.size(); ++f) {
    const Assembly::Fan& fan = fans[f];
    const double may = fan.runs.empty() ? 1.0 : fan.runs[run.step() - 1];
    const double power_W = may * fan.power_W * (fan.sensor < 0 ? 1.0 : openness(run.solver().temperature_C(fan.sensor), fan.opens_C, fan.full_C));
    const double taken_kWh = power_W * run.winter().step_s / 3.6e6;
    m_fan_kWh[f] += taken_kWh;
    if (m_ledger.keepsHours() && taken_kWh > 0.0) m_ledger.note(m_ledger.meter(Metered::electricity, MeterUse::roomFan, f), taken_kWh, run.hour());
  }
}

/// Once a day, when the air first calls for them: whoever opens them by hand leaves them so until evening.
void HouseWatch::seeVents(const Run& run) {
  const std::size_t i = run.step();
  const auto& may = run.assembly().mayVent;
  if (static_cast<double>(m_air[i]) <= m_plan.house.ventOpens_C || (!may.empty() && may[i] <= 0.0)) return;
  constexpr double kSameDay_s = 14.0 * 3600.0;
  if (m_ventings.empty() || static_cast<double>(i - m_ventings.back()) * run.winter().step_s > kSameDay_s) m_ventings.push_back(i);
}

void HouseWatch::tell(const Run& run, const EnergyBalance& balance, WinterResult& result) {
  result.draws = static_cast<int>(drawnAt(m_blanket).size());
  result.peak_W = m_peak_W;
  result.warmest_C = m_warmest_C;
  result.tooWarm_h = m_tooWarm_h;
  const auto named = TimeZone::named(m_plan.site.timeZone);
  const TimeZone zone = named ? *named : TimeZone::utc();
  result.heaters.resize(m_plan.heaters.size());
  const double step_h = run.winter().step_s / 3600.0;
  const auto hourOf = [step_h](std::size_t step) { return static_cast<std::size_t>(static_cast<double>(step) * step_h); };
  /// So many hours each time.
  const auto work = [&](MeterUse use, std::size_t index, double hours, std::span<const std::size_t> steps) {
    if (hours <= 0.0 || steps.empty()) return;
    const std::size_t meter = m_ledger.meter(Metered::work, use, index);
    m_ledger.add(meter, hours * static_cast<double>(steps.size()));
    for (const std::size_t step : steps) m_ledger.note(meter, hours, hourOf(step));
  };
  for (std::size_t k = 0; k < m_heaters.size(); ++k) {
    const MeteredHeater& heater = m_heaters[k];
    const std::size_t index = heater.nodes->index;
    const double heat_kWh = balance.thermostat_J[static_cast<std::size_t>(heater.nodes->thermostat)] / 3.6e6 * heater.nodes->counted;
    const double taken_kWh = heater.varies ? heater.taken_J / 3.6e6 : heat_kWh * heater.perHeat;
    m_ledger.add(heater.meter, taken_kWh, heat_kWh);
    if (heater.ownPower > 0.0) m_ledger.add(heater.ownMeter, heater.ownPower * heat_kWh);
    HeaterCount& count = result.heaters[index];
    count.starts = heater.starts;
    if (run.fire()) {
      const auto loads = run.fire()->loads(k);
      count.loads = static_cast<int>(loads.size());
      count.atNight =
          static_cast<int>(std::count_if(loads.begin(), loads.end(), [&](std::size_t i) { return isSleeping(zone.localHour(run.winter().time(i))); }));
      work(MeterUse::stoking, index, heater.heater->stoking.hoursPerLoad, loads);
    }
    refuelling(heater, taken_kWh);
  }
  for (std::size_t f = 0; f < m_fan_kWh.size(); ++f) m_ledger.add(m_ledger.meter(Metered::electricity, MeterUse::roomFan, f), m_fan_kWh[f]);
  if (const auto& blanket = m_plan.house.blanket) work(MeterUse::blanket, 0, blanket->hoursPerDraw, drawnAt(m_blanket));
  work(MeterUse::venting, 0, m_plan.house.hoursPerVenting, m_ventings);
  const double days = static_cast<double>(run.winter().size() - 1) * run.winter().step_s / kDay_s;
  for (std::size_t b = 0; b < m_plan.house.bedCovers.size(); ++b) {
    const BedCover& bed = m_plan.house.bedCovers[b];
    const double aDay_h = bed.liftedByDay ? bed.count * bed.hoursPerLift : 0.0;
    if (aDay_h <= 0.0) continue;
    const std::size_t meter = m_ledger.meter(Metered::work, MeterUse::bedCover, b);
    m_ledger.add(meter, days * aDay_h);
    for (double day = 0.0; day < days; day += 1.0) m_ledger.note(meter, std::min(1.0, days - day) * aDay_h, static_cast<std::size_t>(24.0 * day));
  }
}

/// The hours in which fuel is burnt are those in which it is carried.
void HouseWatch::refuelling(const MeteredHeater& heater, double taken_kWh) {
  const double unit_kWh = kWhPerUnit(carrierOf(*heater.heater), heater.heater->boughtBy);
  const double hours = unit_kWh > 0.0 ? taken_kWh / unit_kWh * heater.heater->hoursPerUnit : 0.0;
  if (hours <= 0.0) return;
  const std::size_t meter = m_ledger.meter(Metered::work, MeterUse::refuelling, heater.nodes->index);
  m_ledger.add(meter, hours);
  const std::vector<float> burnt = m_ledger.meters()[heater.meter].hour;
  for (std::size_t h = 0; h < burnt.size(); ++h)
    if (burnt[h] > 0.0F) m_ledger.note(meter, hours * static_cast<double>(burnt[h]) / taken_kWh, h);
}

} // namespace muffle
