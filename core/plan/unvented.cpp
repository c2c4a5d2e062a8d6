// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/unvented.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace muffle {
namespace {
constexpr double kOutdoor_ppm = 420.0;
constexpr double kCarbonDioxide_kg_m3 = 1.84; // at 20 C
constexpr double kLeastAirChanges = 0.02;     // no house is tighter
} // namespace

double carbonDioxide_ppm(double source_m3_s, double volume_m3, double airChanges_per_h, double outdoor_ppm, double time_s) {
  const double changes_per_s = airChanges_per_h / 3600.0;
  if (changes_per_s <= 0.0) return outdoor_ppm + 1e6 * source_m3_s * time_s / volume_m3;
  const double steady = 1e6 * source_m3_s / (changes_per_s * volume_m3);
  return outdoor_ppm + steady * -std::expm1(-changes_per_s * time_s);
}

UnventedAir unventedAir(const Heater& heater, const Plan& plan) {
  if (factsOf(heater.kind).hasFlue) return {};
  const Carrier carrier = carrierOf(heater);
  const double net_kW = heater.power_W / efficiencyOf(heater) / 1000.0;
  const double source_m3_s = net_kW * carbonDioxide_kg_kWh(carrier) / kCarbonDioxide_kg_m3 / 3600.0;
  const double changes = std::max(kLeastAirChanges, plan.house.airChanges_per_h);
  return {carbonDioxide_ppm(source_m3_s, plan.house.shape.volume_m3(), changes, kOutdoor_ppm, std::numeric_limits<double>::infinity()),
          net_kW * water_kg_kWh(carrier), net_kW / net_kWh_kg(carrier)};
}

} // namespace muffle
