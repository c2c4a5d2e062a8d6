// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/log/read.h"

#include "core/log/layout.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <numeric>

namespace muffle {
namespace {

constexpr std::size_t kMostProblems = 20;
constexpr long kRowsBetweenProgress = 20000;

/// Wall clock to UTC, remembering the hour it has last looked up.
class ToUtc {
public:
  explicit ToUtc(const TimeZone& zone) : m_zone(zone) {}
  /// `previous` is the reading before: in the hour that autumn repeats, a clock that has gone back is on its second pass.
  UtcSeconds operator()(const Clock& clock, UtcSeconds previous) {
    if (clock.offset_s) return clock.local - *clock.offset_s;
    const std::int64_t hour = clock.local / 3600;
    if (hour != m_hour) {
      m_hour = hour;
      m_ambiguous = m_zone.isAmbiguous(clock.local);
      m_offset = clock.local - m_zone.fromLocal(clock.local);
    }
    const UtcSeconds at = clock.local - m_offset;
    return m_ambiguous && at <= previous ? m_zone.fromLocal(clock.local, true) : at;
  }

private:
  const TimeZone& m_zone;
  std::int64_t m_hour = std::numeric_limits<std::int64_t>::min();
  std::int64_t m_offset = 0;
  bool m_ambiguous = false;
};

/// Reads every row by a layout.
class RowReader {
public:
  RowReader(std::string_view bytes, const ReadOptions& options, Layout layout)
      : m_bytes(bytes), m_options(options), m_layout(std::move(layout)), m_toUtc(options.zone), m_estimatedRows(estimateRows()) {}

  Result<ReadLog> run() {
    m_out.log.time.reserve(m_estimatedRows);
    for (Column& c : m_layout.columns)
      if (c.use) c.channel.raw.reserve(m_estimatedRows);
    std::size_t seen = 0;
    eachRow(m_bytes, m_layout.separator, [&](const std::vector<std::string_view>& cells, long line) {
      if (seen++ < m_layout.firstData || (cells.size() == 1 && trim(cells[0]).empty())) return true;
      return row(cells, line);
    });
    if (m_cancelled) return Problem{ProblemKind::cancelled, "", "reading was stopped", "nothing was kept"};
    Log& log = m_out.log;
    if (log.time.empty()) return Problem{ProblemKind::badInput, "line 1", "no row has a readable time", "dates and times such as 2031-01-17 05:10 are needed"};
    for (Column& c : m_layout.columns)
      if (c.use) log.channels.push_back(std::move(c.channel));
    const long doubled = m_sorted ? 0 : putInOrder(log);
    for (Channel& channel : log.channels) channel.flag.assign(log.time.size(), 0);
    sayWhatWasRecognised(doubled);
    return std::move(m_out);
  }

private:
  /// From the length of the first lines.
  [[nodiscard]] std::size_t estimateRows() const {
    const std::string_view head = m_bytes.substr(0, 65536);
    const auto lines = std::max<std::size_t>(static_cast<std::size_t>(std::count(head.begin(), head.end(), '\n')), 1);
    constexpr std::size_t kShortestRow = 8;
    return m_bytes.size() / std::max(head.size() / lines, kShortestRow) + 1;
  }

  bool row(const std::vector<std::string_view>& cells, long line) {
    if (++m_out.rows % kRowsBetweenProgress == 0 && m_options.progress &&
        !m_options.progress(std::min(0.99, static_cast<double>(m_out.rows) / static_cast<double>(m_estimatedRows)))) {
      m_cancelled = true;
      return false;
    }
    const auto clock = clockOf(cells);
    if (!clock) {
      ++m_out.rowsLeftOut;
      const auto column = static_cast<std::size_t>(m_layout.timeColumn);
      note(line, fmt::format("\"{}\" is not a readable time", cells.size() > column ? trim(cells[column]).substr(0, 40) : ""), "the row is left out");
      return true;
    }
    const UtcSeconds at = m_toUtc(*clock, m_previous);
    if (at <= m_previous) m_sorted = false;
    m_previous = at;
    m_out.log.time.push_back(at);
    for (std::size_t c = 0; c < m_layout.columns.size(); ++c)
      if (Column& column = m_layout.columns[c]; column.use) column.channel.raw.push_back(c < cells.size() ? reading(column, cells[c], line) : kNone);
    return true;
  }

  [[nodiscard]] std::optional<Clock> clockOf(const std::vector<std::string_view>& cells) const {
    const auto date = static_cast<std::size_t>(m_layout.timeColumn);
    if (cells.size() <= date) return std::nullopt;
    if (m_layout.clockColumn < 0 || cells.size() <= static_cast<std::size_t>(m_layout.clockColumn)) return parseClock(cells[date], m_layout.form);
    const std::string_view time = cells[static_cast<std::size_t>(m_layout.clockColumn)];
    return parseClock(fmt::format("{} {}", trim(cells[date]), trim(time)), m_layout.form);
  }

