// SPDX-License-Identifier: GPL-3.0-or-later
//
// Plates, leaves and layered air.
#include "core/air/leaf_balance.h"
#include "core/house/layered_air.h"
#include "core/house/plate.h"
#include "tests/cases/adapters.h"

namespace muffle::cases {
namespace {

Json blackPlate(const Json& in) {
  const Plate plate{num(in, "absorptance"), num(in, "emissivity"), num(in, "tilt_deg"), in.at("back_free").get<bool>()};
  return {{"plate_C", plateTemperature_C(plate, {num(in, "global_W_per_m2"), num(in, "diffuse_W_per_m2"), num(in, "sun_altitude_deg"), num(in, "albedo"),
                                                 num(in, "air_C"), num(in, "sky_downward_W_per_m2"), num(in, "wind_m_s")})}};
}

Json leafTemperature(const Json& in) {
  LeafSurroundings at;
  at.air_C = num(in, "air_C");
  at.relativeHumidity = num(in, "relative_humidity");
  at.absorbedShortwave_W_m2 = num(in, "absorbed_shortwave_W_per_m2");
  at.longwaveAbove_W_m2 = num(in, "longwave_from_above_W_per_m2");
  at.longwaveBelow_W_m2 = num(in, "longwave_from_below_W_per_m2");
  at.boundary_m_s = num(in, "boundary_conductance_m_per_s");
  at.stomata_s_m = num(in, "stomatal_resistance_s_per_m");
  at.stomataSides = in.at("stomata_sides").get<int>();
  at.emissivity = num(in, "emissivity");
  at.pressure_Pa = num(in, "pressure_Pa");
  const LeafState leaf = leafBalance(at);
  return {{"leaf_C", leaf.leaf_C}, {"transpiration_kg_per_m2s", leaf.transpiration_kg_m2s}, {"leaf_minus_air_K", leaf.leaf_C - at.air_C}};
}

Json frostOnLeaf(const Json& in) {
  const double air_C = num(in, "air_C");
  const LeafNight night =
      leafAtNight(air_C, num(in, "relative_humidity"), num(in, "sky_downward_W_per_m2"), num(in, "ground_C"), num(in, "leaf_width_m"), num(in, "emissivity"));
  constexpr double kGramsAnHour = 3.6e6;
  return {{"leaf_C", night.leaf_C},
          {"deposit_g_per_m2h", night.deposit_kg_m2s * kGramsAnHour},
          {"kind", night.kind == Deposit::none  ? "none"
                   : night.kind == Deposit::dew ? "dew"
                                                : "frost"},
          {"leaf_minus_air_K", night.leaf_C - air_C}};
}

Json stratified(const Json& in) {
  const LayeredLoss loss = layeredLoss({num(in, "width_m"), num(in, "length_m"), num(in, "eave_m"), num(in, "ridge_m")}, num(in, "inside_C"),
                                       num(in, "outdoor_C"), num(in, "gradient_K_per_m"), num(in, "U_roof"), num(in, "U_walls"));
  return {{"volume_mean_height_m", loss.meanHeight_m},
          {"roof_mean_air_C", loss.roofAir_C},
          {"roof_mixed_W", loss.roofMixed_W},
          {"roof_extra_W", loss.roofExtra_W},
          {"walls_extra_W", loss.wallsExtra_W},
          {"total_mixed_W", loss.roofMixed_W + loss.wallsMixed_W},
          {"total_extra_W", loss.roofExtra_W + loss.wallsExtra_W}};
}

} // namespace

void addPlates(Adapters& a) {
  a["black_plate"] = blackPlate;
  a["leaf_temperature"] = leafTemperature;
  a["frost_on_leaf_night"] = frostOnLeaf;
  a["stratified_house_loss"] = stratified;
}

} // namespace muffle::cases
