// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/log/read.h"

#include "core/bounds.h"
#include "core/log/cells.h"
#include "core/log/layout.h"
#include "core/log/plain_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <cmath>
#include <limits>
#include <numeric>
#include <unordered_map>
#include <unordered_set>

namespace muffle {
namespace {

constexpr std::size_t kMostProblems = 20;
constexpr double kMostReading = 1e30; // no reading; a float would not hold it
constexpr long kRowsBetweenProgress = 20000;
constexpr int kEvening_s = 21 * 3600;               // a row of a day is put at nine in the evening: its low and high are then behind it
constexpr UtcSeconds kClockBack_s = 60;             // less is two readings of one minute
constexpr double kCounts = 0.98;                    // of a meter's steps are upwards if it counts
constexpr double kLongestInterval_s = 6.0 * 3600.0; // energy over a longer hole is not spread

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
      const UtcSeconds middle = hour * 3600 + 1800;
      const UtcSeconds at = m_zone.fromLocal(middle);
      if (at + m_zone.offset_s(at) != middle && !m_skipped) m_skipped = m_zone.offset_s(at - 7200);
    }
    const UtcSeconds at = clock.local - m_offset;
    return m_ambiguous && at <= previous ? m_zone.fromLocal(clock.local, true) : at;
  }

  /// The offset before summer time, if the clock showed an hour that summer time skips: it does not follow it.
  [[nodiscard]] std::optional<int> keepsOffset_s() const { return m_skipped; }

private:
  const TimeZone& m_zone;
  std::int64_t m_hour = std::numeric_limits<std::int64_t>::min();
  std::int64_t m_offset = 0;
  bool m_ambiguous = false;
  std::optional<int> m_skipped;
};

/// Reads every row by a layout.
class RowReader {
public:
  RowReader(std::string_view bytes, const ReadOptions& options, Layout layout)
      : m_bytes(bytes), m_options(options), m_layout(std::move(layout)), m_zone(zoneOf(m_layout, options)), m_toUtc(m_zone), m_estimatedRows(estimateRows()) {}

