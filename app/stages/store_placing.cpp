// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/store_placing.h"

#include <algorithm>
#include <cmath>

namespace muffle {

void StorePlacing::put(Plan& plan, double x_m, double below_m) const {
  add(plan);
  const auto fives = [](double v) { return std::round(20.0 * v) / 20.0; }; // centimetres
  const double half_m = plan.house.shape.span_m() / 2.0;
  switch (kind) {
  case StoreKind::barrels: plan.barrels.back().x_m = std::clamp(fives(x_m), -half_m, half_m); break;
  case StoreKind::pipes:
    if (below_m > 0.0) plan.groundPipes.back().depth_m = std::clamp(fives(below_m), 0.15, 4.0);
    break;
  case StoreKind::compost: plan.compost.back().x_m = std::clamp(fives(x_m), -60.0, 60.0); break;
  case StoreKind::loop: plan.waterLoops.back().x_m = std::clamp(fives(x_m), -half_m, half_m); break;
  case StoreKind::mass: plan.mass.back().x_m = std::clamp(fives(x_m), -half_m, half_m); break;
  case StoreKind::cable: { // in the bed that it is held over
    SoilCable& cable = plan.soilCables.back();
    const auto& beds = plan.house.bedCovers;
    const auto nearer = [x_m](const BedCover& a, const BedCover& b) { return std::abs(a.x_m - x_m) < std::abs(b.x_m - x_m); };
    cable.bed = static_cast<int>(std::min_element(beds.begin(), beds.end(), nearer) - beds.begin());
    if (below_m > 0.0) cable.depth_m = std::clamp(std::round(100.0 * below_m) / 100.0, 0.02, 0.5);
    break;
  }
  }
}

} // namespace muffle
