// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/network/relays.h"

#include "core/constants.h"

#include <algorithm>

namespace muffle {

void Relays::start(std::size_t relay, double sensor_C, double condensing_W) {
  const Relay& r = (*m_relays)[relay];
  const bool on = r.film < 0 ? sensor_C <= r.on_C : condensing_W > 0.0;
  m_on[relay] = on ? 1 : 0;
  m_water_g[relay] = r.film >= 0 && on ? r.wets_g : 0.0;
}

bool Relays::step(std::size_t relay, double sensor_C, double condensing_W, double h_s) {
  const Relay& r = (*m_relays)[relay];
  const char before = m_on[relay];
  if (r.film < 0) {
    m_on[relay] = before ? sensor_C < r.off_C : sensor_C <= r.on_C;
  } else {
    double& water = m_water_g[relay];
    water = std::clamp(water + condensing_W * h_s * 1000.0 / kEvaporation_J_kg, 0.0, r.holds_g);
    m_on[relay] = before ? water > 0.0 : water >= r.wets_g;
  }
  return m_on[relay] != before;
}

} // namespace muffle
