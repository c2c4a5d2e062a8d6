// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/log/layout.h"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <map>

namespace muffle {
namespace {

constexpr std::size_t kSampleRows = 400;

Problem noTable(std::string what, std::string allowed) { return {ProblemKind::badInput, "line 1", std::move(what), std::move(allowed)}; }

bool hasWord(const std::string& name, std::initializer_list<const char*> words) {
  return std::any_of(words.begin(), words.end(), [&](const char* w) { return name.find(w) != std::string::npos; });
}

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

/// Looks at the first rows and fills a layout, one question after the other.
class Recogniser {
public:
  Recogniser(std::string_view bytes, const ReadOptions& options) : m_options(options) {
    m_layout.separator = options.separator.value_or(guessSeparator(bytes));
    eachRow(bytes, m_layout.separator, [&](const auto& cells, long) {
      m_sample.emplace_back(cells.begin(), cells.end());
      return m_sample.size() < kSampleRows;
    });
  }

  Result<Layout> run() {
    findWidth();
    if (m_width < 2)
      return noTable("no columns were found", "a table with a time column and at least one reading, separated by comma, semicolon, tab or |, is needed");

    findTime();
    if (m_layout.timeColumn < 0)
      return noTable("no column with dates was found", "one column must hold dates and times such as 2031-01-17 05:10 or 17/01/2031 05:10");
    findClock();
    findHeadings();
    findDecimalSign();
    describeColumns();
    if (std::none_of(m_layout.columns.begin(), m_layout.columns.end(), [](const Column& c) { return c.use; }))
      return noTable("no column of readings was found", "at least one column of numbers beside the time is needed");
    return std::move(m_layout);
  }

private:
  /// The widest common width decides what a data row is.
  void findWidth() {
    std::map<std::size_t, int> widths;
    for (const auto& row : m_sample) ++widths[row.size()];
    int most = 0;
    for (const auto& [w, n] : widths)
      if (n >= most) m_width = w, most = n;
  }

  /// The cells of a column that begin with a digit.
  [[nodiscard]] std::vector<std::string> numericCells(std::size_t column) const {
    std::vector<std::string> cells;
    for (const auto& row : m_sample)
      if (row.size() == m_width && !trim(row[column]).empty() && std::isdigit(static_cast<unsigned char>(trim(row[column]).front())))
        cells.emplace_back(trim(row[column]));
    return cells;
  }

  /// The first column whose cells read as a date in most rows.
  void findTime() {
    for (std::size_t c = 0; c < m_width && m_layout.timeColumn < 0; ++c) {
      const auto cells = numericCells(c);
      if (cells.empty() || isClockOnly(cells.front())) continue;
      bool ambiguous = false;
      const DateForm form = guessDateForm(cells, ambiguous);
      if (form == DateForm::epoch) {
        const auto v = parseNumber(cells.front(), false);
        if (!v || *v < 1e8) continue;
      }
      const auto good = std::count_if(cells.begin(), cells.end(), [&](const std::string& s) { return parseClock(s, form).has_value(); });
      if (static_cast<double>(good) < 0.6 * static_cast<double>(cells.size())) continue;
      m_layout.timeColumn = static_cast<int>(c);
      m_layout.form = form;
      m_layout.ambiguousDate = ambiguous;
    }
    if (m_options.monthFirst && m_layout.form != DateForm::iso && m_layout.form != DateForm::epoch)
      m_layout.form = *m_options.monthFirst ? DateForm::monthFirst : DateForm::dayFirst;
  }

  /// Another column with the time of day, where the date has a column of its own.
  void findClock() {
    if (m_layout.form == DateForm::epoch) return;
    if (numericCells(static_cast<std::size_t>(m_layout.timeColumn)).front().find(':') != std::string::npos) return;
    for (std::size_t c = 0; c < m_width; ++c) {
      const auto cells = numericCells(c);
      if (static_cast<int>(c) == m_layout.timeColumn || cells.empty() || !isClockOnly(cells.front())) continue;
      m_layout.clockColumn = static_cast<int>(c);
      return;
    }
  }

  /// The last row of full width above the first data row.
  void findHeadings() {
    while (m_layout.firstData < m_sample.size() && !(m_sample[m_layout.firstData].size() == m_width &&
                                                     parseClock(m_sample[m_layout.firstData][static_cast<std::size_t>(m_layout.timeColumn)], m_layout.form)))
      ++m_layout.firstData;
    for (std::size_t r = 0; r < m_layout.firstData; ++r)
      if (m_sample[r].size() == m_width) m_layout.headerRow = static_cast<int>(r);
  }

