// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/store/mass.h"

namespace muffle {

MassHeat massHeat(MassMaterial material) {
  switch (material) {
  case MassMaterial::stone: return {2.3, 2.3e6, 0.65};
  case MassMaterial::brick: return {0.8, 1.5e6, 0.70};
  case MassMaterial::concrete: return {1.8, 2.3e6, 0.65};
  case MassMaterial::earth: return {1.1, 1.8e6, 0.75}; // rammed
  case MassMaterial::soil: return {0.9, 2.0e6, 0.85};  // moist, of a bed
  }
  return {1.0, 2.0e6, 0.7};
}

double raisedBedSides_W_K(const MassBlock& bed) {
  constexpr double kFilm_m2K_W = 0.125; // convection and radiation on a face in the house
  const double perimeter_m = 2.0 * (bed.width_m + bed.area_m2 / bed.width_m);
  const double within_m2K_W = bed.width_m / 2.0 / (3.0 * massHeat(bed.material).conductivity_W_mK);
  return perimeter_m * bed.thickness_m / (within_m2K_W + (bed.kind == MassKind::bench ? 0.0 : bed.sides_m2K_W) + kFilm_m2K_W);
}

} // namespace muffle
