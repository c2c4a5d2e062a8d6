// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/house/layered_air.h"

#include <cmath>

namespace muffle {

LayeredLoss layeredLoss(const GableHouse& h, double inside_C, double outside_C, double gradient_K_m, double roofU_W_m2K, double wallsU_W_m2K) {
  const double rise_m = h.ridge_m - h.eave_m;
  const double below_m2 = h.width_m * h.eave_m, above_m2 = 0.5 * h.width_m * rise_m; // of an end: under the eaves, and the gable
  const double belowMiddle_m = 0.5 * h.eave_m, aboveMiddle_m = h.eave_m + rise_m / 3.0;
  LayeredLoss loss;
  loss.meanHeight_m = (below_m2 * belowMiddle_m + above_m2 * aboveMiddle_m) / (below_m2 + above_m2);
  // temperatures are straight with height, so that a face loses as its middle does
  const auto over_K = [&](double middle_m) { return gradient_K_m * (middle_m - loss.meanHeight_m); };
  const double roof_m2 = 2.0 * h.length_m * std::hypot(0.5 * h.width_m, rise_m), roofMiddle_m = 0.5 * (h.eave_m + h.ridge_m);
  const double sides_m2 = 2.0 * h.length_m * h.eave_m, walls_m2 = sides_m2 + 2.0 * (below_m2 + above_m2);
  loss.roofAir_C = inside_C + over_K(roofMiddle_m);
  loss.roofMixed_W = roofU_W_m2K * roof_m2 * (inside_C - outside_C);
  loss.wallsMixed_W = wallsU_W_m2K * walls_m2 * (inside_C - outside_C);
  loss.roofExtra_W = roofU_W_m2K * roof_m2 * over_K(roofMiddle_m);
  loss.wallsExtra_W = wallsU_W_m2K * (sides_m2 * over_K(belowMiddle_m) + 2.0 * (below_m2 * over_K(belowMiddle_m) + above_m2 * over_K(aboveMiddle_m)));
  return loss;
}

} // namespace muffle
