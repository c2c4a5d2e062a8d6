// SPDX-License-Identifier: GPL-3.0-or-later
//
// How a house is divided into the air spaces that reach its cover: a bay at one end, a lobby at the other, the house between
// them, and a roof void over the house where a ceiling hangs at the eaves. Volumes, floors, covers and edges of all spaces
// add up to those of the house.
#pragma once

#include "core/plan/rooms.h"

#include <array>
#include <vector>

namespace muffle {

struct Space {
  RoomKind kind = RoomKind::house;
  double length_m = 0.0; ///< along the ridge
  double floor_m2 = 0.0; ///< none in a roof void
  double volume_m3 = 0.0;
  std::array<double, kFaceGroupCount> cover_m2{}; ///< of each group of faces
  double edgeShare = 0.0;                         ///< of the floor's exposed edge
  double sunk_m2 = 0.0;                           ///< of the walls in the ground
};

/// The house first, then roof void, bay and lobby as far as there are any. The plan must have passed check().
std::vector<Space> spacesOf(const House& house);

/// Across the house, from the floor to the ceiling (or the roof where none hangs), and from there to the roof.
struct Crossing {
  double below_m2 = 0.0, above_m2 = 0.0;
};
Crossing crossingOf(const House& house);

} // namespace muffle
