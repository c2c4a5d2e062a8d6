// SPDX-License-Identifier: GPL-3.0-or-later
//
// Ground pipes of a plan as shapes for the network: the pipe, its fan's duty, and how the soil about it is cut.
#pragma once

#include "core/plan/plan.h"
#include "core/store/pipe_run.h"

namespace muffle {

/// What the fan moves through the pipes at an air pressure, Pa.
FanDuty pipeDuty(const GroundPipes& pipes, double pressure_Pa);

/// All but where its air comes from; the soil's conductivity times `conductivityFactor`.
PipeRunShape pipeShape(const GroundPipes& pipes, const Floor& floor, double conductivityFactor, double pressure_Pa);

/// Rings round each pipe, then level layers that begin above and below its axis. The two make, together, the resistance of a row of
/// pipes under a surface (pipeRowResistance_mK_W) half way between what it is where all heat goes up and where half goes each way.
struct PipeSoil {
  double ring_m;  ///< outermost radius
  double above_m; ///< of the level soil over it
  double area_m2; ///< of that
};
PipeSoil pipeSoil(const GroundPipes& pipes, double conductivity_W_mK);

/// What passes from the pipes of a bed under the floor, through its sides from half their depth to half a metre below them, to the open
/// ground, W/K. depth_m: of the pipes below that ground. buriedSide_W_mK() with the bed in the house's middle.
double pipeBedSides_W_K(const GroundPipes& pipes, const HouseShape& shape, double depth_m, double soil_W_mK);

} // namespace muffle
