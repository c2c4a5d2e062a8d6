// SPDX-License-Identifier: GPL-3.0-or-later
//
// How a room's air follows a heater within minutes, which steps of ten minutes do not show: what makes a thermostat with a band go on and off, and what
// a heater that lights slowly lets slip. By the network itself, everything else as it stands at that moment.
//
// A heater that cannot give less than `least` of its size, and is asked for a part of that, gives `least` for a while and nothing for a while. From where it
// goes off to where it goes on the air falls by the band, and on until the heater gives heat. In a house of one node that is the classic relay's cycle.
#pragma once

#include "core/heater/heater.h"
#include "core/network/network.h"

#include <optional>
#include <span>
#include <vector>

namespace muffle {

/// What the sensor is up, K, after each W that a thermostat has given for so long.
struct AirResponse {
  double step_s = 30.0;
  std::vector<double> K_W; ///< after 1, 2, ... steps; rising
  [[nodiscard]] double after(double t_s) const;
  /// How long until it is up so much; beyond what is known it goes on in a straight line.
  [[nodiscard]] double time_s(double K_per_W) const;
};
/// `temperature_C` by node. Nothing if no solution was found.
std::optional<AirResponse> airResponse(const Network& network, double at_s, std::span<const double> temperature_C, std::size_t thermostat);

/// A band of a thermostat where none is given: EN 15500 and makers' usual.
inline constexpr double kUsualBand_K = 1.0;

struct HeaterCycle {
  double run_s = 0.0;   ///< that it gives heat at a time
  double rest_s = 0.0;  ///< and does not
  double below_K = 0.0; ///< how far under its setpoint the air falls
};
/// Of a heater that is asked for `load_W` on average; nothing where it gives that on end, or nothing at all.
std::optional<HeaterCycle> cycleOf(const Heater& heater, const AirResponse& response, double load_W, double size_W);

} // namespace muffle
