// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/names.h"
#include "core/plan/plan_json.h"

#include "core/plan/heaters.h"
#include "core/plan/measure_table.h"
#include "core/plan/plan_upgrade.h"
#include "core/plan/stores_check.h"

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
constexpr std::array<RuleName, 6> kBlanketRules{{{BlanketRule::night, "night"},
                                                 {BlanketRule::cold, "cold"},
                                                 {BlanketRule::dark, "dark"},
                                                 {BlanketRule::clock, "clock"},
                                                 {BlanketRule::inside, "inside"},
                                                 {BlanketRule::bright, "bright"}}};
using FanRuleName = std::pair<FanRule, const char*>;
constexpr std::array<FanRuleName, 4> kFanRules{{{FanRule::always, "always"}, {FanRule::day, "day"}, {FanRule::night, "night"}, {FanRule::warm, "warm"}}};
using ShelterName = std::pair<Shelter, const char*>;
constexpr std::array<ShelterName, kShelterCount> kShelters{
    {{Shelter::open, "open"}, {Shelter::scattered, "scattered"}, {Shelter::hedged, "hedged"}, {Shelter::walled, "walled"}}};
using ColourName = std::pair<BarrelColour, const char*>;
constexpr std::array<ColourName, 4> kColours{
    {{BarrelColour::black, "black"}, {BarrelColour::blue, "blue"}, {BarrelColour::white, "white"}, {BarrelColour::bare, "bare"}}};
using FillingName = std::pair<BarrelFilling, const char*>;
constexpr std::array<FillingName, 3> kFillings{{{BarrelFilling::water, "water"}, {BarrelFilling::sand, "sand"}, {BarrelFilling::stone, "stone"}}};
using PipePlaceName = std::pair<PipePlace, const char*>;
constexpr std::array<PipePlaceName, 2> kPipePlaces{{{PipePlace::underFloor, "under_floor"}, {PipePlace::beside, "beside"}}};
using PipeOutletName = std::pair<PipeOutlet, const char*>;
constexpr std::array<PipeOutletName, 3> kPipeOutlets{{{PipeOutlet::house, "house"}, {PipeOutlet::bay, "bay"}, {PipeOutlet::bed, "bed"}}};
using MassKindName = std::pair<MassKind, const char*>;
constexpr std::array<MassKindName, 4> kMassKinds{
    {{MassKind::wall, "wall"}, {MassKind::path, "path"}, {MassKind::raisedBed, "raised_bed"}, {MassKind::bench, "bench"}}};
using HeldName = std::pair<HeldTemperature, const char*>;
constexpr std::array<HeldName, 2> kHeld{{{HeldTemperature::air, "air"}, {HeldTemperature::leaf, "leaf"}}};
using CableSensorName = std::pair<CableSensor, const char*>;
constexpr std::array<CableSensorName, 2> kCableSensors{{{CableSensor::soil, "soil"}, {CableSensor::air, "air"}}};
using CropInName = std::pair<CropStand::In, const char*>;
constexpr std::array<CropInName, 3> kCropIn{{{CropStand::In::house, "house"}, {CropStand::In::bay, "bay"}, {CropStand::In::bed, "bed"}}};
using MassMaterialName = std::pair<MassMaterial, const char*>;
constexpr std::array<MassMaterialName, kMassMaterialCount> kMassMaterials{{{MassMaterial::stone, "stone"},
                                                                           {MassMaterial::brick, "brick"},
                                                                           {MassMaterial::concrete, "concrete"},
                                                                           {MassMaterial::earth, "earth"},
                                                                           {MassMaterial::soil, "soil"}}};
using PilePlaceName = std::pair<PilePlace, const char*>;
using CoilIntoName = std::pair<CoilInto, const char*>;
constexpr std::array<CoilIntoName, 2> kCoilsInto{{{CoilInto::house, "house"}, {CoilInto::tank, "tank"}}};
constexpr std::array<PilePlaceName, 3> kPilePlaces{{{PilePlace::hotBed, "hot_bed"}, {PilePlace::chamber, "chamber"}, {PilePlace::mound, "mound"}}};
/// Kinds and their names in JSON, of a table of kinds.
template <class Row, std::size_t N> auto namesOf(const std::array<Row, N>& rows) {
  std::array<std::pair<decltype(Row::kind), const char*>, N> names;
  for (std::size_t i = 0; i < N; ++i) names[i] = {rows[i].kind, rows[i].id};
  return names;
}
constexpr std::size_t kMostHeaters = 16, kMostCrops = 20;

} // namespace

