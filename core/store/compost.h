// SPDX-License-Identifier: GPL-3.0-or-later
//
// A pile of compost as a heater that ages: degradable solids B and water M, kg, and one temperature T.
//   r = k F1 F2 F3 B;  dB/dt = -r, where some of B is quick with a k20 of its own;  dM/dt = y r - g (Wx - Wa)
//   C dT/dt = H r - Q - g (1006 + 1860 Wa)(T - Ta) - g (Wx - Wa)(2501000 - 2326 T),  C = (B + I) cs + 4186 M
//   k  = k20 max(0, 1.066^(T - 20) - 1.21^(T - 60))            temperature
//   F1 = 1/(exp(-17.684 (1 - s) + 7.0622) + 1)                  water, s the share of solids
//   F2 = 1/(exp(-23.675 a + 3.4945) + 1)                        structure, a the free air space
//   F3 = o/(o + 2)                                              oxygen o in the pile's air, per cent
//        R. T. Haug, The Practical Handbook of Compost Engineering (1993), ch. 11; k after Andrews and Kambhu
//   g  = flow of dry air, Wx saturated at T, Wa that of the air outside, Q what leaves through faces, coil and chamber
// What air brings in limits the rate: in a balance of oxygen, 1.2 kg used for a kg of degradable solids,
//   g 0.2314 (1 - o/21) = 1.2 r(o)
// With oxygen taken as given the same law has two ends only, 75 degC or stone cold. The air of a pile that nobody blows
// rises through it by its own lift, Darcy's law,
//   g  = rho K/mu p/(1 + p/p0) A H/(H + w/4),  p = rho g (1 - Ta (1 + 0.608 Wa)/(T (1 + 0.608 Wx)))  in Pa/m
// K its permeability, p0 the lift at which the crust, where the rising damp condenses, holds back as much as the heap itself (it forms over the first days:
// p/p0 by 1 - exp(-t/4 d)), A H/(H + w/4) its foot by the share of the way on which the air rises: it comes in by the sides. The lower a pile the more it
// breathes for its mass. K and p0 of heaps nobody measures; with those below piles of all kinds heat as such piles do (docs/model.md), and airiness is the
// grower's: 0.5 trodden down, 2 with pipes through it. More oxygen comes by diffusion, which carries no heat away: as much as so much air would bring,
//   gd = rho D a^(10/3)/n^2 A/path, n the pores with their water           Millington and Quirk, Trans. Faraday Soc. 57 (1961) 1200
#pragma once

#include "core/constants.h"

namespace muffle {

/// What a pile is made of, and how much.
struct CompostMix {
  double wet_kg = 1000.0;            ///< > 0
  double moisture = 0.6;             ///< water of the wet mass, 0..1
  double volatileSolids = 0.85;      ///< of the dry mass, 0..1
  double degradable = 0.45;          ///< of the volatile solids, 0..1
  double k20_per_day = 0.01;         ///< rate at 20 degC with nothing amiss, > 0
  double quick = 0.0;                ///< of the degradable solids, 0..1: sugars, starch, protein, what makes a pile light
  double quickK20_per_day = 0.073;   ///< of those
  double heat_J_kg = 18.5e6;         ///< given by a kg of degradable solids
  double volume_m3 = 2.0;            ///< as built, > 0
  double waterYield = 0.55;          ///< kg made of a kg of degradable solids
  double solidsDensity_kg_m3 = 1500; ///< of the solids alone
  double solidsHeat_J_kgK = 1300.0;
  double airiness = 1.0;   ///< of its draught, > 0
  double settling = 0.0;   ///< of the lost solids' share, what the volume follows, 0..1
  double compaction = 0.0; ///< of the volume, what sinks in by its own weight over the first weeks, 0..1

  [[nodiscard]] double dry_kg() const { return wet_kg * (1.0 - moisture); }
  [[nodiscard]] double degradable_kg() const { return dry_kg() * volatileSolids * degradable; }
  [[nodiscard]] double inert_kg() const { return dry_kg() - degradable_kg(); }
};

struct CompostState {
  double degradable_kg = 0.0; ///< the quick ones included
  double quick_kg = 0.0;
  double water_kg = 0.0;
  double temperature_C = 10.0;
  double age_s = 0.0;
};
CompostState freshCompost(const CompostMix& mix, double temperature_C);

/// How air comes to a pile.
struct CompostAir {
  double blown_kg_s = 0.0;      ///< dry air by fan or pipe, whatever the pile does
  double draws_m2 = 0.0;        ///< by its own warmth: area that it rises through, by the share of its way on which it rises; 0: it does not
  double faces_m2 = 0.0;        ///< through which oxygen diffuses; 0: it does not
  double path_m = 0.3;          ///< from those faces to the middle
  double oxygen_percent = -1.0; ///< taken as given; below 0: what the air that comes leaves over
};

/// The air that a pile breathes, and what is taken from it beside what the air takes.
struct CompostWeather {
  double air_C = 5.0;
  double air_kg_kg = 0.0043; ///< humidity ratio
  double pressure_Pa = kStandardPressure_Pa;
  double taken_W = 0.0;   ///< Q at the state's temperature
  double taken_W_K = 0.0; ///< how Q rises with it
};

struct CompostRates {
  double temperatureFactor_per_day = 0.0;            ///< k
  double water = 1.0, structure = 1.0, oxygen = 1.0; ///< F1, F2, F3
  double freeAirSpace = 0.0;
  double oxygen_percent = 0.0;
  double air_kg_s = 0.0;      ///< that flows through
  double diffused_kg_s = 0.0; ///< that would bring the oxygen which diffuses in
  double rate_kg_s = 0.0;     ///< of all degradable solids
  double quick_kg_s = 0.0;    ///< of the quick ones
  double heat_W = 0.0;        ///< given off by decay
  double sensible_W = 0.0;    ///< carried away by its air
  double latent_W = 0.0;
  double drying_kg_s = 0.0; ///< water carried away
};

double compostTemperatureFactor_per_day(double k20_per_day, double t_C);
double compostWaterFactor(double solidsShare);
double compostStructureFactor(double freeAirSpace);

CompostRates compostRates(const CompostMix& mix, const CompostState& state, const CompostAir& air, const CompostWeather& weather);
/// Volume at present, m3.
double compostVolume_m3(const CompostMix& mix, const CompostState& state);
/// C, J/K.
double compostCapacity_J_K(const CompostMix& mix, const CompostState& state);

/// What a step came to, J.
struct CompostStep {
  double heat_J = 0.0, sensible_J = 0.0, latent_J = 0.0, taken_J = 0.0;
  CompostRates middle = {}; ///< half way through it
};
/// Goes on by h_s by the midpoint rule; second order, and within a hundredth of a kelvin of the exact answer at 600 s.
CompostStep advanceCompost(const CompostMix& mix, CompostState& state, const CompostAir& air, const CompostWeather& weather, double h_s);

/// Puts a share of what it was built of on again, at a temperature; `mix` becomes that of the larger pile.
void topUpCompost(CompostMix& mix, CompostState& state, double share, double t_C);
/// Pours water on until that share of the wet mass is water; nothing if it is wetter. The water poured, kg.
double waterCompost(const CompostMix& mix, CompostState& state, double moisture, double t_C);

/// The rate constant's best temperature and its value there.
struct CompostBest {
  double temperature_C, k_per_day;
};
CompostBest bestCompostTemperature(double k20_per_day);

} // namespace muffle
