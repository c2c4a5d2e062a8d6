// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/heaters.h"

#include <fmt/format.h>

#include <algorithm>
#include <numeric>
#include <utility>

namespace muffle {
namespace {

using Of = HeaterPlace::Of;
constexpr double kWarmestBed_C = 40.0; ///< under a cover, or of what plants stand on

/// Of places that have a number, how many there are.
std::size_t countOf(const Plan& plan, Of of) {
  switch (of) {
  case Of::tank: return plan.waterLoops.size();
  case Of::bed: return plan.house.bedCovers.size();
  case Of::mass: return plan.mass.size();
  case Of::house:
  case Of::bay:
  case Of::unknown: break;
  }
  return 0;
}

std::string placesOf(const Plan& plan) {
  std::string places = "house";
  if (plan.house.bay) places += ", bay";
  for (const Of of : {Of::tank, Of::bed, Of::mass})
    for (std::size_t n = 0; n < countOf(plan, of); ++n) places += ", " + placeId({of, n});
  return places;
}

bool isThere(const Plan& plan, const HeaterPlace& place) {
  if (place.of == Of::house) return true;
  return place.of == Of::bay ? plan.house.bay.has_value() : place.index < countOf(plan, place.of);
}

bool mayStand(const HeaterKindFacts& facts, Of in) {
  switch (in) {
  case Of::tank: return facts.inTanks;
  case Of::bed: return facts.inBeds;
  case Of::mass: return facts.inMass;
  case Of::house:
  case Of::bay:
  case Of::unknown: break;
  }
  return facts.inRooms;
}

/// What one kind of heater alone has, and what must rise from point to point.
template <class Bad> void checkOwn(const Plan& plan, const Heater& h, const Bad& bad) {
  if (h.through < 0 || static_cast<std::size_t>(h.through) > plan.mass.size())
    bad("through", Message{"plan.flue-leads-through", h.through}, Message{"plan.masses-there-are", plan.mass.size()});
  if (h.through > 0 && (factsOf(h.kind).control != HeatControl::batches || h.place.of != Of::house))
    bad("through", Message{"plan.no-flue-through-mass", factsOf(h.kind).id}, Message{"plan.stoves-of-the-house-only"});
  if (h.stirs_m3_h > 0.0 && (h.place.of != Of::house || factsOf(h.kind).control == HeatControl::batches))
    bad("stirs_m3_h", Message{"plan.no-fan-that-stirs", factsOf(h.kind).id}, Message{"plan.fans-of-heaters-in-house"});
  for (std::size_t k = 1; k < h.heatPump.size(); ++k)
    if (h.heatPump[k].outside_C <= h.heatPump[k - 1].outside_C)
      bad("heat_pump", Message{"plan.point-no-warmer-than", k + 1}, Message{"plan.points-rising-temperature-outside"});
  if (h.onlyBelowPrice_kWh && carrierOf(h) != Carrier::electricity)
    bad("only_below_price_kWh", Message{"plan.no-price-by-the-hour", factsOf(h.kind).id}, Message{"plan.only-electric-ones"});
  for (std::size_t k = 1; k < h.partLoad.size(); ++k)
    if (h.partLoad[k].load <= h.partLoad[k - 1].load) bad("part_load", Message{"plan.point-no-higher-than", k + 1}, Message{"plan.points-rising-load"});
  if (h.place.of == Of::tank && (h.holds_C < 20.0 || h.holds_C > 90.0))
    bad("holds_C", Message{"plan.tank-holds", Amount{h.holds_C, Unit::celsius}},
        Message{"plan.tank-between", Amount{20.0, Unit::celsius}, Amount{90.0, Unit::celsius}});
  if ((h.place.of == Of::bed || h.place.of == Of::mass) && h.holds_C > kWarmestBed_C)
    bad("holds_C", Message{"plan.bed-holds", Amount{h.holds_C, Unit::celsius}}, Message{"plan.bed-at-most", Amount{kWarmestBed_C, Unit::celsius}});
}

} // namespace

const Heater* heaterIn(const Plan& plan, const HeaterPlace& place) {
  const auto it = std::find_if(plan.heaters.begin(), plan.heaters.end(), [&](const Heater& h) { return h.place == place; });
  return it == plan.heaters.end() ? nullptr : &*it;
}

Heater* heaterIn(Plan& plan, const HeaterPlace& place) {
  const Heater* const found = heaterIn(std::as_const(plan), place);
  return found ? &plan.heaters[static_cast<std::size_t>(found - plan.heaters.data())] : nullptr;
}

Heater& firstHeater(Plan& plan, const HeaterPlace& place) {
  if (Heater* const there = heaterIn(plan, place)) return *there;
  const bool isTank = place.of == Of::tank;
  return addHeater(plan, {.kind = isTank ? HeaterKind::boiler : HeaterKind::electric, .place = place, .power_W = 0.0});
}

void setHeaterPower(Plan& plan, const HeaterPlace& place, double power_W) {
  if (isThere(plan, place) && (power_W > 0.0 || heaterIn(plan, place))) firstHeater(plan, place).power_W = power_W;
}

double heaterPower_W(const Plan& plan, const HeaterPlace& place) {
  return std::accumulate(plan.heaters.begin(), plan.heaters.end(), 0.0, [&](double sum, const Heater& h) { return h.place == place ? sum + h.power_W : sum; });
}

double roomHeaters_W(const Plan& plan) {
  return std::accumulate(plan.heaters.begin(), plan.heaters.end(), 0.0, [](double sum, const Heater& h) { return h.place.isRoom() ? sum + h.power_W : sum; });
}

int countOfRoomHeaters(const Plan& plan) {
  return static_cast<int>(std::count_if(plan.heaters.begin(), plan.heaters.end(), [](const Heater& h) { return h.place.isRoom() && h.power_W > 0.0; }));
}

std::string freeHeaterId(const Plan& plan, const std::string& stem) {
  const auto isTaken = [&](const std::string& id) {
    return std::any_of(plan.heaters.begin(), plan.heaters.end(), [&](const Heater& h) { return h.id == id; });
  };
  std::string id = stem;
  for (int n = 2; isTaken(id); ++n) id = fmt::format("{}-{}", stem, n);
  return id;
}

Heater& addHeater(Plan& plan, Heater heater) {
  const auto of = heater.place.of;
  const char* const stem = of == Of::bay ? "bay-heater" : of == Of::tank ? "boiler" : of == Of::bed ? "bed-heater" : of == Of::mass ? "mat" : "heater";
  heater.id = freeHeaterId(plan, heater.id.empty() ? stem : heater.id);
  return plan.heaters.emplace_back(std::move(heater));
}

Heater& replaceHeaters(Plan& plan, Heater heater) {
  const auto first = std::find_if(plan.heaters.begin(), plan.heaters.end(), [&](const Heater& h) { return h.place == heater.place; });
  const auto at = first == plan.heaters.end() ? 0 : first - plan.heaters.begin();
  removeHeaters(plan, heater.place);
  addHeater(plan, std::move(heater));
  std::rotate(plan.heaters.begin() + at, plan.heaters.end() - 1, plan.heaters.end());
  return plan.heaters[static_cast<std::size_t>(at)];
}

void removeHeaters(Plan& plan, const HeaterPlace& place) {
  std::erase_if(plan.heaters, [&](const Heater& h) { return h.place == place; });
}

void removePlace(Plan& plan, const HeaterPlace& place) {
  removeHeaters(plan, place);
  for (Heater& h : plan.heaters)
    if (h.place.of == place.of && h.place.index > place.index) --h.place.index;
  if (place.of != Of::mass) return;
  const int gone = static_cast<int>(place.index) + 1;
  for (Heater& h : plan.heaters) {
    if (h.through == gone) h.through = 0;
    if (h.through > gone) --h.through;
  }
}

const FuelPrice* listedPrice(const Prices& prices, Carrier fuel) {
  const auto it = std::find_if(prices.fuels.begin(), prices.fuels.end(), [fuel](const FuelPrice& f) { return f.fuel == fuel; });
  return it == prices.fuels.end() ? nullptr : &*it;
}

std::optional<Problem> checkRoomHeater(HeaterKind kind, std::string where) {
  const HeaterKindFacts& facts = factsOf(kind);
  if (facts.inRooms) return std::nullopt;
  return Problem{ProblemKind::badInput, std::move(where), Message{"plan.does-not-heat", facts.id, placeId({Of::house})},
                 Message{"plan.boilers-heat-tanks-stoves"}};
}

void checkHeaters(const Plan& plan, Problems& problems) {
  for (std::size_t i = 0; i < plan.heaters.size(); ++i) {
    const Heater& h = plan.heaters[i];
    const auto bad = [&](const char* key, Message what, Message allowed) {
      problems.push_back({ProblemKind::badInput, fmt::format("/heaters/{}/{}", i, key), std::move(what), std::move(allowed)});
    };
    if (std::any_of(plan.heaters.begin(), plan.heaters.begin() + static_cast<std::ptrdiff_t>(i), [&](const Heater& other) { return other.id == h.id; }))
      bad("id", Message{"plan.two-heaters-called", h.id}, Message{"plan.each-needs-id-own"});
    if (!isThere(plan, h.place)) {
      const std::string said = placeId(h.place);
      bad("in", said.empty() ? Message{"plan.nothing-heater-heats"} : Message{"plan.no-heat", said}, Message{"plan.has-places", placesOf(plan)});
      continue;
    }
    const HeaterKindFacts& facts = factsOf(h.kind);
    if (!mayStand(facts, h.place.of)) bad("kind", Message{"plan.does-not-heat", facts.id, placeId(h.place)}, Message{"plan.boilers-heat-tanks-stoves"});
    if (h.burns != Carrier::fuel && h.kind != HeaterKind::boiler && facts.control != HeatControl::batches)
      bad("burns", Message{"plan.burns-what-kind-does", facts.id}, Message{"plan.only-boilers-wood-stoves"});
    if (h.burns != Carrier::fuel && !isBurnt(h.burns)) bad("burns", Message{"plan.nothing-burns", factsOf(h.burns).id}, Message{"plan.fuel-needed"});
    if (kWhPerUnit(carrierOf(h), h.boughtBy) <= 0.0) {
      std::string units;
      for (const FuelUnit& unit : unitsOf(carrierOf(h))) units += (units.empty() ? "" : ", ") + std::string(unit.id);
      bad("bought_by", Message{"plan.not-bought", factsOf(carrierOf(h)).id, h.boughtBy}, Message{"plan.by-units", units});
    }
    checkOwn(plan, h, bad);
  }
}

} // namespace muffle
