// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/network/surface_water.h"

#include "core/constants.h"

#include <algorithm>

namespace muffle {

double waterAfter_g(const SurfaceWater& surface, double water_g, double condensing_W, double h_s) {
  return std::clamp(water_g + condensing_W * h_s * 1000.0 / kEvaporation_J_kg, 0.0, surface.holds_g);
}

bool isWet(const SurfaceWater& surface, bool wasWet, double water_g) { return wasWet ? water_g > 0.0 : water_g >= surface.wets_g; }

} // namespace muffle
