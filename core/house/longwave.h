// SPDX-License-Identifier: GPL-3.0-or-later
//
// Long-wave exchange through films that are partly transparent to it: the net-radiation method.
// The house is an enclosure of an opaque floor and one or more covers. Each cover is a stack of sheets, outermost
// first, under sky and surroundings. Every surface emits eps sigma T^4; what it sends is followed through all sheets
// and reflections until absorbed. The result is one symmetric radiating area per pair, so that a network of radiative
// links reproduces the method exactly: q_ij = sigma A_ij (T_i^4 - T_j^4).
// Siegel and Howell, Thermal Radiation Heat Transfer, ch. on enclosures with partially transmitting windows.
#pragma once

#include <vector>

namespace muffle {

/// One sheet for long-wave: reflectance is 1 - emissivity - transmittance on both sides.
struct LongwaveSheet {
  double emissivity = 0.9;    ///< 0.01..1
  double transmittance = 0.0; ///< 0..1 - emissivity
};

struct LongwaveCover {
  double area_m2 = 0.0;              ///< > 0
  std::vector<LongwaveSheet> sheets; ///< outermost first, at least one
};

/// Radiating areas, m2. Surfaces are numbered: 0 floor, then every cover's outside (sky), then every cover's sheets.
struct LongwaveAreas {
  std::vector<std::vector<double>> between; ///< symmetric, zero diagonal
  int floor = 0;
  std::vector<int> outside;             ///< by cover
  std::vector<std::vector<int>> sheets; ///< by cover, outermost first
};

/// Inside, the floor sees only the covers, in proportion to their areas; the covers see the floor and each other by
/// reciprocity. Total cover area must be at least the floor's.
LongwaveAreas longwaveAreas(double floor_m2, double floorEmissivity, const std::vector<LongwaveCover>& covers);

} // namespace muffle