  Result<ReadLog> run() {
    m_out.log.time.reserve(m_estimatedRows);
    for (Column& c : m_layout.columns)
      if (c.use) c.channel.raw.reserve(m_estimatedRows);
    std::size_t seen = 0;
    const Status rows = eachRow(m_bytes, m_layout.separator, [&](const std::vector<std::string_view>& cells, long line) {
      if (seen++ < m_layout.firstData || (cells.size() == 1 && trim(cells[0]).empty())) return true;
      return row(cells, line);
    });
    if (!rows) return rows.problems();
    if (m_isTooMuch)
      return Problem{ProblemKind::badInput, "", Message{"log.rows-too-many", bounds::kTableRows, bounds::kTableCells},
                     Message{"log.divide-the-file"}};
    if (m_cancelled) return Problem{ProblemKind::cancelled, "", Message{"log.reading-was-stopped"}, Message{"log.nothing-was-kept"}};
    Log& log = m_out.log;
    if (log.time.empty()) return Problem{ProblemKind::badInput, "line 1", Message{"log.no-row-readable-time"}, Message{"log.times-needed"}};
    if (m_layout.isTall()) tellApart(m_layout.columns); // sensors met on the way as well
    std::vector<bool> isEnergy;
    for (Column& c : m_layout.columns) {
      m_out.headings.push_back(c.channel.name);
      if (!c.use) continue;
      if (c.unitIsUnsure) m_out.unsure.push_back(c.channel.name);
      if (c.placeIsUnsure) m_out.placeless.push_back(c.channel.name);
      isEnergy.push_back(c.mark.isEnergy);
      log.channels.push_back(std::move(c.channel));
    }
    if (!m_sorted) putInOrder();
    for (std::size_t c = 0; c < log.channels.size(); ++c)
      if (isEnergy[c]) energyToPower(log.channels[c]);
    for (Channel& channel : log.channels) channel.flag.assign(log.time.size(), 0);
    sayWhatWasRecognised();
    return std::move(m_out);
  }
  [[nodiscard]] std::optional<int> keepsOffset_s() const { return m_toUtc.keepsOffset_s(); }

private:
  static TimeZone zoneOf(const Layout& layout, const ReadOptions& options) {
    if (!layout.clockOffset_s) return options.zone;
    const int s = *layout.clockOffset_s;
    auto fixed = TimeZone::named(fmt::format("{}{:02}:{:02}", s < 0 ? '-' : '+', std::abs(s) / 3600, std::abs(s) / 60 % 60));
    return fixed ? *fixed : options.zone;
  }
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
    auto clock = clockOf(cells);
    if (clock && !clock->hasTime && !m_layout.dateOnly && cells.size() < m_layout.width) clock.reset(); // a line torn within its time
    if (!clock) {
      const auto column = static_cast<std::size_t>(m_layout.timeColumn);
      const std::string_view text = cells.size() > column ? trim(cells[column]) : std::string_view();
      if (isHeadingAgain(text)) {
        --m_out.rows; // the logger began anew
        return true;
      }
      ++m_out.rowsLeftOut;
      note(line, Message{"log.not-readable-time", asUtf8(text.substr(0, 40))}, Message{"log.row-left-out"});
      return true;
    }
    m_isTooMuch = m_out.log.time.size() >= bounds::kTableRows || m_out.log.time.size() * m_layout.columns.size() >= bounds::kTableCells ||
                  (m_layout.isTall() && m_layout.columns.size() > bounds::kTableColumns);
    if (m_isTooMuch) return false;
    const UtcSeconds at = m_toUtc(*clock, m_previous);
    if (m_layout.isTall()) return tallRow(cells, at, line);
    begin(at);
    for (std::size_t c = 0; c < m_layout.columns.size(); ++c)
      if (Column& column = m_layout.columns[c]; column.use) column.channel.raw.push_back(c < cells.size() ? reading(column, cells[c], line) : kNone);
    return true;
  }
  void begin(UtcSeconds at) {
    if (at <= m_previous) m_sorted = false;
    m_previous = at;
    m_out.log.time.push_back(at);
  }
  /// Empty where the row has no such cell.
  static std::string_view cellOf(const std::vector<std::string_view>& cells, int column) {
    return column >= 0 && static_cast<std::size_t>(column) < cells.size() ? trim(cells[static_cast<std::size_t>(column)]) : std::string_view();
  }
  bool tallRow(const std::vector<std::string_view>& cells, UtcSeconds at, long line) {
    const std::string name = asUtf8(cellOf(cells, m_layout.nameColumn));
    auto known = m_sensors.find(name);
    if (known == m_sensors.end()) known = m_sensors.emplace(name, sensorNamed(name, cells)).first;
    if (m_out.log.time.empty() || m_out.log.time.back() != at) {
      begin(at);
      for (Column& c : m_layout.columns)
        if (c.use) c.channel.raw.push_back(kNone);
    }
    Column& column = m_layout.columns[known->second];
    if (!column.use) return true;
    if (m_layout.unitColumn < 0)
      column.channel.raw.back() = reading(column, cellOf(cells, m_layout.valueColumn), line);
    else
      column.channel.raw.back() = reading(column, fmt::format("{} {}", cellOf(cells, m_layout.valueColumn), cellOf(cells, m_layout.unitColumn)), line);
    return true;
  }
  /// Of a tall table; one met here for the first time has no readings up to now.
  std::size_t sensorNamed(const std::string& name, const std::vector<std::string_view>& cells) {
    for (std::size_t c = 0; c < m_layout.columns.size(); ++c)
      if (m_layout.columns[c].channel.name == name) return c;
    const std::string sample = fmt::format("{} {}", cellOf(cells, m_layout.valueColumn), cellOf(cells, m_layout.unitColumn));
    m_layout.columns.push_back(describeColumn(name, {sample}, m_layout.decimalComma, m_layout.columns, m_options));
    m_layout.columns.back().channel.raw.assign(m_out.log.time.size(), kNone);
    return m_layout.columns.size() - 1;
  }

  [[nodiscard]] bool isHeadingAgain(std::string_view text) const {
    if (m_layout.headerRow < 0 || text.empty()) return text.starts_with('#');
    return text.starts_with('#') || (!std::isdigit(static_cast<unsigned char>(text.front())) && looksLikeTimeName(std::string(text)));
  }

  [[nodiscard]] std::optional<Clock> clockOf(const std::vector<std::string_view>& cells) {
    const auto date = static_cast<std::size_t>(m_layout.timeColumn);
    if (cells.size() <= date) return std::nullopt;
    std::string_view day = trim(cells[date]);
    if (m_layout.dateOnly) {
      auto clock = parseClock(day, m_layout.form);
      if (clock) clock->local += kEvening_s;
      return clock;
    }
    if (m_layout.clockColumn < 0 || cells.size() <= static_cast<std::size_t>(m_layout.clockColumn)) return parseClock(day, m_layout.form);
    const std::string_view time = trim(cells[static_cast<std::size_t>(m_layout.clockColumn)]);
    if (day.empty() && !time.empty()) day = m_day; // written once for the day
    if (!day.empty() && day != m_day) m_day = day;
    m_dateAndTime.assign(m_day);
    m_dateAndTime += ' ';
    m_dateAndTime += time;
    if (m_layout.form != DateForm::spreadsheet) return parseClock(m_dateAndTime, m_layout.form);
    const auto serial = parseClock(day, m_layout.form);
    const auto clock = parseClock(fmt::format("1970-01-01 {}", time), DateForm::iso);
    return serial && clock ? std::optional(Clock{serial->local + clock->local, std::nullopt, true}) : std::nullopt;
  }

  float reading(const Column& column, std::string_view text, long line) {
    if (const auto number = parseNumber(text, m_layout.decimalComma); number && std::abs(*number) < kMostReading) {
      const std::string_view cell = trim(text);
      if (isTemperature(column.channel.role) && !std::isdigit(static_cast<unsigned char>(cell.back()))) // a reading with a degree of its own
        if (const auto own = unitIn(fmt::format("({})", unitBehind(cell))))
          return own->unit == "C" || own->unit == "F" || own->unit == "K" ? static_cast<float>(*number * own->factor + own->offset) : kNone;
      return static_cast<float>(*number * column.mark.factor + column.mark.offset);
    }
    if (const auto cell = trim(text); !isMissing(cell)) {
      ++m_out.cellsLeftOut;
      note(line, Message{"log.cell-is-no-number", asUtf8(cell.substr(0, 40)), column.channel.name}, Message{"log.reading-left-out"});
    }
    return kNone;
  }

  void note(long line, Message what, Message allowed) {
    if (m_out.firstProblems.size() < kMostProblems)
      m_out.firstProblems.push_back({ProblemKind::badInput, fmt::format("line {}", line), std::move(what), std::move(allowed)});
  }

  /// By time; rows of one time become one, the first reading of each sensor standing.
  void putInOrder() {
    Log& log = m_out.log;
    std::vector<std::size_t> order(log.time.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return log.time[a] < log.time[b]; });
    std::vector<std::size_t> rowOf(order.size()); // in the new log
    std::vector<UtcSeconds> time;
    for (std::size_t k = 0; k < order.size(); ++k) {
      if (k == 0 || log.time[order[k]] != time.back()) time.push_back(log.time[order[k]]);
      rowOf[k] = time.size() - 1;
    }
    std::vector<bool> adds(order.size(), false), differs(order.size(), false);
    for (Channel& channel : log.channels) {
      std::vector<float> raw(time.size(), kNone);
      for (std::size_t k = 0; k < order.size(); ++k) {
        const float v = channel.raw[order[k]];
        float& stands = raw[rowOf[k]];
        if (std::isnan(v)) continue;
        if (std::isnan(stands))
          stands = v, adds[k] = true;
        else if (v != stands)
          differs[k] = true;
      }
      channel.raw = std::move(raw);
    }
    for (std::size_t k = 1; k < order.size(); ++k)
      if (rowOf[k] == rowOf[k - 1] && !adds[k]) m_doubled.take(time[rowOf[k]]);
    if (!m_layout.isTall()) findClockBack(order, rowOf, time, adds, differs);
    log.time = std::move(time);
  }

  /// The clock went back if one run of rows has readings of its own among another's: not where the newest row comes first, where files
  /// stand one behind the other in any order, or where the same rows are given again.
  void findClockBack(const std::vector<std::size_t>& order, const std::vector<std::size_t>& rowOf, const std::vector<UtcSeconds>& time,
                     const std::vector<bool>& adds, const std::vector<bool>& differs) {
    const auto& written = m_out.log.time; // as the rows stand in the file
    std::vector<std::uint32_t> run(written.size(), 0);
    for (std::size_t i = 1; i < written.size(); ++i) run[i] = run[i - 1] + (written[i - 1] - written[i] > kClockBack_s ? 1 : 0);
    std::unordered_set<std::uint32_t> left;
    std::optional<std::uint32_t> in;
    for (std::size_t k = 0; k < order.size(); ++k) {
      const std::uint32_t here = run[order[k]];
      if ((!adds[k] && !differs[k]) || in == here) continue;
      if (left.contains(here)) m_back.take(time[rowOf[k]]);
      if (in) left.insert(*in);
      in = here;
    }
  }

  /// A meter that counts, or energy per interval, as the mean power since the reading before.
  void energyToPower(Channel& channel) {
    const auto& time = m_out.log.time;
    long up = 0, steps = 0;
    float before = kNone;
    for (const float v : channel.raw) {
      if (std::isnan(v)) continue;
      if (!std::isnan(before)) ++steps, up += v >= before ? 1 : 0;
      before = v;
    }
    const bool counts = steps > 2 && static_cast<double>(up) >= kCounts * static_cast<double>(steps);
    std::size_t last = time.size();
    double lastValue = 0.0;
    for (std::size_t i = 0; i < channel.raw.size(); ++i) {
      const double v = channel.raw[i];
      if (std::isnan(v)) continue;
      const double span_s = last < time.size() ? static_cast<double>(time[i] - time[last]) : 0.0;
      const double energy_J = counts ? v - lastValue : v;
      channel.raw[i] = span_s > 0.0 && span_s <= kLongestInterval_s && energy_J >= 0.0 ? static_cast<float>(energy_J / span_s) : kNone;
      last = i;
      lastValue = v;
    }
    channel.unitWhy = Message{counts ? "log.meter-that-counts" : "log.energy-since-before", channel.unitWhy};
  }

  void sayWhatWasRecognised() {
    const auto separator = [&] {
      return Message{m_layout.separator == ','    ? "log.comma"
                     : m_layout.separator == ';'  ? "log.semicolon"
                     : m_layout.separator == '\t' ? "log.tab-blanks"
                     : m_layout.separator == '|'  ? "log.bar"
                                                  : "log.another-sign"};
    };
    if (m_layout.isTall())
      m_out.recognised.push_back(Message{"log.row-reading-sensors-name", m_layout.columns.size(), separator()});
    else
      m_out.recognised.push_back(Message{"log.columns-separated-decimal", m_layout.columns.size(), separator(),
                                         Message{m_layout.decimalComma ? "log.comma" : "log.point"},
                                         Message{m_layout.headerRow >= 0 ? "log.with-headings" : "log.no-headings"}});
    const auto form = [](DateForm f) {
      switch (f) {
      case DateForm::iso: return Message{"log.year-first"};
      case DateForm::epoch: return Message{"log.seconds-since-1970"};
      case DateForm::spreadsheet: return Message{"log.spreadsheets-day-numbers"};
      case DateForm::dayFirst: return Message{"log.day-first"};
      case DateForm::monthFirst: break;
      }
      return Message{"log.month-first"};
    };
    const bool unproved = m_layout.ambiguousDate && m_layout.form == DateForm::dayFirst;
    const Message clock = m_layout.form == DateForm::epoch ? Message{}
                          : m_layout.clockOffset_s         ? Message{"log.clock-of-heading", m_zone.name()}
                                                           : Message{"log.zone-where-none-written", m_zone.name()};
    m_out.recognised.push_back(Message{"log.time-by", form(m_layout.form), unproved ? Message{"log.day-first-unproved"} : Message{}, clock});
    if (m_layout.dateOnly) m_out.recognised.emplace_back(Message{"log.one-row-a-day"});
    const auto statistic = [](Statistic s) { return s == Statistic::lowest ? Message{"log.low"} : s == Statistic::highest ? Message{"log.high"} : Message{}; };
    for (const Channel& channel : m_out.log.channels)
      m_out.recognised.push_back(Message{"log.column-taken-for", channel.name, roleText(channel.role, channel.id), statistic(channel.statistic),
                                         channel.unitIn.empty() ? Message{"log.no-unit"} : Message::verbatim(channel.unitIn), channel.unitWhy});
    for (const std::string& name : m_out.placeless) m_out.recognised.push_back(Message{"log.taken-to-hang-outside", name});
    if (m_doubled.count > 0) {
      m_out.recognised.push_back(Message{"log.rows-repeated", m_doubled.count});
      m_out.log.notes.push_back({"duplicate", "", m_doubled.from, m_doubled.to, m_doubled.count, Message{"log.first-of-each-stands"}, Flag::duplicateTime});
    }
    if (m_back.count > 0) m_out.log.notes.push_back({"clock", "", m_back.from, m_back.to, m_back.count, Message{"log.clock-went-back"}, Flag::clock});
  }

  /// Rows of a kind, in order of time.
  struct Span {
    UtcSeconds from = 0, to = 0;
    long count = 0;
    void take(UtcSeconds at) {
      if (count++ == 0) from = at;
      to = at;
    }
  };
  static constexpr float kNone = std::numeric_limits<float>::quiet_NaN();
  std::string_view m_bytes;
  const ReadOptions& m_options;
  Layout m_layout;
  TimeZone m_zone;
  ToUtc m_toUtc;
  std::size_t m_estimatedRows;
  ReadLog m_out;
  UtcSeconds m_previous = std::numeric_limits<UtcSeconds>::min();
  std::unordered_map<std::string, std::size_t> m_sensors; ///< of a tall table
  std::string m_day, m_dateAndTime;
  Span m_back, m_doubled;
  bool m_sorted = true;
  bool m_cancelled = false, m_isTooMuch = false;
};

