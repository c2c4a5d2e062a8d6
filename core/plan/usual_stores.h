// SPDX-License-Identifier: GPL-3.0-or-later
//
// Stores of the size in which they usually come, as they fit a plan's house: to begin from.
#pragma once

#include "core/plan/plan.h"

namespace muffle {

Barrels usualBarrels(const Plan& plan);
/// Under the floor across which they fit, or one long pipe beside the house.
GroundPipes usualPipes(const Plan& plan, PipePlace place);
CompostPile usualPile(const Plan& plan, PilePlace place);
WaterLoop usualLoop(const Plan& plan);
MassBlock usualMass(const Plan& plan, MassKind kind);
/// A bed cover for a house that has none.
BedCover usualBedCover(const Plan& plan);
/// In the first bed under a cover, which must be there.
SoilCable usualCable(const Plan& plan);

} // namespace muffle
