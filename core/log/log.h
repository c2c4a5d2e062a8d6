// SPDX-License-Identifier: GPL-3.0-or-later
//
// Readings over time. Raw values are never changed: a flag beside a value says what is wrong with it, and clean()
// answers what may be used. Temperatures degC, wind m/s, sun W/m2, power W, rain mm, humidity %.
#pragma once

#include "core/calendar.h"
#include "core/message.h"

#include <cmath>
#include <cstdint>
#include <limits>
#include <string>
#include <vector>

namespace muffle {

enum class Role : std::uint8_t {
  outside = 0,
  room = 1,
  soil = 2,
  store = 3,
  cover = 4,
  wind = 5,
  sun = 6,
  humidity = 7,
  heater = 8,
  rain = 9,
  note = 10
}; // stored: never renumber

/// "outside", "room:house", "heater:1", ...
std::string roleText(Role role, const std::string& id);
bool isTemperature(Role role);

/// What a reading stands for: its moment, or the least or the most since the reading before (a max/min thermometer).
enum class Statistic : std::uint8_t { moment = 0, lowest = 1, highest = 2 }; // stored: never renumber

enum class Flag : std::uint8_t {
  none = 0,
  outOfRange = 1,
  spike = 2,
  stuck = 3,
  fahrenheit = 4, ///< converted, and used
  duplicateTime = 5,
  sun = 6,     ///< the sensor stood in the sun
  swapped = 7, ///< with another sensor
  drift = 8,   ///< noted; the reading is used
  byHand = 9,  ///< set aside by the grower
  clock = 10   ///< the logger's clock jumped or is off; noted, the reading is used
};             // stored: never renumber

struct Channel {
  std::string name;
  Role role = Role::note;
  std::string id; ///< of the room, store, ...
  Statistic statistic = Statistic::moment;
  std::string unitIn;     ///< as read: "C", "F", "m/s", ...
  Message unitWhy;        ///< how the unit was decided
  std::vector<float> raw; ///< converted to the channel's unit, NaN where missing
  std::vector<std::uint8_t> flag;

  [[nodiscard]] std::string unit() const;
  [[nodiscard]] double clean(std::size_t i) const {
    const auto f = static_cast<Flag>(flag[i]);
    if (f == Flag::none || f == Flag::drift || f == Flag::clock) return raw[i];
    if (f == Flag::fahrenheit) return (raw[i] - 32.0) / 1.8;
    return std::numeric_limits<double>::quiet_NaN();
  }
};

enum class Verdict : std::uint8_t { open = 0, accepted = 1, dismissed = 2, setAside = 3 }; // stored: never renumber

/// What the grower said of a stretch: that a flag is right, that it is wrong (the readings are used), or that readings nothing was
/// found against are to be set aside.
struct Decision {
  Verdict verdict = Verdict::open;
  Flag flag = Flag::none; ///< whose flags are meant; byHand where readings are set aside
  int channel = -1;       ///< index; -1 all
  UtcSeconds from = 0, to = 0;
  bool operator==(const Decision&) const = default;
};

/// A stretch of trouble, for people.
struct LogProblem {
  std::string kind;
  std::string channel; ///< its name; empty where all are meant
  UtcSeconds from = 0;
  UtcSeconds to = 0;
  long count = 0;
  Message why;
  Flag flag = Flag::none;
  int index = -1; ///< of the channel
  Verdict verdict = Verdict::open;
};

struct Log {
  std::string name;
  std::vector<UtcSeconds> time;  ///< strictly increasing
  std::vector<Channel> channels; ///< raw and flag have the size of time
  std::vector<Decision> decisions;
  std::vector<LogProblem> notes; ///< what reading the file brought to light: rows left out, a clock that went back

  [[nodiscard]] const Channel* find(Role role, const std::string& id = {}, Statistic statistic = Statistic::moment) const;
  /// Median step between readings, s; 0 with fewer than two.
  [[nodiscard]] double step_s() const;
};

} // namespace muffle
