// SPDX-License-Identifier: GPL-3.0-or-later
//
// Air blown through a pipe in the ground: friction, heat exchange and what the fan takes.
//   Re = v D/nu; Darcy friction f = 64/Re below 2300, else f = 0.25/log10(e/(3.7 D) + 5.74/Re^0.9)^2
//        Swamee and Jain, J. Hydraulics Div. ASCE 102 (1976) 657
//   Nu = 3.66 below 2300, else (f/8)(Re - 1000) Pr/(1 + 12.7 sqrt(f/8) (Pr^(2/3) - 1))
//        Gnielinski, Int. Chem. Eng. 16 (1976) 359; Re to 5e6
//   R  = 1/(pi D h) + ln(Do/D)/(2 pi k_wall) per metre; NTU = L/(R m cp)
//   dp = (f L/D + K) rho v^2/2; fan power = dp V/efficiency
// A ribbed pipe counts by its inner diameter and a roughness of about a tenth of its ribs' height.
#pragma once

namespace muffle {

struct GroundPipe {
  double inner_m = 0.1;        ///< diameter, > 0
  double outer_m = 0.11;       ///< >= inner
  double length_m = 10.0;      ///< > 0
  double wall_W_mK = 0.4;      ///< conductivity of the pipe itself, > 0
  double roughness_m = 1.5e-6; ///< >= 0
  double minorLoss = 1.5;      ///< of inlet, outlet and bends, in velocity heads
};

/// Dry air near 10 degC at sea level.
struct PipeAir {
  double density_kg_m3 = 1.24;
  double heat_J_kgK = 1006.0;
  double viscosity_Pa_s = 1.77e-5;
  double conductivity_W_mK = 0.025;
  double prandtl = 0.71;
};

struct PipeFlow {
  double velocity_m_s = 0.0;
  double reynolds = 0.0;
  double friction = 0.0; ///< Darcy
  double film_W_m2K = 0.0;
  double resistance_mK_W = 0.0; ///< air to the pipe's outer face, by metre
  double ntu = 0.0;
  double capacity_W_K = 0.0; ///< m cp
  double pressure_Pa = 0.0;
  double hydraulic_W = 0.0; ///< dp V; a fan takes this over its efficiency

  /// Where the pipe's outer face is at one temperature.
  [[nodiscard]] double outlet_C(double inlet_C, double face_C) const;
  /// The conductance to a face, W/K, that a well-mixed length with this flow's outlet temperature has: m cp (exp(NTU) - 1) over
  /// `slices` equal lengths gives each slice's outlet exactly.
  [[nodiscard]] double mixedConductance_W_K(int slices = 1) const;
};

/// Through one pipe; flow_m3_s > 0.
PipeFlow pipeFlow(const GroundPipe& pipe, const PipeAir& air, double flow_m3_s);

/// Air of one state cooled to another below its dew point leaves saturated; the water that drops out takes its own warmth along.
struct MoistCooling {
  double inletRatio = 0.0, outletRatio = 0.0; ///< kg water per kg dry air
  double condensate_kg_s = 0.0;
  double total_W = 0.0, sensible_W = 0.0, latent_W = 0.0;
  double dewPoint_C = 0.0; ///< of the air that comes in
};
/// relativeHumidity 0..1; to_C below from_C.
MoistCooling coolMoistAir(double from_C, double relativeHumidity, double to_C, double dryAir_kg_s, double pressure_Pa);

/// A fan whose pressure falls with the square of its flow: dp = most_Pa (1 - (V/most)^2).
struct PipeFan {
  double most_m3_h = 800.0; ///< blowing free, > 0
  double most_Pa = 200.0;   ///< against a shut duct, > 0
  double efficiency = 0.35; ///< of fan and motor together, 0..1
};

/// What it moves through `count` equal pipes side by side.
struct FanDuty {
  double flow_m3_s = 0.0; ///< through all
  double pressure_Pa = 0.0;
  double power_W = 0.0; ///< electricity
  PipeFlow each;
};
FanDuty fanDuty(const PipeFan& fan, const GroundPipe& pipe, int count, const PipeAir& air = {});

} // namespace muffle
