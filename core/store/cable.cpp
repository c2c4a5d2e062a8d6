// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/store/cable.h"

#include "core/constants.h"

#include <cmath>

namespace muffle {

double cableUnevenness_K(double watts_per_m, double conductivity_W_mK, double spacing_m, double above_m) {
  return watts_per_m / (2.0 * kPi * conductivity_W_mK) * -std::log(std::tanh(kPi * above_m / spacing_m));
}

} // namespace muffle
