// SPDX-License-Identifier: GPL-3.0-or-later
//
// The stores of a plan in the one order that assembly, results, command line and window share.
#pragma once

#include "core/message.h"
#include "core/plan/plan.h"

#include <string>
#include <vector>

namespace muffle {

enum class StoreKind { barrels, pipes, compost, loop, cable, mass };

struct StoreRef {
  StoreKind kind = StoreKind::barrels;
  std::size_t index = 0; ///< among the plan's of its kind
  std::string id;        ///< "barrels:1", "pipes:1", ...
  Message name;          ///< nameOf() it
};

/// Barrels, pipes, compost, water loops, cables, heavy things.
std::vector<StoreRef> storesOf(const Plan& plan);

/// Takes a store out, and with a tank the heaters on it; what refers to tanks behind it follows, and a coil into it goes to the house.
void removeStore(Plan& plan, StoreKind kind, std::size_t index);

/// Its coil warms a tank, which gives that heat to the house; a store of another plan than this one warms none.
bool warmsTank(const Plan& plan, const StoreRef& store);

/// What a store's temperatures are of, in the order in which results have them.
enum class StoreTrace {
  content,   ///< of barrels or a tank
  outlet,    ///< air that comes out of pipes
  soilFirst, ///< at the face of pipes, where air comes in
  soilLast,  ///< and where it goes out
  soilAbout, ///< between the pipes
  core,      ///< of a pile
  root,      ///< soil at root depth
  surface,   ///< of the soil over a pile
  chamberAir,
  cableSoil, ///< beside a cable
  leafAir,   ///< under the cover of its bed
  upper,     ///< half of layered barrels
  middle,    ///< of a wall, path or raised bed
  radiator   ///< water of drums or a bench that a loop goes through
};
std::vector<StoreTrace> storeTraces(const Plan& plan, const StoreRef& store);
/// "outlet", "core", ...
const char* storeTraceName(StoreTrace trace);

} // namespace muffle
