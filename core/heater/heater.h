// SPDX-License-Identifier: GPL-3.0-or-later
//
// A heater of a plan, and what its kind is: a row of one table.
#pragma once

#include <array>
#include <cstddef>
#include <string>
#include <string_view>

namespace muffle {

/// What is bought for it.
enum class Carrier { electricity, fuel };

enum class HeaterKind { electric, boiler };
constexpr int kHeaterKindCount = 2;

/// What a heater heats: the air of a room, or the water of a tank.
struct HeaterPlace {
  enum class Of { house, bay, tank, unknown };
  Of of = Of::house;
  std::size_t tank = 0; ///< among the plan's water loops
  bool operator==(const HeaterPlace&) const = default;
};
/// "house", "bay", "tank:1"
std::string placeId(const HeaterPlace& place);
/// Unknown for what is none.
HeaterPlace heaterPlace(std::string_view id);

struct HeaterKindFacts {
  HeaterKind kind;
  const char* id; ///< in a plan's JSON
  Carrier carrier;
  bool inRooms, inTanks; ///< may stand there
};
const std::array<HeaterKindFacts, kHeaterKindCount>& heaterKinds();
const HeaterKindFacts& factsOf(HeaterKind kind);

struct Heater {
  std::string id = {}; ///< by which results and failures call it; of its own in a plan
  std::string name = "electric heater";
  HeaterKind kind = HeaterKind::electric;
  HeaterPlace place = {};
  double power_W = 3000.0;    ///< heat that it gives at most
  double stage_K = 0.0;       ///< its thermostat stands so far below the setpoint: of several the lowest gives first
  double efficiency = 1.0;    ///< heat given for a kWh of what it takes
  double fuelPrice_kWh = 0.0; ///< kinds that burn: for a kWh in the fuel
  double holds_C = 60.0;      ///< of a tank
  double from_h = 17.0;       ///< by the clock of the place, it may give heat
  double for_h = 24.0;        ///< and for so long; 24: day and night
  double price = 0.0;         ///< bought with this plan; 0 if already owned
  double life_years = 10.0;
  bool operator==(const Heater&) const = default;
};

} // namespace muffle
