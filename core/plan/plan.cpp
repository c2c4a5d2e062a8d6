// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/plan.h"

#include "core/constants.h"

#include <cmath>

namespace muffle {
namespace {

double sectionOf(const BedCover& b) { return kPi / 4.0 * b.width_m * b.height_m; } // half an ellipse

} // namespace

double BedCover::cover_m2() const {
  const double a = width_m / 2.0, b = height_m;
  const double arc = kPi / 2.0 * (3.0 * (a + b) - std::sqrt((3.0 * a + b) * (a + 3.0 * b))); // Ramanujan, to 1e-3
  return count * (arc * length_m + 2.0 * sectionOf(*this));
}

double BedCover::volume_m3() const { return count * sectionOf(*this) * length_m; }

} // namespace muffle
