// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heater/heater.h"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cmath>

namespace muffle {
namespace {

using K = HeaterKind;
using C = Carrier;
using enum HeatControl;
constexpr std::array<HeaterKindFacts, kHeaterKindCount> kKinds{{
    // kind, id, takes, in rooms, in tanks, control, efficiency, radiant, flue, mains, own power
    {K::electric, "electric", C::electricity, true, true, thermostat, 1.0, 0.0, true, true, 0.0},
    {K::boiler, "boiler", C::fuel, false, true, thermostat, 1.0, 0.0, true, false, 0.0},
    {K::tube, "tube", C::electricity, true, false, thermostat, 1.0, 0.3, true, true, 0.0},
    {K::radiant, "radiant", C::electricity, true, false, thermostat, 1.0, 0.6, true, true, 0.0},
    {K::lamps, "lamps", C::electricity, true, false, thermostat, 1.0, 0.5, true, true, 0.0},
    {K::growLight, "grow-light", C::electricity, true, false, clock, 1.0, 0.6, true, true, 0.0},
    {K::propane, "propane", C::propane, true, true, thermostat, 0.88, 0.1, true, true, 0.02},
    {K::propaneUnvented, "propane-unvented", C::propane, true, false, thermostat, 1.0, 0.2, false, false, 0.0},
    {K::gas, "gas", C::naturalGas, true, true, thermostat, 0.9, 0.1, true, true, 0.02},
    {K::gasUnvented, "gas-unvented", C::naturalGas, true, false, thermostat, 1.0, 0.2, false, false, 0.0},
    {K::paraffinUnvented, "paraffin-unvented", C::paraffin, true, false, thermostat, 1.0, 0.3, false, false, 0.0},
    {K::oil, "oil", C::heatingOil, true, true, thermostat, 0.87, 0.1, true, true, 0.02},
    {K::pelletStove, "pellet-stove", C::pellets, true, true, thermostat, 0.88, 0.15, true, true, 0.01},
    {K::woodStove, "wood-stove", C::hardwood, true, false, batches, 0.7, 0.4, true, false, 0.0},
    {K::candles, "candles", C::wax, true, false, clock, 1.0, 0.3, false, false, 0.0},
    {K::heatPump, "heat-pump", C::electricity, true, true, thermostat, 3.4, 0.0, true, true, 0.0},
    {K::district, "district", C::heat, true, true, thermostat, 1.0, 0.1, true, false, 0.0},
    {K::propaneRadiant, "propane-radiant", C::propane, true, false, thermostat, 1.0, 0.55, false, false, 0.0},
}};
constexpr double kRise_s = 1200.0, kEmber_s = 2700.0; // of a load: to its plateau, and the embers' decay
constexpr std::string_view kTank = "tank:";

} // namespace

const std::array<HeaterKindFacts, kHeaterKindCount>& heaterKinds() { return kKinds; }

const HeaterKindFacts& factsOf(HeaterKind kind) { return kKinds[static_cast<std::size_t>(kind)]; }

std::vector<HeatPumpPoint> usualHeatPump() { return {{-15.0, 0.6, 2.0}, {-7.0, 0.78, 2.5}, {2.0, 0.92, 3.0}, {7.0, 1.0, 3.6}, {12.0, 1.08, 4.1}}; }

double efficiencyOf(const Heater& heater) { return heater.efficiency.value_or(factsOf(heater.kind).efficiency); }

Carrier carrierOf(const Heater& heater) { return heater.burns != Carrier::fuel ? heater.burns : factsOf(heater.kind).carrier; }

HeatPumpPoint heatPumpAt(const Heater& heater, double outside_C) {
  const std::vector<HeatPumpPoint> usual = heater.heatPump.empty() ? usualHeatPump() : std::vector<HeatPumpPoint>();
  const std::vector<HeatPumpPoint>& points = heater.heatPump.empty() ? usual : heater.heatPump;
  const auto above = std::find_if(points.begin(), points.end(), [&](const HeatPumpPoint& p) { return p.outside_C >= outside_C; });
  HeatPumpPoint at = above == points.end() ? points.back() : *above;
  if (above != points.end() && above != points.begin()) {
    const HeatPumpPoint& below = *(above - 1);
    const double share = (outside_C - below.outside_C) / std::max(1e-9, above->outside_C - below.outside_C);
    at.capacity = below.capacity + share * (above->capacity - below.capacity);
    at.cop = below.cop + share * (above->cop - below.cop);
  }
  at.outside_C = outside_C;
  if (outside_C < heater.defrostBelow_C) { // what melts its ice is taken from what it gives; what it takes stays
    at.capacity *= 1.0 - heater.defrostLoss;
    at.cop *= 1.0 - heater.defrostLoss;
  }
  return at;
}

double BurnCurve::given_J(double t_s) const {
  if (t_s <= 0.0) return 0.0;
  if (t_s < rise_s) return peak_W * t_s * t_s / (2.0 * rise_s);
  double seconds = 0.5 * rise_s + std::min(t_s - rise_s, plateau_s);
  if (t_s > rise_s + plateau_s) seconds += ember_s * -std::expm1(-(t_s - rise_s - plateau_s) / ember_s);
  return peak_W * seconds;
}

BurnCurve burnCurve(const Heater& stove) {
  const double heat_J = stove.stoking.load_kg * net_kWh_kg(carrierOf(stove), stove.stoking.moisture) * 3.6e6 * efficiencyOf(stove);
  const double least_s = 0.5 * kRise_s + kEmber_s;
  const double full_s = heat_J / std::max(1.0, stove.power_W); // that it burns at its size
  const double plateau_s = std::max(0.0, full_s - least_s);
  return {kRise_s, plateau_s, kEmber_s, heat_J / (least_s + plateau_s)};
}

std::string placeId(const HeaterPlace& place) {
  switch (place.of) {
  case HeaterPlace::Of::house: return "house";
  case HeaterPlace::Of::bay: return "bay";
  case HeaterPlace::Of::tank: return fmt::format("{}{}", kTank, place.tank + 1);
  case HeaterPlace::Of::unknown: break;
  }
  return "";
}

HeaterPlace heaterPlace(std::string_view id) {
  if (id == "house") return {HeaterPlace::Of::house};
  if (id == "bay") return {HeaterPlace::Of::bay};
  std::size_t number = 0;
  if (id.starts_with(kTank)) {
    const char* const end = id.data() + id.size();
    const auto read = std::from_chars(id.data() + kTank.size(), end, number);
    if (read.ec == std::errc() && read.ptr == end && number > 0) return {HeaterPlace::Of::tank, number - 1};
  }
  return {HeaterPlace::Of::unknown};
}

} // namespace muffle
