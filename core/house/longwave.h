// SPDX-License-Identifier: GPL-3.0-or-later
//
// Long-wave exchange through films that are partly transparent to it: the net-radiation method.
// The house is an enclosure of an opaque floor and one or more covers. Each cover is a stack of sheets, outermost
// first, under sky and surroundings. Every surface emits eps sigma T^4; what it sends is followed through all sheets
// and reflections until absorbed. The result is symmetric radiating areas, so that a network of radiative links
// reproduces the method exactly: q_ij = sigma A_ij (T_i^4 - T_j^4).
//
// Inside, the floor sees only the covers, in proportion to their areas, and every cover the floor and all covers by
// reciprocity. All covers are then reached by the same radiosity a, and with A the covers' area, A_f and e the floor's
//   floor and room   A_f e A/(A - A_f e) (E_floor - a)
//   cover and room   as of its stack between the sky and a black body that emits a
// is the same balance: a star whose middle is the room's radiation, instead of a link for every pair of surfaces.
// Siegel and Howell, Thermal Radiation Heat Transfer, ch. on enclosures with partially transmitting windows.
#pragma once

#include <vector>

namespace muffle {

/// One sheet for long-wave: a face's reflectance is 1 - its emissivity - transmittance.
struct LongwaveSheet {
  double emissivity = 0.9;       ///< 0.01..1
  double transmittance = 0.0;    ///< 0..1 - the greater emissivity
  double innerEmissivity = -1.0; ///< of the face towards the room, as of a foil's; below 0: that of both
  [[nodiscard]] double inner() const { return innerEmissivity < 0.0 ? emissivity : innerEmissivity; }
};

struct LongwaveCover {
  double area_m2 = 0.0;              ///< > 0
  std::vector<LongwaveSheet> sheets; ///< outermost first, at least one
};

/// Radiating areas of one cover, m2: symmetric, zero diagonal. Numbered: 0 its outside, 1 the room, then its sheets.
using LongwaveStack = std::vector<std::vector<double>>;
inline constexpr std::size_t kStackOutside = 0, kStackRoom = 1, kStackSheets = 2;
LongwaveStack longwaveStack(const LongwaveCover& cover);

/// Radiating area between a floor and the room's radiation, m2, under covers of coverArea_m2, at least the floor's own.
double floorToRoom_m2(double floor_m2, double floorEmissivity, double coverArea_m2);

/// Radiating areas, m2. Surfaces are numbered: 0 floor, then every cover's outside (sky), then every cover's sheets.
struct LongwaveAreas {
  std::vector<std::vector<double>> between; ///< symmetric, zero diagonal
  int floor = 0;
  std::vector<int> outside;             ///< by cover
  std::vector<std::vector<int>> sheets; ///< by cover, outermost first
};

/// The same for every pair of surfaces, the room's radiation eliminated. Total cover area must be at least the floor's.
LongwaveAreas longwaveAreas(double floor_m2, double floorEmissivity, const std::vector<LongwaveCover>& covers);

} // namespace muffle
