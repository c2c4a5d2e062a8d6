// SPDX-License-Identifier: GPL-3.0-or-later
//
// Thermal resistances by ISO 6946: surfaces, air layers, layered elements and the combined method.
#pragma once

#include <span>
#include <utility>
#include <vector>

namespace muffle {

enum class HeatFlow { up, horizontal, down };

/// Rsi 0.10 / 0.13 / 0.17 and Rse 0.04 m2K/W.
double insideSurface_m2K_W(HeatFlow flow);
constexpr double kOutsideSurface_m2K_W = 0.04;

/// ISO 6946 table 2 (emissivities 0.9), linear between rows, held beyond 300 mm. thickness_m >= 0.
double airLayerTable_m2K_W(double thickness_m, HeatFlow flow);
/// Convection plus radiation across an unventilated layer: R = 1/(ha + E 4 sigma Tm^3).
double airLayer_m2K_W(double thickness_m, HeatFlow flow, double emissivity1, double emissivity2, double mean_C);
/// The convective part ha alone, W/(m2 K), for differences up to 5 K.
double airLayerConvection_W_m2K(double thickness_m, HeatFlow flow);
/// Where the layer is wide enough for its air to turn over, for greater differences: ha = this x dT^(1/3), ISO 6946:2017. 0 downwards.
double airLayerTurning_W_m2K43(HeatFlow flow);

double uValue_W_m2K(std::span<const double> resistances_m2K_W, HeatFlow flow);

/// One section of an element with several heat paths: its share of the area and its layers (thickness, conductivity).
struct Section {
  double fraction;
  std::vector<std::pair<double, double>> layers;
};
struct CombinedResistance {
  double upper_m2K_W;
  double lower_m2K_W;
  [[nodiscard]] double u_W_m2K() const { return 2.0 / (upper_m2K_W + lower_m2K_W); }
};
/// Sections must have the same number of layers with equal thicknesses; fractions add up to 1.
CombinedResistance combinedResistance(std::span<const Section> sections, HeatFlow flow);

} // namespace muffle
