// SPDX-License-Identifier: GPL-3.0-or-later
//
// What keeps a plan from being built, beside the ranges of its fields: things that do not fit one another.
#include "core/plan/plan.h"

#include "core/calendar.h"
#include "core/material/materials.h"
#include "core/plan/heaters.h"
#include "core/plan/stores_check.h"

#include <fmt/format.h>

#include <algorithm>
#include <string_view>

namespace muffle {
namespace {

constexpr double kLeastEave_m = 0.8;               // a ceiling over one's knees
constexpr double kMostOfHouse = 0.9;               // of a house, its sides or its floor, that one thing in it may take
constexpr double kHeaviestCeiling_J_m2K = 30000.0; // 30 mm of plaster; what is heavier is a wall

bool mayHaveCeiling(const HouseShape& s) { return s.kind != ShapeKind::dome && s.eave_m + s.sunk_m >= kLeastEave_m; }

void checkSkin(const Skin& skin, const Materials& materials, const std::string& where, Problems& problems) {
  if (skin.layers.empty()) problems.push_back({ProblemKind::missing, where + "/layers", "the skin has no layers", "at least one is needed"});
  for (std::size_t i = 0; i < skin.layers.size(); ++i)
    if (!materials.find(skin.layers[i].material))
      problems.push_back({ProblemKind::badInput, fmt::format("{}/layers/{}/material", where, i),
                          fmt::format("\"{}\" is not a known material", skin.layers[i].material), "see `muffle-cli materials`"});
}

/// Of the house's own floor or its bay's.
double floorOf(const House& house, bool inBay) {
  const double bay = house.bay ? house.bay->length_m : 0.0;
  const double own = inBay ? bay : house.shape.length_m - bay - (house.lobby ? house.lobby->length_m : 0.0);
  return house.shape.kind == ShapeKind::dome ? (inBay ? 0.0 : house.shape.floor_m2()) : house.shape.floor_m2() * std::max(own, 0.0) / house.shape.length_m;
}

/// Bay, lobby and roof void against the house and one another.
template <class Bad> void checkRooms(const Plan& plan, const Materials& materials, const Bad& bad, Problems& problems) {
  const House& house = plan.house;
  const bool isDome = house.shape.kind == ShapeKind::dome;
  const double length = house.shape.length_m;
  if (house.bay) {
    const WarmBay& bay = *house.bay;
    if (isDome)
      bad("/house/warm_bay", "a bay partitioned off in a dome", "only long houses are partitioned; cover the beds instead");
    else if (bay.length_m > kMostOfHouse * length)
      bad("/house/warm_bay/length_m", fmt::format("the bay is {} m long", bay.length_m),
          fmt::format("at most nine tenths of the house, {:.3g} m", kMostOfHouse * length));
    checkSkin(bay.partition, materials, "/house/warm_bay/partition", problems);
    if (bay.setpoints.warmest_C() > house.ventOpens_C)
      bad("/house/warm_bay/setpoints", "a setpoint lies above the vents' opening temperature",
          fmt::format("heater and vents would fight; keep it at or below {}", house.ventOpens_C));
  }
  if (house.lobby) {
    const double bay = house.bay ? house.bay->length_m : 0.0;
    if (isDome)
      bad("/house/lobby", "a lobby partitioned off in a dome", "only long houses are partitioned; use a second door");
    else if (house.lobby->length_m + bay > kMostOfHouse * length)
      bad("/house/lobby/length_m", fmt::format("the lobby is {} m long", house.lobby->length_m),
          fmt::format("lobby and bay together take at most nine tenths of the house: {:.3g} m are left", std::max(kMostOfHouse * length - bay, 0.0)));
    checkSkin(house.lobby->partition, materials, "/house/lobby/partition", problems);
    if (house.door.lobby) bad("/house/door/lobby", "a second door and a lobby with air of its own", "one of the two is meant; set this to false");
  }
  if (house.roofVoid) {
    if (isDome)
      bad("/house/roof_void", "a ceiling in a dome", "ceilings hang in long houses");
    else if (house.shape.eave_m + house.shape.sunk_m < kLeastEave_m)
      bad("/house/roof_void", fmt::format("a ceiling at the eaves, {:.3g} m above the floor", house.shape.eave_m + house.shape.sunk_m),
          fmt::format("the eaves must be at least {} m above the floor", kLeastEave_m));
    checkSkin(house.roofVoid->ceiling, materials, "/house/roof_void/ceiling", problems);
    for (std::size_t l = 0; l < house.roofVoid->ceiling.layers.size(); ++l) {
      const CoverMaterial* m = materials.find(house.roofVoid->ceiling.layers[l].material);
      if (m && m->capacity_J_m2K > kHeaviestCeiling_J_m2K)
        bad(fmt::format("/house/roof_void/ceiling/layers/{}/material", l), fmt::format("{} is a wall", m->name), "a ceiling is of cloth, film, sheet or board");
    }
  }
}

template <class Bad> void checkOwnMaterials(const Plan& plan, const Bad& bad) {
  constexpr std::string_view kLetters = "abcdefghijklmnopqrstuvwxyz0123456789-";
  for (std::size_t i = 0; i < plan.materials.size(); ++i) {
    const OwnMaterial& m = plan.materials[i];
    const auto where = fmt::format("/materials/{}", i);
    if (m.id.empty() || m.id.find_first_not_of(kLetters) != std::string::npos)
      bad(where + "/id", fmt::format("\"{}\"", m.id), "small letters, digits and hyphens are allowed");
    if (findCoverMaterial(m.id)) bad(where + "/id", fmt::format("\"{}\" is one of the table's", m.id), "choose another");
    for (std::size_t k = 0; k < i; ++k)
      if (plan.materials[k].id == m.id) bad(where + "/id", fmt::format("\"{}\" stands here twice", m.id), "choose another");
    if (m.innerEmissivity && *m.innerEmissivity + m.longwaveTransmittance > 1.0 + 1e-9)
      bad(where + "/inner_emissivity", fmt::format("emissivity {:g} and long-wave transmittance {:g}", *m.innerEmissivity, m.longwaveTransmittance),
          "together at most 1: what is let through is not taken up");
    if (m.emissivity + m.longwaveTransmittance > 1.0 + 1e-9)
      bad(where + "/longwave_transmittance", fmt::format("emissivity {:g} and long-wave transmittance {:g}", m.emissivity, m.longwaveTransmittance),
          "together at most 1: what is let through is not taken up");
    if (m.solarTransmittance + m.solarReflectance > 1.0 + 1e-9)
      bad(where + "/solar_reflectance", fmt::format("solar transmittance {:g} and reflectance {:g}", m.solarTransmittance, m.solarReflectance),
          "together at most 1");
    if (m.emissivity + m.longwaveTransmittance < 0.02)
      bad(where + "/emissivity", fmt::format("emissivity {:g}", m.emissivity), "at least 0.02: even polished metal has that");
  }
}

/// Rolled sides, fan and roof.
template <class Bad> void checkOpenings(const Plan& plan, const Bad& bad) {
  const House& house = plan.house;
  const double warmest = plan.setpoints.warmest_C();
  const auto fights = [&](double opens_C, const char* where) {
    if (warmest > opens_C)
      bad(where, fmt::format("it opens at {:g} with a setpoint of {:g}", opens_C, warmest), "heater and opening would fight; open it at or above the setpoint");
  };
  if (const auto& r = house.rollUp) {
    fights(r->opens_C, "/house/roll_up_sides/opens_C");
    if (r->full_C < r->opens_C + 0.5)
      bad("/house/roll_up_sides/full_C", fmt::format("fully open at {:g} with opening at {:g}", r->full_C, r->opens_C),
          "at least 0.5 K above the opening temperature is needed");
    const double side = house.shape.kind == ShapeKind::arch || house.shape.kind == ShapeKind::pointedArch ? house.shape.ridge_m : house.shape.eave_m;
    if (house.shape.kind == ShapeKind::dome)
      bad("/house/roll_up_sides", "rolled sides on a dome", "only long houses have sides to roll up");
    else if (r->height_m > kMostOfHouse * side)
      bad("/house/roll_up_sides/height_m", fmt::format("a strip of {:g} m", r->height_m),
          fmt::format("at most nine tenths of the {} can be opened, {:.3g} m", side == house.shape.eave_m ? "sides" : "arch's height", kMostOfHouse * side));
  }
  if (house.extractFan) fights(house.extractFan->above_C, "/house/extract_fan/above_C");
  if (house.retractable && house.roofVoid) bad("/house/retractable_roof", "a roof that draws back over a ceiling", "take the ceiling or the roof's drive away");
  if (house.retractable && house.shape.kind == ShapeKind::dome) bad("/house/retractable_roof", "a dome that draws back", "only long houses have such roofs");
}

} // namespace

Problems check(const Plan& plan) {
  Problems problems;
  const Materials materials(plan.materials);
  for (Problem p : plan.house.shape.check()) {
    p.where = "/house/shape" + p.where;
    problems.push_back(std::move(p));
  }
  checkSkin(plan.house.roof, materials, "/house/roof", problems);
  checkSkin(plan.house.sides, materials, "/house/sides", problems);
  checkSkin(plan.house.ends, materials, "/house/ends", problems);
  if (plan.house.shape.hasBackWall()) checkSkin(plan.house.backWall, materials, "/house/back_wall", problems);
  const auto bad = [&](std::string where, std::string what, std::string allowed) {
    problems.push_back({ProblemKind::badInput, std::move(where), std::move(what), std::move(allowed)});
  };
  checkOwnMaterials(plan, bad);
  checkRooms(plan, materials, bad, problems);
  checkOpenings(plan, bad);
  double covered[2] = {0.0, 0.0}; // in the house, in its bay
  for (std::size_t i = 0; i < plan.house.bedCovers.size(); ++i) {
    const BedCover& b = plan.house.bedCovers[i];
    const auto where = fmt::format("/house/bed_covers/{}", i);
    covered[b.inBay ? 1 : 0] += b.bed_m2();
    if (b.inBay && !plan.house.bay) bad(where + "/in_bay", "the bed is in the warm bay and there is none", "set it to false, or partition a bay off");
    if (const CoverMaterial* m = materials.find(b.material); !m)
      bad(where + "/material", fmt::format("\"{}\" is not a known material", b.material), "see `muffle-cli materials`");
    else if (m->resistance_m2K_W > 0.6 || m->capacity_J_m2K > 7000.0)
      bad(where + "/material", fmt::format("{} is a board or a wall", m->name), "a bed is covered with film, fleece, cloth, wrap or quilt");
    const double roof = std::max(plan.house.shape.ridge_m, 0.0) + plan.house.shape.sunk_m;
    if (b.height_m >= roof)
      bad(where + "/height_m", fmt::format("the cover over the bed is {} m high", b.height_m),
          fmt::format("it must stay below the ridge, {:.3g} m above the floor", roof));
  }
  for (const bool inBay : {false, true}) {
    const double ground = floorOf(plan.house, inBay);
    if (covered[inBay ? 1 : 0] > kMostOfHouse * ground)
      bad("/house/bed_covers", fmt::format("covers over {:.3g} m2 of beds {}", covered[inBay ? 1 : 0], inBay ? "in the bay" : "in the house"),
          fmt::format("at most nine tenths of the floor there can be beds: {:.3g} m2", kMostOfHouse * ground));
  }
  if (plan.house.blanket && !materials.find(plan.house.blanket->material))
    bad("/house/blanket/material", fmt::format("\"{}\" is not a known material", plan.house.blanket->material), "see `muffle-cli materials`");
  for (std::size_t i = 0; i < plan.prices.materials.size(); ++i) {
    const auto where = fmt::format("/prices/materials/{}/material", i);
    const std::string& id = plan.prices.materials[i].material;
    if (!materials.find(id)) bad(where, fmt::format("\"{}\" is not a known material", id), "see `muffle-cli materials`");
    for (std::size_t k = 0; k < i; ++k)
      if (plan.prices.materials[k].material == id) bad(where, fmt::format("\"{}\" has two prices", id), "one is allowed");
  }
  if (const auto& b = plan.house.blanket; b && b->rule == BlanketRule::clock && b->closesAt_h == b->opensAt_h)
    bad("/house/blanket/opens_at_h", fmt::format("the blanket is closed and opened at {:g} h", b->opensAt_h), "the two hours must differ");
  const auto floor = [&](const Floor& f, const std::string& where) {
    if (!findSoilMaterial(f.soil)) bad(where + "/soil", fmt::format("\"{}\" is not a known soil", f.soil), "see `muffle-cli materials`");
    if (!f.cover.empty() && !findFloorCover(f.cover))
      bad(where + "/cover", fmt::format("\"{}\" is not a known floor cover", f.cover), "see `muffle-cli materials`");
  };
  if (const Door& d = plan.house.door; d.opened > 0.0 && (d.height_m > plan.house.shape.ridge_m || d.width_m > plan.house.shape.span_m()))
    bad("/house/door",
        fmt::format("the door is {:g} x {:g} m in an end wall {:g} m wide and {:g} m high", d.width_m, d.height_m, plan.house.shape.span_m(),
                    plan.house.shape.ridge_m),
        "it must fit the wall");
  floor(plan.house.floor, "/house/floor");
  if (plan.house.bay && plan.house.bay->floor) floor(*plan.house.bay->floor, "/house/warm_bay/floor");
  if (plan.house.ventFull_C < plan.house.ventOpens_C + 0.5)
    bad("/house/vent_full_C", fmt::format("vents fully open at {} with opening at {}", plan.house.ventFull_C, plan.house.ventOpens_C),
        "at least 0.5 K above the opening temperature is needed");
  const auto schedule = [&](const Setpoints& s, const std::string& where) {
    if (s.dayFrom_h.has_value() != s.nightFrom_h.has_value() || (s.dayFrom_h && *s.dayFrom_h == *s.nightFrom_h))
      bad(where + "/day_from_h", "day and night do not both begin", "day_from_h and night_from_h at different hours, or neither: then they go by the sun");
    for (std::size_t i = 1; i < s.nightBands.size(); ++i)
      if (s.nightBands[i].outside_C <= s.nightBands[i - 1].outside_C)
        bad(fmt::format("{}/night_bands/{}/low_C", where, i), "it is no warmer than the band before", "bands by rising low are needed");
  };
  schedule(plan.setpoints, "/setpoints");
  if (plan.house.bay) schedule(plan.house.bay->setpoints, "/house/warm_bay/setpoints");
  if (plan.setpoints.warmest_C() > plan.house.ventOpens_C)
    bad("/setpoints", "a setpoint lies above the vents' opening temperature",
        fmt::format("heater and vents would fight; keep it at or below {}", plan.house.ventOpens_C));
  for (std::size_t i = 0; i < plan.prices.electricityWindows.size(); ++i)
    if (plan.prices.electricityWindows[i].from_h == plan.prices.electricityWindows[i].to_h)
      bad(fmt::format("/prices/electricity_windows/{}", i), "it begins and ends at the same hour", "a window of all day is from 0 to 24");
  if (const auto zone = TimeZone::named(plan.site.timeZone); !zone) bad("/site/time_zone", zone.problem().what, zone.problem().allowed);
  checkStores(plan, problems);
  checkHeaters(plan, problems);
  double barrelFloor = 0.0;
  for (const Barrels& b : plan.barrels) barrelFloor += b.count * b.litres / 1000.0;
  if (barrelFloor > 0.5 * plan.house.shape.volume_m3())
    bad("/barrels", fmt::format("{:.3g} m3 of water", barrelFloor),
        fmt::format("it must leave room: at most half of the house, {:.3g} m3", 0.5 * plan.house.shape.volume_m3()));
  for (std::size_t i = 0; i < plan.measures.size(); ++i) {
    const Measure& m = plan.measures[i];
    const auto where = fmt::format("/measures/{}", i);
    if (hasMaterial(m.kind) && !materials.find(m.material))
      bad(where + "/material", fmt::format("\"{}\" is not a known material", m.material), "see `muffle-cli materials`");
    if (!hasMaterial(m.kind) && m.levels.empty()) bad(where + "/levels", "no sizes to try", "give at least one");
    if (m.kind == MeasureKind::ceiling && !mayHaveCeiling(plan.house.shape))
      bad(where, "a ceiling at eaves that are too low, or in a dome",
          fmt::format("the eaves must be at least {} m above the floor of a long house", kLeastEave_m));
    if (m.kind == MeasureKind::lobby)
      for (const double length : m.levels)
        if (plan.house.shape.kind == ShapeKind::dome || length < 0.3 ||
            length + (plan.house.bay ? plan.house.bay->length_m : 0.0) > kMostOfHouse * plan.house.shape.length_m)
          bad(where + "/levels", fmt::format("a lobby {:g} m long", length), "at least 0.3 m, and with the bay at most nine tenths of a long house");
    if (m.levels.size() > 12) bad(where + "/levels", fmt::format("{} sizes", m.levels.size()), "at most 12 are allowed");
  }
  return problems;
}

} // namespace muffle
