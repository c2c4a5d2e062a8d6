// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/plan_notes.h"

namespace muffle {

Problems planNotes(const Plan& plan) {
  const House usual, &house = plan.house;
  Problems notes;
  const auto note = [&](const char* where, Message what, Message allowed) {
    notes.push_back({ProblemKind::badInput, where, std::move(what), std::move(allowed)});
  };
  if (house.shape.kind == ShapeKind::dome) {
    if (house.ends != usual.ends) note("/house/ends", Message{"plan.dome-no-ends-skin"}, Message{"plan.foot-ring-house-sides"});
    if (house.shape.axis_deg != usual.shape.axis_deg) note("/house/shape/axis_deg", Message{"plan.dome-alike-all-round"}, Message{"plan.leave-out"});
  }
  if (house.sides != usual.sides && house.shape.area_m2(FaceGroup::sides) <= 0.0)
    note("/house/sides", Message{"plan.house-whose-roof-comes"}, Message{"plan.raise-eave-leave-out"});
  if (house.backWall != usual.backWall && !house.shape.hasBackWall())
    note("/house/back_wall", Message{"plan.only-lean-single-slope"}, Message{"plan.choose-such-shape-leave"});
  if (house.backWall_C && !house.shape.hasBackWall()) note("/house/back_wall_C", Message{"plan.no-back-wall-building"}, Message{"plan.leave-out"});
  return notes;
}

} // namespace muffle
