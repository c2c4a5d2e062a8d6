// SPDX-License-Identifier: GPL-3.0-or-later
//
// Turns a plan and a winter's weather into a Network: rooms of moist air, each skin's sheets, the floor and the soil under
// it, crop, barrels, vents, draughts and heaters. docs/model.md lists every coefficient with its source.
#pragma once

#include "core/assemble/sun_on_house.h"
#include "core/network/network.h"
#include "core/plan/rooms.h"
#include "core/plan/store_list.h"
#include "core/weather/weather.h"

#include <algorithm>
#include <optional>
#include <string>
#include <variant>
#include <vector>

namespace muffle {

/// Where heat leaves by, in the order that reports list them.
enum class LossPath { roof, sides, ends, backWall, draughts, vents, floorEdge, deepGround };
constexpr int kLossPathCount = 8;
const char* lossPathId(LossPath part);

/// What a node holds of a store's heat.
struct HeldHeat {
  int node = -1;
  double capacity_J_K = 0.0; ///< thawed
  std::optional<FreezingWater> water = {};
};

/// Of a pile of compost.
struct PileHandles {
  int core = -1;             ///< boundary at its temperature
  int air = -1, vapour = -1; ///< that it breathes; -1: the weather's
  bool hasCoil = false;      ///< whose pump rests while the pile is too cool; the store runner counts its hours
  int coilWarms = -1;        ///< node; -1: the house's air, or no coil
  struct Breath {
    int sensible, latent; ///< sources of what its air carries into the house
  };
  std::optional<Breath> breath = {};
};
/// Of barrels with an upper and a lower half: sources that stand for water which turns over.
struct LayeredHandles {
  int upper = -1, lower = -1;
};
struct CableHandles {
  int thermostat = -1;
};
/// Of a solar collector out of doors.
struct CollectorHandles {
  int source = -1;
  int warms = -1; ///< node
  double area_m2 = 0.0;
  double tilt_deg = 0.0;
  double above_K = 0.0;          ///< its water is warmer than what it goes to by
  double stops_C = 85.0;         ///< that is too hot to take more
  std::vector<double> W_m2 = {}; ///< on it, by step
};

/// A store as it stands in the network.
struct StoreNodes {
  StoreKind kind = StoreKind::barrels;
  std::size_t index = 0;            ///< among the plan's of its kind
  std::vector<int> node = {};       ///< whose temperatures tell of it, in the order of storeTraces(), a pile's own apart
  std::vector<int> giving = {};     ///< links that bring its heat into the house
  std::vector<int> taking = {};     ///< links the other way
  std::vector<HeldHeat> holds = {}; ///< its heat; not of a cable, nor of a pile, whose own is in what has yet to rot
  int runs = -1;                    ///< signal: 1 while fan or pump run; -1: neither
  double power_W = 0.0;             ///< that it takes then
  std::variant<std::monostate, PileHandles, LayeredHandles, CableHandles> own = {};
  std::optional<CollectorHandles> collector = {};
  [[nodiscard]] const PileHandles* pile() const { return std::get_if<PileHandles>(&own); }
  [[nodiscard]] const CableHandles* cable() const { return std::get_if<CableHandles>(&own); }
  [[nodiscard]] bool hasCoil() const { return pile() && pile()->hasCoil; }
};

struct Assembly {
  Network network;
  int air = -1;
  int vapour = -1; ///< humidity of the house's air, g/kg
  int floor = -1;
  int outside = -1;
  int sky = -1;
  int deep = -1;
  struct HeaterNodes {
    std::size_t index; ///< among the plan's
    int thermostat;
    HeaterPlace place;
    double counted = 1.0;                ///< of what the thermostat gives, the heater's own net heat; the rest is its water's
    std::vector<double> perHeat = {};    ///< by step: electricity for a J of heat; empty: by its efficiency
    std::vector<std::size_t> loads = {}; ///< of a stove: the steps at which one is put on
    std::vector<bool> may = {};          ///< by step, whether hours, weather and forecast let it give; empty: always
  };
  std::vector<HeaterNodes> heaters; ///< those that have any power
  int mains = -1;                   ///< commanded relay that fans and pumps hang on; -1 where there are none, or each has its own
  struct Fed {
    std::string what; ///< "fan:extract", "fan:bay", "fan:pipes 1"
    int relay;
  };
  std::vector<Fed> fed;                             ///< fans and pumps that can fail one by one; empty unless asked for
  int blanketStuckOpen = -1, blanketStuckShut = -1; ///< commanded relays; -1 unless asked for
  std::vector<int> electric;                        ///< thermostats that the mains feed
  [[nodiscard]] bool isElectric(int thermostat) const { return std::find(electric.begin(), electric.end(), thermostat) != electric.end(); }
  std::vector<StoreNodes> stores; ///< barrels, pipes, compost, loops, cables
  struct Room {
    int air = -1, vapour = -1;
    int floor = -1; ///< -1 in a roof void
  };
  std::vector<Room> rooms; ///< as otherRooms() lists them
  struct Fan {
    double power_W;
    int sensor = -1; ///< of the room that it follows; -1: by the clock
    double opens_C = 0.0, full_C = 0.0;
    std::vector<double> runs = {}; ///< by step: 1 while it may run; empty: always
  };
  std::vector<Fan> fans;
  std::vector<double> mayVent;       ///< by step: 1 where the rule lets vents and rolled sides open; empty where it always does
  std::vector<double> roofOpen;      ///< by step: 1 while the roof is drawn back; empty where none is
  std::vector<int> below;            ///< every soil node under a floor's surface
  int above = -1;                    ///< the radiation that a leaf over the house's floor sees above it
  std::vector<double> blanketClosed; ///< by step: 1 while it is, or may be by blanketRelay; empty without one
  int blanketRelay = -1;             ///< closes it, where the rule looks inside
  std::vector<int> soil;             ///< nodes downwards from the floor
  std::vector<double> soilDepth_m;
  std::vector<int> inner, outer;                ///< innermost and outermost sheet of roof, sides, ends; -1 where there is no such face
  std::vector<std::pair<int, LossPath>> losses; ///< link (vents after links) and the part it belongs to; flow leaves the house
  int light = -1;                               ///< signal: light that meets leaves and floor, W/m2 of floor
  int sunSources = 0;                           ///< sources 0..sunSources-1 are sun
};

/// Whether fans, pumps and the blanket can fail one by one in a scenario ("fan:extract", "blanket:open"); it costs a little in every step.
enum class Failable { no, yes };

/// By which a scenario knows a soil cable of the plan.
std::string cableId(std::size_t index);

/// The plan must have passed check(). Weather and sun must be of the same winter and shape; they are copied in.
/// `inside_C` is what the house is to be held at, where that is known.
Assembly assemble(const Plan& plan, const Winter& winter, const SunOnHouse& sun, std::optional<double> inside_C = {}, Failable failable = Failable::no);

/// Surface of one barrel that meets the air, and its silhouette: a drum 1.5 times as high as wide standing on the floor.
struct BarrelSize {
  double diameter_m, height_m, surface_m2, silhouette_m2;
};
BarrelSize barrelSize(double litres);
double barrelAbsorptance(BarrelColour colour);
/// Heat of a cubic metre of what barrels hold.
double fillingHeat_J_m3K(BarrelFilling filling);

} // namespace muffle
