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

} // namespace muffle
