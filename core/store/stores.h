// SPDX-License-Identifier: GPL-3.0-or-later
//
// Stores of heat that a plan may have beside its barrels: pipes in the ground, piles of compost, water that goes round, and
// cables that warm the soil of a bed.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace muffle {

struct MonthDay {
  unsigned month, day;
};
/// Of "11-01"; nothing if there is no such day in every year.
std::optional<MonthDay> parseMonthDay(std::string_view text);

constexpr double kRuleBand_K = 1.0; // that a fan or pump runs past its line

/// By the warmth of the house's air, when a fan or pump runs. A kelvin past either line it stops again.
struct StoreRule {
  double chargeAbove_C = 20.0; ///< the house gives to the store
  double giveBelow_C = 5.0;    ///< the store gives to the house; < chargeAbove_C
  bool operator==(const StoreRule&) const = default;
};

enum class PipePlace { underFloor, beside };
/// Which room's air comes out of pipes: a zone.
enum class PipeOutlet { house, bay, bed };

/// Pipes in the ground through which a fan blows the house's air, out of it and back into it.
struct GroundPipes {
  std::string name = {}; ///< empty: it goes by what it is
  PipePlace place = PipePlace::underFloor;
  int count = 6;           ///< side by side, each with its share of the fan's air
  double length_m = 8.0;   ///< of each, in the ground
  double diameter_m = 0.1; ///< inside
  double depth_m = 0.6;    ///< of their axes, below the floor or the open ground
  double spacing_m = 0.5;  ///< between axes
  bool ribbed = true;      ///< drain pipe; else smooth
  double fan_m3_h = 600.0; ///< of the fan, blowing free
  double fan_Pa = 150.0;   ///< of the fan, against a shut duct
  StoreRule rule = {};
  PipeOutlet serves = PipeOutlet::house;
  int bed = 0;               ///< which bed cover they serve, from 0
  double board_m2K_W = 0.0;  ///< insulation under a pipe bed, half a metre below the pipes
  double sides_m2K_W = 0.0;  ///< insulation on its sides, down to the same depth
  double collector_m2 = 0.0; ///< solar, outside, whose water warms the soil at the pipes; 0: none
  double collectorTilt_deg = 60.0;
  double price = 0.0; ///< of all of it, 0 if already owned
  double life_years = 20.0;

  /// Ground that the pipes take up.
  [[nodiscard]] double bed_m2() const { return count * spacing_m * length_m; }
  bool operator==(const GroundPipes&) const = default;
};

enum class MassKind { wall, path, raisedBed, bench };
enum class MassMaterial { stone, brick, concrete, earth, soil };
constexpr int kMassMaterialCount = 5;

/// Heavy things in the house: a wall that stands free in it, a path or slab on its floor, a raised bed, a heavy bench. Layered solids that take sun and
/// long-wave like the floor.
struct MassBlock {
  std::string name = {}; ///< empty: it goes by what it is
  MassKind kind = MassKind::wall;
  MassMaterial material = MassMaterial::stone;
  double area_m2 = 6.0; ///< of one face of a wall; seen from above of the others
  double thickness_m = 0.3;
  double sunShare = 0.5;          ///< of a wall's face that the sun reaches
  double width_m = 1.2;           ///< of a raised bed, from board to board; of a path or bench
  double sides_m2K_W = 0.2;       ///< of a raised bed's boards
  std::optional<double> x_m = {}; ///< where it stands across the house, for the drawing; without it where such things usually do
  double price = 0.0;
  double life_years = 40.0;
  bool operator==(const MassBlock&) const = default;
};

/// So much of one thing in a pile.
struct PileIngredient {
  std::string ingredient = "horse-manure";
  double wet_kg = 500.0;
  std::optional<double> moisture = {}; ///< water of the wet mass; without it the table's
  bool operator==(const PileIngredient&) const = default;
};

/// Under soil in the house, in a shed against it that air passes through, or out of doors with a coil of water pipe in it.
enum class PilePlace { hotBed, chamber, mound };
/// What the coil in a mound warms: the house by a radiator of its own, or the tank of a water loop.
enum class CoilInto { house, tank };

constexpr double kTopUp = 0.2;     ///< of the recipe
constexpr double kWateredTo = 0.6; ///< of the wet mass

