// SPDX-License-Identifier: GPL-3.0-or-later
//
// What the things of a plan are called: by the name their grower gave them, else by what they are, in a code that has words.
// A plan holds no name that nobody wrote.
#pragma once

#include "core/message.h"
#include "core/plan/plan.h"

#include <cstddef>

namespace muffle {

Message nameOf(const BedCover& cover);
Message nameOf(const WarmBay& bay);
Message nameOf(const Lobby& lobby);
Message nameOf(const RoofVoid& roofVoid);
Message nameOf(const Barrels& barrels);
Message nameOf(const GroundPipes& pipes);
Message nameOf(const Plan& plan);
Message nameOf(const CompostPile& pile);
Message nameOf(const WaterLoop& loop);
Message nameOf(const SoilCable& cable);
Message nameOf(const MassBlock& block);
Message nameOf(HeaterKind kind);
/// Of heaters without a name the room or tank is said, and of several alike in one place a number.
Message nameOf(const Plan& plan, const Heater& heater);
/// Without its size.
Message nameOf(const Measure& measure);
/// What it is made of, or of a heater that is no electric one its kind: what its usual name goes by.
std::string materialOf(const Measure& measure);
/// At one of its sizes: "20 barrels", "sealing to 0.4 an hour".
Message nameOf(const Measure& measure, double level);
Message nameOf(const Kit& kit);

/// Plans of before had these names where nobody had given one: they are taken out.
void forgetUsualNames(Plan& plan);

} // namespace muffle
