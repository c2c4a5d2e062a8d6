// SPDX-License-Identifier: GPL-3.0-or-later
//
// What a logger's table is made of: separator, decimal sign, headings, the time column and its form, and what each other column holds.
// Recognised from the first rows; every guess can be overruled by the options.
//
//   const auto layout = recogniseLayout(bytes, options);
//   for (const Column& column : layout->columns) if (column.use) show(column.channel.name);
#pragma once

#include "core/log/cells.h"
#include "core/log/read.h"

namespace muffle {

/// A unit found in a heading, and the way to the channel's own: value x factor + offset.
struct UnitMark {
  std::string unit;
  double factor = 1.0;
  double offset = 0.0;
};

struct Column {
  bool isTime = false;
  bool use = false; ///< holds readings that are wanted
  Channel channel;  ///< named, with its role and unit; no readings yet
  UnitMark mark;
};

struct Layout {
  char separator = ',';
  bool decimalComma = false;
  DateForm form = DateForm::iso;
  bool ambiguousDate = false; ///< no day above 12 proves which number is the month
  int headerRow = -1;         ///< index of the row with names; -1 none
  int timeColumn = -1;
  int clockColumn = -1;        ///< second half of a date and a time in two columns; -1 none
  std::size_t firstData = 0;   ///< rows before the first that holds readings
  std::vector<Column> columns; ///< as many as a data row has cells
};

/// `bytes` without a byte order mark. Problem if there is no table, no column of dates or none of readings.
Result<Layout> recogniseLayout(std::string_view bytes, const ReadOptions& options);

} // namespace muffle
