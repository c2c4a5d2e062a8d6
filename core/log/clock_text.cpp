// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/log/clock_text.h"

#include "core/calendar.h"
#include "core/log/cells.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <charconv>
#include <cmath>

namespace muffle {
namespace {

constexpr std::int64_t kSpreadsheetEpochDays = -25569; // 1899-12-30
constexpr double kFirstEpoch_s = 1e8;                  // 1973; less is no time of a logger's
constexpr double kFirstMilliseconds = 1e11, kFirstMicroseconds = 1e14;
constexpr double kFirstSerial = 20000.0, kLastSerial = 110000.0; // 1954 to 2201

bool isDigit(char c) { return std::isdigit(static_cast<unsigned char>(c)); }
bool isLetter(char c) { return std::isalpha(static_cast<unsigned char>(c)) || static_cast<unsigned char>(c) >= 0x80; }

/// 1..12 by the first letters of its name in English, German, French, Dutch, Spanish or Italian; 0 if it is none.
int monthNamed(std::string_view word) {
  static const std::array<std::vector<std::string_view>, 12> kNames{{{"jan", "j\xC3\xA4n", "ene", "gen"},
                                                                     {"feb", "f\xC3\xA9v", "fev"},
                                                                     {"mar", "m\xC3\xA4r", "maa", "mrt"},
                                                                     {"apr", "avr", "abr"},
                                                                     {"may", "mai", "mei", "mag"},
                                                                     {"jun", "juin", "giu"},
                                                                     {"jul", "juil", "lug"},
                                                                     {"aug", "ao\xC3\xBB", "aou", "ago"},
                                                                     {"sep", "set"},
                                                                     {"oct", "okt", "ott"},
                                                                     {"nov"},
                                                                     {"dec", "dez", "d\xC3\xA9", "dic"}}};
  const std::string w = lower(word);
  for (std::size_t m = 0; m < kNames.size(); ++m)
    for (const auto name : kNames[m])
      if (w.starts_with(name)) return static_cast<int>(m) + 1;
  return 0;
}

/// With a decimal point or comma.
std::optional<double> plainNumber(std::string_view text) {
  double value = 0.0;
  const char* const last = text.data() + text.size();
  const auto [end, error] = std::from_chars(text.data(), last, value);
  if (error != std::errc{}) return std::nullopt;
  if (end == last) return value;
  if (*end != ',' || end + 1 == last) return std::nullopt;
  std::string point(text);
  point[static_cast<std::size_t>(end - text.data())] = '.';
  const auto [pointEnd, pointError] = std::from_chars(point.data(), point.data() + point.size(), value);
  return pointError == std::errc{} && pointEnd == point.data() + point.size() ? std::optional(value) : std::nullopt;
}

std::optional<Clock> numberClock(std::string_view text, DateForm form) {
  const auto number = plainNumber(text);
  if (!number) return std::nullopt;
  double value = *number;
  if (form == DateForm::spreadsheet) {
    if (value < kFirstSerial || value > kLastSerial) return std::nullopt;
    const auto seconds = static_cast<std::int64_t>(std::llround((value + static_cast<double>(kSpreadsheetEpochDays)) * 86400.0));
    return Clock{seconds, std::nullopt, value != std::floor(value)};
  }
  if (value >= kFirstMicroseconds)
    value /= 1e6;
  else if (value >= kFirstMilliseconds)
    value /= 1e3;
  if (value < kFirstEpoch_s || value > 7.3e9) return std::nullopt;
  return Clock{static_cast<std::int64_t>(std::llround(value)), 0, true};
}

/// The numbers of a date and time in their order, and what stands between them.
struct Parts {
  int number[7] = {0, 0, 0, 0, 0, 0, 0};
  int count = 0;
  int month = 0;   ///< by name; 0 none
  int monthAt = 0; ///< numbers before it
  std::size_t digits[7] = {0, 0, 0, 0, 0, 0, 0};
  std::optional<int> offset_s;
  int half = 0; ///< 1 am, 2 pm
};

/// "+01:00", "-0500" at i; false if it is none.
bool readOffset(std::string_view text, std::size_t i, Parts& parts) {
  int hours = 0, minutes = 0;
  const auto* const p = text.data() + i + 1;
  if (i + 3 > text.size() || std::from_chars(p, p + 2, hours).ptr != p + 2) return false;
  std::size_t rest = i + 3;
  if (rest < text.size() && text[rest] == ':') ++rest;
  if (rest + 2 <= text.size()) std::from_chars(text.data() + rest, text.data() + rest + 2, minutes);
  if (hours > 14 || minutes > 59) return false;
  parts.offset_s = (text[i] == '-' ? -1 : 1) * (hours * 3600 + minutes * 60);
  return true;
}

std::optional<Parts> partsOf(std::string_view text) {
  Parts parts;
  std::size_t i = 0;
  while (i < text.size()) {
    const char c = text[i];
    if (isDigit(c)) {
      std::size_t end = i;
      while (end < text.size() && isDigit(text[end])) ++end;
      int value = 0;
      if (end - i > 9 && !(end - i == 14 || end - i == 12)) return std::nullopt;
      const auto put = [&](std::size_t from, std::size_t n) {
        std::from_chars(text.data() + from, text.data() + from + n, value);
        if (parts.count < 7) parts.digits[parts.count] = n, parts.number[parts.count++] = value;
      };
      if (parts.count == 0 && (end - i == 8 || end - i == 12 || end - i == 14)) { // 20310117, 203101170510
        put(i, 4), put(i + 4, 2), put(i + 6, 2);
        for (std::size_t k = i + 8; k + 2 <= end; k += 2) put(k, 2);
      } else if (parts.count == 3 && (end - i == 4 || end - i == 6) && parts.month == 0) { // 0510 behind a date
        for (std::size_t k = i; k + 2 <= end; k += 2) put(k, 2);
      } else {
        put(i, end - i);
      }
      i = end;
      if (parts.count == 6 && i + 1 < text.size() && (text[i] == '.' || text[i] == ',') && isDigit(text[i + 1])) // fractions of a second
        for (++i; i < text.size() && isDigit(text[i]);) ++i;
      continue;
    }
    const int dateNumbers = parts.month ? 2 : 3;
    if ((c == '+' || (c == '-' && parts.count >= dateNumbers + 2)) && i + 2 < text.size() && isDigit(text[i + 1])) {
      if (!readOffset(text, i, parts)) return std::nullopt;
      break;
    }
    if (isLetter(c)) {
      std::size_t end = i;
      while (end < text.size() && isLetter(text[end])) ++end;
      const std::string_view word = text.substr(i, end - i);
      const std::string w = lower(word);
      i = end;
      if (w == "z" && parts.count >= dateNumbers + 1)
        parts.offset_s = 0;
      else if (w == "am" || (w == "a" && i < text.size() && text[i] == '.'))
        parts.half = 1;
      else if (w == "pm" || (w == "p" && i < text.size() && text[i] == '.'))
        parts.half = 2;
      else if (const int month = monthNamed(word); month && parts.month == 0 && parts.count <= 2)
        parts.month = month, parts.monthAt = parts.count;
      else if (w != "t" && !((parts.count == 0 && word.size() >= 2 && word.size() <= 10) || w == "h" || w == "uhr" || w == "m" || w == "utc" || w == "gmt"))
        return std::nullopt; // a weekday may stand before the date
      if (parts.half) break;
      continue;
    }
    ++i;
  }
  return parts;
}

} // namespace

std::optional<Clock> parseClock(std::string_view text, DateForm form) {
  text = trim(text);
  if (text.empty()) return std::nullopt;
  if (form == DateForm::epoch || form == DateForm::spreadsheet) return numberClock(text, form);
  const auto parts = partsOf(text);
  if (!parts || parts->count < (parts->month ? 2 : 3)) return std::nullopt;
  const int* n = parts->number;
  Date date;
  int time = 3; // numbers before the time of day
  if (parts->month) {
    time = 2;
    const bool yearFirst = parts->digits[0] == 4;
    date = {yearFirst ? n[0] : n[1], static_cast<unsigned>(parts->month), static_cast<unsigned>(yearFirst ? n[1] : n[0])};
  } else if (form == DateForm::iso || parts->digits[0] == 4) {
    date = {n[0], static_cast<unsigned>(n[1]), static_cast<unsigned>(n[2])};
  } else if (form == DateForm::dayFirst) {
    date = {n[2], static_cast<unsigned>(n[1]), static_cast<unsigned>(n[0])};
  } else {
    date = {n[2], static_cast<unsigned>(n[0]), static_cast<unsigned>(n[1])};
  }
  if (date.year < 100) date.year += date.year < 70 ? 2000 : 1900;
  int hour = n[time];
  const int minute = n[time + 1], second = n[time + 2];
  if (parts->half == 1 && hour == 12) hour = 0;
  if (parts->half == 2 && hour < 12) hour += 12;
  if (!isValid(date) || date.year < 1900 || date.year > 2200 || hour > 24 || minute > 59 || second > 60) return std::nullopt;
  return Clock{daysSinceEpoch(date) * 86400 + hour * 3600 + minute * 60 + second, parts->offset_s, parts->count > time};
}

DateForm guessDateForm(const std::vector<std::string>& cells, bool& ambiguous) {
  int firstOver12 = 0, secondOver12 = 0, yearFirst = 0, plain = 0, serial = 0, named = 0;
  for (const std::string& s : cells) {
    const auto parts = partsOf(s);
    const bool compact = (s.size() == 8 || s.size() == 12 || s.size() == 14) && s.find('.') == std::string::npos; // 203101170510
    if (const auto value = compact ? std::nullopt : plainNumber(s)) {
      (*value >= kFirstSerial && *value <= kLastSerial ? serial : plain) += 1;
      continue;
    }
    if (!parts || parts->count == 0) continue;
    named += parts->month ? 1 : 0;
    yearFirst += parts->digits[0] == 4 ? 1 : 0;
    firstOver12 += parts->digits[0] < 4 && parts->number[0] > 12 ? 1 : 0;
    secondOver12 += parts->digits[0] < 4 && parts->number[1] > 12 ? 1 : 0;
  }
  ambiguous = false;
  const int most = static_cast<int>(cells.size()) / 2;
  if (plain > most) return DateForm::epoch;
  if (serial > most) return DateForm::spreadsheet;
  if (yearFirst > 0) return DateForm::iso;
  if (named > most) return DateForm::dayFirst;
  if (secondOver12 > firstOver12) return DateForm::monthFirst;
  ambiguous = firstOver12 == 0;
  return DateForm::dayFirst;
}

void DateOrder::see(std::string_view date, DateForm form, Reading& reading) {
  const auto clock = parseClock(date, form);
  if (!clock) return;
  const std::int64_t day = clock->local / 86400;
  if (reading.readable > 0 && std::abs(day - reading.day) == 1) ++reading.follow; // some tables have the newest first
  ++reading.readable;
  reading.day = day;
}

void DateOrder::see(std::string_view date) {
  date = date.substr(0, date.find(' '));
  if (date == m_last) return;
  m_last = date;
  see(date, DateForm::dayFirst, m_dayFirst);
  see(date, DateForm::monthFirst, m_monthFirst);
}

std::optional<DateForm> DateOrder::form() const {
  const auto key = [](const Reading& r) { return std::pair(r.readable, r.follow); };
  if (key(m_dayFirst) == key(m_monthFirst)) return std::nullopt;
  return key(m_dayFirst) > key(m_monthFirst) ? DateForm::dayFirst : DateForm::monthFirst;
}

bool stepsLikeDays(const std::vector<std::string>& cells) {
  constexpr double kFirst = 32874.0;        // 1990
  constexpr double kRounding_days = 1.1e-4; // of a number written to four places: two roundings
  constexpr double kMostAlike = 0.7;
  std::vector<double> steps;
  std::optional<double> before;
  for (const std::string& cell : cells) {
    const auto value = plainNumber(cell);
    if (!value || *value < kFirst || *value > kLastSerial) return false;
    if (before) steps.push_back(std::abs(*value - *before)); // the newest may come first
    before = value;
  }
  if (steps.size() < 2) return false;
  std::vector<double> sorted = steps;
  std::nth_element(sorted.begin(), sorted.begin() + static_cast<std::ptrdiff_t>(sorted.size() / 2), sorted.end());
  const double usual = sorted[sorted.size() / 2];
  const auto alike = std::count_if(steps.begin(), steps.end(), [&](double step) { return std::abs(step - usual) <= kRounding_days; });
  return usual > kRounding_days && usual <= 2.0 && static_cast<double>(alike) >= kMostAlike * static_cast<double>(steps.size());
}

bool isClockOnly(std::string_view cell) {
  cell = trim(cell);
  const auto colon = cell.find(':');
  return colon >= 1 && colon <= 2 && cell.find_first_of("-/") == std::string_view::npos && cell.size() <= 11;
}

} // namespace muffle
