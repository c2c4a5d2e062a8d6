// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/store/pile.h"

#include "core/air/moist_air.h"
#include "core/store/ingredients.h"

#include <algorithm>
#include <cmath>

namespace muffle {

namespace {

constexpr double kFilled = 0.75;          // of the parts' volumes, once they are mixed
constexpr double kCompost_W_mK = 0.4;     // moist, 40 % free air: Ahn et al., Bioresource Technology 100 (2009) 3974, 0.2 to 0.6
constexpr double kOuterFilm_W_m2K = 12.0; // of the open faces
constexpr double kSettling = 0.6, kCompaction = 0.26;
constexpr double kDryAir_kg_m3 = 1.2;
constexpr double kUnderSoil = 0.9; // of a top that crumbly soil lies on, as far as air is concerned

} // namespace

Blend blendOf(const CompostPile& pile) {
  Blend b;
  double water = pile.water_kg, dry = 0.0, nitrogen = 0.0, carbon = 0.0, volatileSolids = 0.0, degradable = 0.0, quick = 0.0, rate = 0.0, volume = 0.0;
  for (const PileIngredient& part : pile.recipe) {
    const CompostIngredient* i = findIngredient(part.ingredient);
    if (!i) continue;
    const double moisture = part.moisture.value_or(i->moisture);
    const double solids = part.wet_kg * (1.0 - moisture);
    const double burns = solids * i->volatileSolids * i->degradable;
    water += part.wet_kg * moisture;
    dry += solids;
    nitrogen += solids * i->nitrogen;
    carbon += solids * i->nitrogen * i->carbonNitrogen;
    volatileSolids += solids * i->volatileSolids;
    degradable += burns;
    quick += burns * i->quick;
    rate += burns * (1.0 - i->quick) * i->k20_per_day;
    // as it is tipped at the table's moisture: what is wetter is heavier, not larger
    volume += solids / (1.0 - i->moisture) / i->bulk_kg_m3;
    b.hasManure = b.hasManure || i->isManure;
  }
  b.wet_kg = water + dry;
  if (dry <= 0.0) return b;
  b.moisture = water / b.wet_kg;
  b.carbonNitrogen = nitrogen > 0.0 ? carbon / nitrogen : 0.0;
  b.degradable_kg = degradable;
  b.mix.wet_kg = b.wet_kg;
  b.mix.moisture = b.moisture;
  b.mix.volatileSolids = volatileSolids / dry;
  b.mix.degradable = degradable / volatileSolids;
  b.mix.quick = quick / degradable;
  b.mix.quickK20_per_day *= pile.k20Factor;
  b.mix.k20_per_day = pile.k20Factor * rate / (degradable - quick);
  b.mix.airiness = pile.airiness;
  b.mix.settling = kSettling;
  b.mix.compaction = kCompaction;
  // water that finds no room between the solids makes the pile no smaller than both
  b.volume_m3 = b.mix.volume_m3 = std::max(kFilled * volume, 1.02 * (dry / b.mix.solidsDensity_kg_m3 + water / kWaterDensity_kg_m3));
  b.bulk_kg_m3 = b.wet_kg / b.volume_m3;
  b.freeAirSpace = 1.0 - (dry / b.mix.solidsDensity_kg_m3 + water / kWaterDensity_kg_m3) / b.volume_m3;
  return b;
}

std::vector<BlendRemark> remarks(const Blend& b) {
  std::vector<BlendRemark> all;
  if (b.wet_kg <= 0.0) return all;
  if (b.moisture > 0.70) all.push_back(BlendRemark::tooWet);
  if (b.moisture < 0.45) all.push_back(BlendRemark::tooDry);
  if (b.freeAirSpace < 0.25) all.push_back(BlendRemark::tooDense);
  if (b.volume_m3 < 1.0) all.push_back(BlendRemark::small);
  if (b.carbonNitrogen > 45.0 || b.carbonNitrogen == 0.0) all.push_back(BlendRemark::littleNitrogen);
  if (b.carbonNitrogen > 0.0 && b.carbonNitrogen < 20.0) all.push_back(BlendRemark::muchNitrogen);
  if (b.degradable_kg < 0.08 * b.wet_kg) all.push_back(BlendRemark::littleToBurn);
  return all;
}

PileSize pileSize(const CompostPile& pile, const Blend& blend) {
  PileSize s;
  s.foot_m2 = s.top_m2 = pile.width_m * pile.length_m;
  s.height_m = blend.volume_m3 / s.foot_m2;
  s.sides_m2 = 2.0 * (pile.width_m + pile.length_m) * s.height_m;
  s.core_m2K_W = blend.volume_m3 / (2.0 * s.foot_m2 + s.sides_m2) / (2.0 * kCompost_W_mK);
  return s;
}

CompostAir pileAir(const CompostPile& pile, const PileSize& size) {
  CompostAir air{pile.blown_m3_h * kDryAir_kg_m3 / 3600.0};
  if (air.blown_kg_s <= 0.0) { // it comes in by the sides, goes a quarter of the width inwards, and rises
    const double inwards_m = 0.25 * std::min(pile.width_m, pile.length_m);
    air.draws_m2 = size.foot_m2 * size.height_m / (size.height_m + inwards_m) * (pile.place == PilePlace::hotBed ? kUnderSoil : 1.0);
  }
  air.faces_m2 = size.sides_m2 + (pile.place == PilePlace::hotBed ? kUnderSoil : 1.0) * size.top_m2;
  air.path_m = size.foot_m2 * size.height_m / air.faces_m2;
  return air;
}

PileCourse pileCourse(const CompostPile& pile, const PileTrial& trial) {
  constexpr double kStep_s = 1800.0;
  PileCourse c;
  Blend blend = blendOf(pile);
  if (blend.wet_kg <= 0.0) return c;
  blend.mix.k20_per_day *= trial.k20Factor;
  blend.mix.quickK20_per_day *= trial.k20Factor;
  const PileSize size = pileSize(pile, blend);
  constexpr double kSoil_W_mK = 1.0;
  const bool isHotBed = pile.place == PilePlace::hotBed;
  const double over_m2K_W = isHotBed ? pile.soil_m / kSoil_W_mK : pile.jacket_m2K_W;
  const double open_W_K = (1.0 - pile.buried) * size.sides_m2 / (size.core_m2K_W + pile.jacket_m2K_W + 1.0 / kOuterFilm_W_m2K) +
                          size.top_m2 / (size.core_m2K_W + over_m2K_W + 1.0 / kOuterFilm_W_m2K);
  constexpr double kUnder_m2K_W = 1.0; // of the ground below: half a metre of moist soil
  const double ua =
      open_W_K + size.foot_m2 / (size.core_m2K_W + kUnder_m2K_W) + pile.buried * size.sides_m2 / (size.core_m2K_W + pile.jacket_m2K_W + kUnder_m2K_W);
  CompostState state = freshCompost(blend.mix, pile.tipped_C.value_or(trial.start_C));
  const CompostAir air = pileAir(pile, size);
  CompostWeather weather{trial.air_C, humidityRatio(trial.humidity * saturationPressure_Pa(trial.air_C))};
  double sustained_J = 0.0;
  const auto steps = static_cast<int>(trial.days * 86400.0 / kStep_s);
  for (int i = 0; i < steps; ++i) {
    const double day = i * kStep_s / 86400.0;
    if (i % 12 == 0) {
      c.day.push_back(day);
      c.core_C.push_back(state.temperature_C);
      const double solids = state.degradable_kg + blend.mix.inert_kg();
      c.moisture.push_back(state.water_kg / (state.water_kg + solids));
      c.settled_m.push_back(size.height_m * (1.0 - compostVolume_m3(blend.mix, state) / blend.mix.volume_m3));
    }
    const bool taking = day >= trial.takenFrom_d && day < trial.takenTo_d;
    weather.taken_W = ua * (state.temperature_C - trial.air_C) + (taking && state.temperature_C > trial.air_C + 5.0 ? trial.taken_W : 0.0);
    weather.taken_W_K = ua;
    const CompostStep step = advanceCompost(blend.mix, state, air, weather, kStep_s);
    if (day >= 3.0 && day < 30.0) sustained_J += step.heat_J;
    c.peak_C = std::max(c.peak_C, state.temperature_C);
    if (state.temperature_C >= 40.0) c.daysAbove40_d += kStep_s / 86400.0;
  }
  c.sustained_W_per_t = sustained_J / (27.0 * 86400.0) / (blend.wet_kg / 1000.0);
  return c;
}

} // namespace muffle