template <class V> void describe(V& v, Site& s) {
  v.text("name", s.name, "name of the place");
  v.boolean("place_assumed", s.placeAssumed, "nobody has said yet where the house stands; it is asked");
  v.number("latitude_deg", s.place.latitude_deg, {-66.0, 66.0}, "latitude, north positive", true);
  v.number("longitude_deg", s.place.longitude_deg, {-180.0, 180.0}, "longitude, east positive", true);
  v.number("elevation_m", s.place.elevation_m, {-430.0, 5000.0}, "height above the sea");
  v.text("time_zone", s.timeZone, "time zone, such as Europe/Lisbon or +01:00");
  v.number("wind_m_s", s.wind_m_s, {0.0, 30.0}, "wind assumed where the log has none");
  v.number("wind_height_m", s.windHeight_m, {0.0, 100.0}, "height of the wind gauge above the ground; 0: its wind is that at the house");
  v.numbers("annual_lows_C", s.annualLows_C, {-70.0, 30.0}, "the coldest of each winter known, for nights rarer than the log's");
  v.number("first_frost_day", s.firstFrost_day, {1.0, 366.0}, "day of year of the usual first frost of a winter");
  v.number("last_frost_day", s.lastFrost_day, {1.0, 366.0}, "day of year of its usual last");
  v.number("ground_mean_C", s.groundMean_C, {-10.0, 30.0}, "year's mean of the undisturbed ground");
  v.number("ground_amplitude_K", s.groundAmplitude_K, {0.0, 25.0}, "year's swing of the ground's surface to either side");
  v.number("ground_coldest_day", s.groundColdestDay, {1.0, 366.0},
           "day of year when the ground's surface is coldest; without it late January, south of the equator late July");
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
           "when it is drawn: from sunset to sunrise, on cold nights only, whenever there is little sun, by the clock, on nights when it is cold inside, or as "
           "a shade whenever the sun is strong");
  v.number("outside_below_C", b.outsideBelow_C, {-40.0, 30.0}, "rule cold: outside temperature below which it is drawn");
  v.number("sun_below_W_m2", b.sunBelow_W_m2, {0.0, 1000.0}, "rule dark: level sun below which it is drawn");
  v.number("closes_at_h", b.closesAt_h, {0.0, 24.0}, "rule clock: hour of the day at which it is closed, in the place's own time");
  v.number("opens_at_h", b.opensAt_h, {0.0, 24.0}, "rule clock: hour of the day at which it is opened");
  v.number("inside_below_C", b.insideBelow_C, {-30.0, 40.0}, "rule inside: temperature of the house below which it is drawn at night");
  v.number("sun_above_W_m2", b.sunAbove_W_m2, {1.0, 1500.0}, "rule bright: level sun above which it is drawn");
  v.number("hours_per_draw", b.hoursPerDraw, {0.0, 12.0}, "hours of work each time it is closed and opened again");
}

template <class V> void describe(V& v, Crop& c) {
  v.number("leaf_area", c.leafArea, {0.0, 8.0}, "square metres of leaf for each of floor");
  v.number("wet_floor", c.wetFloor, {0.0, 1.0}, "share of the floor that is moist");
  v.number("height_m", c.height_m, {0.05, 6.0}, "height of the leaves and of the benches they stand on");
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
  v.number("hours_per_lift", b.hoursPerLift, {0.0, 12.0}, "hours of work each day to lift one and tuck it in again");
  v.number("hold_C", b.hold_C, {-30.0, 40.0}, "line of its own that must not be crossed under it; without it the room's is what its nights are counted by");
  v.number("x_m", b.x_m, {-800.0, 800.0}, "place across the house");
}

template <class V> void describe(V& v, NightBand& b) {
  v.number("low_C", b.outside_C, {-60.0, 40.0}, "low that is forecast for the night", true);
  v.number("night_C", b.setpoint_C, {-30.0, 40.0}, "night setpoint then", true);
}

template <class V> void describe(V& v, DayBand& b) {
  v.number("high_C", b.outside_C, {-60.0, 40.0}, "high that is forecast for the day", true);
  v.number("day_C", b.setpoint_C, {-30.0, 40.0}, "day setpoint then", true);
}

template <class V> void describe(V& v, Setpoints& s) {
  v.number("hold_C", s.hold_C, {-30.0, 40.0}, "line that must not be crossed");
  v.number("night_C", s.night_C, {-30.0, 40.0}, "night setpoint of the heater");
  v.number("day_C", s.day_C, {-30.0, 40.0}, "day setpoint of the heater");
  v.number("too_warm_C", s.tooWarm_C, {5.0, 60.0}, "line above which the crop suffers; hours above it are counted");
  v.number("day_from_h", s.dayFrom_h, {0.0, 24.0}, "hour from which the day setpoint holds; with night_from_h, in place of the sun");
  v.number("night_from_h", s.nightFrom_h, {0.0, 24.0}, "hour from which the night setpoint holds");
  v.number("ramp_h", s.ramp_h, {0.0, 12.0}, "by the clock: hours in which one setpoint becomes the other");
  v.list("night_bands", s.nightBands, "night setpoints by the low forecast for the night, straight between, by rising low; in place of night_C", 8);
  v.list("day_bands", s.dayBands, "day setpoints by the high forecast for the day, straight between, by rising high; in place of day_C", 8);
  v.number("swing_at_most_K", s.swingAtMost_K, {0.0, 40.0},
           "that the day setpoint stands above the night's at most; where it would stand higher it is lowered");
  v.choice("felt", s.felt, kHeld, "what the house's thermostats feel: its air, or its leaves, which are colder on clear nights");
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
  v.object("floor", b.floor, "floor of the bay, where it differs from the house's");
  v.object("fan", b.fan, "fan between house and bay; draws from the house");
}

