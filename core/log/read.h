// SPDX-License-Identifier: GPL-3.0-or-later
//
// Reads a logger's delimited text: separator, decimal sign, header, date form, units and roles are recognised and every
// guess is said. Quoting by RFC 4180; UTF-8, UTF-16 with a byte order mark, or Latin-1. A wrong cell is counted and left out; it never
// ends the reading. Of a sheet with one row a day the lows are of that morning and the highs of that afternoon.
//
//   auto log = readLog(bytes, {.zone = zone});
//   for (const Message& line : log->recognised) show(line);
#pragma once

#include "core/log/log.h"
#include "core/status.h"

#include <functional>
#include <optional>
#include <string_view>

namespace muffle {

/// What a column is to be taken for, by its heading.
struct ColumnChoice {
  std::string heading;
  Role role = Role::note;
  std::string id;
  Statistic statistic = Statistic::moment;
  std::string unit; ///< as it is written in the column; empty: as recognised
  bool use = true;
  bool operator==(const ColumnChoice&) const = default;
};

struct ReadOptions {
  TimeZone zone = TimeZone::utc(); ///< for clock times without an offset
  std::optional<char> separator;   ///< overrules the guess
  std::optional<bool> decimalComma;
  std::optional<bool> monthFirst;
  std::optional<bool> fahrenheit; ///< unit of temperature columns that carry no mark
  std::vector<ColumnChoice> columns;
  /// Called now and then with the share done, 0..1; return false to stop.
  std::function<bool(double)> progress;
};

struct ReadLog {
  Log log;
  std::vector<Message> recognised;    ///< what was taken for what, a sentence each
  std::vector<std::string> headings;  ///< of every column, by which a file of the same kind is known again
  std::vector<std::string> unsure;    ///< names of temperatures that could be in either degree; the grower must say
  std::vector<std::string> placeless; ///< the one temperature, where nothing says whether it hangs outside or inside; the grower must say
  long rows = 0;                      ///< data rows seen
  long rowsLeftOut = 0;               ///< without a readable time
  long cellsLeftOut = 0;              ///< neither a number nor a missing mark
  std::vector<Problem> firstProblems; ///< the first few, with line numbers
};

Result<ReadLog> readLog(std::string_view bytes, const ReadOptions& options);

/// Muffle's own form: `time,<channel> [unit],...`, ISO 8601 with offset.
std::string writeLogCsv(const Log& log, const TimeZone& zone);

} // namespace muffle
