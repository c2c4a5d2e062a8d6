// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/measure_table.h"

#include "core/plan/heaters.h"
#include "core/plan/own_measure.h"
#include "core/plan/usual_stores.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

using Kind = MeasureKind;
using Measures = std::vector<Measure>;

constexpr double kSkirtBoard_m2K_W = 1.43; // 50 mm of rigid foam
constexpr std::size_t kMostLayers = 6;
constexpr double kEaveToWorkUnder_m = 1.6; // room to work under it
constexpr double kLobby_m = 1.5;
constexpr double kStep_W = 500.0;
constexpr double kPerPipe_m3_h = 100.0;
constexpr const char* kStraw = "straw"; // of the table of materials

Message nameAlone(const Message& name, double) { return name; }

Measure sized(Measure m, double level) {
  m.levels = {level};
  return m;
}

Measure made(Measure m, const char* material, double gap_m, double price) {
  m.levels.clear();
  m.material = material;
  m.gap_m = gap_m;
  m.price = price;
  return m;
}

struct CoveredGroup {
  FaceGroup group;
  Skin House::*skin;
};
constexpr std::array<CoveredGroup, 3> kCovered{{{FaceGroup::roof, &House::roof}, {FaceGroup::sides, &House::sides}, {FaceGroup::ends, &House::ends}}};

void addSkin(Plan& plan, const Measure& m, double) {
  for (const CoveredGroup& covered : kCovered) {
    if (!covers(m.faces, covered.group)) continue;
    Skin& skin = plan.house.*covered.skin;
    skin.layers.back().gap_m = m.gap_m;
    skin.layers.push_back({m.material, m.gap_m});
  }
}

double covered_m2(const HouseShape& shape, CoveredFaces faces) {
  double sum_m2 = 0.0;
  for (const CoveredGroup& covered : kCovered)
    if (covers(faces, covered.group)) sum_m2 += shape.area_m2(covered.group);
  return sum_m2;
}

void addMass(Plan& plan, MassKind kind, double area_m2) {
  plan.mass.push_back(usualMass(plan, kind));
  plan.mass.back().area_m2 = area_m2;
}

Message ofArea(const Message& name, double level) { return Message{"measure.of-area", name, Amount{level, Unit::squareMetre}}; }

Message lowerBy(const Message& name, double level) { return Message{"measure.lower-by", name, Amount{level, Unit::kelvin}}; }

Message atLevel(const Message& name, double level) { return Message{"measure.at-level", name, level}; }

void hangBlanket(Plan& plan, const Measure& m, double) {
  plan.house.blanket = NightBlanket{};
  plan.house.blanket->material = m.material;
  plan.house.blanket->hoursPerDraw = m.hoursPerNight; // its rule says on how many nights
}

void seal(Plan& plan, const Measure&, double level) {
  House& house = plan.house;
  const double left = std::min(level / std::max(house.airChanges_per_h, 1e-6), 1.0);
  house.windAirChanges *= left; // the same cracks let the wind in
  if (house.leakage) house.leakage->area_cm2 *= left;
  house.airChanges_per_h = std::min(level, house.airChanges_per_h);
}

void addBarrels(Plan& plan, const Measure&, double level) {
  if (plan.barrels.empty()) {
    plan.barrels.emplace_back().count = static_cast<int>(level);
    return;
  }
  plan.barrels.front().count += static_cast<int>(level);
}

void dig(Plan& plan, const Measure&, double level) {
  plan.house.floor.edgeDepth_m = level;
  plan.house.floor.edgeInsulation_m2K_W = kSkirtBoard_m2K_W;
}

void bearMore(Plan& plan, const Measure&, double level) {
  plan.setpoints.hold_C -= level;
  plan.setpoints.shift(-level);
}

void digPipes(Plan& plan, const Measure&, double level) {
  GroundPipes pipes = usualPipes(plan, PipePlace::underFloor);
  pipes.count = static_cast<int>(level);
  pipes.fan_m3_h = kPerPipe_m3_h * level;
  plan.groundPipes.push_back(pipes);
}

