// SPDX-License-Identifier: GPL-3.0-or-later
//
// What became of a store in a run. Stores stand in the order of storesOf() (core/plan/store_list.h).
#pragma once

#include <vector>

namespace muffle {

/// A store at every step: temperatures in the order of storeTraces(), and what it gave the house.
struct StoreSeries {
  std::vector<std::vector<float>> temperature_C; ///< NaN where nothing stands
  std::vector<float> given_W;                    ///< mean over the step that ends here; below 0 it took
  std::vector<float> made_W;                     ///< compost: heat of decay
  std::vector<float> charge_kWh;               ///< heat in it above the line that the house is to hold; compost: that decay could still make. Empty of a cable
  std::vector<float> oxygen_percent, moisture; ///< compost: in the pile
};

/// A store over one winter or all.
struct StoreSummary {
  double given_kWh = 0.0, taken_kWh = 0.0; ///< to and from the house
  double electricity_kWh = 0.0;            ///< of fan, pump or cable
  double made_kWh = 0.0;                   ///< compost: heat of decay
  double running_h = 0.0;
  double stagnant_h = 0.0;                  ///< that a collector stood in the sun with what it warms too hot to take more
  double coldest_C = 1e9, warmest_C = -1e9; ///< of its first trace; of nothing where hasStood() is false
  /// False of a pile that is not built before the logged nights are over.
  [[nodiscard]] bool hasStood() const { return coldest_C <= warmest_C; }
};

} // namespace muffle
