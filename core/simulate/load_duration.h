// SPDX-License-Identifier: GPL-3.0-or-later
//
// The hours of a winter by how much heat they took: the load-duration curve of the heater over all winters of a run.
//
//   const LoadDuration load(simulation, weather);
//   load.hoursAbove_h(2000.0);   // hours a winter in which the heater gave more than 2 kW
#pragma once

#include "core/simulate/simulate.h"

namespace muffle {

class LoadDuration {
public:
  LoadDuration() = default;
  /// Needs a run with series; the weather is the one it ran over.
  LoadDuration(const Simulation& run, const Weather& weather);

  /// Hours a winter of 182 days in which the heater's mean over a step was more than this, W.
  [[nodiscard]] double hoursAbove_h(double power_W) const;
  /// The power that is exceeded for so many hours a winter, W; 0 past the last.
  [[nodiscard]] double power_W(double hours_h) const;

private:
  std::vector<float> m_load_W; ///< one a step, falling
  double m_hoursPerStep = 0.0; ///< of a winter
};

/// What a heater gave over the hours of the curve.
struct HeaterLoad {
  std::size_t heater = 0;      ///< among the plan's
  std::vector<double> power_W; ///< by slice, the mean over its hours
};

/// By heater of a room that gave, in the order in which they begin: over `span_h` hours a winter in so many slices, hours of most heat first. An hour's heat
/// is shared as heat_sources.h has it; in a slice the heaters' powers add up to the mean of the curve of whole hours. Needs a run with series.
std::vector<HeaterLoad> loadByHeater(const Plan& plan, const Simulation& run, const Weather& weather, double span_h, std::size_t slices);

} // namespace muffle