/// Lower on cold nights, when heaters have most to do: not at all where it is 5 K colder outside than what is held, by all of it where it is three times that.
void bendNight(Plan& plan, const Measure&, double level) {
  constexpr double kMildNight_K = 5.0, kColdNight_K = 15.0;
  Setpoints& s = plan.setpoints;
  NightBand cold, mild;
  cold.outside_C = s.night_C - kColdNight_K;
  cold.setpoint_C = s.night_C - level;
  mild.outside_C = s.night_C - kMildNight_K;
  mild.setpoint_C = s.night_C;
  s.nightBands = {cold, mild};
}

/// Beds under a low tunnel keep the line that the house kept, and the house may be so much colder. What stood in the house stands under it.
void coverBeds(Plan& plan, const Measure& m, double level) {
  BedCover bed = usualBedCover(plan);
  bed.hold_C = plan.setpoints.hold_C;
  bed.hoursPerLift = m.hoursPerNight;
  plan.house.bedCovers.push_back(bed);
  for (CropStand& stand : plan.crops) {
    if (stand.in != CropStand::In::house) continue;
    stand.in = CropStand::In::bed;
    stand.bedCover = static_cast<int>(plan.house.bedCovers.size());
  }
  bearMore(plan, m, level);
}

/// Each with the hours of building it.
void buildHotBeds(Plan& plan, const Measure&, double level) {
  for (int n = 0; n < static_cast<int>(level); ++n) plan.compost.push_back(usualPile(plan, PilePlace::hotBed));
}

/// As it is bought: its fuel at the price in the list.
Heater heaterOf(const Plan& plan, const Measure& m, double level_W) {
  Heater heater{.name = m.name, .kind = m.heater, .power_W = level_W, .life_years = m.life_years};
  if (const FuelPrice* price = listedPrice(plan.prices, carrierOf(heater))) {
    heater.fuelPrice_kWh = price->price_kWh;
    heater.boughtBy = price->boughtBy;
  }
  return heater;
}

// Bounds: see docs/sizing.md.

/// Of second skins, barrels, straw, rooms and ceilings none is known that never costs heat.
bool cannotRelax(Plan&, const Measure&) { return false; }

bool relaxBlanket(Plan& plan, const Measure& m) {
  if (plan.house.blanket) return false; // one for another may keep less in
  hangBlanket(plan, m, 0.0);
  return true;
}

bool relaxSealing(Plan& plan, const Measure& m) {
  seal(plan, m, *std::min_element(m.levels.begin(), m.levels.end()));
  return true;
}

bool relaxSkirt(Plan& plan, const Measure& m) {
  if (plan.house.floor.edgeDepth_m > 0.0) return false;
  dig(plan, m, *std::max_element(m.levels.begin(), m.levels.end()));
  return true;
}

bool relaxHardier(Plan& plan, const Measure& m) {
  bearMore(plan, m, *std::max_element(m.levels.begin(), m.levels.end()));
  return true;
}

/// Nothing where the house is too small for it, or what stands there is in its way.
Measures ifItFits(const Plan& plan, Measure m) {
  Plan with = plan;
  with.measures.clear();
  rowOf(m.kind).apply(with, m, m.levels.front());
  return check(with).empty() ? Measures{std::move(m)} : Measures{};
}

/// A night kept less warm, where a heated house is kept a kelvin or more above its line.
Measures asFarAsTheLine(const Plan& plan, const Measure& usual) {
  const double margin_K = std::floor(plan.setpoints.leastNight_C() - plan.setpoints.hold_C);
  if (margin_K < 1.0 || heaterPower_W(plan, {HeaterPlace::Of::house}) <= 0.0) return {};
  return {sized(usual, margin_K)};
}

