// SPDX-License-Identifier: GPL-3.0-or-later
//
// Heaters as thermostats of the network.
#include "core/assemble/assembler.h"
#include "core/calendar.h"

#include <cmath>

namespace muffle {

Thermostat Assembler::thermostatOf(const Heater& heater) {
  Thermostat t;
  t.id = heater.id;
  t.power_W = heater.power_W;
  const auto holds = [&](int node, const Setpoints& setpoints) {
    t.sensor = t.heats = node;
    t.setpointSignal = signalOf([&](std::size_t i) { return (m_night[i] > 0.0 ? setpoints.night_C : setpoints.day_C) - heater.stage_K; }, true);
  };
  switch (heater.place.of) {
  case HeaterPlace::Of::house: holds(m_a.air, m_plan.setpoints); break;
  case HeaterPlace::Of::bay: holds(m_a.rooms[*otherRoom(m_plan, RoomKind::bay)].air, m_house.bay->setpoints); break;
  case HeaterPlace::Of::tank: // a stove that is fed so as to hold it, or a boiler with a thermostat of its own
    t.sensor = t.heats = m_tanks[heater.place.tank];
    t.setpoint_C = heater.holds_C - heater.stage_K;
    break;
  case HeaterPlace::Of::unknown: break; // no plan has it: check()
  }
  if (heater.for_h < 24.0) {
    const auto zone = TimeZone::named(m_plan.site.timeZone);
    t.limitSignal = signalOf(
        [&](std::size_t i) {
          const double hour = zone ? zone->localHour(m_winter.time(i)) : 0.0;
          return std::fmod(hour - heater.from_h + 24.0, 24.0) < heater.for_h ? 1.0 : 0.0;
        },
        true);
  }
  return t;
}

void Assembler::heaters() {
  for (std::size_t i = 0; i < m_plan.heaters.size(); ++i) {
    const Heater& heater = m_plan.heaters[i];
    if (heater.power_W <= 0.0) continue;
    const auto thermostat = static_cast<int>(m_net.thermostats.size());
    m_net.thermostats.push_back(thermostatOf(heater));
    if (factsOf(heater.kind).carrier == Carrier::electricity) m_a.electric.push_back(thermostat);
    m_a.heaters.push_back({i, thermostat, heater.place});
  }
}

} // namespace muffle
