// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/results/damp_watch.h"

#include "core/air/leaf.h"

namespace muffle {

DampWatch::DampWatch(const Assembly& assembly, const Winter& winter, double pressure_Pa)
    : m_saturated(pressure_Pa), m_house(winter.step_s), m_rooms(assembly.rooms.size(), DampHours(winter.step_s)), m_steps(winter.size(), 0) {}

void DampWatch::see(const Run& run) {
  const Solver& solver = run.solver();
  const Assembly& assembly = run.assembly();
  m_leaf_C = leafTemperature_C(solver.temperature_C(assembly.air), solver.temperature_C(assembly.floor), solver.temperature_C(assembly.above));
  if (run.step() == 0) return;
  const double vapour = solver.temperature_C(assembly.vapour);
  const bool damp = isDamp(solver.temperature_C(assembly.air), vapour);
  const bool wet = vapour > m_saturated.at(m_leaf_C).g_kg;
  m_house.add(damp, wet);
  m_steps[run.step()] = static_cast<std::uint8_t>((damp ? kDamp : 0) | (wet ? kWet : 0));
  for (std::size_t r = 0; r < m_rooms.size(); ++r) {
    const Assembly::Room& room = assembly.rooms[r];
    m_rooms[r].add(isDamp(solver.temperature_C(room.air), solver.temperature_C(room.vapour)), false);
  }
}

bool DampWatch::isDamp(double air_C, double vapour_g_kg) const {
  constexpr double kRatio_g_kg = 621.945; // relative humidity is by pressure, x/(622 + x)
  const double saturated = m_saturated.at(air_C).g_kg;
  return vapour_g_kg * (kRatio_g_kg + saturated) >= kDampHumidity * saturated * (kRatio_g_kg + vapour_g_kg);
}

void DampWatch::tell(WinterResult& result) const {
  result.damp = m_house.sum();
  for (const DampHours& room : m_rooms) result.roomDamp.push_back(room.sum());
}

} // namespace muffle
