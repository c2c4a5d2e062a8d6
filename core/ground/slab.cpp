// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/ground/slab.h"

#include "core/constants.h"

#include <cmath>

namespace muffle {
namespace {

constexpr double kInsideFilm_m2K_W = 0.17;
constexpr double kOutsideFilm_m2K_W = 0.04;

} // namespace

double SlabOnGround::characteristicDimension_m() const { return area_m2 / (0.5 * perimeter_m); }

double SlabOnGround::equivalentThickness_m() const { return wall_m + soil_W_mK * (kInsideFilm_m2K_W + floor_m2K_W + kOutsideFilm_m2K_W); }

double SlabOnGround::u_W_m2K() const {
  const double b = characteristicDimension_m();
  const double dt = equivalentThickness_m();
  if (dt < b) return 2.0 * soil_W_mK / (kPi * b + dt) * std::log(kPi * b / dt + 1.0);
  return soil_W_mK / (0.457 * b + dt);
}

double edgeInsulationPsi_W_mK(double soil, double dt, double depth_m, double thickness_m, double insulation_W_mK, EdgeInsulation kind) {
  const double extra = (thickness_m / insulation_W_mK) * soil - thickness_m;
  const double reach = kind == EdgeInsulation::vertical ? 2.0 * depth_m : depth_m;
  return -(soil / kPi) * (std::log(reach / dt + 1.0) - std::log(reach / (dt + extra) + 1.0));
}

SlabPeriodic slabPeriodic(const SlabOnGround& slab, double soilHeat_J_m3K) {
  const double delta = std::sqrt(3.15e7 * slab.soil_W_mK / (kPi * soilHeat_J_m3K));
  const double ratio = delta / slab.equivalentThickness_m();
  return {delta, slab.area_m2 * slab.soil_W_mK / slab.equivalentThickness_m() * std::sqrt(2.0 / ((1.0 + ratio) * (1.0 + ratio) + 1.0)),
          0.37 * slab.perimeter_m * slab.soil_W_mK * std::log(ratio + 1.0)};
}

double slabHalfSpaceLoss_W(double length_m, double width_m, double wall_m, double soil, double difference_K) {
  const auto f = [](double x, double y) {
    if (x <= 0.0 || y <= 0.0) return 2.0 * std::hypot(x, y);
    return 2.0 * std::hypot(x, y) - x * std::asinh(x / y) - y * std::asinh(y / x);
  };
  constexpr int kSlices = 2000; // the integrand has an integrable logarithm at s = 0: midpoints in s = W u^2 resolve it
  double sum = 0.0;
  for (int i = 0; i < kSlices; ++i) {
    const double u = (i + 0.5) / kSlices;
    const double s = wall_m * u * u;
    sum += 2.0 * u / kSlices * (f(length_m + s, width_m + s) - f(s, width_m + s) - f(length_m + s, s) + f(s, s));
  }
  return 2.0 * soil * difference_K / kPi * sum;
}

double buriedSide_W_mK(double top_m, double bottom_m, double inset_m, double board_m2K_W, double soil_W_mK) {
  const double straight_m = inset_m + soil_W_mK * board_m2K_W; // as metres of soil
  return 2.0 * soil_W_mK / kPi * std::log((kPi / 2.0 * bottom_m + straight_m) / (kPi / 2.0 * top_m + straight_m));
}

} // namespace muffle
