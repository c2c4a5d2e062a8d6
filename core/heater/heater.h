// SPDX-License-Identifier: GPL-3.0-or-later
//
// A heater of a plan, and what its kind is: a row of one table.
#pragma once

#include "core/heater/carrier.h"

#include <array>
#include <cstddef>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace muffle {

enum class HeaterKind {
  electric,
  boiler,
  tube,
  radiant,
  lamps,
  growLight,
  propane,
  propaneUnvented,
  gas,
  gasUnvented,
  paraffinUnvented,
  oil,
  pelletStove,
  woodStove,
  candles,
  heatPump,
  district,
  propaneRadiant,
  massStove
};
constexpr int kHeaterKindCount = 19;

/// What decides how much it gives.
enum class HeatControl {
  thermostat, ///< as much as holds the setpoint, up to its size
  clock,      ///< all of it, in its hours
  batches     ///< what its loads burn, put on by hand
};

/// What a heater heats: the air of a room or under a bed cover, the water of a tank, or a heavy thing in the house from within.
struct HeaterPlace {
  enum class Of { house, bay, tank, bed, mass, unknown };
  Of of = Of::house;
  std::size_t index = 0; ///< among the plan's water loops, bed covers or masses
  bool operator==(const HeaterPlace&) const = default;
  /// Its thermostat holds a temperature of its own (Heater::holds_C), not a room's setpoints.
  [[nodiscard]] bool holdsItsOwn() const { return of == Of::tank || of == Of::bed || of == Of::mass; }
  /// What it gives goes to the air that people stand in, at once or through a cover.
  [[nodiscard]] bool isRoom() const { return of == Of::house || of == Of::bay || of == Of::bed; }
};
/// "house", "bay", "tank:1", "bed:1", "mass:1"
std::string placeId(const HeaterPlace& place);
/// Unknown for what is none.
HeaterPlace heaterPlace(std::string_view id);

struct HeaterKindFacts {
  HeaterKind kind;
  const char* id; ///< in a plan's JSON
  Carrier carrier;
  bool inRooms, inTanks; ///< may stand there
  bool inBeds, inMass;   ///< under a bed cover, or within a bench, path or wall
  HeatControl control;
  double efficiency;   ///< usual: heat given for a net kWh taken; of a heat pump at 7 C
  double radiantShare; ///< of the heat, to floor and covers instead of the air
  bool hasFlue;        ///< else what burning makes stays in the room
  bool needsMains;
  double ownPower; ///< W of electricity beside, for a W of heat
  double least;    ///< of its size, what it can give on end: below that it goes on and off; 1: it is on or off, 0: it gives any part
  double startUp_s;       ///< from its thermostat's call until it gives heat
  double leastRun_s;      ///< that a start is worth: shorter ones wear it and foul it; 0: it does not mind
  double rise_s, ember_s; ///< of a load: to its plateau, and the embers' decay; 0 where nothing is loaded
};
/// Efficiencies, radiant shares: EN 13384, EN 16510 (stoves), EN 14785 (pellets), EN 1020 and EN 17082 (air heaters), EN 15250 (slow heat release),
/// manufacturers' usual figures for tubes and infrared panels. Own power: EN 15316-4-1 for burners with fans. Least output, starts and runs: EN 14785 (pellets
/// burn down to a third, light in about ten minutes), EN 14825 (heat pumps), makers' usual figures for burners.
const std::array<HeaterKindFacts, kHeaterKindCount>& heaterKinds();
const HeaterKindFacts& factsOf(HeaterKind kind);

/// What a heat pump gives and takes at full stretch, by the air outside; between points in a straight line, beyond them as at the last.
struct HeatPumpPoint {
  double outside_C = 7.0;
  double capacity = 1.0; ///< of its size
  double cop = 3.5;
  bool operator==(const HeatPumpPoint&) const = default;
};
/// An air source pump: EN 14511 ratings at 7, 2 and -7 C as usual sheets have them.
std::vector<HeatPumpPoint> usualHeatPump();

/// How a stove is fed.
struct Stoking {
  double load_kg = 6.0;      ///< of wood, as it is put on
  double moisture = 0.18;    ///< of it, 0..0.6
  int loads = 2;             ///< a night
  double every_h = 3.0;      ///< from one to the next
  double hoursPerLoad = 0.2; ///< of work
  bool operator==(const Stoking&) const = default;
};

/// How much of what it takes it turns into heat at a part of its size, by its efficiency at full stretch; between points in a straight line.
struct PartLoadPoint {
  double load = 1.0;   ///< of its size, 0..1
  double factor = 1.0; ///< on its efficiency
  bool operator==(const PartLoadPoint&) const = default;
};

