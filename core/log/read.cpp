// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/log/read.h"

#include <csv.h>
#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cctype>
#include <charconv>
#include <map>

namespace muffle {
namespace {

constexpr std::size_t kSampleRows = 400;
constexpr long kMostProblems = 20;

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

// ---- rows -----------------------------------------------------------------------------------------------------------

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

/// Feeds rows to `sink` in chunks; false if the reader gave up (never on malformed quoting, which is read as it stands).
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

// ---- time -----------------------------------------------------------------------------------------------------------

enum class DateForm { iso, dayFirst, monthFirst, epoch };

struct Clock {
  std::int64_t local = 0;      ///< seconds since 1970 on the wall clock
  std::optional<int> offset_s; ///< said in the text
};

/// Splits "17/01/2031 5:10 pm" into its whole numbers.
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

// ---- recognition ----------------------------------------------------------------------------------------------------

struct Column {
  bool isTime = false;
  Channel channel;
  bool use = false;
  bool unitMarked = false;
};

bool hasWord(const std::string& name, std::initializer_list<const char*> words) {
  return std::any_of(words.begin(), words.end(), [&](const char* w) { return name.find(w) != std::string::npos; });
}

struct UnitMark {
  std::string unit;
  double factor = 1.0;
  double offset = 0.0;
};

std::optional<UnitMark> unitIn(const std::string& name) {
  const std::string n = " " + name + " ";
  const auto has = [&](std::initializer_list<const char*> marks) { return hasWord(n, marks); };
  if (has({"\xC2\xB0"
           "f",
           "[f]", "(f)", "_f ", " f ", "degf", "deg f", "fahrenheit"}))
    return UnitMark{"F", 1.0 / 1.8, -32.0 / 1.8};
  if (has({"\xC2\xB0"
           "c",
           "[c]", "(c)", "_c ", " c ", "degc", "deg c", "celsius", "\xE2\x84\x83"}))
    return UnitMark{"C"};
  if (has({"km/h", "kmh", "kph"})) return UnitMark{"km/h", 1.0 / 3.6};
  if (has({"mph"})) return UnitMark{"mph", 0.44704};
  if (has({"m/s", "m_s", "ms-1"})) return UnitMark{"m/s"};
  if (has({"kw]", "kw)", "_kw ", " kw "})) return UnitMark{"kW", 1000.0};
  if (has({"w/m", "wm-2", "w_m2"})) return UnitMark{"W/m2"};
  if (has({"[w]", "(w)", "_w ", " w "})) return UnitMark{"W"};
  if (has({"%"})) return UnitMark{"%"};
  if (has({"[mm]", "(mm)"})) return UnitMark{"mm"};
  return std::nullopt;
}

/// Role and id from a column's name in some of the languages loggers speak.
void guessRole(const std::string& header, Channel& c) {
  const std::string n = lower(header);
  // own form first: "room:house"
  for (int r = 0; r <= static_cast<int>(Role::note); ++r) {
    const auto role = static_cast<Role>(r);
    const std::string key = roleText(role, "");
    const std::string word = n.substr(0, n.find_first_of(" [("));
    if (word == key || word.starts_with(key + ":")) {
      c.role = role;
      c.id = word.size() > key.size() ? word.substr(key.size() + 1) : "";
      if (role == Role::room && c.id.empty()) c.id = "house";
      return;
    }
  }
  if (hasWord(n, {"humid", "rh", "feuchte", "moisture"}))
    c.role = Role::humidity, c.id = hasWord(n, {"out", "ext"}) ? "outside" : "house";
  else if (hasWord(n, {"wind", "gust", "vent "}))
    c.role = Role::wind;
  else if (hasWord(n, {"solar", "radiation", "irradiance", "pyran", "sun", "globalstrahlung", "w/m"}))
    c.role = Role::sun;
  else if (hasWord(n, {"rain", "precip", "regen"}))
    c.role = Role::rain;
  else if (hasWord(n, {"heater", "power", "watt", "heizung", "meter"}))
    c.role = Role::heater, c.id = "1";
  else if (hasWord(n, {"soil", "ground", "bed", "boden", "sol "}))
    c.role = Role::soil, c.id = "floor";
  else if (hasWord(n, {"tank", "barrel", "water", "drum", "butt", "fass"}))
    c.role = Role::store, c.id = "barrels";
  else if (hasWord(n, {"cover", "fleece", "under"}))
    c.role = Role::cover, c.id = "cover";
  else if (hasWord(n, {"out", "ambient", "extern", "aussen", "au\xC3\x9F", "buiten", "dehors", "fuera", "met", "ext"}))
    c.role = Role::outside;
  else if (hasWord(n, {"in", "house", "air", "tunnel", "green", "room", "temp", "binnen"}))
    c.role = Role::room, c.id = "house";
}

bool looksLikeTimeName(const std::string& header) {
  const std::string n = lower(header);
  return hasWord(n, {"time", "date", "stamp", "datum", "zeit", "fecha", "hora", "heure", "tijd", "epoch", "clock"});
}

char guessSeparator(std::string_view bytes) {
  const std::string_view head = bytes.substr(0, 20000);
  char best = ',';
  double bestScore = -1.0;
  for (const char candidate : {',', ';', '\t', '|'}) {
    std::map<int, int> counts;
    int lines = 0;
    std::size_t from = 0;
    while (from < head.size() && lines < 60) {
      auto end = head.find_first_of("\r\n", from);
      if (end == std::string_view::npos) end = head.size();
      const auto line = head.substr(from, end - from);
      if (!trim(line).empty()) {
        bool quoted = false;
        int n = 0;
        for (const char c : line) {
          if (c == '"') quoted = !quoted;
          if (c == candidate && !quoted) ++n;
        }
        ++counts[n];
        ++lines;
      }
      from = end + 1;
    }
    for (const auto& [n, how] : counts) {
      // many lines with the same count of separators; a decimal comma beside semicolons loses by order
      const double score = n == 0 ? -1.0 : how + 0.01 * n + (candidate == ';' || candidate == '\t' ? 0.5 * how : 0.0);
      if (score > bestScore) {
        bestScore = score;
        best = candidate;
      }
    }
  }
  return best;
}

struct Layout {
  char separator = ',';
  bool decimalComma = false;
  DateForm form = DateForm::iso;
  bool ambiguousDate = false;
  int headerRow = -1; ///< index of the row with names; -1 none
  int timeColumn = 0;
  int clockColumn = -1; ///< second half of a date and a time in two columns
  std::vector<Column> columns;
};

DateForm guessDateForm(const std::vector<std::string>& samples, bool& ambiguous) {
  int firstOver12 = 0, secondOver12 = 0, yearFirst = 0, plain = 0;
  for (const std::string& s : samples) {
    int a = 0, b = 0;
    const auto* end = s.data() + s.size();
    const auto first = std::from_chars(s.data(), end, a).ptr;
    if (first == s.data()) continue;
    if (first == end || (*first == '.' && first - s.data() >= 9)) {
      ++plain;
      continue;
    }
    if (first - s.data() == 4) {
      ++yearFirst;
      continue;
    }
    std::from_chars(first + 1, end, b);
    if (a > 12) ++firstOver12;
    if (b > 12) ++secondOver12;
  }
  ambiguous = false;
  if (plain > static_cast<int>(samples.size()) / 2) return DateForm::epoch;
  if (yearFirst > 0) return DateForm::iso;
  if (secondOver12 > firstOver12) return DateForm::monthFirst;
  ambiguous = firstOver12 == 0;
  return DateForm::dayFirst;
}

bool isClockOnly(std::string_view cell) {
  cell = trim(cell);
  const auto colon = cell.find(':');
  return colon != std::string_view::npos && colon <= 2 && colon > 0 && cell.find_first_of("-/") == std::string_view::npos && cell.size() <= 11;
}

} // namespace

Result<ReadLog> readLog(std::string_view bytes, const ReadOptions& options) {
  const auto problem = [](std::string what, std::string allowed, std::string where = "line 1") {
    return Problem{ProblemKind::badInput, std::move(where), std::move(what), std::move(allowed)};
  };
  if (bytes.starts_with("\xEF\xBB\xBF")) bytes.remove_prefix(3);
  if (trim(bytes.substr(0, 4096)).empty() && bytes.find_first_not_of(" \t\r\n") == std::string_view::npos)
    return problem("the file is empty", "a table with a time column and at least one reading is needed");
  const std::string_view head = bytes.substr(0, 65536);
  if (head.find('\0') != std::string_view::npos) return problem("this is not a text file", "a delimited text table (CSV) in UTF-8 is needed");

  ReadLog out;
  Layout layout;
  layout.separator = options.separator.value_or(guessSeparator(bytes));

  // a first look at some rows
  std::vector<std::vector<std::string>> sample;
  std::vector<long> sampleLine;
  eachRow(bytes, layout.separator, [&](const auto& cells, long line) {
    sample.emplace_back(cells.begin(), cells.end());
    sampleLine.push_back(line);
    return sample.size() < kSampleRows;
  });
  // widest common width decides what a data row is
  std::map<std::size_t, int> widths;
  for (const auto& row : sample) ++widths[row.size()];
  std::size_t width = 0;
  int most = 0;
  for (const auto& [w, n] : widths)
    if (n >= most) width = w, most = n;
  if (width < 2)
    return problem("no columns were found", "a table with a time column and at least one reading, separated by comma, semicolon, tab or |, is needed");

  // the time column: the first whose cells read as a date in most rows
  const auto firstCells = [&](std::size_t column) {
    std::vector<std::string> cells;
    for (const auto& row : sample)
      if (row.size() == width && !trim(row[column]).empty() && std::isdigit(static_cast<unsigned char>(trim(row[column]).front())))
        cells.emplace_back(trim(row[column]));
    return cells;
  };
  layout.timeColumn = -1;
  for (std::size_t c = 0; c < width && layout.timeColumn < 0; ++c) {
    const auto cells = firstCells(c);
    if (cells.empty() || isClockOnly(cells.front())) continue;
    bool ambiguous = false;
    const DateForm form = guessDateForm(cells, ambiguous);
    if (form == DateForm::epoch) {
      const auto v = parseNumber(cells.front(), false);
      if (!v || *v < 1e8) continue;
    }
    const auto good = std::count_if(cells.begin(), cells.end(), [&](const std::string& s) { return parseClock(s, form).has_value(); });
    if (static_cast<double>(good) < 0.6 * static_cast<double>(cells.size())) continue;
    layout.timeColumn = static_cast<int>(c);
    layout.form = form;
    layout.ambiguousDate = ambiguous;
  }
  if (layout.timeColumn < 0)
    return problem("no column with dates was found", "one column must hold dates and times such as 2031-01-17 05:10 or 17/01/2031 05:10");
  if (options.monthFirst && layout.form != DateForm::iso && layout.form != DateForm::epoch)
    layout.form = *options.monthFirst ? DateForm::monthFirst : DateForm::dayFirst;
  if (layout.form != DateForm::epoch) {
    for (std::size_t c = 0; c < width; ++c) {
      const auto cells = firstCells(c);
      if (static_cast<int>(c) != layout.timeColumn && !cells.empty() && isClockOnly(cells.front()) &&
          firstCells(static_cast<std::size_t>(layout.timeColumn)).front().find(':') == std::string::npos) {
        layout.clockColumn = static_cast<int>(c);
        break;
      }
    }
  }
  // header: the last row of full width above the first data row
  std::size_t firstData = 0;
  while (firstData < sample.size() &&
         !(sample[firstData].size() == width && parseClock(sample[firstData][static_cast<std::size_t>(layout.timeColumn)], layout.form)))
    ++firstData;
  for (std::size_t r = 0; r < firstData; ++r)
    if (sample[r].size() == width) layout.headerRow = static_cast<int>(r);

  // decimal sign
  if (options.decimalComma)
    layout.decimalComma = *options.decimalComma;
  else if (layout.separator != ',') {
    int commas = 0, dots = 0;
    for (std::size_t r = firstData; r < sample.size(); ++r) {
      for (std::size_t c = 0; c < sample[r].size(); ++c) {
        if (static_cast<int>(c) == layout.timeColumn || static_cast<int>(c) == layout.clockColumn) continue;
        if (parseNumber(sample[r][c], true) && sample[r][c].find(',') != std::string::npos) ++commas;
        if (parseNumber(sample[r][c], false) && sample[r][c].find('.') != std::string::npos) ++dots;
      }
    }
    layout.decimalComma = commas > dots;
  }

  // columns
  layout.columns.resize(width);
  std::vector<UnitMark> marks(width);
  std::map<std::string, int> seenRoles;
  int valueColumn = 0;
  for (std::size_t c = 0; c < width; ++c) {
    Column& column = layout.columns[c];
    column.isTime = static_cast<int>(c) == layout.timeColumn || static_cast<int>(c) == layout.clockColumn;
    if (column.isTime) continue;
    Channel& channel = column.channel;
    channel.name = layout.headerRow >= 0 ? std::string(trim(sample[static_cast<std::size_t>(layout.headerRow)][c])) : fmt::format("column {}", c + 1);
    if (channel.name.empty()) channel.name = fmt::format("column {}", c + 1);
    if (looksLikeTimeName(channel.name) && layout.headerRow >= 0) continue;
    long numbers = 0, cells = 0;
    double sum = 0.0;
    for (std::size_t r = firstData; r < sample.size(); ++r) {
      if (sample[r].size() <= c || isMissing(trim(sample[r][c]))) continue;
      ++cells;
      if (const auto v = parseNumber(sample[r][c], layout.decimalComma)) ++numbers, sum += *v;
    }
    column.use = cells == 0 || 2 * numbers > cells;
    if (!column.use) continue;
    if (layout.headerRow >= 0)
      guessRole(channel.name, channel);
    else { // without names: outside, then inside, as hand-kept sheets have it
      channel.role = valueColumn == 0 ? Role::outside : valueColumn == 1 ? Role::room : Role::note;
      if (channel.role == Role::room) channel.id = "house";
    }
    ++valueColumn;
    if (const int again = seenRoles[roleText(channel.role, channel.id)]++; again > 0) {
      if (channel.role == Role::outside)
        channel.role = Role::note;
      else
        channel.id = fmt::format("{}{}", channel.id, again + 1);
    }
    if (const auto mark = unitIn(lower(channel.name))) {
      marks[c] = *mark;
      column.unitMarked = true;
      channel.unitWhy = "said in the heading";
      if (channel.role == Role::sun && mark->unit == "W") marks[c].unit = "W/m2";
    } else if (isTemperature(channel.role)) {
      const double mean = numbers > 0 ? sum / static_cast<double>(numbers) : 0.0;
      const bool f = options.fahrenheit.value_or(mean > 31.0 && channel.role != Role::store);
      marks[c] = f ? UnitMark{"F", 1.0 / 1.8, -32.0 / 1.8} : UnitMark{"C"};
      channel.unitWhy = options.fahrenheit
                            ? "as you said"
                            : fmt::format("no unit mark; readings near {:.0f} fit {} in winter", mean, f ? "degrees Fahrenheit" : "degrees Celsius");
    } else {
      marks[c].unit = channel.unit();
      channel.unitWhy = "no unit mark; taken as it is usual";
    }
    channel.unitIn = marks[c].unit;
  }
  if (std::none_of(layout.columns.begin(), layout.columns.end(), [](const Column& c) { return c.use; }))
    return problem("no column of readings was found", "at least one column of numbers beside the time is needed");

  // the reading itself
  const auto note = [&](long line, std::string what, std::string allowed) {
    if (static_cast<long>(out.firstProblems.size()) < kMostProblems)
      out.firstProblems.push_back({ProblemKind::badInput, fmt::format("line {}", line), std::move(what), std::move(allowed)});
  };
  Log& log = out.log;
  UtcSeconds previous = std::numeric_limits<UtcSeconds>::min();
  std::int64_t cachedHour = std::numeric_limits<std::int64_t>::min();
  int cachedOffset = 0;
  bool cachedAmbiguous = false;
  bool sorted = true;
  bool cancelled = false;
  std::size_t estimatedRows =
      bytes.size() / std::max<std::size_t>(bytes.size() / std::max<std::size_t>(static_cast<std::size_t>(std::count(head.begin(), head.end(), '\n')) *
                                                                                    (bytes.size() / std::max<std::size_t>(head.size(), 1) + 1),
                                                                                1),
                                           8);
  log.time.reserve(estimatedRows);
  for (Column& c : layout.columns)
    if (c.use) c.channel.raw.reserve(estimatedRows);
  long seen = 0;
  eachRow(bytes, layout.separator, [&](const std::vector<std::string_view>& cells, long line) {
    if (seen++ < static_cast<long>(firstData)) return true;
    if (cells.size() == 1 && trim(cells[0]).empty()) return true;
    ++out.rows;
    if (options.progress && out.rows % 20000 == 0 &&
        !options.progress(std::min(0.99, static_cast<double>(out.rows) / static_cast<double>(std::max<std::size_t>(estimatedRows, 1))))) {
      cancelled = true;
      return false;
    }
    std::optional<Clock> clock;
    const auto timeCell = static_cast<std::size_t>(layout.timeColumn);
    if (cells.size() > timeCell) {
      if (layout.clockColumn >= 0 && cells.size() > static_cast<std::size_t>(layout.clockColumn))
        clock = parseClock(std::string(trim(cells[timeCell])) + " " + std::string(trim(cells[static_cast<std::size_t>(layout.clockColumn)])), layout.form);
      else
        clock = parseClock(cells[timeCell], layout.form);
    }
    if (!clock) {
      ++out.rowsLeftOut;
      note(line, fmt::format("\"{}\" is not a readable time", cells.size() > timeCell ? trim(cells[timeCell]).substr(0, 40) : ""), "the row is left out");
      return true;
    }
    UtcSeconds at = 0;
    if (clock->offset_s) {
      at = clock->local - *clock->offset_s;
    } else {
      const std::int64_t hour = clock->local / 3600;
      if (hour != cachedHour) {
        cachedHour = hour;
        cachedAmbiguous = options.zone.isAmbiguous(clock->local);
        cachedOffset = static_cast<int>(clock->local - options.zone.fromLocal(clock->local));
      }
      at = clock->local - cachedOffset;
      if (cachedAmbiguous && at <= previous) at = options.zone.fromLocal(clock->local, true);
    }
    if (at <= previous) sorted = false;
    previous = at;
    log.time.push_back(at);
    for (std::size_t c = 0; c < width; ++c) {
      Column& column = layout.columns[c];
      if (!column.use) continue;
      float value = std::numeric_limits<float>::quiet_NaN();
      if (c < cells.size()) {
        if (const auto number = parseNumber(cells[c], layout.decimalComma)) {
          value = static_cast<float>(*number * marks[c].factor + marks[c].offset);
        } else if (const auto cell = trim(cells[c]); !isMissing(cell)) {
          ++out.cellsLeftOut;
          note(line, fmt::format("\"{}\" under \"{}\" is not a number", cell.substr(0, 40), column.channel.name), "the reading is left out");
        }
      }
      column.channel.raw.push_back(value);
    }
    return true;
  });
  if (cancelled) return Problem{ProblemKind::cancelled, "", "reading was stopped", "nothing was kept"};
  if (log.time.empty()) return problem("no row has a readable time", "dates and times such as 2031-01-17 05:10 are needed");

  for (Column& c : layout.columns)
    if (c.use) log.channels.push_back(std::move(c.channel));
  long doubled = 0;
  if (!sorted) { // put in order; of equal times the first is kept
    std::vector<std::size_t> order(log.time.size());
    for (std::size_t i = 0; i < order.size(); ++i) order[i] = i;
    std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return log.time[a] < log.time[b]; });
    order.erase(std::unique(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return log.time[a] == log.time[b] && ++doubled; }), order.end());
    std::vector<UtcSeconds> time;
    for (const std::size_t i : order) time.push_back(log.time[i]);
    log.time = std::move(time);
    for (Channel& channel : log.channels) {
      std::vector<float> raw;
      for (const std::size_t i : order) raw.push_back(channel.raw[i]);
      channel.raw = std::move(raw);
    }
  }
  for (Channel& channel : log.channels) channel.flag.assign(log.time.size(), 0);

  // what was recognised, in words
  const char* separatorName = layout.separator == ',' ? "comma" : layout.separator == ';' ? "semicolon" : layout.separator == '\t' ? "tab" : "bar";
  out.recognised.push_back(fmt::format("{} columns separated by {}, decimal {}, {}", width, separatorName, layout.decimalComma ? "comma" : "point",
                                       layout.headerRow >= 0 ? "with headings" : "no headings"));
  const char* form = layout.form == DateForm::iso        ? "year first"
                     : layout.form == DateForm::epoch    ? "seconds since 1970"
                     : layout.form == DateForm::dayFirst ? "day first"
                                                         : "month first";
  out.recognised.push_back(fmt::format("time: {}{}{}", form, layout.ambiguousDate && layout.form == DateForm::dayFirst ? " (no day above 12 proves it)" : "",
                                       layout.form == DateForm::epoch ? "" : fmt::format(", {} where no offset is written", options.zone.name())));
  for (const Channel& channel : log.channels)
    out.recognised.push_back(fmt::format("\"{}\": {} in {} ({})", channel.name, roleText(channel.role, channel.id),
                                         channel.unitIn.empty() ? "no unit" : channel.unitIn, channel.unitWhy));
  if (doubled > 0) out.recognised.push_back(fmt::format("{} rows repeat a time and were left out", doubled));
  return out;
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
