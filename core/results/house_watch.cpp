// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/results/house_watch.h"

#include "core/assemble/blanket.h"
#include "core/calendar.h"

#include <algorithm>

namespace muffle {

HouseWatch::HouseWatch(const Plan& plan, const Assembly& assembly, const Winter& winter, Ledger& ledger)
    : m_plan(plan), m_ledger(ledger), m_fan_kWh(assembly.fans.size(), 0.0), m_blanket(assembly.blanketClosed), m_air(winter.size()),
      m_heater(winter.size(), 0.0F), m_rooms(assembly.rooms.size(), std::vector<float>(winter.size())) {
  for (const Assembly::HeaterNodes& nodes : assembly.heaters) {
    const Heater& heater = plan.heaters[nodes.index];
    const bool heatsRoom = heater.place.of != HeaterPlace::Of::tank;
    const Metered of = factsOf(heater.kind).carrier == Carrier::electricity ? Metered::electricity : Metered::fuel;
    m_heaters.push_back({nodes.thermostat, heatsRoom, heater.efficiency, ledger.meter(of, heatsRoom ? MeterUse::heater : MeterUse::tankHeater, nodes.index)});
  }
}

void HouseWatch::see(const Run& run) {
  const std::size_t i = run.step();
  const Solver& solver = run.solver();
  const Assembly& assembly = run.assembly();
  m_air[i] = static_cast<float>(solver.temperature_C(assembly.air));
  if (i > 0 && !m_heaters.empty()) {
    double power = 0.0; // of all that heat rooms
    for (const MeteredHeater& heater : m_heaters)
      if (heater.heatsRoom) power += solver.lastPower_W(heater.thermostat);
    m_heater[i] = static_cast<float>(power);
    m_peak_W = std::max(m_peak_W, power);
    if (m_ledger.keepsHours())
      for (const MeteredHeater& heater : m_heaters)
        m_ledger.note(heater.meter, solver.lastPower_W(heater.thermostat) * run.winter().step_s / 3.6e6 / heater.efficiency, run.hour());
  }
  if (assembly.blanketRelay >= 0 && !solver.relayIsOn(assembly.blanketRelay)) m_blanket[i] = 0.0;
  const auto air_C = static_cast<double>(m_air[i]);
  m_warmest_C = std::max(m_warmest_C, air_C);
  if (i > 0 && air_C > m_plan.setpoints.tooWarm_C) m_tooWarm_h += run.winter().step_s / 3600.0;
  for (std::size_t r = 0; r < m_rooms.size(); ++r) m_rooms[r][i] = static_cast<float>(solver.temperature_C(assembly.rooms[r].air));
  if (i > 0 && !m_fan_kWh.empty()) seeFans(run);
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

void HouseWatch::tell(const Run& run, const EnergyBalance& balance, WinterResult& result) {
  result.draws = timesDrawn(m_blanket);
  result.peak_W = m_peak_W;
  result.warmest_C = m_warmest_C;
  result.tooWarm_h = m_tooWarm_h;
  for (const MeteredHeater& heater : m_heaters) {
    const double heat_kWh = balance.thermostat_J[static_cast<std::size_t>(heater.thermostat)] / 3.6e6;
    m_ledger.add(heater.meter, heat_kWh / heater.efficiency, heat_kWh);
  }
  for (std::size_t f = 0; f < m_fan_kWh.size(); ++f) m_ledger.add(m_ledger.meter(Metered::electricity, MeterUse::roomFan, f), m_fan_kWh[f]);
  const auto work = [&](MeterUse use, std::size_t index, double hours) {
    if (hours > 0.0) m_ledger.add(m_ledger.meter(Metered::work, use, index), hours);
  };
  if (const auto& blanket = m_plan.house.blanket) work(MeterUse::blanket, 0, result.draws * blanket->hoursPerDraw);
  const double days = static_cast<double>(run.winter().size() - 1) * run.winter().step_s / kDay_s;
  for (std::size_t b = 0; b < m_plan.house.bedCovers.size(); ++b) {
    const BedCover& bed = m_plan.house.bedCovers[b];
    if (bed.liftedByDay) work(MeterUse::bedCover, b, days * bed.count * bed.hoursPerLift);
  }
}

} // namespace muffle