  float reading(const Column& column, std::string_view text, long line) {
    if (const auto number = parseNumber(text, m_layout.decimalComma)) return static_cast<float>(*number * column.mark.factor + column.mark.offset);
    if (const auto cell = trim(text); !isMissing(cell)) {
      ++m_out.cellsLeftOut;
      note(line, fmt::format("\"{}\" under \"{}\" is not a number", cell.substr(0, 40), column.channel.name), "the reading is left out");
    }
    return kNone;
  }

  void note(long line, std::string what, std::string allowed) {
    if (m_out.firstProblems.size() < kMostProblems)
      m_out.firstProblems.push_back({ProblemKind::badInput, fmt::format("line {}", line), std::move(what), std::move(allowed)});
  }

  /// Sorts the readings by time; of equal times the first is kept. Returns how many were not.
  static long putInOrder(Log& log) {
    std::vector<std::size_t> order(log.time.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return log.time[a] < log.time[b]; });
    const auto same = [&](std::size_t a, std::size_t b) { return log.time[a] == log.time[b]; };
    order.erase(std::unique(order.begin(), order.end(), same), order.end());
    const auto doubled = static_cast<long>(log.time.size() - order.size());
    const auto reorder = [&](auto& values) {
      auto sorted = values;
      sorted.resize(order.size());
      for (std::size_t i = 0; i < order.size(); ++i) sorted[i] = values[order[i]];
      values = std::move(sorted);
    };
    for (Channel& channel : log.channels) reorder(channel.raw);
    reorder(log.time);
    return doubled;
  }

  void sayWhatWasRecognised(long doubled) {
    const auto separator = [](char c) { return c == ',' ? "comma" : c == ';' ? "semicolon" : c == '\t' ? "tab" : "bar"; };
    m_out.recognised.push_back(fmt::format("{} columns separated by {}, decimal {}, {}", m_layout.columns.size(), separator(m_layout.separator),
                                           m_layout.decimalComma ? "comma" : "point", m_layout.headerRow >= 0 ? "with headings" : "no headings"));
    const auto form = [](DateForm f) {
      switch (f) {
      case DateForm::iso: return "year first";
      case DateForm::epoch: return "seconds since 1970";
      case DateForm::dayFirst: return "day first";
      case DateForm::monthFirst: break;
      }
      return "month first";
    };
    const bool unproved = m_layout.ambiguousDate && m_layout.form == DateForm::dayFirst;
    m_out.recognised.push_back(fmt::format("time: {}{}{}", form(m_layout.form), unproved ? " (no day above 12 proves it)" : "",
                                           m_layout.form == DateForm::epoch ? "" : fmt::format(", {} where no offset is written", m_options.zone.name())));
    for (const Channel& channel : m_out.log.channels)
      m_out.recognised.push_back(fmt::format("\"{}\": {} in {} ({})", channel.name, roleText(channel.role, channel.id),
                                             channel.unitIn.empty() ? "no unit" : channel.unitIn, channel.unitWhy));
    if (doubled > 0) m_out.recognised.push_back(fmt::format("{} rows repeat a time and were left out", doubled));
  }

  static constexpr float kNone = std::numeric_limits<float>::quiet_NaN();
  std::string_view m_bytes;
  const ReadOptions& m_options;
  Layout m_layout;
  ToUtc m_toUtc;
  std::size_t m_estimatedRows;
  ReadLog m_out;
  UtcSeconds m_previous = std::numeric_limits<UtcSeconds>::min();
  bool m_sorted = true;
  bool m_cancelled = false;
};

} // namespace

Result<ReadLog> readLog(std::string_view bytes, const ReadOptions& options) {
  if (bytes.starts_with("\xEF\xBB\xBF")) bytes.remove_prefix(3);
  if (bytes.find_first_not_of(" \t\r\n") == std::string_view::npos)
    return Problem{ProblemKind::badInput, "line 1", "the file is empty", "a table with a time column and at least one reading is needed"};
  if (bytes.substr(0, 65536).find('\0') != std::string_view::npos)
    return Problem{ProblemKind::badInput, "line 1", "this is not a text file", "a delimited text table (CSV) in UTF-8 is needed"};
  auto layout = recogniseLayout(bytes, options);
  if (!layout) return layout.problems();
  return RowReader(bytes, options, std::move(*layout)).run();
}

std::string writeLogCsv(const Log& log, const TimeZone& zone) {
  std::string out = "time";
  for (const Channel& c : log.channels) out += fmt::format(",{} [{}]", roleText(c.role, c.id), c.unit());
  out += "\n";
  for (std::size_t i = 0; i < log.time.size(); ++i) {
    out += zone.iso(log.time[i]);
    for (const Channel& c : log.channels) {
      out += ',';
      if (!std::isnan(c.raw[i])) out += fmt::format("{}", c.raw[i]);
    }
    out += '\n';
  }
  return out;
}

} // namespace muffle
