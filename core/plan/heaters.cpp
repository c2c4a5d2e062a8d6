// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/heaters.h"

#include <fmt/format.h>

#include <algorithm>
#include <numeric>
#include <utility>

namespace muffle {
namespace {

std::string placesOf(const Plan& plan) {
  std::string places = "house";
  if (plan.house.bay) places += ", bay";
  for (std::size_t t = 0; t < plan.waterLoops.size(); ++t) places += ", " + placeId({HeaterPlace::Of::tank, t});
  return places;
}

bool isThere(const Plan& plan, const HeaterPlace& place) {
  switch (place.of) {
  case HeaterPlace::Of::house: return true;
  case HeaterPlace::Of::bay: return plan.house.bay.has_value();
  case HeaterPlace::Of::tank: return place.tank < plan.waterLoops.size();
  case HeaterPlace::Of::unknown: break;
  }
  return false;
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
  const bool isTank = place.of == HeaterPlace::Of::tank;
  return addHeater(plan, {.kind = isTank ? HeaterKind::boiler : HeaterKind::electric, .place = place, .power_W = 0.0});
}

void setHeaterPower(Plan& plan, const HeaterPlace& place, double power_W) {
  if (isThere(plan, place) && (power_W > 0.0 || heaterIn(plan, place))) firstHeater(plan, place).power_W = power_W;
}

double heaterPower_W(const Plan& plan, const HeaterPlace& place) {
  return std::accumulate(plan.heaters.begin(), plan.heaters.end(), 0.0, [&](double sum, const Heater& h) { return h.place == place ? sum + h.power_W : sum; });
}

double roomHeaters_W(const Plan& plan) { return heaterPower_W(plan, {HeaterPlace::Of::house}) + heaterPower_W(plan, {HeaterPlace::Of::bay}); }

int countOfRoomHeaters(const Plan& plan) {
  return static_cast<int>(
      std::count_if(plan.heaters.begin(), plan.heaters.end(), [](const Heater& h) { return h.place.of != HeaterPlace::Of::tank && h.power_W > 0.0; }));
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
  const char* const stem = of == HeaterPlace::Of::bay ? "bay-heater" : of == HeaterPlace::Of::tank ? "boiler" : "heater";
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

void removeTank(Plan& plan, std::size_t tank) {
  removeHeaters(plan, {HeaterPlace::Of::tank, tank});
  for (Heater& h : plan.heaters)
    if (h.place.of == HeaterPlace::Of::tank && h.place.tank > tank) --h.place.tank;
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
    if (!(h.place.of == HeaterPlace::Of::tank ? facts.inTanks : facts.inRooms))
      bad("kind", Message{"plan.does-not-heat", facts.id, placeId(h.place)}, Message{"plan.boilers-heat-tanks-stoves"});
    if (h.burns != Carrier::fuel && h.kind != HeaterKind::boiler && h.kind != HeaterKind::woodStove)
      bad("burns", Message{"plan.burns-what-kind-does", facts.id}, Message{"plan.only-boilers-wood-stoves"});
    if (h.burns != Carrier::fuel && !isBurnt(h.burns)) bad("burns", Message{"plan.nothing-burns", factsOf(h.burns).id}, Message{"plan.fuel-needed"});
    if (kWhPerUnit(carrierOf(h), h.boughtBy) <= 0.0) {
      std::string units;
      for (const FuelUnit& unit : unitsOf(carrierOf(h))) units += (units.empty() ? "" : ", ") + std::string(unit.id);
      bad("bought_by", Message{"plan.not-bought", factsOf(carrierOf(h)).id, h.boughtBy}, Message{"plan.by-units", units});
    }
    for (std::size_t k = 1; k < h.heatPump.size(); ++k)
      if (h.heatPump[k].outside_C <= h.heatPump[k - 1].outside_C)
        bad("heat_pump", Message{"plan.point-no-warmer-than", k + 1}, Message{"plan.points-rising-temperature-outside"});
  }
}

} // namespace muffle
