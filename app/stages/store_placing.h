// SPDX-License-Identifier: GPL-3.0-or-later
//
// A store that is about to be put into the house: its silhouette goes with the pointer over the section until a click sets it down.
#pragma once

#include "core/plan/plan.h"
#include "core/plan/store_list.h"

#include <QString>

#include <functional>

namespace muffle {

struct StorePlacing {
  QString name;                   ///< of the step, such as "add barrels of water"
  std::function<void(Plan&)> add; ///< adds it where such stores usually stand, last of its kind
  StoreKind kind = StoreKind::barrels;

  /// The plan with it at a point of the section: metres from the house's middle, and below its floor (0 in the house).
  void put(Plan& plan, double x_m, double below_m) const;
};

} // namespace muffle
