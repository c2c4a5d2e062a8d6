// SPDX-License-Identifier: GPL-3.0-or-later
//
// What keeps a plan from being built, beside the ranges of its fields: things that do not fit one another.
#include "core/plan/plan.h"

#include "core/calendar.h"
#include "core/material/materials.h"
#include "core/plan/crop_stands.h"
#include "core/plan/heaters.h"
#include "core/plan/measure_rules.h"
#include "core/plan/measure_table.h"
#include "core/plan/rooms.h"
#include "core/plan/stores_check.h"
#include "core/statistics/sigma_points.h"

#include <fmt/format.h>

#include <algorithm>
#include <string_view>

namespace muffle {
namespace {

constexpr double kLeastEave_m = 0.8;               // a ceiling over one's knees
constexpr double kMostOfHouse = 0.9;               // of a house, its sides or its floor, that one thing in it may take
constexpr double kHeaviestCeiling_J_m2K = 30000.0; // 30 mm of plaster; what is heavier is a wall

std::string idsOf(const std::array<MeasureRow, kMeasureKindCount>& table) {
  std::string ids;
  for (const MeasureRow& row : table) ids += fmt::format("{}{}", ids.empty() ? "" : ", ", row.id);
  return ids;
}

bool mayHaveCeiling(const HouseShape& s) { return s.kind != ShapeKind::dome && s.eave_m + s.sunk_m >= kLeastEave_m; }

void checkSkin(const Skin& skin, const Materials& materials, const std::string& where, Problems& problems) {
  if (skin.layers.empty()) problems.push_back({ProblemKind::missing, where + "/layers", Message{"plan.skin-no-layers"}, Message{"plan.one-layer-needed"}});
  for (std::size_t i = 0; i < skin.layers.size(); ++i)
    if (!materials.find(skin.layers[i].material))
      problems.push_back({ProblemKind::badInput, fmt::format("{}/layers/{}/material", where, i), Message{"plan.not-known-material", skin.layers[i].material},
                          Message{"plan.see-materials"}});
}

/// Bay, lobby and roof void against the house and one another.
template <class Bad> void checkRooms(const Plan& plan, const Materials& materials, const Bad& bad, Problems& problems) {
  const House& house = plan.house;
  const bool isDome = house.shape.kind == ShapeKind::dome;
  const double length = house.shape.length_m;
  if (house.bay) {
    const WarmBay& bay = *house.bay;
    if (isDome)
      bad("/house/warm_bay", Message{"plan.bay-partitioned-off-dome"}, Message{"plan.only-long-houses-partitioned"});
    else if (bay.length_m > kMostOfHouse * length)
      bad("/house/warm_bay/length_m", Message{"plan.bay-length", Amount{bay.length_m, Unit::metre}},
          Message{"plan.bay-at-most", Amount{kMostOfHouse * length, Unit::metre, 3}});
    checkSkin(bay.partition, materials, "/house/warm_bay/partition", problems);
    if (bay.setpoints.warmest_C() > house.ventOpens_C)
      bad("/house/warm_bay/setpoints", Message{"plan.setpoint-lies-above-vents"},
          Message{"plan.setpoint-at-most", Amount{house.ventOpens_C, Unit::celsius}});
  }
  if (house.lobby) {
    const double bay = house.bay ? house.bay->length_m : 0.0;
    if (isDome)
      bad("/house/lobby", Message{"plan.lobby-partitioned-off-dome"}, Message{"plan.use-a-second-door"});
    else if (house.lobby->length_m + bay > kMostOfHouse * length)
      bad("/house/lobby/length_m", Message{"plan.lobby-length", Amount{house.lobby->length_m, Unit::metre}},
          Message{"plan.lobby-and-bay-at-most", Amount{std::max(kMostOfHouse * length - bay, 0.0), Unit::metre, 3}});
    checkSkin(house.lobby->partition, materials, "/house/lobby/partition", problems);
    if (house.door.lobby) bad("/house/door/lobby", Message{"plan.second-door-lobby-air"}, Message{"plan.one-of-two-doors"});
  }
  if (house.roofVoid) {
    if (isDome)
      bad("/house/roof_void", Message{"plan.ceiling-dome"}, Message{"plan.ceilings-hang-long-houses"});
    else if (house.shape.eave_m + house.shape.sunk_m < kLeastEave_m)
      bad("/house/roof_void", Message{"plan.ceiling-eaves-above-floor", Amount{house.shape.eave_m + house.shape.sunk_m, Unit::metre, 3}},
          Message{"plan.eaves-at-least", Amount{kLeastEave_m, Unit::metre}});
    checkSkin(house.roofVoid->ceiling, materials, "/house/roof_void/ceiling", problems);
    for (std::size_t l = 0; l < house.roofVoid->ceiling.layers.size(); ++l) {
      const CoverMaterial* m = materials.find(house.roofVoid->ceiling.layers[l].material);
      if (m && m->capacity_J_m2K > kHeaviestCeiling_J_m2K)
        bad(fmt::format("/house/roof_void/ceiling/layers/{}/material", l), Message{"plan.wall", nameOf(*m)}, Message{"plan.ceiling-cloth-film-sheet"});
    }
  }
}

template <class Bad> void checkOwnMaterials(const Plan& plan, const Bad& bad) {
  constexpr std::string_view kLetters = "abcdefghijklmnopqrstuvwxyz0123456789-";
  for (std::size_t i = 0; i < plan.materials.size(); ++i) {
    const OwnMaterial& m = plan.materials[i];
    const auto where = fmt::format("/materials/{}", i);
    if (m.id.empty() || m.id.find_first_not_of(kLetters) != std::string::npos)
      bad(where + "/id", Message{"plan.quoted", m.id}, Message{"plan.small-letters-digits-hyphens"});
    if (findCoverMaterial(m.id)) bad(where + "/id", Message{"plan.id-is-of-the-table", m.id}, Message{"plan.choose-another"});
    for (std::size_t k = 0; k < i; ++k)
      if (plan.materials[k].id == m.id) bad(where + "/id", Message{"plan.stands-twice", m.id}, Message{"plan.choose-another"});
    if (m.innerEmissivity && *m.innerEmissivity + m.longwaveTransmittance > 1.0 + 1e-9)
      bad(where + "/inner_emissivity",
          Message{"plan.emissivity-long-wave-transmittance", Amount{*m.innerEmissivity, Unit::none, 6}, Amount{m.longwaveTransmittance, Unit::none, 6}},
          Message{"plan.shares-at-most-1"});
    if (m.emissivity + m.longwaveTransmittance > 1.0 + 1e-9)
      bad(where + "/longwave_transmittance",
          Message{"plan.emissivity-long-wave-transmittance", Amount{m.emissivity, Unit::none, 6}, Amount{m.longwaveTransmittance, Unit::none, 6}},
          Message{"plan.shares-at-most-1"});
    if (m.solarTransmittance + m.solarReflectance > 1.0 + 1e-9)
      bad(where + "/solar_reflectance",
          Message{"plan.solar-transmittance-reflectance", Amount{m.solarTransmittance, Unit::none, 6}, Amount{m.solarReflectance, Unit::none, 6}},
          Message{"plan.sun-shares-at-most-1"});
    if (m.emissivity + m.longwaveTransmittance < 0.02)
      bad(where + "/emissivity", Message{"plan.emissivity", Amount{m.emissivity, Unit::none, 6}}, Message{"plan.emissivity-at-least"});
  }
}

/// Rolled sides, fan and roof.
template <class Bad> void checkOpenings(const Plan& plan, const Bad& bad) {
  const House& house = plan.house;
  const double warmest = plan.setpoints.warmest_C();
  const auto fights = [&](double opens_C, const char* where) {
    if (warmest > opens_C)
      bad(where, Message{"plan.opens-at-setpoint", Amount{opens_C, Unit::celsius, 6}, Amount{warmest, Unit::none, 6}}, Message{"plan.heater-opening-would-fight"});
  };
  if (const auto& r = house.rollUp) {
    fights(r->opens_C, "/house/roll_up_sides/opens_C");
    if (r->full_C < r->opens_C + 0.5)
      bad("/house/roll_up_sides/full_C", Message{"plan.sides-range", Amount{r->full_C, Unit::celsius, 6}, Amount{r->opens_C, Unit::celsius, 6}},
          Message{"plan.above-opening-at-least", Amount{0.5, Unit::kelvin}});
    const double side = house.shape.kind == ShapeKind::arch || house.shape.kind == ShapeKind::pointedArch ? house.shape.ridge_m : house.shape.eave_m;
    if (house.shape.kind == ShapeKind::dome)
      bad("/house/roll_up_sides", Message{"plan.rolled-sides-dome"}, Message{"plan.only-long-houses-sides"});
    else if (r->height_m > kMostOfHouse * side)
      bad("/house/roll_up_sides/height_m", Message{"plan.strip", Amount{r->height_m, Unit::metre, 6}},
          Message{side == house.shape.eave_m ? "plan.sides-opened-at-most" : "plan.arch-opened-at-most", Amount{kMostOfHouse * side, Unit::metre, 3}});
  }
  if (house.extractFan) fights(house.extractFan->above_C, "/house/extract_fan/above_C");
  if (house.retractable && house.roofVoid) bad("/house/retractable_roof", Message{"plan.roof-draws-back-over"}, Message{"plan.take-ceiling-roofs-drive"});
  if (house.retractable && house.shape.kind == ShapeKind::dome)
    bad("/house/retractable_roof", Message{"plan.dome-draws-back"}, Message{"plan.only-long-houses-such"});
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
  const auto bad = [&](std::string where, Message what, Message allowed) {
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
    if (b.inBay && !plan.house.bay) bad(where + "/in_bay", Message{"plan.bed-warm-bay-none"}, Message{"plan.set-false-partition-bay"});
    if (const CoverMaterial* m = materials.find(b.material); !m)
      bad(where + "/material", Message{"plan.not-known-material", b.material}, Message{"plan.see-materials"});
    else if (m->resistance_m2K_W > 0.6 || m->capacity_J_m2K > 7000.0)
      bad(where + "/material", Message{"plan.board-wall", nameOf(*m)}, Message{"plan.bed-covered-film-fleece"});
    const double roof = std::max(plan.house.shape.ridge_m, 0.0) + plan.house.shape.sunk_m;
    if (b.height_m >= roof)
      bad(where + "/height_m", Message{"plan.cover-over-bed-high", Amount{b.height_m, Unit::metre}},
          Message{"plan.stay-below-ridge-above", Amount{roof, Unit::metre, 3}});
  }
  for (const bool inBay : {false, true}) {
    const double ground = ownFloor_m2(plan.house, inBay);
    if (covered[inBay ? 1 : 0] > kMostOfHouse * ground)
      bad("/house/bed_covers", Message{inBay ? "plan.beds-covered-in-bay" : "plan.beds-covered-in-house", Amount{covered[inBay ? 1 : 0], Unit::squareMetre, 3}},
          Message{"plan.beds-at-most", Amount{kMostOfHouse * ground, Unit::squareMetre, 3}});
  }
  if (plan.house.blanket && !materials.find(plan.house.blanket->material))
    bad("/house/blanket/material", Message{"plan.not-known-material", plan.house.blanket->material}, Message{"plan.see-materials"});
  for (std::size_t i = 0; i < plan.prices.materials.size(); ++i) {
    const auto where = fmt::format("/prices/materials/{}/material", i);
    const std::string& id = plan.prices.materials[i].material;
    if (!materials.find(id)) bad(where, Message{"plan.not-known-material", id}, Message{"plan.see-materials"});
    for (std::size_t k = 0; k < i; ++k)
      if (plan.prices.materials[k].material == id) bad(where, Message{"plan.two-prices", id}, Message{"plan.one-allowed"});
  }
  if (const auto& b = plan.house.blanket; b && b->rule == BlanketRule::clock && b->closesAt_h == b->opensAt_h)
    bad("/house/blanket/opens_at_h", Message{"plan.blanket-closed-opened", Amount{b->opensAt_h, Unit::hour, 6}}, Message{"plan.two-hours-differ"});
  const auto floor = [&](const Floor& f, const std::string& where) {
    if (!findSoilMaterial(f.soil)) bad(where + "/soil", Message{"plan.not-known-soil", f.soil}, Message{"plan.see-materials"});
    if (!f.cover.empty() && !findFloorCover(f.cover))
      bad(where + "/cover", Message{"plan.not-known-floor-cover", f.cover}, Message{"plan.see-materials"});
  };
  if (const Door& d = plan.house.door; d.opened > 0.0 && (d.height_m > plan.house.shape.ridge_m || d.width_m > plan.house.shape.span_m()))
    bad("/house/door",
        Message{"plan.door-in-end-wall", Amount{d.width_m, Unit::none, 6}, Amount{d.height_m, Unit::metre, 6}, Amount{plan.house.shape.span_m(), Unit::metre, 6},
                Amount{plan.house.shape.ridge_m, Unit::metre, 6}},
        Message{"plan.fit-wall"});
  floor(plan.house.floor, "/house/floor");
  if (plan.house.bay && plan.house.bay->floor) floor(*plan.house.bay->floor, "/house/warm_bay/floor");
  if (plan.house.ventFull_C < plan.house.ventOpens_C + 0.5)
    bad("/house/vent_full_C",
        Message{"plan.vents-range", Amount{plan.house.ventFull_C, Unit::celsius}, Amount{plan.house.ventOpens_C, Unit::celsius}},
        Message{"plan.above-opening-at-least", Amount{0.5, Unit::kelvin}});
  const auto schedule = [&](const Setpoints& s, const std::string& where) {
    if (s.dayFrom_h.has_value() != s.nightFrom_h.has_value() || (s.dayFrom_h && *s.dayFrom_h == *s.nightFrom_h))
      bad(where + "/day_from_h", Message{"plan.day-and-night-overlap"}, Message{"plan.day-before-night"});
    const auto rising = [&](const auto& bands, const char* list, const char* field, const Message& needed) {
      for (std::size_t i = 1; i < bands.size(); ++i)
        if (bands[i].outside_C <= bands[i - 1].outside_C) bad(fmt::format("{}/{}/{}/{}", where, list, i, field), Message{"plan.no-warmer-than-band"}, needed);
    };
    rising(s.nightBands, "night_bands", "low_C", Message{"plan.bands-rising-low-needed"});
    rising(s.dayBands, "day_bands", "high_C", Message{"plan.bands-rising-high-needed"});
  };
  schedule(plan.setpoints, "/setpoints");
  if (plan.house.bay) schedule(plan.house.bay->setpoints, "/house/warm_bay/setpoints");
  if (plan.setpoints.warmest_C() > plan.house.ventOpens_C)
    bad("/setpoints", Message{"plan.setpoint-lies-above-vents"}, Message{"plan.setpoint-at-most", Amount{plan.house.ventOpens_C, Unit::celsius}});
  for (std::size_t i = 0; i < plan.prices.fuels.size(); ++i) {
    const FuelPrice& f = plan.prices.fuels[i];
    const auto where = fmt::format("/prices/fuels/{}", i);
    if (kWhPerUnit(f.fuel, f.boughtBy) <= 0.0)
      bad(where + "/bought_by", Message{"plan.not-bought", factsOf(f.fuel).id, f.boughtBy}, Message{"plan.by-units", "kWh"});
    for (std::size_t k = 0; k < i; ++k)
      if (plan.prices.fuels[k].fuel == f.fuel) bad(where + "/fuel", Message{"plan.two-prices", factsOf(f.fuel).id}, Message{"plan.one-allowed"});
  }
  for (std::size_t i = 0; i < plan.prices.electricityWindows.size(); ++i)
    if (plan.prices.electricityWindows[i].from_h == plan.prices.electricityWindows[i].to_h)
      bad(fmt::format("/prices/electricity_windows/{}", i), Message{"plan.begins-ends-same-hour"}, Message{"plan.window-of-all-day"});
  if (const auto zone = TimeZone::named(plan.site.timeZone); !zone) bad("/site/time_zone", zone.problem().what, zone.problem().allowed);
  checkStores(plan, problems);
  checkHeaters(plan, problems);
  checkCrops(plan, problems);
  if (plan.house.bay && plan.house.bay->setpoints.felt == HeldTemperature::leaf)
    bad("/house/warm_bay/setpoints/felt", Message{"plan.leaves-of-the-bay"}, Message{"plan.hold-its-air"});
  double barrelFloor = 0.0;
  for (const Barrels& b : plan.barrels) barrelFloor += b.count * b.litres / 1000.0;
  if (barrelFloor > 0.5 * plan.house.shape.volume_m3())
    bad("/barrels", Message{"plan.water", Amount{barrelFloor, Unit::cubicMetre, 3}},
        Message{"plan.barrels-at-most", Amount{0.5 * plan.house.shape.volume_m3(), Unit::cubicMetre, 3}});
  for (std::size_t i = 0; i < plan.kit.size(); ++i) {
    const Kit& kit = plan.kit[i];
    const auto& table = measureTable();
    const bool isOfTable = std::any_of(table.begin(), table.end(), [&](const MeasureRow& row) { return row.id == kit.measure; });
    if (!kit.measure.empty() && !isOfTable)
      bad(fmt::format("/kit/{}/measure", i), Message{"plan.not-known-measure", kit.measure}, Message{"plan.measures-are", idsOf(table)});
    if (kit.measure.empty() && kit.name.empty()) bad(fmt::format("/kit/{}/name", i), Message{"plan.kit-without-name"}, Message{"plan.name-it-or-its-measure"});
  }
  for (std::size_t i = 0; i < plan.measures.size(); ++i) {
    const Measure& m = plan.measures[i];
    const auto where = fmt::format("/measures/{}", i);
    if (hasMaterial(m.kind) && !materials.find(m.material))
      bad(where + "/material", Message{"plan.not-known-material", m.material}, Message{"plan.see-materials"});
    if (!hasMaterial(m.kind) && m.kind != MeasureKind::own && m.levels.empty())
      bad(where + "/levels", Message{"plan.no-sizes-try"}, Message{"plan.give-least-one"});
    if (m.faces != CoveredFaces::all && m.kind != MeasureKind::secondSkin)
      bad(where + "/faces", Message{"plan.faces-of-no-skin", rowOf(m.kind).id}, Message{"plan.faces-go-with-second-skin"});
    if (m.kind == MeasureKind::heater)
      if (auto why = checkRoomHeater(m.heater, where + "/heater")) problems.push_back(std::move(*why));
    if (m.kind == MeasureKind::ceiling && !mayHaveCeiling(plan.house.shape))
      bad(where, Message{"plan.ceiling-eaves-too-low"}, Message{"plan.eaves-of-long-house-at-least", Amount{kLeastEave_m, Unit::metre}});
    if (m.kind == MeasureKind::lobby)
      for (const double length : m.levels)
        if (plan.house.shape.kind == ShapeKind::dome || length < 0.3 ||
            length + (plan.house.bay ? plan.house.bay->length_m : 0.0) > kMostOfHouse * plan.house.shape.length_m)
          bad(where + "/levels", Message{"plan.lobby-of-length", Amount{length, Unit::metre, 6}}, Message{"plan.lobby-at-least", Amount{0.3, Unit::metre}});
    if ((m.kind == MeasureKind::pipeBed || m.kind == MeasureKind::hotBed || m.kind == MeasureKind::mound) &&
        std::any_of(m.levels.begin(), m.levels.end(), [](double n) { return n < 1.0 || n != std::round(n); }))
      bad(where + "/levels", Message{"plan.sizes-not-whole", rowOf(m.kind).id}, Message{"plan.whole-numbers-from-1"});
    if (m.levels.size() > 12) bad(where + "/levels", Message{"plan.sizes", m.levels.size()}, Message{"plan.measures-at-most"});
  }
  constexpr std::size_t kFactors = 5; // skin, draughts, mass, ground, sun
  if (plan.calibration && !plan.calibration->logCovariance.empty() && !sigmaPoints(plan.calibration->logCovariance, kFactors))
    bad("/calibration/log_covariance", Message{"plan.no-covariance"}, Message{"plan.covariance-allowed"});
  if (plan.ask.rareNight_years && plan.site.annualLows_C.size() < 3)
    bad("/ask/rare_night_years", Message{"plan.rare-night-without-lows", plan.site.annualLows_C.size()}, Message{"plan.lows-of-three-winters"});
  checkMeasureRules(plan, problems);
  return problems;
}

} // namespace muffle
