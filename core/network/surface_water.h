// SPDX-License-Identifier: GPL-3.0-or-later
//
// How much water stands on a surface that a film of damp air reaches: m' = q/L of the film (core/network/vapour.h), counted by the flow at each
// step's end; 0 <= m <= holds_g, and what is more runs off. Wet from wets_g until all has dried. What a step dries beyond the last drop is heat
// of the balance all the same; only the count of water ends at 0.
#pragma once

namespace muffle {

struct SurfaceWater {
  int film = -1;        ///< a natural link with vapour
  double wets_g = 0.0;  ///< from which it counts as wet, > 0
  double holds_g = 0.0; ///< of the whole film, >= wets_g
};

/// What stands there after a step of h seconds with so much heat of condensation coming to it.
double waterAfter_g(const SurfaceWater& surface, double water_g, double condensing_W, double h_s);
bool isWet(const SurfaceWater& surface, bool wasWet, double water_g);

} // namespace muffle
