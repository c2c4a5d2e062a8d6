// SPDX-License-Identifier: GPL-3.0-or-later
//
// What a logger's table is made of: separator, decimal sign, headings, the time column and its form, and what each other column holds.
// Recognised from the first rows; every guess can be overruled by the options. Two kinds of table: a column a sensor, or ("tall") a
// row a reading with the sensor's name beside it.
//
//   const auto layout = recogniseLayout(bytes, options);
//   for (const Column& column : layout->columns) if (column.use) show(column.channel.name);
#pragma once

#include "core/log/clock_text.h"
#include "core/log/headings.h"
#include "core/log/read.h"

namespace muffle {

struct Column {
  bool isTime = false;
  bool use = false; ///< holds readings that are wanted
  Channel channel;  ///< named, with its role and unit; no readings yet
  UnitMark mark;
  bool unitIsMarked = false;  ///< said in its heading or behind its readings
  bool unitIsUnsure = false;  ///< a temperature that could be in either degree
  bool placeIsSaid = true;    ///< by its heading or by the grower
  bool placeIsUnsure = false; ///< the only temperature, and nothing says where it hangs
};

struct Layout {
  char separator = ',';
  bool decimalComma = false;
  DateForm form = DateForm::iso;
  bool ambiguousDate = false; ///< no day above 12 proves which number is the month
  bool dateOnly = false;      ///< one row a day, without a time of day
  int headerRow = -1;         ///< index of the row with names; -1 none
  int timeColumn = -1;
  int clockColumn = -1;             ///< second half of a date and a time in two columns; -1 none
  std::optional<int> clockOffset_s; ///< said in the time column's heading
  int nameColumn = -1;              ///< of a tall table: the sensor's name
  int valueColumn = -1;             ///< of a tall table: its reading
  int unitColumn = -1;              ///< of a tall table: its unit; -1 none
  std::size_t width = 0;            ///< cells of a data row
  std::size_t firstData = 0;        ///< rows before the first that holds readings
  std::vector<Column> columns;      ///< as many as a data row has cells; of a tall table, one a sensor met so far
  [[nodiscard]] bool isTall() const { return nameColumn >= 0; }
};

/// `bytes` in UTF-8 or Latin-1 without a byte order mark. Problem if there is no table, no column of dates or none of readings.
Result<Layout> recogniseLayout(std::string_view bytes, const ReadOptions& options);

/// What a column with this heading holds. `cells`: readings of it, to tell the unit by; `others`: the table's, for a unit in common;
/// `known`: its role where there is no heading to tell it by.
Column describeColumn(const std::string& heading, const std::vector<std::string>& cells, bool decimalComma, const std::vector<Column>& others,
                      const ReadOptions& options, std::optional<Role> known = std::nullopt);

/// Two columns of one role get ids of their own; outside there is one, the others are set by.
void tellApart(std::vector<Column>& columns);

} // namespace muffle
