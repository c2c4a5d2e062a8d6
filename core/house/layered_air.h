// SPDX-License-Identifier: GPL-3.0-or-later
//
// A house whose air is not mixed: warmer towards the ridge, or colder, in a straight line. What its covers lose then, beside what they lose where the air is
// alike everywhere and as warm on average.
#pragma once

namespace muffle {

struct GableHouse {
  double width_m = 4.0, length_m = 8.0, eave_m = 1.8, ridge_m = 3.0;
};
struct LayeredLoss {
  double meanHeight_m = 0.0; ///< of the volume, where the air has its mean temperature
  double roofAir_C = 0.0;    ///< mean at the roof
  double roofMixed_W = 0.0, wallsMixed_W = 0.0;
  double roofExtra_W = 0.0, wallsExtra_W = 0.0; ///< that layers add
};
/// gradient_K_m upwards; U of the roof's two slopes, and of side walls and gable ends, W/m2K.
LayeredLoss layeredLoss(const GableHouse& house, double inside_C, double outside_C, double gradient_K_m, double roofU_W_m2K, double wallsU_W_m2K);

} // namespace muffle
