// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/log/by_hand.h"

#include "core/bounds.h"
#include "core/log/cells.h"
#include "core/log/clock_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <map>

namespace muffle {
namespace {

constexpr int kUntimed_s = 21 * 3600; // where a low or high without a time is put: both are then behind it
constexpr double kColdest_C = -60.0, kWarmest_C = 75.0;

std::vector<std::string> wordsOf(std::string_view line) {
  std::vector<std::string> words;
  for (std::size_t i = 0; i < line.size();) {
    if (std::isspace(static_cast<unsigned char>(line[i]))) {
      ++i;
      continue;
    }
    if (line[i] == '/') {
      words.emplace_back(1, '/');
      ++i;
      continue;
    }
    std::size_t end = i;
    while (end < line.size() && !std::isspace(static_cast<unsigned char>(line[end])) && (line[end] != '/')) ++end;
    words.emplace_back(line.substr(i, end - i));
    i = end;
  }
  return words;
}

bool isDigits(std::string_view s) {
  return !s.empty() && std::all_of(s.begin(), s.end(), [](unsigned char c) { return std::isdigit(c); });
}

/// One line, part by part from the left.
class Line {
public:
  Line(std::string_view text, int number, Date& day, const TimeZone& zone, bool fahrenheit)
      : m_text(text), m_number(number), m_day(day), m_zone(zone), m_fahrenheit(fahrenheit) {}

  /// Nothing and no problem for a date alone or an empty line.
  std::optional<HandReading> read(Problems& problems) {
    takeDate();
    m_words = wordsOf(m_text);
    if (m_words.empty()) return std::nullopt;
    HandReading reading;
    const auto clock = takeClock(problems);
    if (m_failed) return std::nullopt;
    takeStatistic(reading);
    takeTemperatures(reading, problems);
    if (m_failed) return std::nullopt;
    if (!reading.outside_C && !reading.inside_C) return fail(problems, Message{"log.no-temperature-stands"}, Message{"log.write-a-reading"});
    if (!clock && reading.statistic == Statistic::moment) return fail(problems, Message{"log.no-time-day-stands"}, Message{"log.write-a-reading-or-lows"});
    for (; m_at < m_words.size(); ++m_at) {
      if (!reading.remark.empty()) reading.remark += ' ';
      reading.remark += m_words[m_at];
    }
    reading.at = m_zone.fromLocal(daysSinceEpoch(m_day) * 86400 + clock.value_or(kUntimed_s));
    return reading;
  }

private:
  std::nullopt_t fail(Problems& problems, Message what, Message allowed) {
    m_failed = true;
    problems.push_back({ProblemKind::badInput, fmt::format("line {}", m_number), std::move(what), std::move(allowed)});
    return std::nullopt;
  }

  /// "17.1.2031", "2031-01-17", "17/1", "17.1.", "17 Jan" at the start.
  void takeDate() {
    m_text = trim(m_text);
    std::size_t end = 0;
    int separators = 0;
    char separator = 0;
    while (end < m_text.size() &&
           (std::isdigit(static_cast<unsigned char>(m_text[end])) || m_text[end] == '.' || m_text[end] == '/' || (m_text[end] == '-' && end > 0))) {
      if (!std::isdigit(static_cast<unsigned char>(m_text[end]))) {
        if (separator && m_text[end] != separator) break;
        separator = m_text[end];
        ++separators;
      }
      ++end;
    }
    const std::string_view head = m_text.substr(0, end);
    if (separators == 2 && !head.empty() && head.back() != separator) {
      if (const auto clock = parseClock(head, head.find_first_of("./-") == 4 ? DateForm::iso : DateForm::dayFirst))
        return takeDay(dateFromDays(clock->local / 86400), end);
    }
    const bool shortDate = (separator == '/' && separators == 1) || (separator == '.' && separators == 2 && head.back() == '.');
    if (shortDate && isDigits(head.substr(0, head.find(separator)))) {
      const auto first = head.find(separator);
      const auto month = trim(head.substr(first + 1, head.size() - first - 1 - (separator == '.' ? 1 : 0)));
      if (isDigits(month) && head.size() <= 6) return takeDayAndMonth(std::stoi(std::string(head.substr(0, first))), std::stoi(std::string(month)), end);
    }
    const auto blank = m_text.find(' ');
    if (blank != std::string_view::npos && isDigits(m_text.substr(0, blank)) && blank <= 2) {
      const auto wordEnd = std::min(m_text.find(' ', blank + 1), m_text.size());
      const auto named = parseClock(fmt::format("{} {}", m_text.substr(0, wordEnd), m_day.year), DateForm::dayFirst);
      if (named && std::isalpha(static_cast<unsigned char>(m_text[blank + 1]))) {
        const Date d = dateFromDays(named->local / 86400);
        return takeDayAndMonth(static_cast<int>(d.day), static_cast<int>(d.month), wordEnd);
      }
    }
  }
  void takeDay(const Date& day, std::size_t end) {
    m_day = day;
    m_text.remove_prefix(end);
  }
  /// The year that puts it nearest to the line before.
  void takeDayAndMonth(int day, int month, std::size_t end) {
    const std::int64_t before = daysSinceEpoch(m_day);
    std::optional<Date> nearest;
    for (const int year : {m_day.year - 1, m_day.year, m_day.year + 1}) {
      const Date d{year, static_cast<unsigned>(month), static_cast<unsigned>(day)};
      if (isValid(d) && (!nearest || std::abs(daysSinceEpoch(d) - before) < std::abs(daysSinceEpoch(*nearest) - before))) nearest = d;
    }
    if (nearest) takeDay(*nearest, end);
  }