template <class V> void describe(V& v, HouseShape& s) {
  v.choice("kind", s.kind, kShapes, "shape of the cross-section", true);
  v.number("width_m", s.width_m, {0.3, 60.0}, "width", true);
  v.number("length_m", s.length_m, {0.3, 300.0}, "length; a dome has none");
  v.number("eave_m", s.eave_m, {0.0, 12.0}, "height of the straight sides; lean-to and single slope: of the low wall");
  v.number("ridge_m", s.ridge_m, {0.1, 15.0}, "height of the highest point", true);
  v.number("axis_deg", s.axis_deg, {0.0, 360.0}, "compass direction of the ridge line; 90 runs east-west. A lean-to's front looks 90 degrees clockwise of it");
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
  v.number("frame_allowance", h.frameAllowance, {0.0, 0.5},
           "share that bars, gutters and fixings add to the heat that passes the cover; without it 0.05 of film, 0.07 of sheets, 0.09 of glass");
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
  v.number("hours_per_venting", h.hoursPerVenting, {0.0, 12.0}, "hours of work on each day on which vents are opened and shut again");
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
  v.choice("filling", b.filling, kFillings, "what is in them");
  v.number("film_W_m2K", b.film_W_m2K, {0.0, 40.0}, "film coefficient between barrel and air; 0: free convection by the difference, and radiation");
  v.boolean("layered", b.layered, "water: an upper and a lower half of their own");
  v.number("sun_share", b.sunShare, {0.0, 1.0}, "share of its silhouette that the sun reaches");
  v.number("x_m", b.x_m, {-30.0, 30.0}, "place across the house");
}

template <class V> void describe(V& v, StoreRule& r) {
  v.number("charge_above_C", r.chargeAbove_C, {-5.0, 60.0}, "temperature of the house above which it gives heat to the store");
  v.number("give_below_C", r.giveBelow_C, {-30.0, 40.0}, "temperature of the house below which the store gives heat to it");
}

template <class V> void describe(V& v, GroundPipes& p) {
  v.text("name", p.name, "name");
  v.choice("place", p.place, kPipePlaces, "under the floor, or in the open ground beside the house");
  v.integer("count", p.count, {1, 200}, "pipes side by side", true);
  v.number("length_m", p.length_m, {0.5, 200.0}, "length of each in the ground", true);
  v.number("diameter_m", p.diameter_m, {0.04, 1.0}, "inside diameter");
  v.number("depth_m", p.depth_m, {0.15, 4.0}, "depth of their axes");
  v.number("spacing_m", p.spacing_m, {0.08, 10.0}, "from axis to axis");
  v.boolean("ribbed", p.ribbed, "ribbed drain pipe; else smooth");
  v.number("fan_m3_h", p.fan_m3_h, {10.0, 50000.0}, "air of the fan, blowing free");
  v.number("fan_Pa", p.fan_Pa, {5.0, 3000.0}, "pressure of the fan against a shut duct");
  v.object("rule", p.rule, "when the fan runs");
  v.choice("serves", p.serves, kPipeOutlets, "where their air comes out: the house, its warm bay, or under a bed cover");
  v.integer("bed", p.bed, {0, 11}, "which bed cover they serve, from 0");
  v.number("board_m2K_W", p.board_m2K_W, {0.0, 10.0}, "resistance of insulation under a pipe bed");
  v.number("sides_m2K_W", p.sides_m2K_W, {0.0, 10.0}, "resistance of insulation on a pipe bed's sides");
  v.number("collector_m2", p.collector_m2, {0.0, 2000.0}, "solar collector outside whose water warms the soil at the pipes; 0: none");
  v.number("collector_tilt_deg", p.collectorTilt_deg, {0.0, 90.0}, "slope of the collector, towards the noon sun");
  v.number("price", p.price, {0.0, 1e7}, "price, 0 if already owned");
  v.number("life_years", p.life_years, {0.5, 60.0}, "years it lasts");
}

template <class V> void describe(V& v, MassBlock& m) {
  v.text("name", m.name, "name");
  v.choice("kind", m.kind, kMassKinds, "a wall that stands free, a path or slab on the floor, a raised bed, or a heavy bench");
  v.choice("material", m.material, kMassMaterials, "what it is made of");
  v.number("area_m2", m.area_m2, {0.1, 5000.0}, "of one face of a wall; seen from above of the others", true);
  v.number("thickness_m", m.thickness_m, {0.02, 2.0}, "thickness");
  v.number("sun_share", m.sunShare, {0.0, 1.0}, "wall: share of its face that the sun reaches");
  v.number("width_m", m.width_m, {0.2, 20.0}, "path, raised bed or bench: width");
  v.number("sides_m2K_W", m.sides_m2K_W, {0.0, 10.0}, "raised bed: resistance of its boards");
  v.number("x_m", m.x_m, {-30.0, 30.0}, "where it stands across the house, for the drawing");
  v.number("price", m.price, {0.0, 1e7}, "price, 0 if already owned");
  v.number("life_years", m.life_years, {0.5, 100.0}, "years it lasts");
}

template <class V> void describe(V& v, PileIngredient& i) {
  v.text("ingredient", i.ingredient, "ingredient", true);
  v.number("wet_kg", i.wet_kg, {0.0, 1e6}, "mass as it comes", true);
  v.number("moisture", i.moisture, {0.0, 0.97}, "water of the wet mass; without it the table's");
}