const std::array<MeasureRow, kMeasureKindCount> kTable{{
    {Kind::secondSkin,
     "second_skin",
     LevelOf::none,
     PricedBy::cover_m2,
     false,
     true,
     {.kind = Kind::secondSkin, .levels = {}, .material = "pe-film", .price = 1.5, .life_years = 4.0, .hoursPerWinter = 3.0},
     &nameAlone,
     &addSkin,
     nullptr,
     &cannotRelax,
     [](const Plan& plan, const Measure& usual) -> Measures {
       const House& house = plan.house;
       if (std::max({house.roof.layers.size(), house.sides.layers.size(), house.ends.layers.size()}) >= kMostLayers) return {};
       return {made(usual, "pe-film-ir", 0.10, 2.0), made(usual, "bubble-wrap", 0.02, 2.5)};
     }},
    {Kind::nightBlanket,
     "night_blanket",
     LevelOf::none,
     PricedBy::cover_m2,
     true,
     true,
     {.kind = Kind::nightBlanket, .levels = {}, .material = "woven-blanket", .price = 6.0, .life_years = 8.0, .hoursPerNight = 0.25},
     &nameAlone,
     &hangBlanket,
     nullptr,
     &relaxBlanket,
     [](const Plan& plan, const Measure& usual) -> Measures {
       if (plan.house.blanket) return {};
       return {made(usual, "woven-blanket", 0.05, usual.price), made(usual, "aluminised-screen", 0.05, 9.0)};
     }},
    {Kind::sealing,
     "sealing",
     LevelOf::airChanges_per_h,
     PricedBy::whole,
     false,
     true,
     {.kind = Kind::sealing, .levels = {0.4}, .material = {}, .price = 80.0, .life_years = 3.0, .hoursPerWinter = 5.0},
     [](const Message& name, double level) {
       return Message{"measure.down-to", name, level};
     },
     &seal,
     nullptr,
     &relaxSealing,
     [](const Plan& plan, const Measure& usual) -> Measures {
       if (plan.house.airChanges_per_h <= 0.2) return {};
       return {sized(usual, std::round(50.0 * plan.house.airChanges_per_h) / 100.0)};
     }},
    {Kind::ceiling,
     "ceiling",
     LevelOf::none,
     PricedBy::floor_m2,
     false,
     true,
     {.kind = Kind::ceiling, .levels = {}, .material = "clear-screen", .price = 2.5, .life_years = 5.0, .hoursPerWinter = 4.0},
     &nameAlone,
     [](Plan& plan, const Measure& m, double) {
       plan.house.roofVoid = RoofVoid{};
       plan.house.roofVoid->ceiling.layers = {{m.material, 0.05}};
     },
     nullptr,
     &cannotRelax,
     [](const Plan& plan, const Measure& usual) -> Measures {
       const House& house = plan.house;
       const bool hasRoom = house.shape.kind != ShapeKind::dome && house.shape.eave_m + house.shape.sunk_m >= kEaveToWorkUnder_m;
       if (house.roofVoid || house.retractable || !hasRoom) return {};
       return {made(usual, "clear-screen", 0.05, usual.price)};
     }},
    {Kind::lobby,
     "lobby",
     LevelOf::length_m,
     PricedBy::whole,
     false,
     true,
     {.kind = Kind::lobby, .levels = {kLobby_m}, .material = {}, .price = 150.0, .life_years = 8.0},
     [](const Message& name, double level) {
       return Message{"measure.of-length", name, Amount{level, Unit::metre}};
     },
     [](Plan& plan, const Measure&, double level) {
       plan.house.lobby = Lobby{};
       plan.house.lobby->length_m = level;
       plan.house.door.lobby = false;
     },
     nullptr,
     &cannotRelax,
     [](const Plan& plan, const Measure& usual) -> Measures {
       const House& house = plan.house;
       const bool hasRoom = house.shape.kind != ShapeKind::dome && kLobby_m + (house.bay ? house.bay->length_m : 0.0) < 0.5 * house.shape.length_m;
       if (house.lobby || !hasRoom) return {};
       return {sized(usual, kLobby_m)};
     }},
    {Kind::barrels,
     "barrels",
     LevelOf::count,
     PricedBy::each,
     false,
     true,
     {.kind = Kind::barrels, .levels = {10, 20}, .material = {}, .price = 15.0, .life_years = 15.0},
     [](const Message& name, double level) {
       return Message{"measure.so-many", level, name};
     },
     &addBarrels,
     nullptr,
     &cannotRelax,
     [](const Plan& plan, const Measure& usual) -> Measures { // one to each ten square metres
       return {sized(usual, std::max(2.0, std::round(plan.house.shape.floor_m2() / 10.0)))};
     }},
    {Kind::skirt,
     "skirt",
     LevelOf::depth_m,
     PricedBy::perimeter_m,
     false,
     true,
     {.kind = Kind::skirt, .levels = {0.6}, .material = {}, .price = 9.0, .life_years = 25.0},
     [](const Message& name, double level) {
       return Message{"measure.of-depth", name, Amount{level, Unit::metre}};
     },
     &dig,
     nullptr,
     &relaxSkirt,
     [](const Plan& plan, const Measure& usual) -> Measures {
       if (plan.house.floor.edgeDepth_m > 0.0) return {};
       return {sized(usual, 0.6)};
     }},
    {Kind::heater,
     "heater",
     LevelOf::power_W,
     PricedBy::kilowatt,
     false,
     true,
     {.kind = Kind::heater, .levels = {3000, 6000}, .material = {}, .price = 55.0, .life_years = 10.0},
     [](const Message& name, double level) {
       return Message{"measure.of-power", name, Amount{level, Unit::watt}};
     },
     [](Plan& plan, const Measure& m, double level) { replaceHeaters(plan, heaterOf(plan, m, level)); },
     [](Plan& plan, const Measure& m, double level) {
       Heater heater = heaterOf(plan, m, level);
       heater.stage_K = kNextStage_K * countOfRoomHeaters(plan);
       addHeater(plan, heater);
     },
     &cannotRelax,
     [](const Plan& plan, const Measure& usual) -> Measures {
       const double power_W = heaterPower_W(plan, {HeaterPlace::Of::house});
       return {sized(usual, power_W > 0.0 ? std::round(power_W * 1.5 / kStep_W) * kStep_W
                                          : std::max(1000.0, std::round(plan.house.shape.floor_m2() * 60.0 / kStep_W) * kStep_W))};
     }},
    {Kind::hardier,
     "hardier",
     LevelOf::colder_K,
     PricedBy::nothing,
     false,
     false,
     {.kind = Kind::hardier, .levels = {2}, .material = {}},
     &lowerBy,
     &bearMore,
     nullptr,
     &relaxHardier,
     [](const Plan&, const Measure& usual) -> Measures { return {sized(usual, 2.0)}; }},
    {Kind::mulch,
     "mulch",
     LevelOf::depth_m,
     PricedBy::floor_m2,
     false,
     false,
     {.kind = Kind::mulch, .levels = {0.1}, .material = {}, .price = 0.6, .life_years = 1.0, .hoursPerWinter = 2.0},
     [](const Message& name, double level) {
       return Message{"measure.of-depth", name, Amount{level, Unit::metre}};
     },
     [](Plan& plan, const Measure&, double level) {
       plan.house.floor.cover = kStraw;
       plan.house.floor.cover_m = level;
     },
     nullptr,
     &cannotRelax,
     [](const Plan& plan, const Measure& usual) -> Measures {
       if (!plan.house.floor.cover.empty()) return {};
       return {sized(usual, 0.1)};
     }},
    {Kind::pipeBed,
     "pipe_bed",
     LevelOf::count,
     PricedBy::each,
     false,
     false,
     {.kind = Kind::pipeBed, .levels = {6}, .material = {}, .price = 70.0, .life_years = 20.0},
     &atLevel,
     &digPipes,
     nullptr,
     &cannotRelax,
     [](const Plan& plan, const Measure& usual) -> Measures {
       if (!plan.groundPipes.empty()) return {};
       return ifItFits(plan, sized(usual, usualPipes(plan, PipePlace::underFloor).count));
     }},
    {Kind::hotBed,
     "hot_bed",
     LevelOf::count,
     PricedBy::each,
     false,
     false,
     {.kind = Kind::hotBed, .levels = {1}, .material = {}, .price = 40.0, .life_years = 1.0},
     &atLevel,
     &buildHotBeds,
     nullptr,
     &cannotRelax,
     [](const Plan& plan, const Measure& usual) -> Measures {
       if (!plan.compost.empty()) return {};
       return ifItFits(plan, sized(usual, 1.0));
     }},
    {Kind::massWall,
     "mass_wall",
     LevelOf::area_m2,
     PricedBy::level_m2,
     false,
     false,
     {.kind = Kind::massWall, .levels = {6}, .material = {}, .price = 90.0, .life_years = 40.0},
     &ofArea,
     [](Plan& plan, const Measure&, double level) { addMass(plan, MassKind::wall, level); },
     nullptr,
     &cannotRelax,
     [](const Plan& plan, const Measure& usual) -> Measures {
       if (!plan.mass.empty()) return {};
       return ifItFits(plan, sized(usual, usualMass(plan, MassKind::wall).area_m2));
     }},
    {Kind::massPath,
     "mass_path",
     LevelOf::area_m2,
     PricedBy::level_m2,
     false,
     false,
     {.kind = Kind::massPath, .levels = {4}, .material = {}, .price = 35.0, .life_years = 40.0},
     &ofArea,
     [](Plan& plan, const Measure&, double level) { addMass(plan, MassKind::path, level); },
     nullptr,
     &cannotRelax,
     [](const Plan& plan, const Measure& usual) -> Measures {
       if (!plan.mass.empty()) return {};
       return ifItFits(plan, sized(usual, usualMass(plan, MassKind::path).area_m2));
     }},
    {Kind::collector,
     "collector",
     LevelOf::area_m2,
     PricedBy::level_m2,
     false,
     false,
     {.kind = Kind::collector, .levels = {4}, .material = {}, .price = 240.0, .life_years = 18.0, .hoursPerWinter = 2.0},
     &ofArea,
     [](Plan& plan, const Measure&, double level) {
       plan.waterLoops.push_back(usualLoop(plan)); // the tank, its pump and radiator come with it
       plan.waterLoops.back().collector_m2 = level;
     },
     nullptr,
     &cannotRelax,
     [](const Plan& plan, const Measure& usual) -> Measures {
       if (!plan.waterLoops.empty()) return {};
       return ifItFits(plan, sized(usual, std::clamp(std::round(0.1 * plan.house.shape.floor_m2()), 2.0, 12.0)));
     }},
    {Kind::nightSetpoint,
     "night_setpoint",
     LevelOf::colder_K,
     PricedBy::nothing,
     false,
     false,
     {.kind = Kind::nightSetpoint, .levels = {1, 2}, .material = {}},
     &lowerBy,
     [](Plan& plan, const Measure&, double level) { plan.setpoints.shiftNight(-level); },
     nullptr,
     &cannotRelax, // less heat, but colder nights
     &asFarAsTheLine},
    {Kind::nightBand,
     "night_band",
     LevelOf::colder_K,
     PricedBy::nothing,
     false,
     false,
     {.kind = Kind::nightBand, .levels = {1, 2}, .material = {}},
     &lowerBy,
     &bendNight,
     nullptr,
     &cannotRelax, // as a lower setpoint on every night
     [](const Plan& plan, const Measure& usual) -> Measures { return plan.setpoints.nightBands.empty() ? asFarAsTheLine(plan, usual) : Measures{}; }},
    {Kind::coveredBeds,
     "covered_beds",
     LevelOf::colder_K,
     PricedBy::whole,
     true,
     false,
     {.kind = Kind::coveredBeds, .levels = {2, 4}, .material = {}, .price = 30.0, .life_years = 3.0, .hoursPerNight = 0.1},
     [](const Message& name, double level) {
       return Message{"measure.house-colder-by", name, Amount{level, Unit::kelvin}};
     },
     &coverBeds,
     nullptr,
     &cannotRelax, // what keeps beds warm keeps the soil's warmth from the house
     [](const Plan& plan, const Measure& usual) -> Measures {
       constexpr double kPrice_m2 = 3.0; // of fleece and hoops
       if (!plan.house.bedCovers.empty()) return {};
       Measure m = sized(usual, 2.0);
       m.price = std::round(kPrice_m2 * usualBedCover(plan).cover_m2());
       return ifItFits(plan, std::move(m));
     }},
    {Kind::mound,
     "mound",
     LevelOf::count,
     PricedBy::each,
     false,
     false,
     {.kind = Kind::mound, .levels = {1}, .material = {}, .price = 350.0, .life_years = 2.0},
     &atLevel,
     [](Plan& plan, const Measure&, double level) {
       for (int n = 0; n < static_cast<int>(level); ++n) plan.compost.push_back(usualPile(plan, PilePlace::mound));
     },
     nullptr,
     &cannotRelax,
     [](const Plan& plan, const Measure& usual) -> Measures {
       if (!plan.compost.empty()) return {};
       return ifItFits(plan, sized(usual, 1.0));
     }},
    {Kind::own,
     "own",
     LevelOf::any,
     PricedBy::whole,
     false,
     false,
     {.kind = Kind::own, .levels = {}, .material = {}, .price = 0.0, .life_years = 10.0},
     [](const Message& name, double level) {
       return level == 0.0 ? name : Message{"measure.at-level", name, level};
     },
     [](Plan& plan, const Measure& m, double level) {
       if (auto changed = withSettings(plan, m, level)) plan = std::move(*changed); // one that cannot be set is found by check()
     },
     nullptr,
     &cannotRelax,
     [](const Plan&, const Measure&) -> Measures { return {}; }},
}};

} // namespace

