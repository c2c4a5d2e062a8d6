// SPDX-License-Identifier: GPL-3.0-or-later
//
// What more or less of one store buys: the plan simulated with other sizes of it, none among them, everything else as it stands.
//   barrels  their number          pipes   their number (of cost, price by the pipe)
//   compost  its mass, the foot growing with it        loop  litres of its tank        cable  metres
//   mass     square metres
#pragma once

#include "core/plan/store_list.h"
#include "core/sizing/sizing.h"

#include <memory>
#include <vector>

namespace muffle {

struct StorePoint {
  double size = 0.0; ///< in what the store is counted by; 0: without it
  int held = 0, nights = 0;
  double coldest_C = 0.0;
  double degreeHours_K_h = 0.0;
  double heater_kWh = 0.0;  ///< a winter
  double given_kWh = 0.0;   ///< by the store to the house, a winter
  double running_kWh = 0.0; ///< electricity of its own, a winter
};

/// How much of a store there is, in what it is counted by.
double storeSize(const Plan& plan, const StoreRef& store);
/// The plan with another size of it; 0 takes it out.
Plan withStoreSize(const Plan& plan, const StoreRef& store, double size);

/// By rising size; sizes that do not fit the house are left out.
Result<std::vector<StorePoint>> storeCurve(const Plan& plan, std::shared_ptr<const Weather> weather, const StoreRef& store, const SizingOptions& options = {});

} // namespace muffle