template <class V> void describe(V& v, CompostPile& c) {
  v.text("name", c.name, "name");
  v.choice("place", c.place, kPilePlaces, "under soil in the house, in a shed against it, or a mound out of doors with a coil");
  v.list("recipe", c.recipe, "what a pile is built of", 12);
  v.number("water_kg", c.water_kg, {0.0, 1e5}, "water poured on while building");
  v.number("width_m", c.width_m, {0.3, 20.0}, "width of its foot");
  v.number("length_m", c.length_m, {0.3, 100.0}, "length of its foot");
  v.text("built", c.built, "month and day on which the first is built, such as 11-01");
  v.integer("piles", c.piles, {1, 24}, "piles of a series");
  v.number("every_days", c.everyDays, {3.0, 365.0}, "days from one pile to the next");
  v.number("jacket_m2K_W", c.jacket_m2K_W, {0.0, 10.0}, "resistance of the straw or boards round it");
  v.number("tipped_C", c.tipped_C, {-5.0, 75.0},
           "temperature of its stuff when it is built, such as of manure that is hot already; without it as it lay in the yard");
  v.number("buried", c.buried, {0.0, 1.0}, "share of its sides that stands in the ground");
  v.number("blown_m3_h", c.blown_m3_h, {0.0, 5000.0}, "air blown through; 0: it draws its own");
  v.number("airiness", c.airiness, {0.2, 5.0}, "of its own draught: 0.5 trodden down, 2 with pipes through it");
  v.number("top_up_every_days", c.topUpEvery_days, {0.0, 365.0}, "days after which a fifth of the recipe is put on again; 0: never");
  v.number("water_below", c.waterBelow, {0.0, 0.55}, "share of water at which it is watered to 0.6; 0: never");
  v.number("k20_factor", c.k20Factor, {0.1, 10.0}, "factor on its rate, as a logged core temperature has it");
  v.number("soil_m", c.soil_m, {0.05, 1.0}, "hot bed: soil over it");
  v.number("fan_m3_h", c.fan_m3_h, {0.0, 20000.0}, "chamber: air of the fan to the house; 0: openings alone");
  v.number("opening_m2", c.opening_m2, {0.0, 20.0}, "chamber: area of each of the two openings, low and high");
  v.number("coil_m", c.coil_m, {1.0, 2000.0}, "mound: water pipe in it");
  v.number("coil_flow_l_min", c.coilFlow_l_min, {0.1, 500.0}, "mound: water of the pump");
  v.choice("coil_into", c.coilInto, kCoilsInto, "mound: its coil warms the house by a radiator of its own, or the tank of a water loop");
  v.integer("tank", c.tank, {0, 11}, "mound: which water loop's tank, from 0");
  v.number("radiator_W_K", c.radiator_W_K, {1.0, 20000.0}, "mound: what gives the water's heat to the house");
  v.number("give_below_C", c.giveBelow_C, {-30.0, 40.0}, "temperature of the house below which fan or pump run");
  v.number("x_m", c.x_m, {-60.0, 60.0}, "where it stands across the house, for the drawing");
  v.number("hours_to_build", c.hoursToBuild, {0.0, 1000.0}, "hours of work for each pile");
  v.number("price", c.price, {0.0, 1e7}, "price of what a pile is built of");
}

template <class V> void describe(V& v, WaterLoop& w) {
  v.text("name", w.name, "name");
  v.number("litres", w.litres, {5.0, 500000.0}, "water in the tank", true);
  v.number("tank_loss_W_K", w.tankLoss_W_K, {0.0, 2000.0}, "loss of the tank into the house");
  v.number("flow_l_min", w.flow_l_min, {0.1, 2000.0}, "water of the pump");
  v.number("radiator_W_K", w.radiator_W_K, {1.0, 50000.0}, "what passes between water and air for a kelvin");
  v.number("radiator_l", w.radiator_l, {0.0, 200000.0}, "water in drums or a bench that it goes through; 0: next to none");
  v.object("rule", w.rule, "when the pump runs");
  v.number("collector_m2", w.collector_m2, {0.0, 2000.0}, "solar collector outside that heats the tank; 0: none");
  v.number("collector_tilt_deg", w.collectorTilt_deg, {0.0, 90.0}, "slope of the collector, towards the noon sun");
  v.number("x_m", w.x_m, {-30.0, 30.0}, "where the tank stands across the house, for the drawing");
  v.number("pump_W", w.pump_W, {0.0, 5000.0}, "electricity of the pump");
  v.number("price", w.price, {0.0, 1e7}, "price, 0 if already owned");
  v.number("life_years", w.life_years, {0.5, 60.0}, "years it lasts");
}

