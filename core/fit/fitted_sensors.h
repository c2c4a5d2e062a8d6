// SPDX-License-Identifier: GPL-3.0-or-later
//
// Which readings of a log the fit of a house goes by, and which node of the model answers for each: the house's air, and as far as the
// log and the plan have both, the air of other rooms and under covers, the water of barrels and tanks, the soil under the floor.
#pragma once

#include "core/assemble/assemble.h"
#include "core/log/log.h"
#include "core/plan/plan.h"

#include <string>
#include <vector>

namespace muffle {

struct FittedSensor {
  const Channel* channel = nullptr; ///< of the log, which must outlive it
  int node = -1;                    ///< of the assembly's network
  double scatter_K = 0.4;           ///< of the sensor, of where it sits, and of the model's own shape
  double readingsPerNight = 4.0;    ///< that a night's hours are worth: neighbours in time tell the same, the more so in what is slow
};

/// The house's air first; empty if the log has none. A sensor that nothing in the plan answers for is left out. Soil probes stand as
/// deep as their heading says ("Soil 30 cm"), else 10 cm.
std::vector<FittedSensor> fittedSensors(const Plan& plan, const Assembly& assembly, const Log& log);

} // namespace muffle
