// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/log/cells.h"

#include "core/bounds.h"

#include <csv.h>
#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cctype>
#include <charconv>
#include <cmath>

namespace muffle {
namespace {

struct RowSink {
  std::function<bool(const std::vector<std::string_view>&, long)> onRow;
  std::string text; ///< fields of the row, joined
  std::vector<std::size_t> ends;
  std::vector<std::string_view> cells;
  long line = 1;
  std::size_t began = 0; ///< where in the file the row began, to within a chunk
  std::size_t at = 0;    ///< where the chunk at work begins
  bool stopped = false, isTooWide = false;
};

void onField(void* data, std::size_t size, void* sink) {
  auto& row = *static_cast<RowSink*>(sink);
  if (row.ends.size() >= bounds::kTableColumns) row.isTooWide = true;
  if (row.stopped || row.isTooWide) return;
  row.text.append(static_cast<const char*>(data), size);
  row.ends.push_back(row.text.size());
}

void onRow(int, void* sink) {
  auto& row = *static_cast<RowSink*>(sink);
  if (row.isTooWide) row.stopped = true;
  row.began = row.at;
  row.cells.clear();
  std::size_t from = 0;
  for (const std::size_t end : row.ends) {
    row.cells.push_back(std::string_view(row.text).substr(from, end - from));
    from = end;
  }
  if (!row.stopped && !row.onRow(row.cells, row.line)) row.stopped = true;
  ++row.line;
  row.text.clear();
  row.ends.clear();
}

/// What may stand behind a number: letters, a degree or per cent sign, a stroke; not another number.
bool isUnit(std::string_view text) {
  if (text.empty() || text.size() > 8) return false;
  const auto first = static_cast<unsigned char>(text.front());
  return (std::isalpha(first) || first >= 0x80 || first == '%') &&
         std::none_of(text.begin(), text.end(), [](char c) { return std::isdigit(static_cast<unsigned char>(c)) && c != '2'; });
}

} // namespace

std::string lower(std::string_view text) {
  std::string out(text);
  for (char& c : out) c = static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
  return out;
}

std::string_view trim(std::string_view s) {
  while (!s.empty() && (s.front() == ' ' || s.front() == '\t' || s.front() == '\r')) s.remove_prefix(1);
  while (!s.empty() && (s.back() == ' ' || s.back() == '\t' || s.back() == '\r')) s.remove_suffix(1);
  return s;
}

bool isMissing(std::string_view cell) {
  static constexpr std::array<std::string_view, 11> kMarks{"", "-", "--", "---", "na", "n/a", "nan", "null", "none", "error", "err"};
  if (cell.size() > 5) return false;
  const std::string l = lower(cell);
  return std::find(kMarks.begin(), kMarks.end(), l) != kMarks.end();
}

std::optional<double> parseNumber(std::string_view cell, bool decimalComma) {
  cell = trim(cell);
  if (!cell.empty() && cell.front() == '+') cell.remove_prefix(1);
  char buffer[48];
  if (cell.empty() || cell.size() >= sizeof buffer) return std::nullopt;
  std::size_t n = 0;
  for (std::size_t i = 0; i < cell.size(); ++i) {
    // a true minus sign, as spreadsheets write it
    if (cell.substr(i).starts_with("\xE2\x88\x92")) {
      buffer[n++] = '-';
      i += 2;
      continue;
    }
    buffer[n++] = decimalComma && cell[i] == ',' ? '.' : cell[i];
  }
  double value = 0.0;
  const auto [end, error] = std::from_chars(buffer, buffer + n, value);
  if (error != std::errc{} || !std::isfinite(value)) return std::nullopt;
  if (end != buffer + n && !isUnit(trim(std::string_view(end, static_cast<std::size_t>(buffer + n - end))))) return std::nullopt;
  return value;
}

Status eachRow(std::string_view bytes, char separator, std::function<bool(const std::vector<std::string_view>&, long)> sink) {
  csv_parser parser{};
  csv_init(&parser, CSV_REPALL_NL);
  csv_set_delim(&parser, static_cast<unsigned char>(separator));
  csv_set_blk_size(&parser, std::size_t{1} << 16); // what a long cell's room grows by; by its own 128 bytes a mebibyte is copied eight thousand times
  RowSink rows;
  rows.onRow = std::move(sink);
  constexpr std::size_t kChunk = 1 << 16;
  const auto where = [&] { return fmt::format("line {}", rows.line); };
  Status done = Done{};
  for (; rows.at < bytes.size() && !rows.stopped && done; rows.at += kChunk) {
    const auto part = bytes.substr(rows.at, kChunk);
    csv_parse(&parser, part.data(), part.size(), onField, onRow, &rows);
    if (rows.isTooWide)
      done =
          Problem{ProblemKind::badInput, where(), Message{"log.more-than-columns", bounds::kTableColumns}, Message{"log.at-most", bounds::kTableColumns}};
    else if (!rows.stopped && rows.at - rows.began > bounds::kTableRowBytes)
      done = Problem{ProblemKind::badInput, where(), Message{"log.row-too-long", bounds::kTableRowBytes},
                     Message{"log.at-most", bounds::kTableRowBytes}};
  }
  if (!rows.stopped && done) csv_fini(&parser, onField, onRow, &rows);
  if (rows.isTooWide && done)
    done = Problem{ProblemKind::badInput, where(), Message{"log.more-than-columns", bounds::kTableColumns}, Message{"log.at-most", bounds::kTableColumns}};
  csv_free(&parser);
  return done;
}

} // namespace muffle