template <class V> void describe(V& v, SoilCable& c) {
  v.text("name", c.name, "name");
  v.integer("bed", c.bed, {0, 11}, "which of the bed covers it lies under, from 0");
  v.number("watts_per_m", c.watts_per_m, {1.0, 60.0}, "power of a metre");
  v.number("length_m", c.length_m, {1.0, 10000.0}, "length, on all beds of that kind together");
  v.number("depth_m", c.depth_m, {0.02, 0.5}, "depth in the bed");
  v.number("setpoint_C", c.setpoint_C, {-5.0, 40.0}, "temperature below which its thermostat puts it on");
  v.choice("sensor", c.sensor, kCableSensors, "what its thermostat feels: the soil beside it, or the air among the leaves");
  v.number("off_C", c.off_C, {-5.0, 45.0}, "temperature above which it is off; without it soil is held at the setpoint, air within a kelvin above");
  v.number("price", c.price, {0.0, 1e7}, "price, 0 if already owned");
  v.number("life_years", c.life_years, {0.5, 60.0}, "years it lasts");
}

template <class V> void describe(V& v, HeatPumpPoint& p) {
  v.number("outside_C", p.outside_C, {-50.0, 50.0}, "air outside", true);
  v.number("capacity", p.capacity, {0.0, 3.0}, "heat given at most, of its size", true);
  v.number("cop", p.cop, {0.5, 12.0}, "heat given for a kWh of electricity", true);
}

template <class V> void describe(V& v, Stoking& s) {
  v.number("load_kg", s.load_kg, {0.1, 500.0}, "wood put on at a time");
  v.number("moisture", s.moisture, {0.0, 0.6}, "water of its mass");
  v.integer("loads", s.loads, {1, 24}, "loads a night");
  v.number("every_h", s.every_h, {0.25, 24.0}, "hours from one load to the next");
  v.number("hours_per_load", s.hoursPerLoad, {0.0, 5.0}, "hours of work for a load");
}

template <class V> void describe(V& v, Delivery& d) {
  v.number("units", d.units, {0.0, 1e6}, "of those it is bought by that come at a time; 0: fetched as it is taken");
  v.number("charge", d.charge, {0.0, 1e6}, "money for each delivery, beside the fuel");
  v.number("stock_units", d.stock_units, {0.0, 1e6}, "in the yard as winter begins");
}

template <class V> void describe(V& v, PartLoadPoint& p) {
  v.number("load", p.load, {0.0, 1.0}, "share of its size", true);
  v.number("factor", p.factor, {0.05, 2.0}, "on its efficiency at full stretch", true);
}

template <class V> void describe(V& v, Heater& h) {
  v.text("id", h.id, "what results and failures call it, of its own; without it one is given");
  v.text("name", h.name, "name");
  v.choice("kind", h.kind, namesOf(heaterKinds()), "what it is; a boiler heats a tank by fuel");
  std::string in = placeId(h.place);
  v.text("in", in, "what it heats: house, bay, or by its number a tank, the air under a bed cover, or a mass from within: tank:1, bed:1, mass:1");
  h.place = heaterPlace(in);
  v.number("power_W", h.power_W, {0.0, 1e6}, "heat that it gives at most", true);
  v.number("stage_K", h.stage_K, {0.0, 20.0}, "so far below the setpoint its thermostat stands: of several in one room the lowest gives first");
  v.number("efficiency", h.efficiency, {0.05, 1.1}, "heat that it gives for a net kWh of what it takes; without it the kind's usual");
  v.choice("burns", h.burns, namesOf(carriers()), "boiler or wood stove: what it burns; without it the kind's usual");
  v.number("fuel_price_kWh", h.fuelPrice_kWh, {0.0, 100.0}, "of a net kWh of its fuel; electricity is priced for all");
  v.number("fuel_price_spread", h.fuelPriceSpread, {0.0, 0.9}, "share by which that may come out dearer or cheaper");
  v.text("bought_by", h.boughtBy, "unit in which its fuel is bought, such as kWh, litre, bottle-11kg, bag-15kg, stere");
  v.number("hours_per_unit", h.hoursPerUnit, {0.0, 100.0}, "hours of work for each unit: to fetch, change or fill it");
  v.object("delivery", h.delivery, "how its fuel comes to the yard");
  v.number("holds_C", h.holds_C, {-10.0, 90.0}, "temperature it keeps of a tank, of the air under a bed cover, or at the surface of a mass");
  v.number("from_h", h.from_h, {0.0, 24.0}, "hour of the day from which it may give heat");
  v.number("for_h", h.for_h, {0.5, 24.0}, "hours that it may; 24: day and night");
  v.number("only_below_C", h.onlyBelow_C, {-40.0, 40.0}, "temperature outside above which it is locked out");
  v.number("only_above_C", h.onlyAbove_C, {-60.0, 40.0}, "temperature outside below which it is locked out: a heat pump's cut-out");
  v.number("before_nights_below_C", h.beforeNightsBelow_C, {-40.0, 40.0}, "only on days and nights, noon to noon, whose low is forecast below that");
  v.number("only_below_price_kWh", h.onlyBelowPrice_kWh, {0.0, 100.0}, "electric: only in hours in which a kWh costs less");
  v.number("sensor_error_K", h.sensorError_K, {-5.0, 5.0}, "that its thermostat reads too warm");
  v.number("band_K", h.band_K, {0.0, 10.0}, "its thermostat goes on so far below where it goes off, half to either side of the setpoint");
  v.number("least", h.least, {0.0, 1.0}, "share of its size that it can give on end, below which it goes on and off; without it the kind's usual");
  v.number("start_up_min", h.startUp_min, {0.0, 120.0}, "minutes from its thermostat's call until it gives heat; without it the kind's usual");
  v.number("standby_W", h.standby_W, {0.0, 5000.0}, "what it takes while it may give and does not, of what it runs on: a pilot flame, electronics");
  v.list("part_load", h.partLoad, "what its efficiency is at a part of its size, by rising load; without it as at full stretch", 12);
  v.list("heat_pump", h.heatPump,
         "what a heat pump gives and takes by the air outside, by rising temperature, without it a usual one; of delivered heat what there is of it", 20);
  v.number("defrost_below_C", h.defrostBelow_C, {-30.0, 20.0}, "heat pump: temperature outside below which it ices");
  v.number("defrost_loss", h.defrostLoss, {0.0, 0.5}, "heat pump: share of what it gives that its ice takes");
  v.object("stoking", h.stoking, "wood stove or mass stove: how it is fed");
  v.text("tended_by", h.tendedBy, "who lights, loads and refuels it; without it whoever grows there");
  v.number("stirs_m3_h", h.stirs_m3_h, {0.0, 100000.0}, "in the house: air that its fan moves while it gives, which warms covers sooner");
  v.integer("through", h.through, {0, 12}, "stove in the house: which mass its flue leads through, from 1; 0: none");
  v.number("mass_share", h.massShare, {0.0, 1.0}, "stove: share of the heat it gives that goes into that");
  v.number("price", h.price, {0.0, 1e7}, "price, 0 if already owned");
  v.number("life_years", h.life_years, {0.5, 60.0}, "years it lasts");
  v.number("x_m", h.x_m, {-800.0, 800.0}, "where it stands across the house, for the drawing");
}