  void findDecimalSign() {
    if (m_options.decimalComma)
      m_layout.decimalComma = *m_options.decimalComma;
    else if (m_layout.separator != ',') {
      int commas = 0, dots = 0;
      for (std::size_t r = m_layout.firstData; r < m_sample.size(); ++r) {
        for (std::size_t c = 0; c < m_sample[r].size(); ++c) {
          if (static_cast<int>(c) == m_layout.timeColumn || static_cast<int>(c) == m_layout.clockColumn) continue;
          if (parseNumber(m_sample[r][c], true) && m_sample[r][c].find(',') != std::string::npos) ++commas;
          if (parseNumber(m_sample[r][c], false) && m_sample[r][c].find('.') != std::string::npos) ++dots;
        }
      }
      m_layout.decimalComma = commas > dots;
    }
  }

  void describeColumns() {
    m_layout.columns.resize(m_width);
    for (std::size_t c = 0; c < m_width; ++c) {
      Column& column = m_layout.columns[c];
      column.isTime = static_cast<int>(c) == m_layout.timeColumn || static_cast<int>(c) == m_layout.clockColumn;
      if (!column.isTime) describe(column, c);
    }
  }

  void describe(Column& column, std::size_t c) {
    Channel& channel = column.channel;
    channel.name = m_layout.headerRow >= 0 ? std::string(trim(m_sample[static_cast<std::size_t>(m_layout.headerRow)][c])) : fmt::format("column {}", c + 1);
    if (channel.name.empty()) channel.name = fmt::format("column {}", c + 1);
    if (looksLikeTimeName(channel.name) && m_layout.headerRow >= 0) return;
    long numbers = 0, cells = 0;
    double sum = 0.0;
    for (std::size_t r = m_layout.firstData; r < m_sample.size(); ++r) {
      if (m_sample[r].size() <= c || isMissing(trim(m_sample[r][c]))) continue;
      ++cells;
      if (const auto v = parseNumber(m_sample[r][c], m_layout.decimalComma)) ++numbers, sum += *v;
    }
    column.use = cells == 0 || 2 * numbers > cells;
    if (!column.use) return;
    if (m_layout.headerRow >= 0)
      guessRole(channel.name, channel);
    else { // without names: outside, then inside, as hand-kept sheets have it
      channel.role = m_valueColumns == 0 ? Role::outside : m_valueColumns == 1 ? Role::room : Role::note;
      if (channel.role == Role::room) channel.id = "house";
    }
    ++m_valueColumns;
    if (const int again = m_seenRoles[roleText(channel.role, channel.id)]++; again > 0) {
      if (channel.role == Role::outside)
        channel.role = Role::note;
      else
        channel.id = fmt::format("{}{}", channel.id, again + 1);
    }
    takeUnit(column, numbers > 0 ? sum / static_cast<double>(numbers) : 0.0);
  }

  /// From the heading, else from what the readings' mean fits.
  void takeUnit(Column& column, double mean) const {
    Channel& channel = column.channel;
    if (const auto mark = unitIn(lower(channel.name))) {
      column.mark = *mark;
      channel.unitWhy = "said in the heading";
      if (channel.role == Role::sun && mark->unit == "W") column.mark.unit = "W/m2";
    } else if (isTemperature(channel.role)) {
      const bool f = m_options.fahrenheit.value_or(mean > 31.0 && channel.role != Role::store);
      column.mark = f ? UnitMark{"F", 1.0 / 1.8, -32.0 / 1.8} : UnitMark{"C"};
      channel.unitWhy = m_options.fahrenheit
                            ? "as you said"
                            : fmt::format("no unit mark; readings near {:.0f} fit {} in winter", mean, f ? "degrees Fahrenheit" : "degrees Celsius");
    } else {
      column.mark.unit = channel.unit();
      channel.unitWhy = "no unit mark; taken as it is usual";
    }
    channel.unitIn = column.mark.unit;
  }

  const ReadOptions& m_options;
  std::vector<std::vector<std::string>> m_sample;
  std::size_t m_width = 0;
  std::map<std::string, int> m_seenRoles;
  int m_valueColumns = 0;
  Layout m_layout;
};

} // namespace

Result<Layout> recogniseLayout(std::string_view bytes, const ReadOptions& options) { return Recogniser(bytes, options).run(); }

} // namespace muffle
