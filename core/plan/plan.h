// SPDX-License-Identifier: GPL-3.0-or-later
//
// A plan: one complete design of a house, what it must hold, what it costs, and what may be added to it.
// As JSON it is schema "muffle-plan-2" (docs/plan-format.md); values outside the ranges given there never enter a Plan.
#pragma once

#include "core/crop/crops.h"
#include "core/heater/heater.h"
#include "core/heater/setpoint_schedule.h"
#include "core/heater/tariff.h"
#include "core/house/shape.h"
#include "core/material/materials.h"
#include "core/store/stores.h"
#include "core/sun/position.h"

#include <algorithm>
#include <optional>
#include <string>
#include <vector>

namespace muffle {

struct Site {
  std::string name;
  Place place;
  bool placeAssumed = false; ///< nobody has said where the house stands
  std::string timeZone = "UTC";
  double wind_m_s = 1.5;                     ///< assumed where the log has none
  double windHeight_m = 0.0;                 ///< of the gauge above the ground; 0: its wind is that at the house
  std::vector<double> annualLows_C = {};     ///< the coldest of each winter the grower knows of, for nights rarer than the log's
  std::optional<double> firstFrost_day = {}; ///< of the year, where the grower knows better than the log
  std::optional<double> lastFrost_day = {};
  double groundMean_C = 10.0;                  ///< of the undisturbed ground over the year
  double groundAmplitude_K = 9.0;              ///< of its surface
  std::optional<double> groundColdestDay = {}; ///< day of year of its coldest surface, where it is not the usual
  [[nodiscard]] double coldestDay() const { return groundColdestDay.value_or(place.latitude_deg < 0.0 ? 207.0 : 25.0); }
  bool operator==(const Site&) const = default;
};

/// One layer of a skin, from outside in; the gap lies between it and the next layer inwards.
struct Layer {
  std::string material = "pe-film";
  double gap_m = 0.05;
  bool operator==(const Layer&) const = default;
};

struct Skin {
  std::vector<Layer> layers;
  bool operator==(const Skin&) const = default;
};

/// From sunset to sunrise; at night while it is cold outside; whenever there is little sun; by the clock; at night while it is
/// cold inside; whenever the sun is strong, as a shade.
enum class BlanketRule { night, cold, dark, clock, inside, bright };

/// A cloth drawn inside the cover.
struct NightBlanket {
  std::string material = "woven-blanket";
  double leak = 0.1; ///< share of the gap's air that still mixes with the house when closed
  BlanketRule rule = BlanketRule::night;
  double outsideBelow_C = 3.0; ///< rule cold
  double sunBelow_W_m2 = 20.0; ///< rule dark
  double closesAt_h = 17.0;    ///< rule clock: hours of the place's own time; it may stay closed past midnight
  double opensAt_h = 8.0;
  double insideBelow_C = 6.0;   ///< rule inside; it opens a kelvin and a half above
  double sunAbove_W_m2 = 600.0; ///< rule bright
  double hoursPerDraw = 0.0;    ///< of work each time it is closed and opened again; 0 with a motor
  bool operator==(const NightBlanket&) const = default;
};

struct Floor {
  std::string soil = "loam";
  double edgeInsulation_m2K_W = 0.0; ///< of a skirt round the foot
  double edgeDepth_m = 0.0;
  std::optional<double> moisture_kg_kg; ///< water per dry soil; without it that of the table
  std::string cover;                    ///< what lies on the soil; empty: bare
  double cover_m = 0.05;                ///< its thickness
  bool operator==(const Floor&) const = default;
};

/// The door that people and barrows go through by day.
struct Door {
  double opened = 0.0; ///< times a day
  double seconds = 20.0;
  double width_m = 0.9, height_m = 2.0;
  bool lobby = false; ///< a second door close by, shut before the first is opened; for a room of its own see Lobby
  bool operator==(const Door&) const = default;
};

/// What keeps vents, rolled sides or a roof that draws back shut, however warm it is inside.
struct VentLock {
  double outsideBelow_C = -40.0; ///< too cold outside for the crop beside them
  double windAbove_m_s = 60.0;
  bool inRain = false; ///< where the log has rain
  bool operator==(const VentLock&) const = default;
};

/// Sides that are rolled up by the warmth inside, along the house without bay and lobby.
struct RollUpSides {
  double height_m = 0.8; ///< of the strip that they leave open on either side
  double opens_C = 20.0;
  double full_C = 26.0;
  bool operator==(const RollUpSides&) const = default;
};

/// A fan that blows the house's air out; it starts at the temperature and runs fully a kelvin above.
struct ExtractFan {
  double flow_m3_h = 3000.0;
  double above_C = 26.0;
  double power_W = 250.0;
  bool operator==(const ExtractFan&) const = default;
};

/// A roof that draws back by day while it is warm outside, rain and wind permitting (VentLock).
struct RetractableRoof {
  double outsideAbove_C = 10.0;   ///< it shuts a kelvin below
  double airChanges_per_h = 40.0; ///< while it is open
  bool operator==(const RetractableRoof&) const = default;
};

/// How the wind comes at a house.
enum class Shelter { open, scattered, hedged, walled };
constexpr int kShelterCount = 4;

/// Draughts by the area of all leaks as a pressure test finds it, instead of air changes by build and upkeep.
struct Leakage {
  double area_cm2 = 400.0; ///< effective, at 4 Pa
  Shelter shelter = Shelter::scattered;
  bool operator==(const Leakage&) const = default;
};

/// What gives water to the air of a house.
struct Crop {
  double leafArea = 1.0; ///< m2 of leaf for each m2 of floor
  double wetFloor = 0.3; ///< share of the floor that is moist soil, wet paths or capillary matting
  double height_m = 0.6; ///< of leaves and the benches they stand on, which the light passes through
  bool operator==(const Crop&) const = default;
};

/// What of the daylight never comes in, beside what the cover itself keeps out.
struct LightLoss {
  double dirt = 0.08;  ///< dirt and age of the cover
  double frame = 0.11; ///< bars and gutters, and shade from outside
  [[nodiscard]] double left() const { return (1.0 - dirt) * (1.0 - frame); }
  bool operator==(const LightLoss&) const = default;
};

/// A low tunnel of film or fleece over a bed inside the house: a room of its own within the room.
struct BedCover {
  std::string name = {}; ///< empty: it goes by what it is
  int count = 1;
  double width_m = 1.0;
  double length_m = 6.0;
  double height_m = 0.5; ///< of the hoops' top; its section is half an ellipse
  std::string material = "fleece";
  double airChanges_per_h = 2.0; ///< with the air of the house, tucked in
  bool liftedByDay = true;       ///< ends open from sunrise to sunset
  bool inBay = false;            ///< in the warm bay instead of the house
  double hoursPerLift = 0.0;     ///< of work each day, for each that is lifted in the morning and tucked in at night
  std::optional<double> hold_C =
      {}; ///< a line of its own: a night that is colder under it is missed. Without it what is under it is only counted, by the room's line
  double x_m = -1.0;             ///< where it lies across the house, for the drawing

