// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/network/relays.h"

namespace muffle {

Relays::Relays(const std::vector<Relay>& relays) : m_on(relays.size(), 0), m_water_g(relays.size(), 0.0) {
  for (std::size_t r = 0; r < relays.size(); ++r)
    if (const auto* by = std::get_if<SwitchedByCommand>(&relays[r].by)) m_on[r] = by->startsOn ? 1 : 0;
}

bool Relays::take(std::size_t relay, bool on) {
  const bool switched = (m_on[relay] != 0) != on;
  m_on[relay] = on ? 1 : 0;
  return switched;
}

void Relays::start(std::size_t relay, const SurfaceWater& by, double condensing_W) {
  m_on[relay] = condensing_W > 0.0 ? 1 : 0;
  m_water_g[relay] = condensing_W > 0.0 ? by.wets_g : 0.0;
}

bool Relays::step(std::size_t relay, const SwitchedByTemperature& by, double sensor_C) {
  return take(relay, m_on[relay] ? sensor_C < by.off_C : sensor_C <= by.on_C);
}

bool Relays::step(std::size_t relay, const SurfaceWater& by, double condensing_W, double h_s) {
  m_water_g[relay] = waterAfter_g(by, m_water_g[relay], condensing_W, h_s);
  return take(relay, isWet(by, m_on[relay] != 0, m_water_g[relay]));
}

} // namespace muffle
