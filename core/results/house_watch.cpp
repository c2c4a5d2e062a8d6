// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/results/house_watch.h"

#include "core/simulate/blanket.h"

#include <algorithm>

namespace muffle {

HouseWatch::HouseWatch(const Plan& plan, const Assembly& assembly, const Winter& winter)
    : m_tooWarm_C(plan.setpoints.tooWarm_C), m_blanket(assembly.blanketClosed), m_air(winter.size()), m_heater(winter.size(), 0.0F),
      m_rooms(assembly.rooms.size(), std::vector<float>(winter.size())) {
  m_heaters.push_back(assembly.heater);
  for (const Assembly::Room& room : assembly.rooms) m_heaters.push_back(room.heater);
  std::erase(m_heaters, -1);
}

void HouseWatch::see(const Run& run) {
  const std::size_t i = run.step();
  const Solver& solver = run.solver();
  const Assembly& assembly = run.assembly();
  m_air[i] = static_cast<float>(solver.temperature_C(assembly.air));
  if (i > 0 && !m_heaters.empty()) {
    double power = 0.0; // of all heaters
    for (const int heater : m_heaters) power += solver.lastPower_W(heater);
    m_heater[i] = static_cast<float>(power);
    m_peak_W = std::max(m_peak_W, power);
  }
  if (assembly.blanketRelay >= 0 && !solver.relayIsOn(assembly.blanketRelay)) m_blanket[i] = 0.0;
  const auto air_C = static_cast<double>(m_air[i]);
  m_warmest_C = std::max(m_warmest_C, air_C);
  if (i > 0 && air_C > m_tooWarm_C) m_tooWarm_h += run.winter().step_s / 3600.0;
  for (std::size_t r = 0; r < m_rooms.size(); ++r) m_rooms[r][i] = static_cast<float>(solver.temperature_C(assembly.rooms[r].air));
  if (i > 0) m_fan_J += fans_W(run) * run.winter().step_s;
}

/// What the fans take in the step that ends here; those that follow a room by its air at the end.
double HouseWatch::fans_W(const Run& run) const {
  if (!run.circumstances().mains) return 0.0;
  double power = 0.0;
  for (const Assembly::Fan& fan : run.assembly().fans) {
    const double may = fan.runs.empty() ? 1.0 : fan.runs[run.step() - 1];
    power += may * fan.power_W * (fan.sensor < 0 ? 1.0 : openness(run.solver().temperature_C(fan.sensor), fan.opens_C, fan.full_C));
  }
  return power;
}

void HouseWatch::tell(WinterResult& result) const {
  result.draws = timesDrawn(m_blanket);
  result.peak_W = m_peak_W;
  result.warmest_C = m_warmest_C;
  result.tooWarm_h = m_tooWarm_h;
  result.fan_J += m_fan_J;
}

} // namespace muffle