  [[nodiscard]] double bed_m2() const { return count * width_m * length_m; }
  [[nodiscard]] double cover_m2() const; ///< of the tunnel's skin, its two ends included
  [[nodiscard]] double volume_m3() const;
  bool operator==(const BedCover&) const = default;
};

/// What a room's thermostats feel: its air, or its leaves, which on clear nights are colder. A leaf's is only in the house.
enum class HeldTemperature { air, leaf };

struct Setpoints {
  double hold_C = 1.0;     ///< the line that must not be crossed
  double night_C = 2.0;    ///< what the heater aims at from sunset to sunrise
  double day_C = 4.0;      ///< and by day
  double tooWarm_C = 30.0; ///< above this the crop suffers; hours are counted
  /// By the clock instead of the sun, where both are given: hours of the day, and how long the one takes to become the other.
  std::optional<double> dayFrom_h = {}, nightFrom_h = {};
  double ramp_h = 0.0;
  /// In place of night_C: by the low that is forecast for the night, from noon to noon; by rising outside_C.
  std::vector<NightBand> nightBands = {};
  /// In place of day_C: by the high that is forecast for the day, from midnight to midnight; by rising outside_C.
  std::vector<DayBand> dayBands = {};
  /// That the day's stands above the night's at most; where it would stand higher, it is lowered.
  std::optional<double> swingAtMost_K = {};
  HeldTemperature felt = HeldTemperature::air;
  /// That heaters may be asked to hold.
  [[nodiscard]] double warmest_C() const {
    const auto of = [](double fixed_C, const auto& bands) {
      double warmest_C = bands.empty() ? fixed_C : bands.front().setpoint_C;
      for (const SetpointBand& band : bands) warmest_C = std::max(warmest_C, band.setpoint_C);
      return warmest_C;
    };
    const double atNight_C = of(night_C, nightBands), byDay_C = of(day_C, dayBands);
    return std::max(atNight_C, swingAtMost_K ? std::min(byDay_C, atNight_C + *swingAtMost_K) : byDay_C);
  }
  /// The lowest that the house is heated to at night.
  [[nodiscard]] double leastNight_C() const {
    double least_C = nightBands.empty() ? night_C : nightBands.front().setpoint_C;
    for (const SetpointBand& band : nightBands) least_C = std::min(least_C, band.setpoint_C);
    return least_C;
  }
  /// Those of the night by so much.
  void shiftNight(double by_K) {
    night_C += by_K;
    for (SetpointBand& band : nightBands) band.setpoint_C += by_K;
  }
  /// All of them by so much.
  void shift(double by_K) {
    shiftNight(by_K);
    day_C += by_K;
    for (SetpointBand& band : dayBands) band.setpoint_C += by_K;
  }
  bool operator==(const Setpoints&) const = default;
};

/// A fan that moves air to and fro between two rooms. Its own warmth is left out.
enum class FanRule { always, day, night, warm }; ///< warm: while the room it draws from is warmer than warmAbove_C
struct RoomFan {
  double flow_m3_h = 500.0;
  FanRule rule = FanRule::day;
  double warmAbove_C = 15.0; ///< rule warm: it begins here and runs fully a kelvin above
  double power_W = 50.0;
  bool operator==(const RoomFan&) const = default;
};

/// A length of the house partitioned off at one end, a room with setpoints of its own.
struct WarmBay {
  std::string name = {}; ///< empty: it goes by what it is
  double length_m = 3.0;
  Skin partition{{Layer{"pe-film", 0.05}}}; ///< layers from the house's side
  double airChanges_per_h = 0.5;            ///< of its air with the house's, through door and joints
  Setpoints setpoints{8.0, 10.0, 12.0};
  std::optional<Floor> floor = {}; ///< soil and cover of its own; the skirt is the house's
  std::optional<RoomFan> fan = {}; ///< draws from the house
  bool operator==(const WarmBay&) const = default;
};

/// A length partitioned off at the end where the door is, unheated: all that comes in by the door comes through it.
struct Lobby {
  std::string name = {}; ///< empty: it goes by what it is
  double length_m = 1.5;
  Skin partition{{Layer{"pe-film", 0.05}}}; ///< layers from the house's side
  double airChanges_per_h = 0.5;            ///< of its air with the house's, through joints
  bool operator==(const Lobby&) const = default;
};

/// The air over a ceiling of cloth, film or board that hangs level at the eaves of the house, not of its bay and lobby.
struct RoofVoid {
  std::string name = {}; ///< empty: it goes by what it is
  Skin ceiling{{Layer{"clear-screen", 0.05}}}; ///< layers from the house's side, upwards
  double airChanges_per_h = 1.0;               ///< of its air with the house's, through joints and cloth
  std::optional<RoomFan> fan = {};             ///< draws from the void
  bool operator==(const RoofVoid&) const = default;
};

struct House {
  HouseShape shape;
  Skin roof{{Layer{}}};
  Skin sides{{Layer{}}};
  Skin ends{{Layer{}}};
  Skin backWall{{Layer{"masonry-300"}}}; ///< of a lean-to or single slope
  std::optional<NightBlanket> blanket;
  std::optional<double> frameAllowance; ///< what frames add to the heat that passes the cover, as a share; without it as usual for its outermost layer
  Crop crop;
  LightLoss light;
  std::vector<BedCover> bedCovers;
  std::optional<WarmBay> bay;
  std::optional<Lobby> lobby;
  std::optional<RoofVoid> roofVoid;
  double airChanges_per_h = 0.8; ///< in still air, shut
  double windAirChanges = 0.25;  ///< added per m/s of wind
  Door door;
  Floor floor;
  std::optional<double> backWall_C; ///< temperature of the building behind a back wall; without it the wall faces the weather
  double ventOpens_C = 22.0;
  double ventFull_C = 28.0;
  double ventAirChanges_per_h = 15.0; ///< fully open
  double hoursPerVenting = 0.0;       ///< of work on each day on which they are opened and shut again; 0 where they open by themselves
  VentLock ventLock;
  std::optional<RollUpSides> rollUp;
  std::optional<ExtractFan> extractFan;
  std::optional<RetractableRoof> retractable;
  std::optional<Leakage> leakage;
  bool operator==(const House&) const = default;
};

enum class BarrelColour { black, blue, white, bare };
enum class BarrelFilling { water, sand, stone };

struct Barrels {
  std::string name = {}; ///< empty: it goes by what it is
  int count = 6;
  double litres = 200.0;
  BarrelColour colour = BarrelColour::black;
  BarrelFilling filling = BarrelFilling::water;
  double film_W_m2K = 8.0; ///< air and radiation together at a barrel's skin; 0: free convection by the difference, and radiation
  bool layered = false;    ///< water: a warm upper and a cold lower half, which mix when the lower is the warmer
  double sunShare = 0.6;   ///< of the barrel's silhouette that the sun reaches
  double x_m = 2.0;        ///< where they stand across the house, for the drawing
  bool operator==(const Barrels&) const = default;
};

/// Something bought for the plan, or an hour's work it asks for.
/// Of the cover, what a skin is put under.
enum class CoveredFaces { all, roof, sides, ends, roofAndSides, roofAndEnds, sidesAndEnds };
bool covers(CoveredFaces faces, FaceGroup group);

struct Kit {
  std::string name = {};     ///< empty: the measure's usual
  std::string measure = {};  ///< by which it came, by its id; empty: it was entered by hand
  std::string material = {}; ///< of that measure
  double level = 0.0;        ///< its size
  CoveredFaces faces = CoveredFaces::all;
  double capital = 0.0;
  double life_years = 5.0;
  double hoursPerWinter = 0.0;
  bool operator==(const Kit&) const = default;
};

enum class MeasureKind {
  secondSkin,
  nightBlanket,
  sealing,
  barrels,
  heater,
  skirt,
  hardier,
  ceiling,
  lobby,
  mulch,
  pipeBed,
  hotBed,
  massWall,
  massPath,
  collector,
  nightSetpoint,
  nightBand,
  coveredBeds,
  mound,
  own
};
constexpr int kMeasureKindCount = 20;

/// Of these one chooses a material, and there is one size; the others have levels.
bool hasMaterial(MeasureKind kind);

/// Whether it is a question at all.
enum class Offer { open, fixed, ruledOut }; ///< fixed: it is built, in one of its sizes

/// A value that a measure of one's own gives a plan (core/plan/own_measure.h).
struct Setting {
  std::string field = {}; ///< its place in the plan's file, a JSON pointer: "/setpoints/night_C"; "/mass/-" adds to a list
  std::string to = {};    ///< JSON text of the value; empty: the level in hand, a number
  bool operator==(const Setting&) const = default;
};

/// Something that may be added. `levels` are its sizes to try besides "not": barrels, watts, air changes per hour, metres
/// of skirt, lobby or straw, pipes, hot beds, mounds, square metres of wall, path or collector, or how many kelvin hardier the crop is, lower
/// the night is kept, or colder the house may be beside its covered beds.
struct Measure {
  std::string id = {}; ///< by which other measures call it; empty: none does
  MeasureKind kind = MeasureKind::sealing;
  std::string name = {}; ///< empty: it goes by what it is
  std::vector<double> levels;
  std::string material; ///< skin, blanket and ceiling
  double gap_m = 0.05;  ///< skin
  CoveredFaces faces = CoveredFaces::all; ///< skin: under which of the cover it goes
  double price = 0.0; ///< per m2 of cover or ceiling, per barrel, pipe, bed or kW, per metre round the foot, per m2 of floor (straw), wall, path or collector,
                      ///< or the whole
  double priceSpread = 0.0;  ///< share by which that may come out dearer or cheaper
  bool isUsualPrice = false; ///< nobody has put a price of their own yet
  double life_years = 5.0;
  double hoursPerWinter = 0.0;
  double hoursPerNight = 0.0; ///< closing and opening
  HeaterKind heater = HeaterKind::electric; ///< of a heater: which; it takes its fuel at the plan's price, Prices::fuels
  Offer offer = Offer::open;
  std::vector<std::string> excludes = {}; ///< ids of measures that are not built together with it
  std::vector<std::string> needs = {};    ///< ids of measures without which it is not built
  std::vector<Setting> sets = {};         ///< of one's own: what it changes
  bool operator==(const Measure&) const = default;
};

/// What a layer of a skin costs where it is bought anew.
struct MaterialPrice {
  std::string material;
  double price_per_m2 = 0.0;
  bool operator==(const MaterialPrice&) const = default;
};

/// A crop that stands somewhere, by which a plan is judged beside its line.
struct CropStand {
  enum class In { house, bay, bed };
  std::string crop = "lettuce"; ///< an id of Crops
  In in = In::house;
  int bedCover = 1;        ///< in a bed: under which cover, from 1
  bool inPots = false;     ///< its roots; else they are in the floor's soil
  double pot_litres = 3.0; ///< of one pot
  [[nodiscard]] std::size_t bed() const { return static_cast<std::size_t>(std::max(bedCover, 1) - 1); }
  bool operator==(const CropStand&) const = default;
};

/// What a fuel costs, whether a heater of the plan takes it or not.
struct FuelPrice {
  Carrier fuel = Carrier::propane;
  std::string boughtBy = "kWh";
  double price_kWh = 0.0; ///< of a net kWh in it
  bool operator==(const FuelPrice&) const = default;
};

struct Prices {
  std::string currency = "EUR";
  double electricity_per_kWh = 0.30;            ///< in the hours of none of the windows
  std::vector<TariffWindow> electricityWindows; ///< hours with a price of their own; the first that holds an hour counts
  double electricityStanding_per_day = 0.0;     ///< charged whether any is taken or not
  double electricitySpread = 0.0;               ///< share by which a kWh may come out dearer or cheaper
  double electricityCarbon_kg_kWh = 0.3;        ///< carbon dioxide of a kWh, where it is made
  double carbon_per_tonne = 0.0;                ///< money for a tonne of carbon dioxide, beside what prices have of it; 0: none
  double interest = 0.04;
  double hour = 0.0; ///< the grower's own hour; hours are shown even when it is 0
  std::vector<MaterialPrice> materials;
  std::vector<FuelPrice> fuels; ///< to compare heaters by; those of the plan have prices of their own
  [[nodiscard]] Tariff electricity() const {
    return {.windows = electricityWindows, .price_per_kWh = electricity_per_kWh, .standing_per_day = electricityStanding_per_day};
  }
  bool operator==(const Prices&) const = default;
};

/// What readings say of this house beside what its parts add up to: factors found by a fit (core/fit/calibrate.h).
struct Calibration {
  double skin = 1.0;     ///< on what its covers let through
  double draughts = 1.0; ///< on air changes
  double mass = 1.0;     ///< on the heat that crop, trays and benches hold
  double ground = 1.0;   ///< on the soil's conductivity and the air's film over it: how readily the ground takes and gives
  double sun = 1.0;      ///< on the light that is taken up
  std::string date;      ///< when it was found
  /// Of the logarithms of the factors, in their order here: the lower triangle of their covariance, row by row (15 numbers). Empty: not known.
  std::vector<double> logCovariance = {};
  bool operator==(const Calibration&) const = default;
};

/// What the search for least cost must keep to.
struct Ask {
  int missesAllowed = 0;                      ///< nights below hold_C that are accepted, in each room that has a line
  std::optional<double> coldAllowed_K_h = {}; ///< in place of nights: degree-hours a winter below hold_C that are accepted
  std::optional<double> rareNight_years = {}; ///< a night as cold as comes once in so many years is held too, by Site::annualLows_C
  bool anyHeaterOut = false;                  ///< with any one heater out for the whole winter it holds too
  std::optional<double> mainsOff_h = {};      ///< a power cut of so many hours at the worst moment crosses no line
  std::optional<double> hoursPerWeek = {}; ///< of work that there is time for
  std::optional<double> toSpend = {};      ///< money there is for kit, all of it now
  std::optional<double> supply_kW = {};    ///< that all electric heaters together may take
  std::optional<double> trench_m = {};     ///< metres that may be dug: pipes and skirt
  std::optional<double> fuelStore_kWh = {}; ///< fuel for a winter that there is room for
  bool noFireAsleep = false;                ///< nothing is put on a fire between 23 and 6
  bool operator==(const Ask&) const = default;
};

struct Plan {
  std::string name;
  Site site;
  House house;
  Setpoints setpoints;
  std::vector<Barrels> barrels;
  std::vector<GroundPipes> groundPipes;
  std::vector<CompostPile> compost;
  std::vector<WaterLoop> waterLoops;
  std::vector<SoilCable> soilCables;
  std::vector<MassBlock> mass;
  int warmUp_days = 75; ///< that stores are run before the log begins, in the weather the place has then
  std::vector<Heater> heaters;
  std::vector<Kit> kit;
  std::vector<Measure> measures;
  std::vector<OwnMaterial> materials; ///< beside those of the table
  std::vector<CropStand> crops;
  std::vector<OwnCrop> ownCrops; ///< beside those of the table
  Prices prices;
  std::optional<Calibration> calibration;
  Ask ask;
  bool operator==(const Plan&) const = default;
};

/// Problems that only show between fields; ranges are checked when reading.
Problems check(const Plan& plan);

} // namespace muffle
