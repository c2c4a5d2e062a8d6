// SPDX-License-Identifier: GPL-3.0-or-later
//
// The heat balance of one leaf in given air and radiation: how warm it is, what it gives off, whether dew or frost settles on it (Monteith and Unsworth,
// Principles of Environmental Physics, ch. 13; free convection at a level plate). Per square metre of leaf, one side counted.
#pragma once

#include "core/constants.h"

namespace muffle {

struct LeafSurroundings {
  double air_C = 10.0;
  double relativeHumidity = 0.8; ///< 0..1
  double absorbedShortwave_W_m2 = 0.0;
  double longwaveAbove_W_m2 = 300.0, longwaveBelow_W_m2 = 350.0; ///< that come to it
  double boundary_m_s = 0.005;                                   ///< conductance to heat of the air at one side, > 0
  double stomata_s_m = 300.0;                                    ///< resistance of one side that has any
  int stomataSides = 1;                                          ///< 1 or 2
  double emissivity = 0.96;
  double pressure_Pa = kStandardPressure_Pa;
};
struct LeafState {
  double leaf_C = 0.0;
  double transpiration_kg_m2s = 0.0; ///< below 0: dew
};
LeafState leafBalance(const LeafSurroundings& at);

enum class Deposit { none, dew, frost };
struct LeafNight {
  double leaf_C = 0.0;
  double deposit_kg_m2s = 0.0;
  Deposit kind = Deposit::none;
};
/// A level leaf in still air by night, between the sky and the ground; relative humidity over water, 0..1.
LeafNight leafAtNight(double air_C, double relativeHumidity, double skyDownward_W_m2, double ground_C, double leafWidth_m, double emissivity);

} // namespace muffle
