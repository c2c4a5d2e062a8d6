// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/house/stirred_air.h"

#include <cmath>

namespace muffle {
namespace {

double film_W_m2K(const StirredFace& face, double difference_K) {
  return std::cbrt(std::pow(face.free_W_m2K43, 3) * difference_K + std::pow(face.forced_W_m2K, 3));
}

/// Between the air and its covers, at which they take all of that heat.
double difference_K(std::span<const StirredFace> faces, double heat_W) {
  const auto taken_W = [&](double by_K) {
    double sum_W = 0.0;
    for (const StirredFace& face : faces) sum_W += face.area_m2 * film_W_m2K(face, by_K) * by_K;
    return sum_W;
  };
  double low_K = 0.0, high_K = 1.0;
  while (taken_W(high_K) < heat_W) high_K *= 2.0;
  for (int k = 0; k < 60; ++k) {
    const double middle_K = 0.5 * (low_K + high_K);
    (taken_W(middle_K) < heat_W ? low_K : high_K) = middle_K;
  }
  return 0.5 * (low_K + high_K);
}

} // namespace

double forcedAtRoof_W_m2K(double airChanges_per_h) { return 0.49 * std::pow(airChanges_per_h, 0.8); }
double forcedAtWalls_W_m2K(double airChanges_per_h) { return 0.19 * std::pow(airChanges_per_h, 0.8); }

std::vector<double> stirredShares(std::span<const StirredFace> faces, double heat_W) {
  std::vector<double> shares(faces.size(), 0.0);
  double area_m2 = 0.0;
  for (const StirredFace& face : faces) area_m2 += face.area_m2;
  if (heat_W <= 0.0 || area_m2 <= 0.0) return shares;
  const double by_K = difference_K(faces, heat_W);
  for (std::size_t i = 0; i < faces.size(); ++i)
    shares[i] = faces[i].area_m2 * (film_W_m2K(faces[i], by_K) - faces[i].free_W_m2K43 * std::cbrt(by_K)) * by_K / heat_W;
  return shares;
}

} // namespace muffle
