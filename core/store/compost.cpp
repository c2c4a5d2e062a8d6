// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/store/compost.h"

#include "core/air/moist_air.h"

#include <algorithm>
#include <cmath>

namespace muffle {

namespace {

constexpr double kGrowth = 1.066, kGrowthFrom_C = 20.0; // Haug's temperature law
constexpr double kDeath = 1.21, kDeathFrom_C = 60.0;
const double kLnGrowth = std::log(kGrowth), kLnDeath = std::log(kDeath);
constexpr double kOxygenHalf_percent = 2.0;
constexpr double kOxygenOfAir_percent = 21.0;
constexpr double kOxygenOfAir_kg_kg = 0.2314;
constexpr double kOxygenUse_kg_kg = 1.2; // by degradable solids
// of a heap of average stuff; what its air has to pass is nobody's measurement, and these two are chosen so that the piles of docs/model.md heat as such piles
// do
constexpr double kPermeability_m2 = 7.5e-9;     // moist, coarse organic stuff: 1e-9 to 1e-7
constexpr double kCrust_Pa_m = 0.15;            // of lift from which the wet crust, where the rising damp condenses, holds back as much as the heap
constexpr double kCrustForms_s = 4.0 * 86400.0; // a heap that has just been thrown up has none yet
constexpr double kSheets_kg_m3 = 470.0;         // lighter stuff lies in sheets that turn the air aside: leaves, grass
constexpr double kMostFreeAirSpace = 0.45;      // coarser heaps are no freer for it
constexpr double kAirViscosity_Pa_s = 1.9e-5;   // near 40 degC
constexpr double kVapourLightens = 0.608;
constexpr double kMostDamp_C = 90.0;
constexpr double kMostConnected = 0.44;          // of free air space, for diffusion
constexpr double kOxygenInAir_m2_s = 2.0e-5;     // diffusion, near 20 degC
constexpr double kCompaction_s = 12.0 * 86400.0; // Haug, ch. 8: most of it sinks in within the first weeks
constexpr double kEvaporationFall_J_kgK = 2326.0;

double sigmoid(double x) { return 1.0 / (std::exp(-x) + 1.0); }

/// Where the air that comes in leaves as much oxygen as the rate lets it: A (21 - o)(o + 2) = D o, the positive root.
double oxygenLeft_percent(double air_kg_s, double fullRate_kg_s) {
  if (air_kg_s <= 0.0) return 0.0;
  const double A = air_kg_s * kOxygenOfAir_kg_kg / kOxygenOfAir_percent;
  const double D = kOxygenUse_kg_kg * fullRate_kg_s;
  const double b = A * (kOxygenOfAir_percent - kOxygenHalf_percent) - D;
  const double c = A * kOxygenHalf_percent * kOxygenOfAir_percent;
  const double root = std::sqrt(b * b + 4.0 * A * c);
  return b > 0.0 ? (b + root) / (2.0 * A) : 2.0 * c / (root - b); // without cancellation
}

} // namespace

CompostState freshCompost(const CompostMix& mix, double temperature_C) {
  return {mix.degradable_kg(), mix.quick * mix.degradable_kg(), mix.wet_kg * mix.moisture, temperature_C, 0.0};
}

double compostTemperatureFactor_per_day(double k20_per_day, double t_C) {
  return k20_per_day * std::max(0.0, std::exp(kLnGrowth * (t_C - kGrowthFrom_C)) - std::exp(kLnDeath * (t_C - kDeathFrom_C)));
}

double compostWaterFactor(double solidsShare) { return sigmoid(17.684 * (1.0 - solidsShare) - 7.0622); }

double compostStructureFactor(double freeAirSpace) { return sigmoid(23.675 * freeAirSpace - 3.4945); }

double compostVolume_m3(const CompostMix& mix, const CompostState& state) {
  const double lost = mix.dry_kg() > 0.0 ? (mix.degradable_kg() - state.degradable_kg) / mix.dry_kg() : 0.0;
  return mix.volume_m3 * (1.0 - mix.settling * lost - mix.compaction * -std::expm1(-state.age_s / kCompaction_s));
}

double compostCapacity_J_K(const CompostMix& mix, const CompostState& state) {
  return (state.degradable_kg + mix.inert_kg()) * mix.solidsHeat_J_kgK + kWaterHeat_J_kgK * state.water_kg;
}

CompostRates compostRates(const CompostMix& mix, const CompostState& state, const CompostAir& air, const CompostWeather& weather) {
  CompostRates r;
  const double T = state.temperature_C;
  const double solids_kg = state.degradable_kg + mix.inert_kg();
  r.temperatureFactor_per_day = compostTemperatureFactor_per_day(mix.k20_per_day, T);
  r.water = compostWaterFactor(solids_kg / (solids_kg + state.water_kg));
  const double volume_m3 = compostVolume_m3(mix, state);
  const double ofSolids = solids_kg / mix.solidsDensity_kg_m3 / volume_m3;
  r.freeAirSpace = std::clamp(1.0 - ofSolids - state.water_kg / kWaterDensity_kg_m3 / volume_m3, 0.0, 1.0);
  r.structure = compostStructureFactor(r.freeAirSpace);
  r.air_kg_s = air.blown_kg_s;
  constexpr double kLeastPasses = 0.4;
  const double passes = std::clamp(mix.wet_kg / mix.volume_m3 / kSheets_kg_m3, kLeastPasses, 1.0);
  const double damp = humidityRatio(saturationPressure_Pa(T), weather.pressure_Pa);
  const double saturated = T <= kMostDamp_C ? damp : humidityRatio(saturationPressure_Pa(kMostDamp_C), weather.pressure_Pa);
  const double density = airDensity_kg_m3(weather.air_C, weather.pressure_Pa);
  if (air.draws_m2 > 0.0) { // by its own lift, Darcy: the pile's air is warm and damp, and lighter by both
    const double within_K = kelvin(T) * (1.0 + kVapourLightens * saturated), outside_K = kelvin(weather.air_C) * (1.0 + kVapourLightens * weather.air_kg_kg);
    const double lift_Pa_m = density * kGravity_m_s2 * (1.0 - outside_K / within_K);
    const double crusted = -std::expm1(-state.age_s / kCrustForms_s);
    const double drives_Pa_m = lift_Pa_m / (1.0 + crusted * std::max(lift_Pa_m, 0.0) / kCrust_Pa_m);
    const double permeability_m2 = kPermeability_m2 * mix.airiness * r.structure * passes * std::min(r.freeAirSpace, kMostFreeAirSpace) / kMostFreeAirSpace;
    const double flow = density * permeability_m2 / kAirViscosity_Pa_s * drives_Pa_m * air.draws_m2;
    r.air_kg_s += std::max(flow, 0.0);
  }
  if (air.faces_m2 > 0.0) {
    const double pores = std::max(r.freeAirSpace, 1.0 - ofSolids);
    const double connected = std::min(r.freeAirSpace, kMostConnected);
    const double tortuous = connected * connected * connected * std::cbrt(connected); // to the power of 10/3
    const double between_K = kelvin(0.5 * (T + weather.air_C)) / kelvin(20.0);
    const double quickens = between_K * std::sqrt(between_K) * std::sqrt(std::sqrt(between_K)); // with warmth, to the power of 1.75
    r.diffused_kg_s = density * kOxygenInAir_m2_s * quickens * tortuous / (pores * pores) * air.faces_m2 / air.path_m * passes;
  }
  const double perKg = r.temperatureFactor_per_day / 86400.0 * r.water * r.structure;
  const double quick_kg_s = perKg * mix.quickK20_per_day / mix.k20_per_day * state.quick_kg;
  const double full_kg_s = perKg * (state.degradable_kg - state.quick_kg) + quick_kg_s;
  r.oxygen_percent = air.oxygen_percent >= 0.0 ? air.oxygen_percent : oxygenLeft_percent(r.air_kg_s + r.diffused_kg_s, full_kg_s);
  r.oxygen = r.oxygen_percent / (r.oxygen_percent + kOxygenHalf_percent);
  r.rate_kg_s = full_kg_s * r.oxygen;
  r.quick_kg_s = quick_kg_s * r.oxygen;
  r.heat_W = mix.heat_J_kg * r.rate_kg_s;
  const double more = damp - weather.air_kg_kg;
  r.drying_kg_s = r.air_kg_s * more;
  r.sensible_W = r.air_kg_s * (kAirHeat_J_kgK + kVapourHeat_J_kgK * weather.air_kg_kg) * (T - weather.air_C);
  r.latent_W = r.drying_kg_s * (kEvaporation_J_kg - kEvaporationFall_J_kgK * T);
  return r;
}

CompostStep advanceCompost(const CompostMix& mix, CompostState& state, const CompostAir& air, const CompostWeather& weather, double h_s) {
  const double start_C = state.temperature_C;
  const auto taken_W = [&](double t_C) { return weather.taken_W + weather.taken_W_K * (t_C - start_C); };
  const auto moved = [&](const CompostState& at, double h) {
    const CompostRates r = compostRates(mix, at, air, weather);
    CompostState to = state;
    to.degradable_kg = std::max(0.0, state.degradable_kg - h * r.rate_kg_s);
    to.quick_kg = std::clamp(state.quick_kg - h * r.quick_kg_s, 0.0, to.degradable_kg);
    to.water_kg = std::max(0.0, state.water_kg + h * (mix.waterYield * r.rate_kg_s - r.drying_kg_s));
    to.temperature_C += h * (r.heat_W - taken_W(at.temperature_C) - r.sensible_W - r.latent_W) / compostCapacity_J_K(mix, at);
    to.age_s += h;
    return std::pair{to, r};
  };
  const CompostState middle = moved(state, 0.5 * h_s).first;
  const auto [end, rates] = moved(middle, h_s);
  state = end;
  return {h_s * rates.heat_W, h_s * rates.sensible_W, h_s * rates.latent_W, h_s * taken_W(middle.temperature_C), rates};
}

void topUpCompost(CompostMix& mix, CompostState& state, double share, double t_C) {
  const CompostState fresh = freshCompost(mix, t_C);
  const double added_J_K = share * compostCapacity_J_K(mix, fresh), had_J_K = compostCapacity_J_K(mix, state);
  state.temperature_C = (had_J_K * state.temperature_C + added_J_K * t_C) / (had_J_K + added_J_K);
  state.degradable_kg += share * fresh.degradable_kg;
  state.quick_kg += share * fresh.quick_kg;
  state.water_kg += share * fresh.water_kg;
  mix.wet_kg *= 1.0 + share;
  mix.volume_m3 *= 1.0 + share;
}

double waterCompost(const CompostMix& mix, CompostState& state, double moisture, double t_C) {
  const double solids_kg = state.degradable_kg + mix.inert_kg();
  const double poured_kg = solids_kg * moisture / (1.0 - moisture) - state.water_kg;
  if (poured_kg <= 0.0) return 0.0;
  const double had_J_K = compostCapacity_J_K(mix, state), added_J_K = poured_kg * kWaterHeat_J_kgK;
  state.temperature_C = (had_J_K * state.temperature_C + added_J_K * t_C) / (had_J_K + added_J_K);
  state.water_kg += poured_kg;
  return poured_kg;
}

CompostBest bestCompostTemperature(double k20_per_day) {
  // the derivative of the two powers is zero
  const double t_C = (std::log(kLnGrowth / kLnDeath) - kGrowthFrom_C * kLnGrowth + kDeathFrom_C * kLnDeath) / (kLnDeath - kLnGrowth);
  return {t_C, compostTemperatureFactor_per_day(k20_per_day, t_C)};
}

} // namespace muffle
