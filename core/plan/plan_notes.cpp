// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/plan_notes.h"

namespace muffle {

Problems planNotes(const Plan& plan) {
  const House usual, &house = plan.house;
  Problems notes;
  const auto note = [&](const char* where, const char* what, const char* allowed) { notes.push_back({ProblemKind::badInput, where, what, allowed}); };
  if (house.shape.kind == ShapeKind::dome) {
    if (house.ends != usual.ends) note("/house/ends", "a dome has no ends, this skin covers nothing", "its foot ring is /house/sides, all else /house/roof");
    if (house.shape.axis_deg != usual.shape.axis_deg) note("/house/shape/axis_deg", "a dome is alike all round, its direction changes nothing", "leave it out");
  }
  if (house.sides != usual.sides && house.shape.area_m2(FaceGroup::sides) <= 0.0)
    note("/house/sides", "a house whose roof comes down to the ground has no sides, this skin covers nothing", "raise the eave, or leave it out");
  if (house.backWall != usual.backWall && !house.shape.hasBackWall())
    note("/house/back_wall", "only a lean-to and a single slope have a back wall, this skin covers nothing", "choose such a shape, or leave it out");
  if (house.backWall_C && !house.shape.hasBackWall()) note("/house/back_wall_C", "there is no back wall for a building to stand behind", "leave it out");
  return notes;
}

} // namespace muffle
