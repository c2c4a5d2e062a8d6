// SPDX-License-Identifier: GPL-3.0-or-later
//
// The ground under a floor in a Network: what lies on the soil, the soil in layers that may freeze, and the undisturbed ground
// below.
#pragma once

#include "core/ground/soil.h"
#include "core/network/network.h"
#include "core/plan/plan.h"

#include <string>
#include <vector>

namespace muffle {

/// The ground away from the house: the site's wave in the house's soil, whose moisture is there its own.
UndisturbedGround undisturbedGround(const Plan& plan);

/// One column of soil, from the floor's surface down.
struct SoilColumn {
  int edge = -1;               ///< the node that the edge of the floor draws on, 0.14 m down
  std::vector<int> below;      ///< every soil node that keeps a memory: all but those of the first centimetres
  std::vector<int> node;       ///< from the soil's surface down
  std::vector<double> depth_m; ///< of those, from the floor's surface
};

/// Total depth of a column's soil, m: the undisturbed ground is taken there.
double soilColumnDepth_m();

/// Adds a column between the node of the floor's surface and the node of the deep ground. `start_C` at the floor, `deep_C` at
/// the bottom, and a straight line between them.
SoilColumn addSoilColumn(Network& network, const std::string& id, const Floor& floor, int surface, int deep, double area_m2, double start_C, double deep_C,
                         double conductivityFactor = 1.0);

/// Thicknesses of layers from a floor's surface down to a depth, thin ones on top.
std::vector<double> layersDownTo(double depth_m);
/// Adds the soil, and what lies on it, between the node of a floor's surface and a node below, such as the plane of pipes.
void addSoilOver(Network& network, const std::string& id, const Floor& floor, int surface, int below, double area_m2, double depth_m, double start_C,
                 double below_C, double conductivityFactor = 1.0);

/// Layers of plain soil, for walls in the ground.
std::vector<SolidLayer> soilLayers(const Floor& floor, const std::vector<double>& thickness_m, double conductivityFactor = 1.0);

/// Of a moist floor's evaporation, what its cover lets through, 0..1.
double floorEvaporation(const Floor& floor);

} // namespace muffle
