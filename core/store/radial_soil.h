// SPDX-License-Identifier: GPL-3.0-or-later
//
// Soil in rings round a pipe, as nodes of a Network: what a pipe draws on, and what remembers.
//   dT/dt = a (1/r) d/dr (r dT/dr) from the pipe's outer face r0 to r1, nodes at radii r_i that grow by one ratio:
//   links 2 pi k L/ln(r_(i+1)/r_i), exact in steady flow; each node holds the soil of the ring to halfway, in volume
// Carslaw and Jaeger, Conduction of Heat in Solids, ch. XIII; Ingersoll, Zobel and Ingersoll (1954).
//
//   const RadialSoil soil = addRadialSoil(net, "tube", {.length_m = 20, .inner_m = 0.055, .outer_m = 2.0, ...}, 14.0);
//   net.addConductance(air, soil.face(), ...);
#pragma once

#include "core/network/network.h"

#include <string>
#include <vector>

namespace muffle {

struct RadialSoilShape {
  double length_m = 1.0;
  double inner_m = 0.055; ///< radius of the pipe's outer face
  double outer_m = 2.0;   ///< radius, > inner
  double conductivity_W_mK = 1.5;
  double heat_J_m3K = 2.2e6;
  int rings = 6; ///< links between nodes, >= 1
};

struct RadialSoil {
  std::vector<int> node;        ///< outwards, rings + 1
  std::vector<double> radius_m; ///< of those
  [[nodiscard]] int face() const { return node.front(); }
  [[nodiscard]] int far() const { return node.back(); }
};

/// `far`: the node that stands at the outer radius, whose own capacity is not touched; -1 lets nothing through there.
RadialSoil addRadialSoil(Network& network, const std::string& id, const RadialSoilShape& shape, double start_C, int far = -1);

/// Thermal resistance of soil by metre of one pipe in a row of equal ones, from its outer face to a surface above at one
/// temperature, K m/W: ln(s/(pi r0) sinh(2 pi d/s))/(2 pi k). Spacing s, depth d of the axes; one pipe alone where s is many d.
/// Incropera and DeWitt, shape factors of conduction.
double pipeRowResistance_mK_W(double radius_m, double depth_m, double spacing_m, double conductivity_W_mK);

} // namespace muffle
