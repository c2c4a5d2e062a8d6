// SPDX-License-Identifier: GPL-3.0-or-later
//
// What dragging a store in the section does to the plan, and what the pointer says over it.
#pragma once

#include "app/model/units.h"
#include "app/paint/section.h"
#include "core/plan/plan.h"

#include <QString>

namespace muffle {

/// How far the pointer has gone: metres across, up, and of the soil as it is drawn, down.
struct DragBy {
  double across_m = 0.0, up_m = 0.0, down_m = 0.0;
};

[[nodiscard]] bool isStore(Grip grip);
/// Of a store's.
[[nodiscard]] StoreKind storeKind(Grip grip);
/// The step's name, for undoing it.
[[nodiscard]] QString storeDragStep(const Plan& start, Grip grip);
/// `plan` is `start` but for what has been dragged before.
void dragStore(Plan& plan, const Plan& start, Grip grip, const DragBy& by);
[[nodiscard]] QString storeTip(const Plan& plan, Grip grip, const Units& units);
/// It is dragged sideways, or also.
[[nodiscard]] bool isDraggedAcross(const Plan& plan, Grip grip);

} // namespace muffle
