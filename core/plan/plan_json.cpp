// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/plan_json.h"

#include "core/calendar.h"
#include "core/material/materials.h"

#include <fmt/format.h>

namespace muffle {
namespace {

using ShapeName = std::pair<ShapeKind, const char*>;
constexpr std::array<ShapeName, kShapeCount> kShapes{{{ShapeKind::gable, "gable"},
                                                      {ShapeKind::arch, "arch"},
                                                      {ShapeKind::leanTo, "lean_to"},
                                                      {ShapeKind::pointedArch, "pointed_arch"},
                                                      {ShapeKind::singleSlope, "single_slope"},
                                                      {ShapeKind::dome, "dome"}}};
using RuleName = std::pair<BlanketRule, const char*>;
constexpr std::array<RuleName, 5> kBlanketRules{
    {{BlanketRule::night, "night"}, {BlanketRule::cold, "cold"}, {BlanketRule::dark, "dark"}, {BlanketRule::clock, "clock"}, {BlanketRule::inside, "inside"}}};
using FanRuleName = std::pair<FanRule, const char*>;
constexpr std::array<FanRuleName, 4> kFanRules{{{FanRule::always, "always"}, {FanRule::day, "day"}, {FanRule::night, "night"}, {FanRule::warm, "warm"}}};
using ShelterName = std::pair<Shelter, const char*>;
constexpr std::array<ShelterName, kShelterCount> kShelters{
    {{Shelter::open, "open"}, {Shelter::scattered, "scattered"}, {Shelter::hedged, "hedged"}, {Shelter::walled, "walled"}}};
using ColourName = std::pair<BarrelColour, const char*>;
constexpr std::array<ColourName, 4> kColours{
    {{BarrelColour::black, "black"}, {BarrelColour::blue, "blue"}, {BarrelColour::white, "white"}, {BarrelColour::bare, "bare"}}};
using MeasureName = std::pair<MeasureKind, const char*>;
constexpr std::array<MeasureName, kMeasureKindCount> kMeasures{{{MeasureKind::secondSkin, "second_skin"},
                                                                {MeasureKind::nightBlanket, "night_blanket"},
                                                                {MeasureKind::sealing, "sealing"},
                                                                {MeasureKind::barrels, "barrels"},
                                                                {MeasureKind::heater, "heater"},
                                                                {MeasureKind::skirt, "skirt"},
                                                                {MeasureKind::hardier, "hardier"}}};

} // namespace

template <class V> void describe(V& v, Site& s) {
  v.text("name", s.name, "name of the place");
  v.number("latitude_deg", s.place.latitude_deg, {-66.0, 66.0}, "latitude, north positive", true);
  v.number("longitude_deg", s.place.longitude_deg, {-180.0, 180.0}, "longitude, east positive", true);
  v.number("elevation_m", s.place.elevation_m, {-430.0, 5000.0}, "height above the sea");
  v.text("time_zone", s.timeZone, "time zone, such as Europe/Lisbon or +01:00");
  v.number("wind_m_s", s.wind_m_s, {0.0, 30.0}, "wind assumed where the log has none");
  v.number("ground_mean_C", s.groundMean_C, {-10.0, 30.0}, "year's mean of the undisturbed ground");
  v.number("ground_amplitude_K", s.groundAmplitude_K, {0.0, 25.0}, "year's swing of the ground's surface to either side");
  v.number("ground_coldest_day", s.coldestDay, {1.0, 366.0}, "day of year when the ground's surface is coldest");
}

template <class V> void describe(V& v, Layer& l) {
  v.text("material", l.material, "material of the layer", true);
  v.number("gap_m", l.gap_m, {0.003, 2.0}, "air gap to the next layer inwards");
}

template <class V> void describe(V& v, Skin& s) { v.list("layers", s.layers, "layers from outside in", 6); }

template <class V> void describe(V& v, NightBlanket& b) {
  v.text("material", b.material, "material of the blanket", true);
  v.number("leak", b.leak, {0.0, 1.0}, "share of the air behind it that mixes with the house when closed");
  v.choice("rule", b.rule, kBlanketRules,
           "when it is drawn: from sunset to sunrise, on cold nights only, whenever there is little sun, by the clock, or on nights when it is cold inside");
  v.number("outside_below_C", b.outsideBelow_C, {-40.0, 30.0}, "rule cold: outside temperature below which it is drawn");
  v.number("sun_below_W_m2", b.sunBelow_W_m2, {0.0, 1000.0}, "rule dark: level sun below which it is drawn");
  v.number("closes_at_h", b.closesAt_h, {0.0, 24.0}, "rule clock: hour of the day at which it is closed, in the place's own time");
  v.number("opens_at_h", b.opensAt_h, {0.0, 24.0}, "rule clock: hour of the day at which it is opened");
  v.number("inside_below_C", b.insideBelow_C, {-30.0, 40.0}, "rule inside: temperature of the house below which it is drawn at night");
  v.number("hours_per_draw", b.hoursPerDraw, {0.0, 12.0}, "hours of work each time it is closed and opened again");
}

template <class V> void describe(V& v, Crop& c) {
  v.number("leaf_area", c.leafArea, {0.0, 8.0}, "square metres of leaf for each of floor");
  v.number("wet_floor", c.wetFloor, {0.0, 1.0}, "share of the floor that is moist");
}

template <class V> void describe(V& v, Door& d) {
  v.number("opened", d.opened, {0.0, 1000.0}, "times a day that it is opened");
  v.number("seconds", d.seconds, {1.0, 3600.0}, "seconds that it stands open each time");
  v.number("width_m", d.width_m, {0.3, 6.0}, "width");
  v.number("height_m", d.height_m, {0.3, 5.0}, "height");
  v.boolean("lobby", d.lobby, "a lobby whose two doors are never open together");
}

template <class V> void describe(V& v, VentLock& l) {
  v.number("outside_below_C", l.outsideBelow_C, {-40.0, 40.0}, "shut while it is colder than this outside");
  v.number("wind_above_m_s", l.windAbove_m_s, {0.0, 60.0}, "shut while the wind is stronger");
  v.boolean("in_rain", l.inRain, "shut while it rains, where the log has rain");
}

template <class V> void describe(V& v, RollUpSides& r) {
  v.number("height_m", r.height_m, {0.05, 6.0}, "height of the strip left open on either side");
  v.number("opens_C", r.opens_C, {-5.0, 60.0}, "temperature inside at which they begin to open");
  v.number("full_C", r.full_C, {-4.0, 70.0}, "temperature at which they are fully open");
}

template <class V> void describe(V& v, ExtractFan& f) {
  v.number("flow_m3_h", f.flow_m3_h, {0.0, 1e6}, "air it blows out");
  v.number("above_C", f.above_C, {-5.0, 60.0}, "temperature inside at which it starts");
  v.number("power_W", f.power_W, {0.0, 50000.0}, "electricity it takes");
}

template <class V> void describe(V& v, RetractableRoof& r) {
  v.number("outside_above_C", r.outsideAbove_C, {-20.0, 40.0}, "it opens by day while it is warmer than this outside");
  v.number("air_changes_per_h", r.airChanges_per_h, {1.0, 120.0}, "air changes an hour while it is open");
}

template <class V> void describe(V& v, Leakage& l) {
  v.number("area_cm2", l.area_cm2, {1.0, 200000.0}, "effective area of all leaks at 4 Pa, as a pressure test finds it", true);
  v.choice("shelter", l.shelter, kShelters, "how the house lies to the wind");
}

template <class V> void describe(V& v, LightLoss& l) {
  v.number("dirt", l.dirt, {0.0, 0.95}, "share of the light lost to dirt and age of the cover");
  v.number("frame", l.frame, {0.0, 0.95}, "share lost to frame, gutters and shade from outside");
}

template <class V> void describe(V& v, BedCover& b) {
  v.text("name", b.name, "name");
  v.integer("count", b.count, {1, 200}, "how many alike");
  v.number("width_m", b.width_m, {0.2, 20.0}, "width", true);
  v.number("length_m", b.length_m, {0.2, 300.0}, "length", true);
  v.number("height_m", b.height_m, {0.1, 3.0}, "height of the hoops' top");
  v.text("material", b.material, "material of the cover");
  v.number("air_changes_per_h", b.airChanges_per_h, {0.0, 60.0}, "air changes an hour with the house, tucked in");
  v.boolean("lifted_by_day", b.liftedByDay, "ends opened from sunrise to sunset");
  v.boolean("in_bay", b.inBay, "in the warm bay instead of the house");
  v.number("x_m", b.x_m, {-800.0, 800.0}, "place across the house");
}

template <class V> void describe(V& v, Setpoints& s) {
  v.number("hold_C", s.hold_C, {-30.0, 40.0}, "line that must not be crossed");
  v.number("night_C", s.night_C, {-30.0, 40.0}, "night setpoint of the heater");
  v.number("day_C", s.day_C, {-30.0, 40.0}, "day setpoint of the heater");
  v.number("too_warm_C", s.tooWarm_C, {5.0, 60.0}, "line above which the crop suffers; hours above it are counted");
}

template <class V> void describe(V& v, Floor& f) {
  v.text("soil", f.soil, "soil under the house");
  v.number("edge_insulation_m2K_W", f.edgeInsulation_m2K_W, {0.0, 10.0}, "resistance of a skirt round the foot");
  v.number("edge_depth_m", f.edgeDepth_m, {0.0, 3.0}, "depth of the skirt");
  v.number("moisture_kg_kg", f.moisture_kg_kg, {0.0, 3.0}, "water for each kilogram of dry soil; without it the usual of the soil");
  v.text("cover", f.cover, "what lies on the soil; none if empty");
  v.number("cover_m", f.cover_m, {0.01, 0.5}, "thickness of what lies on the soil");
}

template <class V> void describe(V& v, RoomFan& f) {
  v.number("flow_m3_h", f.flow_m3_h, {0.0, 200000.0}, "air it moves each way");
  v.choice("rule", f.rule, kFanRules, "when it runs: always, by day, by night, or while the room it draws from is warm");
  v.number("warm_above_C", f.warmAbove_C, {-20.0, 60.0}, "rule warm: temperature at which it begins");
  v.number("power_W", f.power_W, {0.0, 20000.0}, "electricity it takes");
}

template <class V> void describe(V& v, Lobby& l) {
  v.text("name", l.name, "name");
  v.number("length_m", l.length_m, {0.3, 299.0}, "length along the ridge, at the end that the bay is not at", true);
  v.object("partition", l.partition, "skin of the partition, layers from the house's side");
  v.number("air_changes_per_h", l.airChanges_per_h, {0.0, 60.0}, "air changes an hour with the house, its door apart");
}

template <class V> void describe(V& v, RoofVoid& r) {
  v.text("name", r.name, "name");
  v.object("ceiling", r.ceiling, "skin of the ceiling at the eaves, layers from the house's side upwards");
  v.number("air_changes_per_h", r.airChanges_per_h, {0.0, 60.0}, "air changes an hour of the void with the house");
  v.object("fan", r.fan, "fan between void and house; draws from the void");
}

template <class V> void describe(V& v, WarmBay& b) {
  v.text("name", b.name, "name");
  v.number("length_m", b.length_m, {0.3, 299.0}, "length along the ridge, from one end", true);
  v.object("partition", b.partition, "skin of the partition, layers from the house's side");
  v.number("air_changes_per_h", b.airChanges_per_h, {0.0, 60.0}, "air changes an hour with the rest of the house");
  v.object("setpoints", b.setpoints, "setpoints of the bay");
  v.number("heater_W", b.heater_W, {0.0, 1e6}, "power of its own electric heater");
  v.object("floor", b.floor, "floor of the bay, where it differs from the house's");
  v.object("fan", b.fan, "fan between house and bay; draws from the house");
}

template <class V> void describe(V& v, HouseShape& s) {
  v.choice("kind", s.kind, kShapes, "shape of the cross-section", true);
  v.number("width_m", s.width_m, {0.3, 60.0}, "width", true);
  v.number("length_m", s.length_m, {0.3, 300.0}, "length; a dome has none");
  v.number("eave_m", s.eave_m, {0.0, 12.0}, "height of the straight sides; lean-to and single slope: of the low wall");
  v.number("ridge_m", s.ridge_m, {0.1, 15.0}, "height of the highest point", true);
  v.number("axis_deg", s.axis_deg, {0.0, 180.0}, "compass direction of the ridge line; 90 runs east-west");
  v.integer("bays", s.bays, {1, 40}, "bays joined side by side with gutters");
  v.number("sunk_m", s.sunk_m, {0.0, 3.0}, "how far the floor lies below the ground");
}

template <class V> void describe(V& v, House& h) {
  v.object("shape", h.shape, "shape and size", true);
  v.object("roof", h.roof, "skin of the roof");
  v.object("sides", h.sides, "skin of the straight sides");
  v.object("ends", h.ends, "skin of the end walls");
  v.object("back_wall", h.backWall, "skin of a lean-to's or single slope's back wall");
  v.object("blanket", h.blanket, "night blanket");
  v.object("crop", h.crop, "what gives water to the air");
  v.object("light", h.light, "light lost before it comes in");
  v.list("bed_covers", h.bedCovers, "low tunnels over beds inside the house", 12);
  v.object("warm_bay", h.bay, "bay partitioned off at one end");
  v.object("lobby", h.lobby, "lobby at the end where the door is");
  v.object("roof_void", h.roofVoid, "air over a ceiling at the eaves");
  v.number("air_changes_per_h", h.airChanges_per_h, {0.0, 20.0}, "air changes an hour, shut, in still air");
  v.number("air_changes_per_wind", h.windAirChanges, {0.0, 5.0}, "air changes an hour added by each m/s of wind");
  v.object("door", h.door, "the door that is used by day");
  v.object("floor", h.floor, "floor");
  v.number("back_wall_C", h.backWall_C, {-30.0, 40.0}, "temperature of the building behind the back wall");
  v.number("vent_opens_C", h.ventOpens_C, {-5.0, 60.0}, "temperature at which the vents start to open");
  v.number("vent_full_C", h.ventFull_C, {-4.0, 70.0}, "temperature at which they are fully open");
  v.number("vent_air_changes_per_h", h.ventAirChanges_per_h, {0.0, 120.0}, "air changes an hour with the vents fully open");
  v.object("vent_lock", h.ventLock, "what keeps vents, rolled sides and roof shut");
  v.object("roll_up_sides", h.rollUp, "sides rolled up by warmth");
  v.object("extract_fan", h.extractFan, "fan that blows warm air out");
  v.object("retractable_roof", h.retractable, "roof that draws back by day");
  v.object("leakage", h.leakage, "draughts by leakage area instead of air changes");
}

template <class V> void describe(V& v, Barrels& b) {
  v.text("name", b.name, "name");
  v.integer("count", b.count, {1, 2000}, "number of barrels", true);
  v.number("litres", b.litres, {1.0, 20000.0}, "water in one", true);
  v.choice("colour", b.colour, kColours, "colour");
  v.number("film_W_m2K", b.film_W_m2K, {1.0, 40.0}, "film coefficient between barrel and air");
  v.number("sun_share", b.sunShare, {0.0, 1.0}, "share of its silhouette that the sun reaches");
  v.number("x_m", b.x_m, {-30.0, 30.0}, "place across the house");
}

template <class V> void describe(V& v, Heater& h) {
  v.text("name", h.name, "name");
  v.number("power_W", h.power_W, {0.0, 1e6}, "power", true);
  v.number("price", h.price, {0.0, 1e7}, "price, 0 if already owned");
  v.number("life_years", h.life_years, {0.5, 60.0}, "years it lasts");
}

template <class V> void describe(V& v, Kit& k) {
  v.text("name", k.name, "name", true);
  v.number("price", k.capital, {0.0, 1e7}, "what it cost");
  v.number("life_years", k.life_years, {0.5, 60.0}, "years it lasts");
  v.number("hours_per_winter", k.hoursPerWinter, {0.0, 5000.0}, "hours of work each winter");
}

template <class V> void describe(V& v, Measure& m) {
  v.choice("kind", m.kind, kMeasures, "kind of measure", true);
  v.text("name", m.name, "name");
  v.numbers("levels", m.levels, {0.0, 1e6}, "size to try: barrels, watts, air changes an hour, metres of skirt, or kelvin hardier");
  v.text("material", m.material, "material of a skin or blanket");
  v.number("gap_m", m.gap_m, {0.003, 2.0}, "air gap of a second skin");
  v.number("price", m.price, {0.0, 1e7}, "price per m2, per barrel, per kW, per metre of skirt, or of the sealing");
  v.number("life_years", m.life_years, {0.5, 60.0}, "years it lasts");
  v.number("hours_per_winter", m.hoursPerWinter, {0.0, 5000.0}, "hours of work each winter");
  v.number("hours_per_night", m.hoursPerNight, {0.0, 12.0}, "hours of work each night");
}

template <class V> void describe(V& v, OwnMaterial& m) {
  v.text("id", m.id, "name by which layers call it, of small letters, digits and hyphens", true);
  v.text("name", m.name, "name shown");
  v.number("emissivity", m.emissivity, {0.0, 1.0}, "of either face, long-wave");
  v.number("longwave_transmittance", m.longwaveTransmittance, {0.0, 1.0}, "share of radiant heat let through");
  v.number("solar_transmittance", m.solarTransmittance, {0.0, 1.0}, "share of diffuse sunlight let through");
  v.number("solar_reflectance", m.solarReflectance, {0.0, 1.0}, "share of sunlight sent back");
  v.number("resistance_m2K_W", m.resistance_m2K_W, {0.0, 50.0}, "resistance of its body, face to face");
  v.number("capacity_J_m2K", m.capacity_J_m2K, {1.0, 1e7}, "heat stored in a square metre");
  v.text("note", m.note, "where its figures are from");
}

template <class V> void describe(V& v, MaterialPrice& m) {
  v.text("material", m.material, "material of a skin's layer", true);
  v.number("price_per_m2", m.price_per_m2, {0.0, 10000.0}, "price of a square metre of it");
}

template <class V> void describe(V& v, Prices& p) {
  v.text("currency", p.currency, "money symbol or code");
  v.number("electricity_per_kWh", p.electricity_per_kWh, {0.0, 100.0}, "price of a kWh");
  v.number("interest", p.interest, {0.0, 0.5}, "interest rate a year");
  v.number("hour", p.hour, {0.0, 10000.0}, "what an hour of your own work is worth");
  v.list("materials", p.materials, "prices of skins' materials", 64);
}

template <class V> void describe(V& v, Ask& a) { v.integer("misses_allowed", a.missesAllowed, {0, 366}, "nights below the line that are accepted"); }

template <class V> void describe(V& v, Plan& p) {
  v.fixedText("schema", "muffle-plan-1");
  v.text("name", p.name, "name of the plan");
  v.object("site", p.site, "site", true);
  v.object("house", p.house, "house", true);
  v.object("setpoints", p.setpoints, "setpoints");
  v.list("barrels", p.barrels, "water barrels", 50);
  v.object("heater", p.heater, "electric heater");
  v.list("kit", p.kit, "what has been bought for the plan", 200);
  v.list("measures", p.measures, "measures that may be added", 12);
  v.list("materials", p.materials, "materials of your own, beside the table's", 40);
  v.object("prices", p.prices, "prices");
  v.object("ask", p.ask, "what is asked");
}

namespace {

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
    else if (bay.length_m > 0.9 * length)
      bad("/house/warm_bay/length_m", fmt::format("the bay is {} m long", bay.length_m),
          fmt::format("at most nine tenths of the house, {:.3g} m", 0.9 * length));
    checkSkin(bay.partition, materials, "/house/warm_bay/partition", problems);
    if (std::max(bay.setpoints.night_C, bay.setpoints.day_C) > house.ventOpens_C)
      bad("/house/warm_bay/setpoints", "a setpoint lies above the vents' opening temperature",
          fmt::format("heater and vents would fight; keep it at or below {}", house.ventOpens_C));
  }
  if (house.lobby) {
    const double bay = house.bay ? house.bay->length_m : 0.0;
    if (isDome)
      bad("/house/lobby", "a lobby partitioned off in a dome", "only long houses are partitioned; use a second door");
    else if (house.lobby->length_m + bay > 0.9 * length)
      bad("/house/lobby/length_m", fmt::format("the lobby is {} m long", house.lobby->length_m),
          fmt::format("lobby and bay together take at most nine tenths of the house: {:.3g} m are left", std::max(0.9 * length - bay, 0.0)));
    checkSkin(house.lobby->partition, materials, "/house/lobby/partition", problems);
    if (house.door.lobby) bad("/house/door/lobby", "a second door and a lobby with air of its own", "one of the two is meant; set this to false");
  }
  if (house.roofVoid) {
    constexpr double kLeastEave_m = 0.8;
    if (isDome)
      bad("/house/roof_void", "a ceiling in a dome", "ceilings hang in long houses");
    else if (house.shape.eave_m + house.shape.sunk_m < kLeastEave_m)
      bad("/house/roof_void", fmt::format("a ceiling at the eaves, {:.3g} m above the floor", house.shape.eave_m + house.shape.sunk_m),
          fmt::format("the eaves must be at least {} m above the floor", kLeastEave_m));
    checkSkin(house.roofVoid->ceiling, materials, "/house/roof_void/ceiling", problems);
    for (std::size_t l = 0; l < house.roofVoid->ceiling.layers.size(); ++l) {
      const CoverMaterial* m = materials.find(house.roofVoid->ceiling.layers[l].material);
      if (m && m->capacity_J_m2K > 30000.0)
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
  const double warmest = std::max(plan.setpoints.night_C, plan.setpoints.day_C);
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
    else if (r->height_m > 0.9 * side)
      bad("/house/roll_up_sides/height_m", fmt::format("a strip of {:g} m", r->height_m),
          fmt::format("at most nine tenths of the {} can be opened, {:.3g} m", side == house.shape.eave_m ? "sides" : "arch's height", 0.9 * side));
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
    if (covered[inBay ? 1 : 0] > 0.9 * ground)
      bad("/house/bed_covers", fmt::format("covers over {:.3g} m2 of beds {}", covered[inBay ? 1 : 0], inBay ? "in the bay" : "in the house"),
          fmt::format("at most nine tenths of the floor there can be beds: {:.3g} m2", 0.9 * ground));
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
  if (plan.setpoints.night_C > plan.house.ventOpens_C || plan.setpoints.day_C > plan.house.ventOpens_C)
    bad("/setpoints", "a setpoint lies above the vents' opening temperature",
        fmt::format("heater and vents would fight; keep it at or below {}", plan.house.ventOpens_C));
  if (const auto zone = TimeZone::named(plan.site.timeZone); !zone) bad("/site/time_zone", zone.problem().what, zone.problem().allowed);
  double barrelFloor = 0.0;
  for (const Barrels& b : plan.barrels) barrelFloor += b.count * b.litres / 1000.0;
  if (barrelFloor > 0.5 * plan.house.shape.volume_m3())
    bad("/barrels", fmt::format("{:.3g} m3 of water", barrelFloor),
        fmt::format("it must leave room: at most half of the house, {:.3g} m3", 0.5 * plan.house.shape.volume_m3()));
  for (std::size_t i = 0; i < plan.measures.size(); ++i) {
    const Measure& m = plan.measures[i];
    const auto where = fmt::format("/measures/{}", i);
    const bool needsMaterial = m.kind == MeasureKind::secondSkin || m.kind == MeasureKind::nightBlanket;
    if (needsMaterial && !materials.find(m.material))
      bad(where + "/material", fmt::format("\"{}\" is not a known material", m.material), "see `muffle-cli materials`");
    const bool needsLevels = m.kind == MeasureKind::barrels || m.kind == MeasureKind::heater || m.kind == MeasureKind::sealing ||
                             m.kind == MeasureKind::skirt || m.kind == MeasureKind::hardier;
    if (needsLevels && m.levels.empty()) bad(where + "/levels", "no sizes to try", "give at least one");
    if (m.levels.size() > 12) bad(where + "/levels", fmt::format("{} sizes", m.levels.size()), "at most 12 are allowed");
  }
  return problems;
}

Result<Plan> planFromJson(const Json& document) {
  if (!document.is_object())
    return Problem{ProblemKind::badInput, "/", describeValue(document) + " stands here", "an object with \"schema\": \"muffle-plan-1\" is needed"};
  Problems problems;
  Plan plan;
  FieldReader reader(document, "", problems);
  describe(reader, plan);
  reader.finish();
  if (!problems.empty()) return problems;
  if (Problems found = check(plan); !found.empty()) return found;
  return plan;
}

Json planToJson(const Plan& plan) {
  Json out;
  Plan copy = plan;
  FieldWriter writer(out);
  describe(writer, copy);
  return out;
}

Json planSchema() {
  Json schema{{"$schema", "http://json-schema.org/draft-07/schema#"}, {"title", "muffle-plan-1"}};
  Plan plan;
  FieldSchema walker(schema);
  describe(walker, plan);
  return schema;
}

} // namespace muffle
