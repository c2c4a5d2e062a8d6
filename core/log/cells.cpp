// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/log/cells.h"

#include <csv.h>

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
  bool stopped = false;
};

void onField(void* data, std::size_t size, void* sink) {
  auto& row = *static_cast<RowSink*>(sink);
  row.text.append(static_cast<const char*>(data), size);
  row.ends.push_back(row.text.size());
}

void onRow(int, void* sink) {
  auto& row = *static_cast<RowSink*>(sink);
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
  if (error != std::errc{} || end != buffer + n || !std::isfinite(value)) return std::nullopt;
  return value;
}

void eachRow(std::string_view bytes, char separator, std::function<bool(const std::vector<std::string_view>&, long)> sink) {
  csv_parser parser{};
  csv_init(&parser, CSV_REPALL_NL);
  csv_set_delim(&parser, static_cast<unsigned char>(separator));
  RowSink rows;
  rows.onRow = std::move(sink);
  constexpr std::size_t kChunk = 1 << 16;
  for (std::size_t at = 0; at < bytes.size() && !rows.stopped; at += kChunk) {
    const auto part = bytes.substr(at, kChunk);
    csv_parse(&parser, part.data(), part.size(), onField, onRow, &rows);
  }
  if (!rows.stopped) csv_fini(&parser, onField, onRow, &rows);
  csv_free(&parser);
}

std::optional<Clock> parseClock(std::string_view text, DateForm form) {
  text = trim(text);
  if (text.empty()) return std::nullopt;
  if (form == DateForm::epoch) {
    double seconds = 0.0;
    const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), seconds);
    if (error != std::errc{} || end != text.data() + text.size()) return std::nullopt;
    if (seconds > 1e11) seconds /= 1000.0; // milliseconds
    return Clock{static_cast<std::int64_t>(std::llround(seconds)), 0};
  }
  int number[7] = {0, 0, 0, 0, 0, 0, 0};
  int count = 0;
  std::size_t i = 0;
  std::optional<int> offset;
  int half = 0; // 1 am, 2 pm
  while (i < text.size()) {
    const char c = text[i];
    if (std::isdigit(static_cast<unsigned char>(c))) {
      int value = 0;
      const auto end = std::from_chars(text.data() + i, text.data() + text.size(), value).ptr;
      const auto next = static_cast<std::size_t>(end - text.data());
      if (next == i) return std::nullopt;
      if (count < 7) number[count++] = value;
      i = next;
      if (count == 6 && i < text.size() && (text[i] == '.' || text[i] == ',')) { // fractions of a second
        ++i;
        while (i < text.size() && std::isdigit(static_cast<unsigned char>(text[i]))) ++i;
      }
      continue;
    }
    if ((c == 'Z' || c == 'z') && count >= 5) {
      offset = 0;
    } else if ((c == '+' || (c == '-' && count >= 5)) && i + 2 < text.size()) {
      int hours = 0, minutes = 0;
      const auto* p = text.data() + i + 1;
      if (std::from_chars(p, p + 2, hours).ptr != p + 2) return std::nullopt;
      std::size_t rest = i + 3;
      if (rest < text.size() && text[rest] == ':') ++rest;
      if (rest + 2 <= text.size()) std::from_chars(text.data() + rest, text.data() + rest + 2, minutes);
      offset = (c == '-' ? -1 : 1) * (hours * 3600 + minutes * 60);
      break;
    } else if ((c == 'a' || c == 'A' || c == 'p' || c == 'P') && i + 1 < text.size() && (text[i + 1] == 'm' || text[i + 1] == 'M' || text[i + 1] == '.')) {
      half = (c == 'a' || c == 'A') ? 1 : 2;
      break;
    } else if (std::isalpha(static_cast<unsigned char>(c)) && c != 'T' && c != 't') {
      return std::nullopt;
    }
    ++i;
  }
  if (count < 3) return std::nullopt;
  Date date;
  if (form == DateForm::iso)
    date = {number[0], static_cast<unsigned>(number[1]), static_cast<unsigned>(number[2])};
  else if (form == DateForm::dayFirst)
    date = {number[2], static_cast<unsigned>(number[1]), static_cast<unsigned>(number[0])};
  else
    date = {number[2], static_cast<unsigned>(number[0]), static_cast<unsigned>(number[1])};
  if (date.year < 100) date.year += date.year < 70 ? 2000 : 1900;
  int hour = number[3];
  if (half == 1 && hour == 12) hour = 0;
  if (half == 2 && hour < 12) hour += 12;
  if (!isValid(date) || date.year < 1900 || date.year > 2200 || hour > 24 || number[4] > 59 || number[5] > 60) return std::nullopt;
  return Clock{daysSinceEpoch(date) * 86400 + hour * 3600 + number[4] * 60 + number[5], offset};
}

} // namespace muffle
