// SPDX-License-Identifier: GPL-3.0-or-later
//
// The rooms of a plan: air spaces that are modelled each on its own. The house comes first; the others follow in one order
// that assembly, results, command line and window share.
#pragma once

#include "core/message.h"
#include "core/plan/plan.h"

#include <optional>
#include <string>
#include <vector>

namespace muffle {

enum class RoomKind { house, bay, lobby, roofVoid, bed };

/// A room other than the house.
struct OtherRoom {
  RoomKind kind = RoomKind::bay;
  std::size_t bed = 0;               ///< of bed covers: which
  std::string id;                    ///< "bay", "lobby", "roof-void", "bed:1", ...
  Message name;                      ///< nameOf() it
  std::optional<double> hold_C = {}; ///< the line its nights are counted by; a lobby or roof void has none
  bool isJudged = false;             ///< the line is its own, and a night below it is missed; a bed cover without one has only the house's to compare with
};

/// Bay, lobby, roof void and bed covers, as far as the plan has them.
std::vector<OtherRoom> otherRooms(const Plan& plan);

/// Place of a room among otherRooms(); nothing if the plan has none of the kind.
std::optional<std::size_t> otherRoom(const Plan& plan, RoomKind kind, std::size_t bed = 0);

/// Of the house or its bay, without what is partitioned off from it.
double ownFloor_m2(const House& house, bool inBay);

} // namespace muffle
