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
    // kind, id, takes, in rooms, in tanks, in beds, in masses, control, efficiency, radiant, flue, mains, own power, least, start-up, least run, rise, embers
    {K::electric, "electric", C::electricity, true, true, true, true, thermostat, 1.0, 0.0, true, true, 0.0, 1.0, 0.0, 0.0, 0.0, 0.0},
    {K::boiler, "boiler", C::fuel, false, true, false, false, thermostat, 1.0, 0.0, true, false, 0.0, 1.0, 60.0, 300.0, 0.0, 0.0},
    {K::tube, "tube", C::electricity, true, false, true, true, thermostat, 1.0, 0.3, true, true, 0.0, 1.0, 120.0, 0.0, 0.0, 0.0},
    {K::radiant, "radiant", C::electricity, true, false, true, false, thermostat, 1.0, 0.6, true, true, 0.0, 1.0, 0.0, 0.0, 0.0, 0.0},
    {K::lamps, "lamps", C::electricity, true, false, true, false, thermostat, 1.0, 0.5, true, true, 0.0, 1.0, 0.0, 0.0, 0.0, 0.0},
    {K::growLight, "grow-light", C::electricity, true, false, true, false, clock, 1.0, 0.6, true, true, 0.0, 1.0, 0.0, 0.0, 0.0, 0.0},
    {K::propane, "propane", C::propane, true, true, false, false, thermostat, 0.88, 0.1, true, true, 0.02, 1.0, 60.0, 300.0, 0.0, 0.0},
    {K::propaneUnvented, "propane-unvented", C::propane, true, false, false, false, thermostat, 1.0, 0.2, false, false, 0.0, 1.0, 20.0, 120.0, 0.0, 0.0},
    {K::gas, "gas", C::naturalGas, true, true, false, false, thermostat, 0.9, 0.1, true, true, 0.02, 1.0, 60.0, 300.0, 0.0, 0.0},
    {K::gasUnvented, "gas-unvented", C::naturalGas, true, false, false, false, thermostat, 1.0, 0.2, false, false, 0.0, 1.0, 20.0, 120.0, 0.0, 0.0},
    {K::paraffinUnvented, "paraffin-unvented", C::paraffin, true, false, false, false, thermostat, 1.0, 0.3, false, false, 0.0, 1.0, 120.0, 1800.0, 0.0, 0.0},
    {K::oil, "oil", C::heatingOil, true, true, false, false, thermostat, 0.87, 0.1, true, true, 0.02, 1.0, 90.0, 300.0, 0.0, 0.0},
    {K::pelletStove, "pellet-stove", C::pellets, true, true, false, false, thermostat, 0.88, 0.15, true, true, 0.01, 0.3, 600.0, 3600.0, 0.0, 0.0},
    {K::woodStove, "wood-stove", C::hardwood, true, false, false, false, batches, 0.7, 0.4, true, false, 0.0, 1.0, 0.0, 0.0, 1200.0, 2700.0},
    {K::candles, "candles", C::wax, true, false, true, false, clock, 1.0, 0.3, false, false, 0.0, 1.0, 0.0, 0.0, 0.0, 0.0},
    {K::heatPump, "heat-pump", C::electricity, true, true, false, false, thermostat, 3.4, 0.0, true, true, 0.0, 0.3, 60.0, 600.0, 0.0, 0.0},
    {K::district, "district", C::heat, true, true, false, false, thermostat, 1.0, 0.1, true, false, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0},
    {K::propaneRadiant, "propane-radiant", C::propane, true, false, false, false, thermostat, 1.0, 0.55, false, false, 0.0, 1.0, 20.0, 120.0, 0.0, 0.0},
    {K::massStove, "mass-stove", C::hardwood, true, false, false, false, batches, 0.85, 0.2, true, false, 0.0, 1.0, 0.0, 0.0, 600.0, 1200.0},
}};
using Of = HeaterPlace::Of;
constexpr std::array<std::pair<Of, std::string_view>, 3> kNumbered{{{Of::tank, "tank:"}, {Of::bed, "bed:"}, {Of::mass, "mass:"}}};

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

double BurnCurve::given_W(double t_s) const {
  if (t_s <= 0.0) return 0.0;
  if (t_s < rise_s) return peak_W * t_s / rise_s;
  return t_s <= rise_s + plateau_s ? peak_W : peak_W * std::exp(-(t_s - rise_s - plateau_s) / ember_s);
}

double BurnCurve::given_J(double t_s) const {
  if (t_s <= 0.0) return 0.0;
  if (t_s < rise_s) return peak_W * t_s * t_s / (2.0 * rise_s);
  double seconds = 0.5 * rise_s + std::min(t_s - rise_s, plateau_s);
  if (t_s > rise_s + plateau_s) seconds += ember_s * -std::expm1(-(t_s - rise_s - plateau_s) / ember_s);
  return peak_W * seconds;
}

BurnCurve burnCurve(const Heater& stove) {
  const HeaterKindFacts& facts = factsOf(stove.kind);
  const double heat_J = stove.stoking.load_kg * net_kWh_kg(carrierOf(stove), stove.stoking.moisture) * 3.6e6 * efficiencyOf(stove);
  const double least_s = 0.5 * facts.rise_s + facts.ember_s;
  const double full_s = heat_J / std::max(1.0, stove.power_W); // that it burns at its size
  const double plateau_s = std::max(0.0, full_s - least_s);
  return {facts.rise_s, plateau_s, facts.ember_s, heat_J / (least_s + plateau_s)};
}

double leastOf(const Heater& heater) { return heater.least.value_or(factsOf(heater.kind).least); }

double startUp_s(const Heater& heater) { return heater.startUp_min ? 60.0 * *heater.startUp_min : factsOf(heater.kind).startUp_s; }

double partLoadFactor(const Heater& heater, double load) {
  const auto& points = heater.partLoad;
  if (points.empty()) return 1.0;
  const auto above = std::find_if(points.begin(), points.end(), [&](const PartLoadPoint& p) { return p.load >= load; });
  if (above == points.end()) return points.back().factor;
  if (above == points.begin()) return points.front().factor;
  const PartLoadPoint& below = *(above - 1);
  return below.factor + (load - below.load) / (above->load - below.load) * (above->factor - below.factor);
}

std::string placeId(const HeaterPlace& place) {
  if (place.of == Of::house) return "house";
  if (place.of == Of::bay) return "bay";
  for (const auto& [of, stem] : kNumbered)
    if (place.of == of) return fmt::format("{}{}", stem, place.index + 1);
  return "";
}

HeaterPlace heaterPlace(std::string_view id) {
  if (id == "house") return {Of::house};
  if (id == "bay") return {Of::bay};
  for (const auto& [of, stem] : kNumbered) {
    if (!id.starts_with(stem)) continue;
    std::size_t number = 0;
    const char* const end = id.data() + id.size();
    const auto read = std::from_chars(id.data() + stem.size(), end, number);
    if (read.ec == std::errc() && read.ptr == end && number > 0) return {of, number - 1};
  }
  return {Of::unknown};
}

} // namespace muffle
