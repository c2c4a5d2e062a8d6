// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/house/infiltration.h"

#include <algorithm>
#include <array>

#include "core/air/moist_air.h"

#include <cmath>

namespace muffle {

double airChangeConductance_W_K(double n, double volume_m3, double outside_C, double pressure_Pa) {
  return airDensity_kg_m3(outside_C, pressure_Pa) * kAirHeat_J_kgK * n * volume_m3 / 3600.0;
}

double airChangeLatent_W(double n, double volume_m3, double outside_C, double humidityIn, double humidityOut, double pressure_Pa) {
  return airDensity_kg_m3(outside_C, pressure_Pa) * n * volume_m3 / 3600.0 * (humidityIn - humidityOut) * kEvaporation_J_kg;
}

LeakageFlow leakageFlow(double area, const LeakageSite& s, double outside_K, double difference_K, double wind) {
  const double r = s.ceilingFloorShare;
  const double x = s.ceilingFloorDifference;
  LeakageFlow flow{};
  flow.stackFactor = (1.0 + r / 2.0) / 3.0 * std::pow(1.0 - x * x / ((2.0 - r) * (2.0 - r)), 1.5) * std::sqrt(kGravity_m_s2 * s.height_m / outside_K);
  flow.windFactor = s.shielding * std::cbrt(1.0 - r) * s.terrainA * std::pow(s.height_m / 10.0, s.terrainB);
  flow.flow_m3_s = area * std::sqrt(flow.stackFactor * flow.stackFactor * difference_K + flow.windFactor * flow.windFactor * wind * wind);
  return flow;
}

double leakageFlowBasic_m3_s(double area_cm2, double difference_K, double wind, double cs, double cw) {
  return area_cm2 / 1000.0 * std::sqrt(cs * difference_K + cw * wind * wind);
}

double ventStackFlow_m3_s(double low, double high, double height, double difference_K, double inside_K, double discharge) {
  const double effective = 1.0 / std::sqrt(1.0 / (low * low) + 1.0 / (high * high));
  return discharge * effective * std::sqrt(2.0 * kGravity_m_s2 * height * difference_K / inside_K);
}

double openDoorFlow_m3_s(double width, double height, double difference_K, double mean_K, double discharge) {
  return discharge * width / 3.0 * std::sqrt(kGravity_m_s2 * height * height * height * difference_K / mean_K);
}

std::span<const Draughtiness> draughtinesses() {
  static constexpr std::array<Draughtiness, 5> kHouses{{
      {"two-film", 0.25, 0.075, "0.5 to 1.0", "ASAE EP406, new double film"},
      {"new", 0.40, 0.110, "0.75 to 1.5", "ASAE EP406, new glass or rigid sheet"},
      {"kept", 0.50, 0.150, "1 to 2", "ASAE EP406, old glass, good maintenance"},
      {"usual", 0.70, 0.250, "1.5 to 3", "between the rows beside it"},
      {"poor", 1.00, 0.300, "2 to 4", "ASAE EP406, old glass, poor condition"},
  }};
  return kHouses;
}

Message nameOf(const Draughtiness& draughtiness) { return Message::of("draughts", draughtiness.id); }

double doorConductance_W_K(double opened, double seconds, double width_m, double height_m, double difference_K, double outside_C, double day_s,
                           double pressure_Pa) {
  constexpr double kDischarge = 0.6; // a sharp-edged opening
  const double flow = openDoorFlow_m3_s(width_m, height_m, difference_K, kelvin(outside_C + difference_K / 2.0), kDischarge);
  return airDensity_kg_m3(outside_C, pressure_Pa) * kAirHeat_J_kgK * flow * std::min(opened * seconds / day_s, 1.0);
}

} // namespace muffle
