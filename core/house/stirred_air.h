// SPDX-License-Identifier: GPL-3.0-or-later
//
// A heater whose fan stirs the air of a room: the film of air inside its covers grows thinner while it runs, and more of its heat goes straight to them.
//   forced   h = 0.49 n^0.8 at a roof, 0.19 n^0.8 at walls, W/(m2 K), n the air it moves in room volumes an hour, 3 to 100 (Fisher and Pedersen, ASHRAE
//            Transactions 103 (1997)); below 3 it is small beside free convection
//   with free convection   h^3 = h_free^3 + h_forced^3 (Beausoleil-Morrison, The adaptive coupling of heat and air flow modelling, 2000), h_free = k dT^(1/3)
#pragma once

#include <span>
#include <vector>

namespace muffle {

double forcedAtRoof_W_m2K(double airChanges_per_h);
double forcedAtWalls_W_m2K(double airChanges_per_h);

/// A cover as the stirred air meets it.
struct StirredFace {
  double area_m2 = 0.0;
  double free_W_m2K43 = 1.5; ///< k of its free convection
  double forced_W_m2K = 0.0;
};

/// By face, what share of a heater's warm air goes to it beyond what free convection would take there, while the heater alone carries the house's loss at full
/// stretch: together from 0 in still air to less than 1.
std::vector<double> stirredShares(std::span<const StirredFace> faces, double heat_W);

} // namespace muffle
