// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/cautions.h"

#include "core/plan/heaters.h"
#include "core/plan/measure_table.h"
#include "core/plan/names.h"
#include "core/plan/own_measure.h"

#include <algorithm>
#include <initializer_list>

namespace muffle {
namespace {

using When = bool (*)(const Plan&, std::size_t);

bool always(const Plan&, std::size_t) { return true; }

/// A kind that a caution goes with, and when.
struct GoesWith {
  ThingKind kind;
  When when = &always;
};

struct Row {
  Caution caution;
  std::vector<GoesWith> with;
  std::vector<MeasureKind> measures;
};

bool burns(const Plan& p, std::size_t i) {
  return std::any_of(p.heaters.begin(), p.heaters.end(), [&](const Heater& h) {
    return h.place == HeaterPlace{HeaterPlace::Of::tank, i} && isBurnt(carrierOf(h)) && h.power_W > 0.0;
  });
}
bool isPlace(const Plan& p, std::size_t i, PilePlace place) { return p.compost[i].place == place; }
bool holdsManure(const Plan& p, std::size_t i) {
  const auto& recipe = p.compost[i].recipe;
  return std::any_of(recipe.begin(), recipe.end(), [](const PileIngredient& g) {
    return g.ingredient.find("manure") != std::string::npos || g.ingredient.find("litter") != std::string::npos;
  });
}
bool isSunk(const Plan& p, std::size_t) { return p.house.shape.sunk_m > 0.0; }
bool isDug(const Plan& p, std::size_t) { return p.house.shape.sunk_m > 0.0 || p.house.floor.edgeDepth_m > 0.0; }
bool hasHeater(const Plan& p, std::size_t) { return heaterPower_W(p, {HeaterPlace::Of::bay}) > 0.0; }
template <class Is> bool bayHas(const Plan& p, Is is) {
  return std::any_of(p.heaters.begin(), p.heaters.end(), [&](const Heater& h) { return h.place.of == HeaterPlace::Of::bay && h.power_W > 0.0 && is(h); });
}
bool burnsHere(const Heater& h) { return isBurnt(carrierOf(h)); }
bool isUnvented(const Heater& h) { return !factsOf(h.kind).hasFlue; }
bool hasFlue(const Heater& h) { return burnsHere(h) && !isUnvented(h); }
bool isWired(const Heater& h) { return factsOf(h.kind).needsMains; }
/// An open flame, or what gives half its heat or more by glowing.
bool isBareHot(const Heater& h) { return h.kind == HeaterKind::candles || factsOf(h.kind).radiantShare >= 0.5; }
bool isStored(const Heater& h) { return burnsHere(h) && carrierOf(h) != Carrier::naturalGas && carrierOf(h) != Carrier::wax; }
/// With the heaters of which something is true, in the house or its bay.
template <bool (*Is)(const Heater&)> std::vector<GoesWith> withHeaters() {
  return {{ThingKind::heater, [](const Plan& p, std::size_t i) { return Is(p.heaters[i]); }},
          {ThingKind::rooms, [](const Plan& p, std::size_t) { return bayHas(p, Is); }}};
}
std::vector<GoesWith> operator+(std::vector<GoesWith> all, const std::vector<GoesWith>& more) {
  all.insert(all.end(), more.begin(), more.end());
  return all;
}
bool hasFan(const Plan& p, std::size_t) { return (p.house.bay && p.house.bay->fan) || (p.house.roofVoid && p.house.roofVoid->fan); }

const std::vector<Row>& table() {
  using K = ThingKind;
  using M = MeasureKind;
  static const std::vector<Row> rows{
      {{"structure"}, {{K::shape}, {K::vents, [](const Plan& p, std::size_t) { return p.house.rollUp || p.house.retractable; }}}, {M::lobby}},
      {{"lined-roof"},
       {{K::covers, [](const Plan& p, std::size_t) { return p.house.roof.layers.size() > 1 || p.house.blanket; }}},
       {M::secondSkin, M::nightBlanket, M::ceiling}},
      {{"open-in-wind"}, {{K::vents, [](const Plan& p, std::size_t) { return p.house.rollUp || p.house.retractable; }}}, {}},
      {{"trench"},
       {{K::shape, &isDug}, {K::pipes}, {K::mass, [](const Plan& p, std::size_t i) { return p.mass[i].kind == MassKind::path; }}},
       {M::skirt, M::pipeBed, M::massPath}},
      {{"pit-gas"},
       {{K::shape, &isSunk}, {K::compost, [](const Plan& p, std::size_t i) { return p.compost[i].place == PilePlace::chamber || p.compost[i].buried > 0.0; }}},
       {}},
      {{"carbon-monoxide"}, std::vector<GoesWith>{{K::loop, &burns}} + withHeaters<burnsHere>(), {}},
      {{"unvented-flame"}, withHeaters<isUnvented>(), {}},
      {{"tight-house"}, {}, {M::sealing, M::secondSkin}},
      {{"flue"}, std::vector<GoesWith>{{K::loop, &burns}} + withHeaters<hasFlue>(), {}},
      {{"fuel-store"}, std::vector<GoesWith>{{K::loop, &burns}} + withHeaters<isStored>(), {}},
      {{"bare-heat"}, withHeaters<isBareHot>(), {}},
      {{"water-pressure"},
       {{K::loop},
        {K::compost, [](const Plan& p, std::size_t i) { return isPlace(p, i, PilePlace::mound); }},
        {K::pipes, [](const Plan& p, std::size_t i) { return p.groundPipes[i].collector_m2 > 0.0; }}},
       {M::collector}},
      {{"freezing-water"},
       {{K::loop},
        {K::compost, [](const Plan& p, std::size_t i) { return isPlace(p, i, PilePlace::mound); }},
        {K::pipes, [](const Plan& p, std::size_t i) { return p.groundPipes[i].collector_m2 > 0.0; }}},
       {M::collector}},
      {{"electric-heat"}, withHeaters<isWired>(), {M::heater}},
      {{"electric-motors"},
       {{K::vents, [](const Plan& p, std::size_t) { return p.house.extractFan || p.house.rollUp || p.house.retractable; }},
        {K::rooms, &hasFan},
        {K::pipes},
        {K::loop},
        {K::compost,
         [](const Plan& p, std::size_t i) { return isPlace(p, i, PilePlace::mound) || p.compost[i].fan_m3_h > 0.0 || p.compost[i].blown_m3_h > 0.0; }}},
       {M::pipeBed, M::collector}},
      {{"soil-cable"}, {{K::cable}}, {}},
      {{"sleeping"}, {{K::heater}, {K::rooms, &hasHeater}, {K::loop, &burns}}, {M::heater}},
      {{"fabric-fire"},
       {{K::covers}, {K::rooms, [](const Plan& p, std::size_t) { return p.house.roofVoid.has_value(); }}},
       {M::secondSkin, M::nightBlanket, M::ceiling}},
      {{"under-cover"}, {{K::rooms, [](const Plan& p, std::size_t) { return !p.house.bedCovers.empty(); }}}, {M::coveredBeds}},
      {{"straw-fire"}, {{K::floor, [](const Plan& p, std::size_t) { return !p.house.floor.cover.empty(); }}}, {M::mulch}},
      {{"damp"}, {{K::floor}}, {M::sealing, M::coveredBeds}},
      {{"heavy"}, {{K::barrels}}, {M::barrels}},
      {{"standing-water"}, {{K::pipes}}, {M::pipeBed}},
      {{"manure"}, {{K::compost, &holdsManure}}, {M::hotBed, M::mound}},
      {{"roots"}, {{K::compost, [](const Plan& p, std::size_t i) { return isPlace(p, i, PilePlace::hotBed); }}}, {M::hotBed}},
      {{"spores"}, {{K::compost}}, {M::hotBed, M::mound}},
      {{"heap"}, {{K::compost, [](const Plan& p, std::size_t i) { return !isPlace(p, i, PilePlace::hotBed); }}}, {M::mound}},
      {{"heavy-bench"}, {{K::mass, [](const Plan& p, std::size_t i) { return p.mass[i].kind == MassKind::bench; }}}, {}},
      {{"free-wall"}, {{K::mass, [](const Plan& p, std::size_t i) { return p.mass[i].kind == MassKind::wall; }}}, {M::massWall}},
      {{"lifting"}, {{K::mass, [](const Plan& p, std::size_t i) { return p.mass[i].kind == MassKind::path; }}}, {M::massPath}},
      {{"wet-soil"}, {{K::mass, [](const Plan& p, std::size_t i) { return p.mass[i].kind == MassKind::raisedBed; }}}, {}},
      {{"hardier"}, {}, {M::hardier}},
      {{"thermostat"}, {}, {M::nightSetpoint, M::nightBand}},
  };
  return rows;
}

ThingKind kindOf(StoreKind kind) {
  switch (kind) {
  case StoreKind::barrels: return ThingKind::barrels;
  case StoreKind::pipes: return ThingKind::pipes;
  case StoreKind::compost: return ThingKind::compost;
  case StoreKind::loop: return ThingKind::loop;
  case StoreKind::cable: return ThingKind::cable;
  case StoreKind::mass: break;
  }
  return ThingKind::mass;
}

bool goesWith(const Row& row, const Plan& plan, const Thing& thing) {
  return std::any_of(row.with.begin(), row.with.end(), [&](const GoesWith& w) { return w.kind == thing.kind && w.when(plan, thing.index); });
}

/// A measure of one's own touches things of that kind.
bool changes(const Measure& m, ThingKind kind) {
  const auto any = [&m](std::initializer_list<const char*> pointers) {
    return std::any_of(pointers.begin(), pointers.end(), [&m](const char* pointer) { return setsAny(m, pointer); });
  };
  switch (kind) {
  case ThingKind::shape: return any({"/house/shape"});
  case ThingKind::covers: return any({"/house/roof/", "/house/sides", "/house/ends", "/house/back_wall", "/house/blanket"});
  case ThingKind::floor: return any({"/house/floor"});
  case ThingKind::vents: return any({"/house/vent", "/house/roll_up_sides", "/house/extract_fan", "/house/retractable_roof"});
  case ThingKind::rooms: return any({"/house/warm_bay", "/house/lobby", "/house/roof_void", "/house/bed_covers"});
  case ThingKind::heater: return any({"/heaters/"});
  case ThingKind::barrels: return any({"/barrels/"});
  case ThingKind::pipes: return any({"/ground_pipes/"});
  case ThingKind::compost: return any({"/compost/"});
  case ThingKind::loop: return any({"/water_loops/"});
  case ThingKind::cable: return any({"/soil_cables/"});
  case ThingKind::mass: return any({"/mass/"});
  case ThingKind::measure: break;
  }
  return false;
}

/// The house with a measure of one's own, in each of its sizes that can be.
std::vector<Plan> madeBy(const Plan& plan, const Measure& m) {
  std::vector<Plan> made;
  if (m.kind != MeasureKind::own) return made;
  for (int place = 0; place < levelCount(m); ++place)
    if (auto one = withSettings(plan, m, levelAt(m, place))) made.push_back(*std::move(one));
  return made;
}

/// Of what it makes of the house, the things that it touches, as they then stand; where it makes none, whatever it may touch.
bool goesWithOwn(const Row& row, const Measure& m, const std::vector<Plan>& made) {
  const auto isTouched = [&](ThingKind kind) { // heaters of rooms, tanks and masses are theirs
    const bool mayHeat = kind == ThingKind::rooms || kind == ThingKind::loop || kind == ThingKind::mass;
    return changes(m, kind) || (mayHeat && changes(m, ThingKind::heater));
  };
  if (made.empty()) return std::any_of(row.with.begin(), row.with.end(), [&](const GoesWith& w) { return changes(m, w.kind); });
  return std::any_of(made.begin(), made.end(), [&](const Plan& one) {
    const auto things = thingsOf(one);
    return std::any_of(things.begin(), things.end(), [&](const Thing& thing) { return isTouched(thing.kind) && goesWith(row, one, thing); });
  });
}

/// A heater's go by its kind, as they do once it stands there.
bool goesWithMeasure(const Row& row, const Measure& m, const std::vector<Plan>& made) {
  if (m.kind == MeasureKind::own) return goesWithOwn(row, m, made);
  if (m.kind != MeasureKind::heater || m.heater == HeaterKind::electric)
    return std::find(row.measures.begin(), row.measures.end(), m.kind) != row.measures.end();
  Plan with;
  with.heaters = {{.kind = m.heater, .power_W = 1.0}};
  return goesWith(row, with, {ThingKind::heater, 0});
}

} // namespace

Thing thingOf(const StoreRef& store) { return {kindOf(store.kind), store.index}; }

std::vector<Thing> thingsOf(const Plan& plan) {
  std::vector<Thing> things{{ThingKind::shape, 0}, {ThingKind::covers, 0}, {ThingKind::floor, 0}, {ThingKind::vents, 0}};
  const House& h = plan.house;
  if (h.bay || h.lobby || h.roofVoid || !h.bedCovers.empty()) things.push_back({ThingKind::rooms, 0});
  for (std::size_t i = 0; i < plan.heaters.size(); ++i)
    if (plan.heaters[i].place.of == HeaterPlace::Of::house) things.push_back({ThingKind::heater, i});
  for (const StoreRef& s : storesOf(plan)) things.push_back(thingOf(s));
  return things;
}

Message thingName(const Plan& plan, const Thing& thing) {
  switch (thing.kind) {
  case ThingKind::shape: return Message{"name.the-house"};
  case ThingKind::covers: return Message{"name.covers"};
  case ThingKind::floor: return Message{"name.floor"};
  case ThingKind::vents: return Message{"name.vents"};
  case ThingKind::rooms: return Message{"name.rooms"};
  case ThingKind::heater: return nameOf(plan, plan.heaters[thing.index]);
  case ThingKind::measure: return nameOf(plan.measures[thing.index]);
  default: break;
  }
  const auto stores = storesOf(plan);
  return std::find_if(stores.begin(), stores.end(), [&](const StoreRef& s) { return kindOf(s.kind) == thing.kind && s.index == thing.index; })->name;
}

const std::vector<Caution>& allCautions() {
  static const std::vector<Caution> all = [] {
    std::vector<Caution> cautions;
    for (const Row& row : table()) cautions.push_back(row.caution);
    return cautions;
  }();
  return all;
}

std::vector<Caution> cautionsFor(const Plan& plan, const Thing& thing) {
  if (thing.kind == ThingKind::measure) return cautionsFor(plan, std::vector<Measure>{plan.measures[thing.index]});
  std::vector<Caution> cautions;
  for (const Row& row : table())
    if (goesWith(row, plan, thing)) cautions.push_back(row.caution);
  return cautions;
}

std::vector<Caution> cautionsAbout(ThingKind kind) {
  std::vector<Caution> cautions;
  for (const Row& row : table())
    if (std::any_of(row.with.begin(), row.with.end(), [&](const GoesWith& w) { return w.kind == kind; })) cautions.push_back(row.caution);
  return cautions;
}

std::vector<Caution> cautionsFor(const Plan& plan, const std::vector<Measure>& measures) {
  std::vector<std::vector<Plan>> made; // once for all rows: each is read as a plan's file is
  for (const Measure& m : measures) made.push_back(madeBy(plan, m));
  std::vector<Caution> cautions;
  for (const Row& row : table()) {
    bool goes = false;
    for (std::size_t k = 0; k < measures.size() && !goes; ++k) goes = goesWithMeasure(row, measures[k], made[k]);
    if (goes) cautions.push_back(row.caution);
  }
  return cautions;
}

std::vector<StatedCaution> cautionsOf(const Plan& plan) {
  std::vector<StatedCaution> stated;
  const auto things = thingsOf(plan);
  for (const Row& row : table()) {
    StatedCaution s{row.caution, {}};
    for (const Thing& thing : things) {
      if (!goesWith(row, plan, thing)) continue;
      Message name = thingName(plan, thing);
      if (std::find(s.of.begin(), s.of.end(), name) == s.of.end()) s.of.push_back(std::move(name));
    }
    if (!s.of.empty()) stated.push_back(std::move(s));
  }
  return stated;
}

Message textOf(const Caution& caution) { return Message::of("caution", caution.id); }

} // namespace muffle
