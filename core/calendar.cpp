// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/calendar.h"

#include <date/tz.h>
#include <fmt/format.h>

#include <charconv>
#include <chrono>
#include <limits>

namespace muffle {
namespace {

namespace chr = std::chrono;

chr::year_month_day toChrono(const Date& d) { return chr::year{d.year} / chr::month{d.month} / chr::day{d.day}; }

const date::time_zone* asZone(const void* zone) { return static_cast<const date::time_zone*>(zone); }

/// "+02:00", "-0330", "Z" or "UTC" to seconds.
std::optional<int> parseOffset(std::string_view text) {
  if (text == "Z" || text == "UTC" || text == "utc") return 0;
  if (text.size() < 3 || (text[0] != '+' && text[0] != '-')) return std::nullopt;
  int hours = 0;
  int minutes = 0;
  const auto* digits = text.data() + 1;
  if (std::from_chars(digits, digits + 2, hours).ptr != digits + 2) return std::nullopt;
  std::string_view rest = text.substr(3);
  if (!rest.empty() && rest[0] == ':') rest.remove_prefix(1);
  if (!rest.empty()) {
    if (rest.size() != 2 || std::from_chars(rest.data(), rest.data() + 2, minutes).ptr != rest.data() + 2) return std::nullopt;
  }
  if (hours > 15 || minutes > 59) return std::nullopt;
  return (text[0] == '-' ? -1 : 1) * (hours * 3600 + minutes * 60);
}

} // namespace

bool isValid(const Date& date) { return toChrono(date).ok(); }

std::int64_t daysSinceEpoch(const Date& date) { return chr::sys_days{toChrono(date)}.time_since_epoch().count(); }

Date dateFromDays(std::int64_t days) {
  const chr::year_month_day ymd{chr::sys_days{chr::days{days}}};
  return {int{ymd.year()}, unsigned{ymd.month()}, unsigned{ymd.day()}};
}

int dayOfYear(const Date& date) { return static_cast<int>(daysSinceEpoch(date) - daysSinceEpoch({date.year, 1, 1})) + 1; }

std::string isoDate(const Date& date) { return fmt::format("{:04}-{:02}-{:02}", date.year, date.month, date.day); }

std::optional<Date> parseIsoDate(std::string_view text) {
  if (text.size() != 10 || text[4] != '-' || text[7] != '-') return std::nullopt;
  Date d;
  const auto* p = text.data();
  if (std::from_chars(p, p + 4, d.year).ptr != p + 4 || std::from_chars(p + 5, p + 7, d.month).ptr != p + 7 ||
      std::from_chars(p + 8, p + 10, d.day).ptr != p + 10 || !isValid(d)) {
    return std::nullopt;
  }
  return d;
}

TimeZone TimeZone::utc() { return {}; }

Result<TimeZone> TimeZone::named(std::string_view name) {
  TimeZone zone;
  zone.m_name = std::string(name);
  if (const auto fixed = parseOffset(name)) {
    zone.m_fixed_s = *fixed;
    return zone;
  }
  try {
    zone.m_zone = date::locate_zone(zone.m_name);
  } catch (const std::exception&) {
    return Problem{ProblemKind::badInput, "", Message{"place.not-known-time-zone", name}, Message{"place.zone-as"}};
  }
  return zone;
}

int TimeZone::offset_s(UtcSeconds at) const {
  if (!m_zone) return m_fixed_s;
  return static_cast<int>(asZone(m_zone)->get_info(date::sys_seconds{chr::seconds{at}}).offset.count());
}

TimeZone::Rule TimeZone::ruleAt(UtcSeconds at) const {
  if (!m_zone) return {std::numeric_limits<UtcSeconds>::min(), std::numeric_limits<UtcSeconds>::max(), m_fixed_s};
  const auto info = asZone(m_zone)->get_info(date::sys_seconds{chr::seconds{at}});
  return {info.begin.time_since_epoch().count(), info.end.time_since_epoch().count(), static_cast<int>(info.offset.count())};
}

bool TimeZone::isAmbiguous(std::int64_t localSeconds) const {
  if (!m_zone) return false;
  return asZone(m_zone)->get_info(date::local_seconds{chr::seconds{localSeconds}}).result == date::local_info::ambiguous;
}

UtcSeconds TimeZone::fromLocal(std::int64_t localSeconds, bool later) const {
  if (!m_zone) return localSeconds - m_fixed_s;
  const auto info = asZone(m_zone)->get_info(date::local_seconds{chr::seconds{localSeconds}});
  if (info.result == date::local_info::nonexistent) return info.first.end.time_since_epoch().count();
  const auto& rule = info.result == date::local_info::ambiguous && later ? info.second : info.first;
  return localSeconds - rule.offset.count();
}

Date TimeZone::localDate(UtcSeconds at) const {
  const std::int64_t local = at + offset_s(at);
  return dateFromDays(local >= 0 ? local / 86400 : (local - 86399) / 86400);
}

double TimeZone::localHour(UtcSeconds at) const {
  const std::int64_t local = at + offset_s(at);
  return static_cast<double>(((local % 86400) + 86400) % 86400) / 3600.0;
}

std::string TimeZone::iso(UtcSeconds at) const {
  const int offset = offset_s(at);
  const std::int64_t local = at + offset;
  const std::int64_t second = ((local % 86400) + 86400) % 86400;
  const int minutes = std::abs(offset) / 60;
  return fmt::format("{}T{:02}:{:02}:{:02}{}{:02}:{:02}", isoDate(dateFromDays((local - second) / 86400)), second / 3600, second / 60 % 60, second % 60,
                     offset < 0 ? '-' : '+', minutes / 60, minutes % 60);
}

} // namespace muffle