  std::optional<int> takeClock(Problems& problems) {
    if (!isClockOnly(m_words[0])) return std::nullopt;
    std::string text = m_words[0];
    ++m_at;
    if (m_at < m_words.size() && (lower(m_words[m_at]) == "am" || lower(m_words[m_at]) == "pm")) text = fmt::format("{} {}", text, m_words[m_at++]);
    const auto clock = parseClock(fmt::format("1970-01-01 {}", text), DateForm::iso);
    if (!clock) return fail(problems, Message{"log.no-time-day", text}, Message{"log.times-allowed"}), std::nullopt;
    return static_cast<int>(clock->local);
  }
  void takeStatistic(HandReading& reading) {
    if (m_at >= m_words.size()) return;
    const std::string w = lower(m_words[m_at]);
    if (w == "min" || w == "low" || w == "lows") reading.statistic = Statistic::lowest, ++m_at;
    if (w == "max" || w == "high" || w == "highs") reading.statistic = Statistic::highest, ++m_at;
  }
  void takeTemperatures(HandReading& reading, Problems& problems) {
    bool inside = false;
    for (; m_at < m_words.size(); ++m_at) {
      const std::string& word = m_words[m_at];
      if (word == "/") {
        if (inside) return void(fail(problems, Message{"log.second-stroke-stands"}, Message{"log.outside-inside-then-words"}));
        inside = true;
        continue;
      }
      if (isMissing(word) && !reading.inside_C) continue;
      const auto v = parseNumber(word, word.find('.') == std::string::npos);
      if (!v) return; // remarks begin
      if (inside ? reading.inside_C.has_value() : reading.outside_C.has_value()) {
        if (inside) return void(fail(problems, Message{"log.number-too-many", word}, Message{"log.outside-inside-then-words"}));
        inside = true; // the stroke was left out
      }
      const double celsius = m_fahrenheit ? (*v - 32.0) / 1.8 : *v;
      if (celsius < kColdest_C || celsius > kWarmest_C)
        return void(fail(problems, Message{"log.no-airs-temperature", word}, m_fahrenheit ? Message{"log.air-allowed-F"} : Message{"log.air-allowed-C"}));
      (inside ? reading.inside_C : reading.outside_C) = celsius;
    }
  }

  std::string_view m_text;
  int m_number;
  Date& m_day;
  const TimeZone& m_zone;
  bool m_fahrenheit;
  std::vector<std::string> m_words;
  std::size_t m_at = 0;
  bool m_failed = false;
};

} // namespace

HandSheet readByHand(std::string_view text, const Date& first, const TimeZone& zone, bool fahrenheit) {
  HandSheet sheet;
  Date day = first;
  int number = 0;
  while (!text.empty()) {
    const auto end = std::min(text.find('\n'), text.size());
    if (++number > static_cast<int>(bounds::kHandLines)) {
      sheet.problems.push_back({ProblemKind::badInput, fmt::format("line {}", number), Message{"log.lines-too-many"},
                                Message{"log.lines-at-most", bounds::kHandLines}});
      break;
    }
    if (end > bounds::kHandLineBytes)
      sheet.problems.push_back(
          {ProblemKind::badInput, fmt::format("line {}", number), Message{"log.line-characters", end}, Message{"log.at-most", bounds::kHandLineBytes}});
    else if (auto reading = Line(text.substr(0, end), number, day, zone, fahrenheit).read(sheet.problems))
      sheet.readings.push_back(std::move(*reading));
    text.remove_prefix(std::min(end + 1, text.size()));
  }
  return sheet;
}

Log logByHand(const HandSheet& sheet) {
  Log log;
  std::map<UtcSeconds, std::size_t> rows;
  for (const HandReading& r : sheet.readings) rows.emplace(r.at, 0);
  for (auto& [time, row] : rows) row = log.time.size(), log.time.push_back(time);
  for (const Statistic statistic : {Statistic::moment, Statistic::lowest, Statistic::highest})
    for (const bool inside : {false, true}) {
      Channel channel;
      channel.role = inside ? Role::room : Role::outside;
      if (inside) channel.id = "house";
      channel.statistic = statistic;
      channel.name = fmt::format("{}{}, by hand", inside ? "inside" : "outside",
                                 statistic == Statistic::lowest    ? " low"
                                 : statistic == Statistic::highest ? " high"
                                                                   : "");
      channel.unitIn = "C";
      channel.unitWhy = Message{"log.as-you-wrote"};
      channel.raw.assign(log.time.size(), std::numeric_limits<float>::quiet_NaN());
      channel.flag.assign(log.time.size(), 0);
      bool any = false;
      for (const HandReading& r : sheet.readings)
        if (const auto& v = inside ? r.inside_C : r.outside_C; v && r.statistic == statistic) channel.raw[rows[r.at]] = static_cast<float>(*v), any = true;
      if (any) log.channels.push_back(std::move(channel));
    }
  return log;
}

} // namespace muffle
