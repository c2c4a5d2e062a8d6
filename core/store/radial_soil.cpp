// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/store/radial_soil.h"

#include "core/constants.h"

#include <fmt/format.h>

#include <cmath>

namespace muffle {

RadialSoil addRadialSoil(Network& network, const std::string& id, const RadialSoilShape& shape, double start_C, int far) {
  RadialSoil soil;
  const double ratio = std::pow(shape.outer_m / shape.inner_m, 1.0 / shape.rings);
  for (int i = 0; i <= shape.rings; ++i) soil.radius_m.push_back(i == shape.rings ? shape.outer_m : shape.inner_m * std::pow(ratio, i));
  for (int i = 0; i <= shape.rings; ++i) {
    const auto n = static_cast<std::size_t>(i);
    if (i == shape.rings && far >= 0) {
      soil.node.push_back(far);
      break;
    }
    const auto halfway2 = [&](std::size_t a, std::size_t b) { return (soil.radius_m[a] * soil.radius_m[a] + soil.radius_m[b] * soil.radius_m[b]) / 2.0; };
    const double inner2 = i == 0 ? shape.inner_m * shape.inner_m : halfway2(n - 1, n);
    const double outer2 = i == shape.rings ? shape.outer_m * shape.outer_m : halfway2(n, n + 1);
    soil.node.push_back(network.addNode(fmt::format("{} ring {}", id, i), kPi * (outer2 - inner2) * shape.length_m * shape.heat_J_m3K, start_C));
  }
  const double conductance = 2.0 * kPi * shape.conductivity_W_mK * shape.length_m / std::log(ratio);
  for (std::size_t i = 0; i + 1 < soil.node.size(); ++i) network.addConductance(soil.node[i], soil.node[i + 1], conductance);
  return soil;
}

double pipeRowResistance_mK_W(double radius_m, double depth_m, double spacing_m, double conductivity_W_mK) {
  const double x = 2.0 * kPi * depth_m / spacing_m;
  // sinh by its larger half, so that a deep and narrow row does not overflow
  const double logSinh = x + std::log1p(-std::exp(-2.0 * x)) - std::log(2.0);
  return (std::log(spacing_m / (kPi * radius_m)) + logSinh) / (2.0 * kPi * conductivity_W_mK);
}

} // namespace muffle
