// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assemble/room_air.h"

#include "core/air/moist_air.h"
#include "core/network/vapour.h"

#include <algorithm>

namespace muffle {
namespace {

constexpr double kAir_C = 5.0; // that densities are taken at
constexpr double kLeafAir_s_m = 200.0;

} // namespace

RoomAir addRoomAir(Network& net, const std::string& prefix, double volume_m3, double crop_J_K, double start_C, double start_g_kg) {
  const double mass_kg = airDensity_kg_m3(kAir_C, net.pressure_Pa) * volume_m3;
  return {net.addNode(prefix + "air", mass_kg * kAirHeat_J_kgK + crop_J_K, start_C),
          net.addNode(prefix + "vapour", mass_kg * kEvaporation_J_kg / 1000.0, start_g_kg)};
}

void exchangeAir(Network& net, RoomAir from, RoomAir to, double conductance, int modulator, const std::string& part) {
  net.addConductance(from.air, to.air, conductance, part).modulator = modulator;
  net.addConductance(from.vapour, to.vapour, conductance * kLatentPerExchange, part).modulator = modulator;
}

void ventAir(Network& net, RoomAir from, RoomAir to, double opens_C, double full_C, double conductance, int modulator, const std::string& part) {
  net.vents.push_back({from.air, to.air, from.air, opens_C, full_C, conductance, part, modulator});
  net.vents.push_back({from.vapour, to.vapour, from.air, opens_C, full_C, conductance * kLatentPerExchange, part, modulator});
}

double transpiration_W_g_kg(double light_W_m2) {
  const double light = std::max(light_W_m2, 0.0);
  const double stomata_s_m = 82.0 * (light + 4.3) / (light + 0.54);
  return airDensity_kg_m3(kAir_C) * kEvaporation_J_kg / 1000.0 / (stomata_s_m + kLeafAir_s_m);
}

} // namespace muffle
