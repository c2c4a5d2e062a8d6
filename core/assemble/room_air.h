// SPDX-License-Identifier: GPL-3.0-or-later
//
// The air of a room in a Network: its temperature, its humidity, and how it comes and goes with both.
#pragma once

#include "core/network/network.h"

#include <string>

namespace muffle {

/// Two nodes: degC and g/kg.
struct RoomAir {
  int air = -1;
  int vapour = -1;
};

/// The air of a volume, m3, with `crop_J_K` that follows it (leaves, trays, benches).
RoomAir addRoomAir(Network& network, const std::string& prefix, double volume_m3, double crop_J_K, double start_C, double start_g_kg);

/// Air that passes both ways, W/K of sensible heat times the modulator; its vapour goes along. `part` names both links.
void exchangeAir(Network& network, RoomAir from, RoomAir to, double conductance_W_K, int modulator, const std::string& part);

/// The same through an opening that follows the temperature of `from`.
void ventAir(Network& network, RoomAir from, RoomAir to, double opens_C, double full_C, double conductance_W_K, int modulator, const std::string& part);

/// Transpiration of leaves by the light on them: W per g/kg for a square metre of leaf. Stomata after Stanghellini,
/// Transpiration of greenhouse crops (1987), r_s = 82 (I + 4.3)/(I + 0.54) s/m, with 200 s/m of still air at the leaf.
double transpiration_W_g_kg(double light_W_m2);

} // namespace muffle
