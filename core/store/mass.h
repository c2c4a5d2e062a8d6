// SPDX-License-Identifier: GPL-3.0-or-later
//
// Heavy materials inside a house: ISO 10456 and, for sunlight, the tables of Duffie and Beckman, ch. 4.
#pragma once

#include "core/store/stores.h"

namespace muffle {

struct MassHeat {
  double conductivity_W_mK;
  double heat_J_m3K;
  double absorptance; ///< of sunlight
};
MassHeat massHeat(MassMaterial material);

/// From within a raised bed through its boards, or a bench through its bare sides, to the house's air, all round, W/K. Within, a bed of width w that cools from
/// both sides has w/2/(3 k): the lumped slab (Incropera and DeWitt, ch. 5). The boards have a film of 0.125 m2K/W.
double raisedBedSides_W_K(const MassBlock& bed);

} // namespace muffle