constexpr std::array<std::pair<CoveredFaces, const char*>, 7> kCoveredFaces{{{CoveredFaces::all, "all"},
                                                                             {CoveredFaces::roof, "roof"},
                                                                             {CoveredFaces::sides, "sides"},
                                                                             {CoveredFaces::ends, "ends"},
                                                                             {CoveredFaces::roofAndSides, "roof-and-sides"},
                                                                             {CoveredFaces::roofAndEnds, "roof-and-ends"},
                                                                             {CoveredFaces::sidesAndEnds, "sides-and-ends"}}};

template <class V> void describe(V& v, Kit& k) {
  v.text("name", k.name, "name; without it the measure's usual");
  v.text("measure", k.measure, "kind of the measure by which it came");
  v.text("material", k.material, "material of that measure");
  v.number("level", k.level, {0.0, 1e6}, "size of that measure");
  v.choice("faces", k.faces, kCoveredFaces, "of a skin: under which of the cover it went");
  v.number("price", k.capital, {0.0, 1e7}, "what it cost");
  v.number("life_years", k.life_years, {0.5, 60.0}, "years it lasts");
  v.number("hours_per_winter", k.hoursPerWinter, {0.0, 5000.0}, "hours of work each winter");
}

constexpr std::array<std::pair<Offer, const char*>, 3> kOffers{{{Offer::open, "open"}, {Offer::fixed, "fixed"}, {Offer::ruledOut, "ruled-out"}}};

template <class V> void describe(V& v, Setting& s) {
  v.text("field", s.field, "place in this file, as a JSON pointer; one that ends in /- adds to a list", true);
  v.anything("to", s.to, "value to put there; without it the measure's level");
}

template <class V> void describe(V& v, Measure& m) {
  v.text("id", m.id, "by which other measures call it, of its own");
  v.choice("kind", m.kind, namesOf(measureTable()), "kind of measure", true);
  v.text("name", m.name, "name");
  v.numbers("levels", m.levels, {0.0, 1e6},
            "size to try: barrels, watts, air changes an hour, metres of skirt or lobby, pipes, hot beds, square metres of wall, path or collector, kelvin "
            "hardier, or kelvin that the night is kept lower");
  v.text("material", m.material, "material of a skin, blanket or ceiling");
  v.number("gap_m", m.gap_m, {0.003, 2.0}, "air gap of a second skin");
  v.choice("faces", m.faces, kCoveredFaces, "of a second skin: under which of the cover it goes");
  v.choice("heater", m.heater, namesOf(heaterKinds()), "of a heater: its kind; it takes its fuel at the price under prices/fuels");
  v.number("price", m.price, {0.0, 1e7}, "price per m2, per barrel, pipe, bed or kW, per metre of skirt, or of the whole");
  v.number("price_spread", m.priceSpread, {0.0, 0.9}, "share by which that may come out dearer or cheaper");
  v.boolean("usual_price", m.isUsualPrice, "the price is a usual one: nobody has put one of their own");
  v.number("life_years", m.life_years, {0.5, 60.0}, "years it lasts");
  v.number("hours_per_winter", m.hoursPerWinter, {0.0, 5000.0}, "hours of work each winter");
  v.number("hours_per_night", m.hoursPerNight, {0.0, 12.0}, "hours of work each night");
  v.choice("offer", m.offer, kOffers, "open: the search decides; fixed: it is built, in one of its sizes; ruled-out: it is not");
  v.texts("excludes", m.excludes, "ids of measures that are not built together with it");
  v.texts("needs", m.needs, "ids of measures without which it is not built");
  v.list("sets", m.sets, "own: what it changes in the plan", 40);
}