/// Compost as a heater: a pile, or several alike built one after the other.
struct CompostPile {
  std::string name = {}; ///< empty: it goes by what it is
  PilePlace place = PilePlace::hotBed;
  std::vector<PileIngredient> recipe;
  double water_kg = 0.0; ///< poured on while building
  double width_m = 1.2;  ///< of its foot
  double length_m = 2.0;
  std::string built = "11-01"; ///< month and day
  int piles = 1;
  double everyDays = 30.0;             ///< from one pile to the next; at each place only the last one built stands
  double jacket_m2K_W = 0.8;           ///< of straw or boards round it, where no soil is; of a chamber against the pile and in the shed's walls
  std::optional<double> tipped_C = {}; ///< its stuff's temperature when it is built; without it as it lay in the yard
  double buried = 0.0;                 ///< share of its sides that stands in the ground, 0..1
  double blown_m3_h = 0.0;             ///< air blown through; 0: it draws its own
  double airiness = 1.0;               ///< of its draught: 0.5 trodden down, 2 with pipes through it
  double topUpEvery_days = 0.0;        ///< 0: never; a fifth of the recipe each time
  double waterBelow = 0.0;             ///< of the wet mass, at which it is watered to 0.6; 0: never
  double k20Factor = 1.0;              ///< on its rate, as a logged core temperature has it
  double soil_m = 0.2;                 ///< hot bed: of soil over it
  double fan_m3_h = 0.0;               ///< chamber: between it and the house; 0: by openings alone
  double opening_m2 = 0.2;             ///< chamber: of each of the two, low and high
  double coil_m = 60.0;                ///< mound: of water pipe in it
  double coilFlow_l_min = 6.0;
  CoilInto coilInto = CoilInto::house;
  int tank = 0;                   ///< mound: which water loop's, from 0
  double radiator_W_K = 60.0;     ///< mound: of what gives the water's heat to the house
  double giveBelow_C = 6.0;       ///< fan or pump run while the house is colder
  std::optional<double> x_m = {}; ///< where it stands across the house, for the drawing; without it where such piles usually do
  double hoursToBuild = 6.0;      ///< of work, for each pile
  double price = 0.0;             ///< of a pile's materials
  bool operator==(const CompostPile&) const = default;
};

/// A tank whose water goes round through something that gives heat to the house and takes it: a radiator, a bench, pipes along the beds.
struct WaterLoop {
  std::string name = {}; ///< empty: it goes by what it is
  double litres = 500.0;
  double tankLoss_W_K = 3.0;   ///< of the tank, into the house where it stands
  double flow_l_min = 10.0;    ///< of the pump
  double radiator_W_K = 150.0; ///< with a fan or a bench's whole length
  double radiator_l = 0.0;     ///< water in drums or a bench that it goes through; they go on giving while the pump rests. 0: next to none
  StoreRule rule = {};
  double collector_m2 = 0.0; ///< solar, outside; 0: none
  double collectorTilt_deg = 60.0;
  std::optional<double> x_m = {}; ///< where the tank stands across the house, for the drawing
  double pump_W = 30.0;
  double price = 0.0;
  double life_years = 15.0;
  bool operator==(const WaterLoop&) const = default;
};

/// Between on and off of a thermostat in air whose plan gives none: the usual mechanical one.
constexpr double kCableBand_K = 1.0;

/// What a cable's thermostat feels.
enum class CableSensor { soil, air }; ///< beside the cable, or among the leaves over the bed

/// A cable that warms the soil of the bed under a bed cover, with a thermostat of its own.
struct SoilCable {
  std::string name = {}; ///< empty: it goes by what it is
  int bed = 0; ///< which of the bed covers, from 0
  double watts_per_m = 15.0;
  double length_m = 20.0; ///< on all beds of that kind together
  double depth_m = 0.14;
  double setpoint_C = 12.0; ///< it goes on below that
  CableSensor sensor = CableSensor::soil;
  std::optional<double> off_C = {}; ///< and off above this; without it soil is held at the setpoint as it is, and air goes by kCableBand_K
  double price = 0.0;
  double life_years = 12.0;
  bool operator==(const SoilCable&) const = default;
};

} // namespace muffle
