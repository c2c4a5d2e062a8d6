// SPDX-License-Identifier: GPL-3.0-or-later
//
// What differs between two plans, thing by thing, as a table has it. What may be added, what is asked of it and what was paid are no part of what stands.
#pragma once

#include "core/message.h"
#include "core/plan/plan.h"

#include <cstddef>
#include <optional>
#include <vector>

namespace muffle {

/// What can be pointed at in a picture of the house.
enum class PlanPart {
  none, ///< a setpoint, a price, draughts: it has no place
  shape,
  roof,
  sides,
  ends,
  backWall,
  blanket,
  skirt,
  floorCover,
  ceiling,
  bedCover,
  barrels,
  groundPipes,
  compost,
  waterLoop,
  soilCable,
  mass,
  heater
};

struct PlanDifference {
  Message what;       ///< the thing: "roof", "barrels", "setpoint at night"
  Message one, other; ///< as it is in either plan
  PlanPart part = PlanPart::none;
  std::optional<std::size_t> inOne, inOther; ///< which of its kind it is in either plan; nothing where it is not there
};

/// Heaters are the same by their id, other things of a list by their place in it. In the order of the house from outside in; empty where both are the same.
/// What has no row of its own is one row at the end, so that no difference is passed over.
std::vector<PlanDifference> differences(const Plan& one, const Plan& other);

} // namespace muffle