template <class V> void describe(V& v, OwnMaterial& m) {
  v.text("id", m.id, "name by which layers call it, of small letters, digits and hyphens", true);
  v.text("name", m.name, "name shown");
  v.number("emissivity", m.emissivity, {0.0, 1.0}, "long-wave emissivity, of both faces or of the outer");
  v.number("inner_emissivity", m.innerEmissivity, {0.01, 1.0}, "of the face towards the room, where it is another, such as a foil's");
  v.number("longwave_transmittance", m.longwaveTransmittance, {0.0, 1.0}, "share of radiant heat let through");
  v.number("solar_transmittance", m.solarTransmittance, {0.0, 1.0}, "share of diffuse sunlight let through");
  v.number("solar_reflectance", m.solarReflectance, {0.0, 1.0}, "share of sunlight sent back");
  v.number("resistance_m2K_W", m.resistance_m2K_W, {0.0, 50.0}, "resistance of its body, face to face");
  v.number("capacity_J_m2K", m.capacity_J_m2K, {1.0, 1e7}, "heat stored in a square metre");
  v.text("note", m.note, "where its figures are from");
}

template <class V> void describe(V& v, CropStand& c) {
  v.text("crop", c.crop, "what stands there", true);
  v.choice("in", c.in, kCropIn, "the house, its bay, or a bed under a cover");
  v.integer("bed_cover", c.bedCover, {1, 100}, "in a bed: under which cover, from 1");
  v.boolean("in_pots", c.inPots, "its roots; else they are in the floor's soil");
  v.number("pot_litres", c.pot_litres, {0.1, 500.0}, "of one pot");
}

template <class V> void describe(V& v, GrowthResponse& g) {
  v.number("base_C", g.base_C, {-5.0, 30.0}, "no growth below");
  v.number("best_C", g.best_C, {0.0, 40.0}, "growth is best");
  v.number("too_warm_C", g.tooWarm_C, {1.0, 50.0}, "nor any above");
  v.number("enough_light_mol_m2", g.enoughLight_mol_m2, {1.0, 60.0}, "light of a day that is enough");
}

template <class V> void describe(V& v, OwnCrop& c) {
  v.text("id", c.id, "name by which crops call it, of small letters, digits and hyphens", true);
  v.text("name", c.name, "name shown");
  v.number("leaf_C", c.leaf_C, {-60.0, 30.0}, "temperature that harms its leaves");
  v.number("bud_C", c.bud_C, {-60.0, 30.0}, "that harms buds, blossoms or fruit");
  v.number("root_C", c.root_C, {-60.0, 30.0}, "that harms its roots");
  v.number("heat_C", c.heat_C, {0.0, 60.0}, "warmth that harms it");
  v.number("for_h", c.for_h, {0.1, 240.0}, "hours that each of them must last");
  v.object("growth", c.growth, "how it grows");
  v.text("note", c.note, "where its figures are from");
}

template <class V> void describe(V& v, MaterialPrice& m) {
  v.text("material", m.material, "material of a skin's layer", true);
  v.number("price_per_m2", m.price_per_m2, {0.0, 10000.0}, "price of a square metre of it");
}

constexpr std::array<std::pair<unsigned, const char*>, 3> kTariffDays{{{0x7FU, "every-day"}, {0x1FU, "monday-to-friday"}, {0x60U, "weekend"}}};
template <class V> void describe(V& v, TariffWindow& w) {
  v.choice("days", w.weekdays, kTariffDays, "days of the week on which it holds");
  v.integer("from_h", w.from_h, {0, 23}, "hour of the clock at which it begins", true);
  v.integer("to_h", w.to_h, {0, 24}, "hour at which it ends; over midnight where it is the earlier", true);
  v.number("price_per_kWh", w.price_per_kWh, {0.0, 100.0}, "price of a kWh in it", true);
}

template <class V> void describe(V& v, FuelPrice& f) {
  v.choice("fuel", f.fuel, namesOf(carriers()), "which", true);
  v.text("bought_by", f.boughtBy, "unit in which it is bought");
  v.number("price_kWh", f.price_kWh, {0.0, 100.0}, "of a net kWh in it", true);
}

template <class V> void describe(V& v, Prices& p) {
  v.text("currency", p.currency, "money symbol or code");
  v.number("electricity_per_kWh", p.electricity_per_kWh, {0.0, 100.0}, "price of a kWh, in the hours of no window");
  v.list("electricity_windows", p.electricityWindows, "hours of a tariff with a price of their own; the first that holds an hour counts", 8);
  v.number("electricity_standing_per_day", p.electricityStanding_per_day, {0.0, 100.0}, "charged each day whether any is taken or not");
  v.number("electricity_spread", p.electricitySpread, {0.0, 0.9}, "share by which a kWh may come out dearer or cheaper");
  v.number("electricity_carbon_kg_kWh", p.electricityCarbon_kg_kWh, {0.0, 2.0}, "carbon dioxide of a kWh, where it is made");
  v.number("carbon_per_tonne", p.carbon_per_tonne, {0.0, 10000.0}, "money for a tonne of carbon dioxide, beside what prices have of it");
  v.number("interest", p.interest, {0.0, 0.5}, "interest rate a year");
  v.number("hour", p.hour, {0.0, 10000.0}, "what an hour of your own work is worth");
  v.list("materials", p.materials, "prices of skins' materials", 64);
  v.list("fuels", p.fuels, "prices of fuels, to compare heaters by", kCarrierCount);
}

