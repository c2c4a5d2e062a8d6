// SPDX-License-Identifier: GPL-3.0-or-later
//
// A floor on the ground, ISO 13370:2017.
//   B' = A/(P/2);  dt = w + k (0.17 + Rf + 0.04)
//   dt < B': U = 2k/(pi B' + dt) ln(pi B'/dt + 1), else U = k/(0.457 B' + dt)
#pragma once

namespace muffle {

struct SlabOnGround {
  double area_m2 = 0.0;     ///< > 0
  double perimeter_m = 0.0; ///< exposed, > 0
  double wall_m = 0.0;      ///< thickness of the wall standing on the edge, >= 0
  double soil_W_mK = 1.5;   ///< > 0
  double floor_m2K_W = 0.0; ///< resistance of the floor itself, >= 0

  [[nodiscard]] double characteristicDimension_m() const; ///< B'
  [[nodiscard]] double equivalentThickness_m() const;     ///< dt
  [[nodiscard]] double u_W_m2K() const;
};

enum class EdgeInsulation { horizontal, vertical };

/// Correction per metre of edge, W/(m K), negative: it saves. depth_m is the width or depth D of the insulation.
double edgeInsulationPsi_W_mK(double soil_W_mK, double equivalentThickness_m, double depth_m, double thickness_m, double insulation_W_mK, EdgeInsulation kind);

/// Year-wave conductances, W/K: towards the inside temperature and towards the outside, through the edge.
struct SlabPeriodic {
  double penetration_m;
  double inside_W_K;
  double outside_W_K;
};
SlabPeriodic slabPeriodic(const SlabOnGround& slab, double soilHeat_J_m3K);

/// Steady loss of a rectangular floor to a half-space whose surface outside a wall of thickness W is at the outside
/// temperature, linear across the wall: the exact integral with mitred corners, W. Delsante, Stokes and Walsh,
/// Int. J. Heat Mass Transfer 26 (1983) 121.
double slabHalfSpaceLoss_W(double length_m, double width_m, double wall_m, double soil_W_mK, double difference_K);

/// An upright side of something buried, from top_m to bottom_m below the ground, to the open ground's surface: heat goes round by quarter
/// circles, and first as far as the side stands from where the open ground begins (inset_m, 0 or more). board_m2K_W lies on the side.
///   U = 1/(R + (inset + pi z/2)/k),  integrated over the depth z
/// W/K for a metre of its length. Latta and Boileau, Canadian Building 19 (1969) 39; ASHRAE Fundamentals has it for walls of cellars.
double buriedSide_W_mK(double top_m, double bottom_m, double inset_m, double board_m2K_W, double soil_W_mK);

} // namespace muffle
