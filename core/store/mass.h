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

} // namespace muffle