const std::array<MeasureRow, kMeasureKindCount>& measureTable() { return kTable; }

const MeasureRow& rowOf(MeasureKind kind) {
  return *std::find_if(kTable.begin(), kTable.end(), [kind](const MeasureRow& row) { return row.kind == kind; });
}

bool covers(CoveredFaces faces, FaceGroup group) {
  using F = CoveredFaces;
  switch (group) {
  case FaceGroup::roof: return faces == F::all || faces == F::roof || faces == F::roofAndSides || faces == F::roofAndEnds;
  case FaceGroup::sides: return faces == F::all || faces == F::sides || faces == F::roofAndSides || faces == F::sidesAndEnds;
  case FaceGroup::ends: return faces == F::all || faces == F::ends || faces == F::roofAndEnds || faces == F::sidesAndEnds;
  case FaceGroup::backWall: break;
  }
  return false;
}

bool hasMaterial(MeasureKind kind) { return rowOf(kind).levelOf == LevelOf::none; }

int levelCount(const Measure& m) {
  const bool isOneSize = hasMaterial(m.kind) || (m.kind == MeasureKind::own && m.levels.empty());
  return isOneSize ? 1 : static_cast<int>(m.levels.size());
}

double levelAt(const Measure& m, int place) { return m.levels.empty() ? 0.0 : m.levels[static_cast<std::size_t>(place)]; }

double measureCapital(const Plan& plan, const Measure& m, double level) {
  const HouseShape& shape = plan.house.shape;
  switch (rowOf(m.kind).pricedBy) {
  case PricedBy::nothing: return 0.0;
  case PricedBy::whole: return m.price;
  case PricedBy::each: return m.price * level;
  case PricedBy::kilowatt: return m.price * level / 1000.0;
  case PricedBy::cover_m2: return m.price * covered_m2(shape, m.faces);
  case PricedBy::floor_m2: return m.price * shape.floor_m2();
  case PricedBy::level_m2: return m.price * level;
  case PricedBy::perimeter_m: return m.price * shape.perimeter_m();
  }
  return 0.0;
}

} // namespace muffle
