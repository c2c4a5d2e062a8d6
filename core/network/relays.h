// SPDX-License-Identifier: GPL-3.0-or-later
//
// What a network switches by its own state, at the ends of steps: a blanket that a thermostat draws, or the water that
// condenses on a surface and dries off again.
//   thermostat  on at or below on_C, off at or above off_C
//   water       m' = q/L of a film (core/network/vapour.h), counted by the flow at each step's end; 0 <= m <= holds_g, and what
//               is more runs off. On from wets_g until all has dried. What a step dries beyond the last drop is heat of the
//               balance all the same; only the count of water ends at 0
//   commanded   on from the start, and as it is told from outside the network
#pragma once

#include <string>
#include <vector>

namespace muffle {

struct Relay {
  std::string id;
  int sensor = -1;                ///< thermostat: node; -1 for water
  double on_C = 0.0, off_C = 0.0; ///< off_C > on_C
  int film = -1;                  ///< water: a natural link with vapour
  double wets_g = 0.0;            ///< from which it counts as wet, > 0
  double holds_g = 0.0;           ///< of the whole film, >= wets_g
  bool isCommanded = false;       ///< by neither
  bool startsOn = true;           ///< of one that is commanded
};

/// The states of a network's relays.
class Relays {
public:
  Relays() = default;
  explicit Relays(const std::vector<Relay>& relays) : m_relays(&relays), m_on(relays.size(), 0), m_water_g(relays.size(), 0.0) {
    for (std::size_t r = 0; r < relays.size(); ++r) m_on[r] = relays[r].isCommanded && relays[r].startsOn ? 1 : 0;
  }

  [[nodiscard]] bool empty() const { return m_on.empty(); }
  [[nodiscard]] std::size_t size() const { return m_on.size(); }
  [[nodiscard]] bool isOn(int relay) const { return relay >= 0 && m_on[static_cast<std::size_t>(relay)] != 0; }
  [[nodiscard]] const char* states() const { return m_on.data(); }
  [[nodiscard]] double water_g(int relay) const { return m_water_g[static_cast<std::size_t>(relay)]; }

  void set(int relay, bool on) { m_on[static_cast<std::size_t>(relay)] = on ? 1 : 0; }
  /// Thermostats by the sensors' temperatures alone; a surface is wet if water condenses on it now.
  void start(std::size_t relay, double sensor_C, double condensing_W);
  /// After a step of h seconds; true if the relay has switched.
  bool step(std::size_t relay, double sensor_C, double condensing_W, double h_s);

private:
  const std::vector<Relay>* m_relays = nullptr;
  std::vector<char> m_on;
  std::vector<double> m_water_g;
};

} // namespace muffle
