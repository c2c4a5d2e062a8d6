// SPDX-License-Identifier: GPL-3.0-or-later
//
// Pipes in the ground as part of a Network: air is drawn from a node, cooled or warmed by the soil round the pipe, which
// changes by it, and given off to another.
// A pipe is cut into slices. A slice's air is a node at its outlet temperature: m cp (T_in - T_out) = G (T_out - T_face) with
// G = m cp (exp(NTU/slices) - 1), exact while the face of a slice is at one temperature. Round each slice lie rings of soil
// (core/store/radial_soil.h). With humidity, vapour condenses on the face by the likeness of heat and mass transfer; what
// drops out runs off, and its heat is given to the face, once. Nothing flows while the modulator is 0.
#pragma once

#include "core/store/ground_pipe.h"
#include "core/store/radial_soil.h"

#include <string>
#include <vector>

namespace muffle {

/// A body of air in the network: its temperature, and its humidity or -1.
struct AirEnd {
  int air = -1;
  int vapour = -1;
};

struct PipeRunShape {
  GroundPipe pipe;
  int count = 1;          ///< side by side, alike
  double flow_m3_s = 0.0; ///< through each, > 0
  PipeAir air = {};
  double soil_W_mK = 1.5;
  double soilHeat_J_m3K = 2.2e6;
  double soilRadius_m = 1.0; ///< that the rings of one pipe reach to
  int slices = 3;
  int rings = 5;
};

struct PipeRun {
  std::vector<int> air; ///< by slice, at its end; the last is the outlet
  std::vector<RadialSoil> soil;
  PipeFlow flow; ///< of each pipe while it runs
};

/// Draws from `from` and gives off to `to` (-1: nowhere). `far` is the node of the outermost soil, of all slices or of each;
/// empty lets nothing through there. `modulator` as of Link.
PipeRun addPipeRun(Network& network, const std::string& id, const PipeRunShape& shape, AirEnd from, AirEnd to, double start_C, const std::vector<int>& far,
                   int modulator = -1);

} // namespace muffle
