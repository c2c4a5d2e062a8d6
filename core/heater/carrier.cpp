// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heater/carrier.h"

#include <algorithm>

namespace muffle {
namespace {

constexpr double kCarbonDioxidePerCarbon = 44.009 / 12.011;
constexpr double kWaterPerHydrogen = 18.015 / 2.016;
constexpr double kEvaporation_MJ_kg = 2.443; // at 25 C, as ISO 18125 has it
constexpr double kMJ_kWh = 3.6;
constexpr double kRoomEvaporation_MJ_kg = 2.501; // at 0 C, as the humidity of air is reckoned

constexpr std::array<CarrierFacts, kCarrierCount> kCarriers{{
    {Carrier::electricity, "electricity", 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, false},
    {Carrier::fuel, "fuel", 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, false},
    {Carrier::propane, "propane", 46.35, 50.34, 508.0, 0.8171, 0.1829, 0.0, true},
    {Carrier::naturalGas, "natural-gas", 50.03, 55.52, 0.68, 0.7487, 0.2513, 0.0, true},
    {Carrier::paraffin, "paraffin", 43.1, 46.2, 800.0, 0.861, 0.139, 0.0, true},
    {Carrier::heatingOil, "heating-oil", 42.6, 45.4, 845.0, 0.865, 0.132, 0.0, true},
    {Carrier::pellets, "pellets", 18.9, 20.2, 650.0, 0.505, 0.061, 0.07, false},
    {Carrier::softwood, "softwood", 19.1, 20.5, 310.0, 0.51, 0.063, 0.18, false}, // a stacked cubic metre
    {Carrier::hardwood, "hardwood", 18.4, 19.8, 450.0, 0.49, 0.062, 0.18, false},
    {Carrier::wax, "wax", 43.0, 46.3, 900.0, 0.852, 0.148, 0.0, true},
    {Carrier::heat, "heat", 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, false},
    {Carrier::oak, "oak", 18.3, 19.7, 480.0, 0.49, 0.06, 0.18, false},
    {Carrier::beech, "beech", 18.4, 19.8, 475.0, 0.479, 0.062, 0.18, false},
    {Carrier::ash, "ash", 18.4, 19.8, 470.0, 0.49, 0.062, 0.18, false},
    {Carrier::birch, "birch", 18.7, 20.1, 450.0, 0.487, 0.064, 0.18, false},
    {Carrier::larch, "larch", 18.9, 20.3, 400.0, 0.499, 0.063, 0.18, false},
    {Carrier::pine, "pine", 19.1, 20.5, 360.0, 0.509, 0.063, 0.18, false},
    {Carrier::spruce, "spruce", 18.8, 20.2, 310.0, 0.498, 0.063, 0.18, false},
    {Carrier::poplar, "poplar", 18.5, 19.8, 290.0, 0.475, 0.062, 0.18, false},
}};

constexpr FuelUnit kWh{"kWh", 0.0, 0.0, 1.0}, kKilogram{"kg", 1.0, 0.0, 0.0}, kTonne{"tonne", 1000.0, 0.0, 0.0}, kLitre{"litre", 0.0, 1e-3, 0.0},
    kGallon{"us-gallon", 0.0, 3.785412e-3, 0.0}, kCubicMetre{"m3", 0.0, 1.0, 0.0}, kCan{"can-20l", 0.0, 20e-3, 0.0};
constexpr std::array<FuelUnit, 1> kByTheKWh{kWh};
constexpr std::array<FuelUnit, 7> kOfPropane{
    {kWh, kKilogram, {"bottle-5kg", 5.0, 0.0, 0.0}, {"bottle-11kg", 11.0, 0.0, 0.0}, {"bottle-33kg", 33.0, 0.0, 0.0}, kLitre, kGallon}};
constexpr std::array<FuelUnit, 3> kOfGas{{kWh, kCubicMetre, {"therm", 0.0, 0.0, 29.3071}}};
constexpr std::array<FuelUnit, 5> kOfLiquids{{kWh, kLitre, kGallon, kCan, kTonne}};
constexpr std::array<FuelUnit, 5> kOfPellets{{kWh, kKilogram, {"bag-15kg", 15.0, 0.0, 0.0}, {"bag-40lb", 18.144, 0.0, 0.0}, kTonne}};
constexpr std::array<FuelUnit, 7> kOfWood{
    {kWh, kKilogram, {"bale-10kg", 10.0, 0.0, 0.0}, {"stere", 0.0, 1.0, 0.0}, {"cord", 0.0, 3.6246, 0.0}, {"barrow", 0.0, 0.09, 0.0}, kTonne}};
constexpr std::array<FuelUnit, 2> kOfWax{kWh, kKilogram};

/// Gases, liquids and wax hold none.
double wetness(const CarrierFacts& facts, double moisture) { return moisture < 0.0 || facts.moisture <= 0.0 ? facts.moisture : moisture; }

} // namespace

const std::array<CarrierFacts, kCarrierCount>& carriers() { return kCarriers; }

bool isWood(Carrier carrier) { return unitsOf(carrier).data() == kOfWood.data(); }

const CarrierFacts& factsOf(Carrier carrier) { return kCarriers[static_cast<std::size_t>(carrier)]; }

double net_kWh_kg(Carrier carrier, double moisture) {
  const CarrierFacts& facts = factsOf(carrier);
  const double w = wetness(facts, moisture);
  return std::max(0.0, facts.net_MJ_kg * (1.0 - w) - kEvaporation_MJ_kg * w) / kMJ_kWh;
}

double water_kg_kWh(Carrier carrier, double moisture) {
  const double net = net_kWh_kg(carrier, moisture);
  if (net <= 0.0) return 0.0;
  const CarrierFacts& facts = factsOf(carrier);
  const double w = wetness(facts, moisture);
  return (kWaterPerHydrogen * facts.hydrogen * (1.0 - w) + w) / net;
}

double carbonDioxide_kg_kWh(Carrier carrier, double moisture) {
  const double net = net_kWh_kg(carrier, moisture);
  const CarrierFacts& facts = factsOf(carrier);
  return net > 0.0 ? kCarbonDioxidePerCarbon * facts.carbon * (1.0 - wetness(facts, moisture)) / net : 0.0;
}

double latentShare(Carrier carrier, double moisture) { return water_kg_kWh(carrier, moisture) * kRoomEvaporation_MJ_kg / kMJ_kWh; }

Combustion combustion(double carbonAtoms, double hydrogenAtoms) {
  const double molar = 12.011 * carbonAtoms + 1.008 * hydrogenAtoms;
  const double oxygen = 31.998 * (carbonAtoms + hydrogenAtoms / 4.0) / molar;
  return {44.009 * carbonAtoms / molar, 18.015 * hydrogenAtoms / 2.0 / molar, oxygen, oxygen / 0.2314};
}

std::span<const FuelUnit> unitsOf(Carrier carrier) {
  switch (carrier) {
  case Carrier::propane: return kOfPropane;
  case Carrier::naturalGas: return kOfGas;
  case Carrier::paraffin:
  case Carrier::heatingOil: return kOfLiquids;
  case Carrier::pellets: return kOfPellets;
  case Carrier::softwood:
  case Carrier::hardwood:
  case Carrier::oak:
  case Carrier::beech:
  case Carrier::ash:
  case Carrier::birch:
  case Carrier::larch:
  case Carrier::pine:
  case Carrier::spruce:
  case Carrier::poplar: return kOfWood;
  case Carrier::wax: return kOfWax;
  case Carrier::electricity:
  case Carrier::fuel:
  case Carrier::heat: break;
  }
  return kByTheKWh;
}

double kWhPerUnit(Carrier carrier, std::string_view unit, double moisture) {
  const auto units = unitsOf(carrier);
  const auto found = std::find_if(units.begin(), units.end(), [&](const FuelUnit& u) { return unit == u.id; });
  if (found == units.end()) return 0.0;
  if (found->kWh > 0.0) return found->kWh;
  // what a stack or tank of it weighs does not change with its water as much as what it holds: by the usual wetness
  return (found->kg > 0.0 ? found->kg : found->m3 * factsOf(carrier).density_kg_m3) * net_kWh_kg(carrier, moisture);
}

} // namespace muffle