template <class V> void describe(V& v, Calibration& c) {
  v.number("skin", c.skin, {0.2, 5.0}, "factor on what the covers let through");
  v.number("draughts", c.draughts, {0.05, 20.0}, "factor on air changes");
  v.number("mass", c.mass, {0.05, 20.0}, "factor on the heat that crop, trays and benches hold");
  v.number("ground", c.ground, {0.1, 10.0}, "factor on the soil's conductivity and the air's film over it");
  v.number("sun", c.sun, {0.1, 5.0}, "factor on the light that is taken up");
  v.text("date", c.date, "when it was found");
  v.numbers("log_covariance", c.logCovariance, {-10.0, 10.0},
            "how far the readings leave the factors open: covariance of their logarithms in the order skin, draughts, mass, ground, sun, its lower triangle "
            "row by row");
}

template <class V> void describe(V& v, Ask& a) {
  v.integer("misses_allowed", a.missesAllowed, {0, 366}, "nights below the line that are accepted, in each room that has one");
  v.number("cold_allowed_K_h", a.coldAllowed_K_h, {0.0, 100000.0}, "in place of nights: degree-hours a winter below the line that are accepted");
  v.number("rare_night_years", a.rareNight_years, {1.5, 200.0}, "a night as cold as comes once in so many years is held too; needs site/annual_lows_C");
  v.boolean("any_heater_out", a.anyHeaterOut, "it holds too with any one heater out for the whole winter");
  v.number("mains_off_h", a.mainsOff_h, {0.1, 240.0}, "a power cut of so many hours at the worst moment crosses no line");
  v.number("hours_per_week", a.hoursPerWeek, {0.0, 168.0}, "of work that there is time for");
  v.number("to_spend", a.toSpend, {0.0, 1e9}, "money there is for kit, all of it now");
  v.number("supply_kW", a.supply_kW, {0.0, 100000.0}, "that all electric heaters together may take");
  v.number("trench_m", a.trench_m, {0.0, 100000.0}, "metres that may be dug for pipes and skirt");
  v.number("fuel_store_kWh", a.fuelStore_kWh, {0.0, 1e9}, "fuel for a winter that there is room for");
  v.boolean("no_fire_asleep", a.noFireAsleep, "nothing is put on a fire between 23 and 6");
}

template <class V> void describe(V& v, Plan& p) {
  v.fixedText("schema", kPlanSchema);
  v.text("name", p.name, "name of the plan");
  v.object("site", p.site, "site", true);
  v.object("house", p.house, "house", true);
  v.object("setpoints", p.setpoints, "setpoints");
  v.list("barrels", p.barrels, "water barrels", kMostBarrelRows);
  v.list("ground_pipes", p.groundPipes, "pipes in the ground", kMostPipes);
  v.list("compost", p.compost, "piles of compost", kMostPiles);
  v.list("water_loops", p.waterLoops, "tanks whose water goes round", kMostLoops);
  v.list("soil_cables", p.soilCables, "cables that warm the soil of beds", kMostCables);
  v.list("mass", p.mass, "walls, paths and raised beds in the house", kMostMasses);
  v.integer("warm_up_days", p.warmUp_days, {0, 200}, "days that stores are run before the log begins");
  v.list("heaters", p.heaters, "heaters of rooms and tanks", kMostHeaters);
  v.list("kit", p.kit, "what has been bought for the plan", 200);
  v.list("measures", p.measures, "measures that may be added", 40);
  v.list("materials", p.materials, "materials of your own, beside the table's", 40);
  v.list("crops", p.crops, "crops, by which the plan is judged beside its line", kMostCrops);
  v.list("own_crops", p.ownCrops, "crops of your own, beside the table's", 40);
  v.object("prices", p.prices, "prices");
  v.object("calibration", p.calibration, "factors by which readings put the model of this house right");
  v.object("ask", p.ask, "what is asked");
}

Result<Plan> planFromJson(const Json& document) {
  if (!document.is_object())
    return Problem{ProblemKind::badInput, "/", Message{"json.stands-here", describeValue(document)}, Message{"json.object-of-schema", kPlanSchema}};
  const auto upgraded = upgradePlan(document);
  Problems problems;
  Plan plan;
  FieldReader reader(upgraded ? upgraded->document : document, "", problems);
  describe(reader, plan);
  reader.finish();
  for (Heater& h : plan.heaters)
    if (h.id.empty()) h.id = freeHeaterId(plan, "heater");
  forgetUsualNames(plan);
  if (problems.empty()) problems = check(plan);
  if (upgraded) upgraded->tellWhere(problems);
  if (!problems.empty()) return problems;
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
  Json schema{{"$schema", "http://json-schema.org/draft-07/schema#"}, {"title", kPlanSchema}};
  Plan plan;
  FieldSchema walker(schema);
  describe(walker, plan);
  return schema;
}

} // namespace muffle