/// How its fuel comes to the yard, by the unit it is bought in.
struct Delivery {
  double units = 0.0;       ///< at a time; 0: fetched as it is taken
  double charge = 0.0;      ///< money for each, beside the fuel
  double stock_units = 0.0; ///< in the yard as winter begins
  bool operator==(const Delivery&) const = default;
};

struct Heater {
  std::string id = {};   ///< by which results and failures call it; of its own in a plan
  std::string name = {}; ///< without one it goes by its kind
  HeaterKind kind = HeaterKind::electric;
  HeaterPlace place = {};
  double power_W = 3000.0;                        ///< heat that it gives at most
  double stage_K = 0.0;                           ///< its thermostat stands so far below the setpoint: of several the lowest gives first
  std::optional<double> efficiency = {};          ///< heat given for a net kWh of what it takes; without it the kind's usual
  Carrier burns = Carrier::fuel;                  ///< of a boiler or wood stove; `fuel`: what is usual for its kind
  double fuelPrice_kWh = 0.0;                     ///< for a net kWh of what it takes, unless that is electricity
  double fuelPriceSpread = 0.0;                   ///< share by which that may come out dearer or cheaper
  std::string boughtBy = "kWh";                   ///< the unit in which that is bought
  double hoursPerUnit = 0.0;                      ///< of work to fetch, change or fill one
  Delivery delivery = {};
  double holds_C = 60.0;                          ///< of a tank, of the air under a bed cover, or at the surface of a bench, path or wall
  double from_h = 17.0;                           ///< by the clock of the place, it may give heat
  double for_h = 24.0;                            ///< and for so long; 24: day and night
  std::optional<double> onlyBelow_C = {};         ///< outside: locked out while it is warmer
  std::optional<double> onlyAbove_C = {};         ///< outside: locked out while it is colder
  std::optional<double> beforeNightsBelow_C = {}; ///< only from noon to noon about a night whose low is below that
  std::optional<double> onlyBelowPrice_kWh = {};  ///< electric: only in hours in which a kWh costs less
  double sensorError_K = 0.0;                     ///< that its thermostat reads too warm
  std::optional<double> band_K = {};              ///< its thermostat goes on so far below where it goes off, half to either side of the setpoint
  std::optional<double> least = {};               ///< of its size, that it can give on end; without it the kind's usual
  std::optional<double> startUp_min = {};         ///< until it gives heat; without it the kind's usual
  double standby_W = 0.0;                         ///< of what it takes, while it may give and does not: a pilot flame, electronics
  std::vector<PartLoadPoint> partLoad = {};       ///< by rising load; empty: as at full stretch
  std::vector<HeatPumpPoint> heatPump = {};       ///< by rising outside_C; empty: usualHeatPump(), of delivered heat always all of it
  double defrostBelow_C = 5.0;                    ///< outside, a heat pump loses a share to its own ice
  double defrostLoss = 0.08;                      ///< of what it gives
  Stoking stoking = {};
  std::string tendedBy = {}; ///< who lights, loads and refuels it; empty: whoever grows there
  double stirs_m3_h = 0.0;   ///< of the house's air that its fan moves while it gives (core/house/stirred_air.h); 0: next to none
  int through = 0;         ///< which mass of the plan, from 1, its flue leads through; 0: none
  double massShare = 0.65; ///< of the heat it gives, to that
  double price = 0.0; ///< bought with this plan; 0 if already owned
  double life_years = 10.0;
  std::optional<double> x_m = {}; ///< where it stands across the house, for the drawing; without it where there is usually room
  bool operator==(const Heater&) const = default;
};

double efficiencyOf(const Heater& heater);
Carrier carrierOf(const Heater& heater);
/// What it gives and takes at an outside temperature: of a heat pump by its points, its ice and its cut-out.
HeatPumpPoint heatPumpAt(const Heater& heater, double outside_C);

/// Of the heat it gives, what does not go into the mass that its flue leads through.
inline double toRoom(const Heater& heater) { return heater.through > 0 ? 1.0 - heater.massShare : 1.0; }
/// Of its size, that it can give on end.
double leastOf(const Heater& heater);
double startUp_s(const Heater& heater);
/// On its efficiency, at a part of its size.
double partLoadFactor(const Heater& heater, double load);

/// How a load burns: its power rises, stands, and dies away as embers do.
struct BurnCurve {
  double rise_s, plateau_s, ember_s;
  double peak_W; ///< heat given on the plateau
  /// Heat given from lighting to a time after it, J.
  [[nodiscard]] double given_J(double t_s) const;
  [[nodiscard]] double given_W(double t_s) const; ///< at that time
};
/// Of one load in that stove: at its size, or less where the load is too small for a plateau.
BurnCurve burnCurve(const Heater& stove);

} // namespace muffle
