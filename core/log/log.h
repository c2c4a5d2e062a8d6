// SPDX-License-Identifier: GPL-3.0-or-later
//
// Readings over time. Raw values are never changed: a flag beside a value says what is wrong with it, and clean()
// answers what may be used. Temperatures degC, wind m/s, sun W/m2, power W, rain mm, humidity %.
#pragma once

#include "core/calendar.h"

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

enum class Flag : std::uint8_t { none = 0, outOfRange = 1, spike = 2, stuck = 3, fahrenheit = 4, duplicateTime = 5 }; // stored: never renumber

struct Channel {
  std::string name;
  Role role = Role::note;
  std::string id;         ///< of the room, store, ...
  std::string unitIn;     ///< as read: "C", "F", "m/s", ...
  std::string unitWhy;    ///< how the unit was decided
  std::vector<float> raw; ///< converted to the channel's unit, NaN where missing
  std::vector<std::uint8_t> flag;

  [[nodiscard]] std::string unit() const;
  [[nodiscard]] double clean(std::size_t i) const {
    const auto f = static_cast<Flag>(flag[i]);
    if (f == Flag::none) return raw[i];
    if (f == Flag::fahrenheit) return (raw[i] - 32.0) / 1.8;
    return std::numeric_limits<double>::quiet_NaN();
  }
};

struct Log {
  std::string name;
  std::vector<UtcSeconds> time;  ///< strictly increasing
  std::vector<Channel> channels; ///< raw and flag have the size of time

  [[nodiscard]] const Channel* find(Role role, const std::string& id = {}) const;
  /// Median step between readings, s; 0 with fewer than two.
  [[nodiscard]] double step_s() const;
};

/// A stretch of trouble, for people.
struct LogProblem {
  std::string kind;
  std::string channel;
  UtcSeconds from = 0;
  UtcSeconds to = 0;
  long count = 0;
  std::string why;
};

/// Sets flags (out of range, spike, stuck, a stretch in Fahrenheit) and lists them together with gaps.
std::vector<LogProblem> flagProblems(Log& log);

} // namespace muffle