/// A last line without its end and with fewer cells than the others was caught while it was being written.
std::string_view withoutTornLine(std::string_view bytes, const Layout& layout) {
  const auto end = bytes.find_last_of("\r\n");
  if (end == std::string_view::npos || end + 1 == bytes.size()) return bytes;
  const std::string_view last = bytes.substr(end + 1);
  const bool isTorn = static_cast<std::size_t>(std::count(last.begin(), last.end(), layout.separator)) + 1 < layout.width;
  return isTorn ? bytes.substr(0, end + 1) : bytes;
}

} // namespace

Result<ReadLog> readLog(std::string_view bytes, const ReadOptions& options) {
  std::string own;
  ReadOptions how = options;
  bytes = plainText(bytes, options.separator, own);
  if (options.separator == ' ') how.separator = '\t';
  if (bytes.find_first_not_of(" \t\r\n") == std::string_view::npos)
    return Problem{ProblemKind::badInput, "line 1", Message{"log.file-empty"}, Message{"log.table-needed"}};
  if (bytes.substr(0, 65536).find('\0') != std::string_view::npos)
    return Problem{ProblemKind::badInput, "line 1", Message{"log.not-text-file"}, Message{"log.text-table-needed"}};
  const auto layout = recogniseLayout(bytes, how);
  if (!layout) return layout.problems();
  bytes = withoutTornLine(bytes, *layout);
  RowReader reader(bytes, how, *layout);
  auto read = reader.run();
  const auto keeps = reader.keepsOffset_s();
  if (!read || !keeps) return read;
  const auto fixed = TimeZone::named(fmt::format("{}{:02}:{:02}", *keeps < 0 ? '-' : '+', std::abs(*keeps) / 3600, std::abs(*keeps) / 60 % 60));
  if (!fixed) return read;
  how.zone = *fixed;
  auto again = RowReader(bytes, how, *layout).run();
  if (again) again->recognised.insert(again->recognised.begin() + 2, Message{"log.clock-keeps-winter-time", fixed->name()});
  return again;
}

std::string writeLogCsv(const Log& log, const TimeZone& zone) {
  std::string out = "time";
  for (const Channel& c : log.channels)
    out += fmt::format(",{}{} [{}]", roleText(c.role, c.id),
                       c.statistic == Statistic::lowest    ? " min"
                       : c.statistic == Statistic::highest ? " max"
                                                           : "",
                       c.unit());
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
