// SPDX-License-Identifier: GPL-3.0-or-later
//
// What heaters take: electricity, heat that is delivered, and fuels with what they hold, what burning them makes, and the units they are bought by.
// Heating values and densities: EN ISO 6976 (gases), EN 590 and ASTM D 3699 (liquids), ISO 17225 with ISO 18125 (wood, its stacks of split logs by species:
// usual handbook figures); water and carbon dioxide follow from the carbon and hydrogen in a kilogram.
#pragma once

#include <array>
#include <span>
#include <string_view>

namespace muffle {

/// `fuel`: of a kind that the grower does not say; by the kWh, and nothing is known of its smoke.
enum class Carrier {
  electricity,
  fuel,
  propane,
  naturalGas,
  paraffin,
  heatingOil,
  pellets,
  softwood,
  hardwood,
  wax,
  heat,
  oak,
  beech,
  ash,
  birch,
  larch,
  pine,
  spruce,
  poplar
};
constexpr int kCarrierCount = 19;

struct CarrierFacts {
  Carrier kind;
  const char* id;     ///< in JSON
  double net_MJ_kg;   ///< dry wood; 0: has no mass
  double gross_MJ_kg; ///< the same
  double density_kg_m3;
  double carbon, hydrogen; ///< kg in a kg, of wood dry
  double moisture;         ///< usual, kg of water in a kg as it is burnt
  bool isFossil;
};
const std::array<CarrierFacts, kCarrierCount>& carriers();
const CarrierFacts& factsOf(Carrier carrier);
/// Split logs: softwood and hardwood as they come, or one species, which are told apart by what a stack of them weighs.
bool isWood(Carrier carrier);
inline bool isBurnt(Carrier carrier) { return carrier != Carrier::electricity && carrier != Carrier::heat; }

/// kWh in a kg as it is burnt, its water's heat of evaporation lost (net) as flues lose it. `moisture` 0..0.6 of the wet mass, of wood; negative for
/// the usual.
/// 0 for what has no mass. ISO 18125: q = q_dry (1 - w) - 2.443 w MJ/kg.
double net_kWh_kg(Carrier carrier, double moisture = -1.0);
/// kg of water vapour from a net kWh; 0 where nothing is known.
double water_kg_kWh(Carrier carrier, double moisture = -1.0);
/// kg of carbon dioxide from a net kWh, whatever it grew of.
double carbonDioxide_kg_kWh(Carrier carrier, double moisture = -1.0);
/// Heat of evaporation that leaves with the water, as a share of the net heat: what an unvented flame adds to the air's humidity.
double latentShare(Carrier carrier, double moisture = -1.0);

/// What burning a kilogram of CxHy takes and gives, kg: M = 12.011 x + 1.008 y, air with 23.14 % of oxygen.
struct Combustion {
  double carbonDioxide_kg, water_kg, oxygen_kg, air_kg;
};
Combustion combustion(double carbonAtoms, double hydrogenAtoms);

/// What a carrier is bought by.
struct FuelUnit {
  const char* id;
  double kg, m3, kWh; ///< one of them is how much it is; m3 of solids as they lie stacked or tipped
};
/// Those in which that carrier is sold; the kWh first.
std::span<const FuelUnit> unitsOf(Carrier carrier);
/// 0 if it is not sold so.
double kWhPerUnit(Carrier carrier, std::string_view unit, double moisture = -1.0);

} // namespace muffle
