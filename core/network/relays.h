// SPDX-License-Identifier: GPL-3.0-or-later
//
// What a network switches by its own state, at the ends of steps: a blanket that a thermostat draws, or the water that condenses on a surface and
// dries off again; and what is switched from outside the network.
#pragma once

#include "core/network/surface_water.h"

#include <string>
#include <variant>
#include <vector>

namespace muffle {

/// On at or below on_C, off at or above off_C.
struct SwitchedByTemperature {
  int sensor = -1;                ///< node
  double on_C = 0.0, off_C = 0.0; ///< off_C > on_C
};
/// As it is told, and so from the start.
struct SwitchedByCommand {
  bool startsOn = true;
};

struct Relay {
  std::string id;
  std::variant<SwitchedByTemperature, SurfaceWater, SwitchedByCommand> by;
};

/// The states of a network's relays.
class Relays {
public:
  Relays() = default;
  explicit Relays(const std::vector<Relay>& relays);

  [[nodiscard]] bool empty() const { return m_on.empty(); }
  [[nodiscard]] std::size_t size() const { return m_on.size(); }
  [[nodiscard]] bool isOn(int relay) const { return relay >= 0 && m_on[static_cast<std::size_t>(relay)] != 0; }
  [[nodiscard]] const char* states() const { return m_on.data(); }
  [[nodiscard]] double water_g(int relay) const { return m_water_g[static_cast<std::size_t>(relay)]; }

  void set(int relay, bool on) { m_on[static_cast<std::size_t>(relay)] = on ? 1 : 0; }
  /// By the sensor's temperature alone.
  void start(std::size_t relay, const SwitchedByTemperature& by, double sensor_C) { m_on[relay] = sensor_C <= by.on_C ? 1 : 0; }
  /// Wet if water condenses on it now.
  void start(std::size_t relay, const SurfaceWater& by, double condensing_W);
  /// After a step; true if the relay has switched.
  bool step(std::size_t relay, const SwitchedByTemperature& by, double sensor_C);
  bool step(std::size_t relay, const SurfaceWater& by, double condensing_W, double h_s);

private:
  bool take(std::size_t relay, bool on);

  std::vector<char> m_on;
  std::vector<double> m_water_g;
};

} // namespace muffle
