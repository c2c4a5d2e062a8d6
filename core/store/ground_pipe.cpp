// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/store/ground_pipe.h"

#include "core/air/moist_air.h"
#include "core/constants.h"

#include <algorithm>
#include <cmath>

namespace muffle {

namespace {

constexpr double kLaminar = 2300.0; // Reynolds number

double frictionOf(double reynolds, double relativeRoughness) {
  if (reynolds < kLaminar) return 64.0 / reynolds;
  const double root = std::log10(relativeRoughness / 3.7 + 5.74 / std::pow(reynolds, 0.9));
  return 0.25 / (root * root);
}

double nusseltOf(double reynolds, double friction, double prandtl) {
  if (reynolds < kLaminar) return 3.66;
  const double f8 = friction / 8.0;
  return f8 * (reynolds - 1000.0) * prandtl / (1.0 + 12.7 * std::sqrt(f8) * (std::cbrt(prandtl * prandtl) - 1.0));
}

} // namespace

double PipeFlow::outlet_C(double inlet_C, double face_C) const { return face_C + (inlet_C - face_C) * std::exp(-ntu); }

double PipeFlow::mixedConductance_W_K(int slices) const { return capacity_W_K * std::expm1(ntu / slices); }

PipeFlow pipeFlow(const GroundPipe& pipe, const PipeAir& air, double flow_m3_s) {
  PipeFlow flow;
  const double section_m2 = kPi / 4.0 * pipe.inner_m * pipe.inner_m;
  flow.velocity_m_s = flow_m3_s / section_m2;
  flow.reynolds = air.density_kg_m3 * flow.velocity_m_s * pipe.inner_m / air.viscosity_Pa_s;
  flow.friction = frictionOf(flow.reynolds, pipe.roughness_m / pipe.inner_m);
  flow.film_W_m2K = nusseltOf(flow.reynolds, flow.friction, air.prandtl) * air.conductivity_W_mK / pipe.inner_m;
  flow.resistance_mK_W = 1.0 / (kPi * pipe.inner_m * flow.film_W_m2K) + std::log(pipe.outer_m / pipe.inner_m) / (2.0 * kPi * pipe.wall_W_mK);
  flow.capacity_W_K = flow_m3_s * air.density_kg_m3 * air.heat_J_kgK;
  flow.ntu = pipe.length_m / (flow.resistance_mK_W * flow.capacity_W_K);
  flow.pressure_Pa = (flow.friction * pipe.length_m / pipe.inner_m + pipe.minorLoss) * air.density_kg_m3 * flow.velocity_m_s * flow.velocity_m_s / 2.0;
  flow.hydraulic_W = flow.pressure_Pa * flow_m3_s;
  return flow;
}

MoistCooling coolMoistAir(double from_C, double relativeHumidity, double to_C, double dryAir_kg_s, double pressure_Pa) {
  MoistCooling c;
  const double vapour_Pa = relativeHumidity * saturationPressure_Pa(from_C);
  c.inletRatio = humidityRatio(vapour_Pa, pressure_Pa);
  c.dewPoint_C = dewPoint_C(vapour_Pa);
  c.outletRatio = std::min(c.inletRatio, humidityRatio(saturationPressure_Pa(to_C), pressure_Pa));
  const double drops = c.inletRatio - c.outletRatio;
  c.condensate_kg_s = dryAir_kg_s * drops;
  c.total_W = dryAir_kg_s * (enthalpy_J_kg(from_C, c.inletRatio) - enthalpy_J_kg(to_C, c.outletRatio) - drops * kWaterHeat_J_kgK * to_C);
  c.sensible_W = dryAir_kg_s * (kAirHeat_J_kgK + kVapourHeat_J_kgK * c.inletRatio) * (from_C - to_C);
  c.latent_W = c.total_W - c.sensible_W;
  return c;
}

FanDuty fanDuty(const PipeFan& fan, const GroundPipe& pipe, int count, const PipeAir& air) {
  constexpr int kHalvings = 60; // of a bracket whose ends differ in sign: the pipes' pressure rises with flow, the fan's falls
  const double most = fan.most_m3_h / 3600.0;
  double low = 0.0, high = most;
  FanDuty duty;
  for (int k = 0; k < kHalvings; ++k) {
    duty.flow_m3_s = 0.5 * (low + high);
    duty.each = pipeFlow(pipe, air, duty.flow_m3_s / count);
    const double share = duty.flow_m3_s / most;
    duty.pressure_Pa = fan.most_Pa * (1.0 - share * share);
    (duty.each.pressure_Pa < duty.pressure_Pa ? low : high) = duty.flow_m3_s;
  }
  duty.power_W = duty.pressure_Pa * duty.flow_m3_s / fan.efficiency;
  return duty;
}

} // namespace muffle
