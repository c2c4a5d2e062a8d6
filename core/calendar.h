// SPDX-License-Identifier: GPL-3.0-or-later
//
// Calendar and time zones. Everywhere else time is whole seconds since 1970-01-01T00:00:00Z (UtcSeconds).
// Zone rules come from the system's tz database.
#pragma once

#include "core/status.h"

#include <cstdint>
#include <optional>
#include <string>
#include <string_view>
#include <utility>

namespace muffle {

using UtcSeconds = std::int64_t;

/// A calendar date, proleptic Gregorian.
struct Date {
  int year = 1970;
  unsigned month = 1; ///< 1..12
  unsigned day = 1;   ///< 1..31
  auto operator<=>(const Date&) const = default;
};

[[nodiscard]] bool isValid(const Date& date);
/// Days since 1970-01-01.
std::int64_t daysSinceEpoch(const Date& date);
Date dateFromDays(std::int64_t days);
/// 1 on 1 January.
int dayOfYear(const Date& date);
std::string isoDate(const Date& date);
std::optional<Date> parseIsoDate(std::string_view text);

/// A time zone by its database name ("Europe/Lisbon"), or a fixed offset ("+02:00", "UTC").
class TimeZone {
public:
  static Result<TimeZone> named(std::string_view name);
  static TimeZone utc();

  [[nodiscard]] const std::string& name() const { return m_name; }
  /// Local clock minus UTC at an instant, s.
  [[nodiscard]] int offset_s(UtcSeconds at) const;
  /// The instant a wall clock showed. In the hour that daylight saving repeats, `later` chooses the second pass; in
  /// the hour that it skips the answer is the change itself.
  [[nodiscard]] UtcSeconds fromLocal(std::int64_t localSeconds, bool later = false) const;
  /// True if the wall clock showed this time twice.
  [[nodiscard]] bool isAmbiguous(std::int64_t localSeconds) const;

  [[nodiscard]] Date localDate(UtcSeconds at) const;
  /// Hours since local midnight, 0..24.
  [[nodiscard]] double localHour(UtcSeconds at) const;
  /// "2031-01-17T05:10:00+01:00".
  [[nodiscard]] std::string iso(UtcSeconds at) const;

  /// The clock's distance from UTC, and from when until when it stays so.
  struct Rule {
    UtcSeconds from, to;
    int offset_s;
  };
  [[nodiscard]] Rule ruleAt(UtcSeconds at) const;

private:
  std::string m_name = "UTC";
  const void* m_zone = nullptr; ///< date::time_zone, owned by the tz library for the life of the process
  int m_fixed_s = 0;
};

/// The clock of a place, read at many moments that follow each other: the zone's rule is looked up only where it changes.
class LocalClock {
public:
  explicit LocalClock(TimeZone zone) : m_zone(std::move(zone)) {}
  /// Hours since local midnight, 0..24, as TimeZone::localHour() has them.
  [[nodiscard]] double hour(UtcSeconds at) {
    const std::int64_t local = local_s(at);
    return static_cast<double>(((local % 86400) + 86400) % 86400) / 3600.0;
  }
  /// Which hour of the local week it is, 0..167 from Monday 0:00.
  [[nodiscard]] int hourOfWeek(UtcSeconds at) {
    constexpr std::int64_t kWeek_s = 7 * 86400, kMonday_s = 3 * 86400; // the epoch was a Thursday
    return static_cast<int>((((local_s(at) + kMonday_s) % kWeek_s) + kWeek_s) % kWeek_s / 3600);
  }

private:
  std::int64_t local_s(UtcSeconds at) {
    if (at < m_rule.from || at >= m_rule.to) m_rule = m_zone.ruleAt(at);
    return at + m_rule.offset_s;
  }
  TimeZone m_zone;
  TimeZone::Rule m_rule{1, 0, 0};
};

} // namespace muffle
