// SPDX-License-Identifier: GPL-3.0-or-later
//
// Where the work can hurt someone: one table of cautions and of what each goes with. Short, and deferring to local codes and licensed
// people. Window, print and JSON show these and no others.
#pragma once

#include "core/plan/store_list.h"

#include <string>
#include <vector>

namespace muffle {

/// Kinds of things that a plan holds or that may be added to it.
enum class ThingKind { shape, covers, floor, vents, rooms, heater, barrels, pipes, compost, loop, cable, mass, measure };

/// One of them: the index counts among the plan's of its kind; 0 where there is one.
struct Thing {
  ThingKind kind = ThingKind::shape;
  std::size_t index = 0;
};

Thing thingOf(const StoreRef& store);

/// All that a plan holds, without the measures that may be added to it.
std::vector<Thing> thingsOf(const Plan& plan);
/// "covers", "barrels by the door".
Message thingName(const Plan& plan, const Thing& thing);

struct Caution {
  const char* id; ///< stays the same in every version: "carbon-monoxide"
};

const std::vector<Caution>& allCautions();

/// Those that go with one thing as it is, in the table's order.
std::vector<Caution> cautionsFor(const Plan& plan, const Thing& thing);
/// Those that may go with a kind of thing, however it is: for where such things are chosen.
std::vector<Caution> cautionsAbout(ThingKind kind);
/// Those that go with any of these measures in this house, each once.
std::vector<Caution> cautionsFor(const Plan& plan, const std::vector<Measure>& measures);

struct StatedCaution {
  Caution caution;
  std::vector<Message> of; ///< names of the things it goes with
};
/// Of a whole plan, each once.
std::vector<StatedCaution> cautionsOf(const Plan& plan);

Message textOf(const Caution& caution);

} // namespace muffle
