// SPDX-License-Identifier: GPL-3.0-or-later
//
// What differs between the plan that the section is of and another, outlined in place.
#pragma once

#include "app/paint/section.h"
#include "core/plan/plan_differences.h"

namespace muffle {

/// How a thing is outlined in the section of its plan; empty where it has no place there, as a heater of another room.
[[nodiscard]] QPainterPath outlineOf(PlanPart part, std::size_t index, const SectionGeometry& geometry, const Plan& plan);

/// Over the section of `plan`: a line about what stands there and is otherwise in the other plan, a dashed one about what is only there or stands
/// there otherwise; what has no place is said at the foot of the picture, left of `clearOf_px` pixels at its right.
void paintDifferences(QPainter& painter, const SectionGeometry& geometry, const Plan& plan, const Plan& other, const std::vector<PlanDifference>& rows,
                      double clearOf_px, const Units& units);

} // namespace muffle
