// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/house/resistance.h"

#include "core/constants.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace muffle {

double insideSurface_m2K_W(HeatFlow flow) { return flow == HeatFlow::up ? 0.10 : flow == HeatFlow::down ? 0.17 : 0.13; }

double airLayerTable_m2K_W(double thickness_m, HeatFlow flow) {
  struct Row {
    double mm, up, horizontal, down;
  };
  static constexpr std::array<Row, 9> kTable{{{0, 0.00, 0.00, 0.00},
                                              {5, 0.11, 0.11, 0.11},
                                              {7, 0.13, 0.13, 0.13},
                                              {10, 0.15, 0.15, 0.15},
                                              {15, 0.16, 0.17, 0.17},
                                              {25, 0.16, 0.18, 0.19},
                                              {50, 0.16, 0.18, 0.21},
                                              {100, 0.16, 0.18, 0.22},
                                              {300, 0.16, 0.18, 0.23}}};
  const auto value = [flow](const Row& r) { return flow == HeatFlow::up ? r.up : flow == HeatFlow::down ? r.down : r.horizontal; };
  const double mm = thickness_m * 1000.0;
  for (std::size_t i = 1; i < kTable.size(); ++i) {
    if (mm <= kTable[i].mm) {
      const double share = (mm - kTable[i - 1].mm) / (kTable[i].mm - kTable[i - 1].mm);
      return value(kTable[i - 1]) + share * (value(kTable[i]) - value(kTable[i - 1]));
    }
  }
  return value(kTable.back());
}

double airLayerTurning_W_m2K43(HeatFlow flow) { return flow == HeatFlow::up ? 1.14 : flow == HeatFlow::horizontal ? 0.73 : 0.0; }

double airLayerConvection_W_m2K(double d, HeatFlow flow) {
  const double conduction = 0.025 / std::max(d, 1e-6);
  if (flow == HeatFlow::up) return std::max(1.95, conduction);
  if (flow == HeatFlow::down) return std::max(0.12 * std::pow(std::max(d, 1e-6), -0.44), conduction);
  return std::max(1.25, conduction);
}

double airLayer_m2K_W(double thickness_m, HeatFlow flow, double e1, double e2, double mean_C) {
  const double exchange = 1.0 / (1.0 / e1 + 1.0 / e2 - 1.0);
  return 1.0 / (airLayerConvection_W_m2K(thickness_m, flow) + exchange * 4.0 * kStefanBoltzmann_W_m2K4 * std::pow(kelvin(mean_C), 3));
}

double uValue_W_m2K(std::span<const double> resistances, HeatFlow flow) {
  double sum = insideSurface_m2K_W(flow) + kOutsideSurface_m2K_W;
  for (const double r : resistances) sum += r;
  return 1.0 / sum;
}

CombinedResistance combinedResistance(std::span<const Section> sections, HeatFlow flow) {
  const double films = insideSurface_m2K_W(flow) + kOutsideSurface_m2K_W;
  double upper = 0.0;
  for (const Section& s : sections) {
    double r = films;
    for (const auto& [d, k] : s.layers) r += d / k;
    upper += s.fraction / r;
  }
  double lower = films;
  for (std::size_t l = 0; l < sections.front().layers.size(); ++l) {
    double k = 0.0;
    for (const Section& s : sections) k += s.fraction * s.layers[l].second;
    lower += sections.front().layers[l].first / k;
  }
  return {1.0 / upper, lower};
}

} // namespace muffle
