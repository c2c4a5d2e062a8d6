// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/log/layout.h"

#include "core/log/cells.h"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <map>
#include <set>

namespace muffle {
namespace {

constexpr std::size_t kSampleRows = 400;
constexpr std::size_t kHeadBytes = 20000;
constexpr int kSeparatorLines = 60;
constexpr double kMostReadable = 0.6; // of a column's cells must read as dates
constexpr double kFirstEpoch = 1e8;
constexpr std::size_t kMostSensors = 40;   // names in a tall table's first rows; more are remarks
constexpr double kSurelyFahrenheit = 31.0; // a winter's mean; degC would be a heat wave
constexpr double kSurelyCelsius = 14.0;    // below it degF would be a polar winter

Problem noTable(Message what, Message allowed) { return {ProblemKind::badInput, "line 1", std::move(what), std::move(allowed)}; }

int countOf(std::string_view line, char separator) {
  bool quoted = false;
  int n = 0;
  for (const char c : line) {
    if (c == '"') quoted = !quoted;
    if (c == separator && !quoted) ++n;
  }
  return n;
}

char guessSeparator(std::string_view bytes) {
  const std::string_view head = bytes.substr(0, kHeadBytes);
  char best = ',';
  double bestScore = -1.0;
  for (const char candidate : {',', ';', '\t', '|'}) {
    std::map<int, int> counts;
    int lines = 0;
    for (std::size_t from = 0; from < head.size() && lines < kSeparatorLines;) {
      const auto end = std::min(head.find_first_of("\r\n", from), head.size());
      const auto line = head.substr(from, end - from);
      if (!trim(line).empty()) ++counts[countOf(line, candidate)], ++lines;
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

bool beginsLikeNumber(std::string_view cell) {
  cell = trim(cell);
  return !cell.empty() && std::isdigit(static_cast<unsigned char>(cell.front()));
}

bool isDegree(const UnitMark& mark) { return mark.unit == "C" || mark.unit == "F" || mark.unit == "K"; }

/// A unit of something else than the name says, "Tunnel [%]", is believed before the name.
void followUnit(Channel& channel, const UnitMark& mark) {
  if (!isTemperature(channel.role) || isDegree(mark)) return;
  channel.statistic = Statistic::moment;
  const bool outside = channel.role == Role::outside;
  channel.id.clear();
  if (mark.unit == "%")
    channel.role = Role::humidity, channel.id = outside ? "outside" : "house";
  else if (mark.unit == "W" || mark.unit == "kW" || mark.isEnergy)
    channel.role = Role::heater, channel.id = "1";
  else if (mark.unit == "m/s" || mark.unit == "km/h" || mark.unit == "mph" || mark.unit == "kn")
    channel.role = Role::wind;
  else if (mark.unit == "W/m2" || mark.unit == "lx" || mark.unit == "klx")
    channel.role = Role::sun;
  else
    channel.role = Role::note;
}

/// From the heading, the cells, the other temperatures, else from what the readings' mean fits.
void takeUnit(Column& column, const std::optional<UnitMark>& inHeading, const std::optional<UnitMark>& behind, double mean, const std::vector<Column>& others,
              const ReadOptions& options) {
  Channel& channel = column.channel;
  const auto fits = [&](const std::optional<UnitMark>& mark) { return mark && isTemperature(channel.role) == isDegree(*mark); };
  if (fits(inHeading)) {
    column.mark = *inHeading;
    column.unitIsMarked = true;
    channel.unitWhy = Message{"log.said-heading"};
  } else if (fits(behind)) {
    column.mark = *behind;
    column.unitIsMarked = true;
    channel.unitWhy = Message{"log.said-behind-readings"};
  } else if (isTemperature(channel.role)) {
    static const UnitMark kFahrenheit{"F", 1.0 / 1.8, -32.0 / 1.8}, kCelsius{"C"};
    const auto marked = std::find_if(others.begin(), others.end(), [](const Column& c) { return c.use && isTemperature(c.channel.role) && c.unitIsMarked; });
    if (options.fahrenheit) {
      column.mark = *options.fahrenheit ? kFahrenheit : kCelsius;
      channel.unitWhy = Message{"log.as-you-said"};
    } else if (marked != others.end()) {
      column.mark = marked->mark;
      const bool fahrenheit = column.mark.unit == "F";
      column.unitIsUnsure = fahrenheit ? mean < kSurelyCelsius : mean > kSurelyFahrenheit && column.mark.unit == "C" && channel.role != Role::store;
      channel.unitWhy = column.unitIsUnsure ? Message{"log.unlike-its-neighbour", marked->channel.name, column.mark.unit, std::llround(mean)}
                                            : Message{"log.as-its-neighbour", marked->channel.name};
    } else {
      const bool warm = channel.role == Role::store || channel.role == Role::room || channel.role == Role::cover;
      const bool f = mean > kSurelyFahrenheit && channel.role != Role::store;
      column.mark = f ? kFahrenheit : kCelsius;
      column.unitIsUnsure = mean > kSurelyCelsius && (mean <= kSurelyFahrenheit || warm);
      channel.unitWhy = column.unitIsUnsure ? Message{"log.could-be-either-degree", std::llround(mean)}
                                            : Message{f ? "log.readings-fit-fahrenheit" : "log.readings-fit-celsius", std::llround(mean)};
    }
  } else {
    column.mark.unit = channel.unit();
    channel.unitWhy = Message{"log.taken-as-usual"};
  }
  if (channel.role == Role::sun && column.mark.unit == "W") column.mark.unit = "W/m2";
  channel.unitIn = column.mark.unit;
}

/// Looks at the first rows and fills a layout, one question after the other.
class Recogniser {
public:
  Recogniser(std::string_view bytes, const ReadOptions& options) : m_bytes(bytes), m_options(options) {
    m_layout.separator = options.separator.value_or(guessSeparator(bytes));
    m_sampled = eachRow(bytes, m_layout.separator, [&](const auto& cells, long) {
      m_sample.emplace_back(cells.begin(), cells.end());
      return m_sample.size() < kSampleRows;
    });
  }

  Result<Layout> run() {
    if (!m_sampled) return m_sampled.problems();
    findWidth();
    if (m_layout.width < 2) return noTable(Message{"log.no-columns-were-found"}, Message{"log.separated-table-needed"});
    findTime();
    if (m_layout.timeColumn < 0) return noTable(Message{"log.no-column-dates-was"}, Message{"log.dates-needed"});
    proveDates();
    findClock();
    findHeadings();
    findDecimalSign();
    findTall();
    if (m_layout.isTall())
      describeSensors();
    else
      describeColumns();
    soleThermometer();
    if (!m_layout.isTall()) tellApart(m_layout.columns); // a tall table may bring more sensors yet
    if (std::none_of(m_layout.columns.begin(), m_layout.columns.end(), [](const Column& c) { return c.use; }))
      return noTable(Message{"log.no-column-readings-was"}, Message{"log.numbers-needed"});
    return std::move(m_layout);
  }

private:
  using Row = std::vector<std::string>;
  /// Rows of full width from the first with readings on.
  template <class F> void eachDataRow(F visit) const {
    for (std::size_t r = m_layout.firstData; r < m_sample.size(); ++r)
      if (m_sample[r].size() == m_layout.width) visit(m_sample[r]);
  }
  [[nodiscard]] static std::size_t index(int column) { return static_cast<std::size_t>(column); }

  /// The widest common width decides what a data row is.
  void findWidth() {
    std::map<std::size_t, int> widths;
    for (const auto& row : m_sample) ++widths[row.size()];
    int most = 0;
    for (const auto& [w, n] : widths)
      if (n >= most) m_layout.width = w, most = n;
  }

  /// The cells of a column that hold a digit.
  [[nodiscard]] std::vector<std::string> numericCells(std::size_t column) const {
    std::vector<std::string> cells;
    for (const auto& row : m_sample)
      if (row.size() == m_layout.width && row[column].find_first_of("0123456789") != std::string::npos) cells.emplace_back(trim(row[column]));
    return cells;
  }

  /// The first column whose cells read as a date in most rows.
  void findTime() {
    findTime(false);
    if (m_layout.timeColumn < 0) findTime(true);
  }
  /// The first rows may end before any day above 12: then all of them are looked through.
  void proveDates() {
    if (!m_layout.ambiguousDate || m_options.monthFirst) return;
    DateOrder order;
    const auto column = index(m_layout.timeColumn);
    const auto seen = eachRow(m_bytes, m_layout.separator, [&](const auto& cells, long) {
      if (cells.size() == m_layout.width && beginsLikeNumber(cells[column])) order.see(trim(cells[column]));
      return true;
    });
    const auto form = seen ? order.form() : std::nullopt;
    if (!form) return;
    m_layout.form = *form;
    m_layout.ambiguousDate = false;
  }
  /// A spreadsheet's day numbers are known by their heading, or, where there is no other time, by their even steps.
  void findTime(bool bySteps) {
    for (std::size_t c = 0; c < m_layout.width && m_layout.timeColumn < 0; ++c) {
      const auto cells = numericCells(c);
      if (cells.empty() || isClockOnly(cells.back())) continue;
      bool ambiguous = false;
      const DateForm form = guessDateForm(cells, ambiguous);
      if (form == DateForm::epoch) {
        const auto v = parseNumber(cells.back(), false);
        if (!v || *v < kFirstEpoch) continue;
      }
      if (form == DateForm::spreadsheet && !(bySteps ? stepsLikeDays(cells) : looksLikeTimeName(headingAbove(c)))) continue; // 45231 may be anything
      const auto good = std::count_if(cells.begin(), cells.end(), [&](const std::string& s) { return parseClock(s, form).has_value(); });
      if (static_cast<double>(good) < kMostReadable * static_cast<double>(cells.size())) continue;
      m_layout.timeColumn = static_cast<int>(c);
      m_layout.form = form;
      m_layout.ambiguousDate = ambiguous;
    }
    if (m_options.monthFirst && (m_layout.form == DateForm::dayFirst || m_layout.form == DateForm::monthFirst))
      m_layout.form = *m_options.monthFirst ? DateForm::monthFirst : DateForm::dayFirst;
  }
  [[nodiscard]] std::string headingAbove(std::size_t column) const {
    for (const auto& row : m_sample)
      if (row.size() == m_layout.width && !beginsLikeNumber(row[column])) return row[column];
    return {};
  }

  /// Another column with the time of day, where the date has a column of its own.
  void findClock() {
    if (m_layout.form == DateForm::epoch) return;
    const auto dates = numericCells(index(m_layout.timeColumn));
    const auto withTime = std::count_if(dates.begin(), dates.end(), [&](const std::string& s) {
      const auto clock = parseClock(s, m_layout.form);
      return clock && clock->hasTime;
    });
    if (2 * static_cast<std::size_t>(withTime) > dates.size()) return;
    for (std::size_t c = 0; c < m_layout.width; ++c) {
      const auto cells = numericCells(c);
      if (static_cast<int>(c) == m_layout.timeColumn || cells.empty() || !isClockOnly(cells.back())) continue;
      m_layout.clockColumn = static_cast<int>(c);
      return;
    }
    m_layout.dateOnly = true;
  }

  /// The last row of full width above the first data row; a row of nothing but units below it is read into it.
  void findHeadings() {
    const auto isData = [&](const Row& row) { return row.size() == m_layout.width && parseClock(row[index(m_layout.timeColumn)], m_layout.form); };
    while (m_layout.firstData < m_sample.size() && !isData(m_sample[m_layout.firstData])) ++m_layout.firstData;
    for (std::size_t r = 0; r < m_layout.firstData; ++r) {
      Row& row = m_sample[r];
      if (row.size() != m_layout.width) continue;
      for (std::string& cell : row) cell = asUtf8(trim(cell));
      const bool onlyUnits = m_layout.headerRow >= 0 &&
                             std::any_of(row.begin(), row.end(), [](const std::string& s) { return unitIn(fmt::format("({})", lower(s))).has_value(); }) &&
                             std::all_of(row.begin(), row.end(), [](const std::string& s) { return s.size() <= 8; });
      if (!onlyUnits) {
        m_layout.headerRow = static_cast<int>(r);
        continue;
      }
      Row& names = m_sample[index(m_layout.headerRow)];
      for (std::size_t c = 0; c < row.size(); ++c)
        if (!row[c].empty())
          names[c] = row[c].front() == '(' || row[c].front() == '[' ? fmt::format("{} {}", names[c], row[c]) : fmt::format("{} ({})", names[c], row[c]);
    }
    if (m_layout.headerRow < 0) return;
    const Row& names = m_sample[index(m_layout.headerRow)];
    m_layout.clockOffset_s = clockOffsetIn(names[index(m_layout.timeColumn)]);
    if (!m_layout.clockOffset_s && m_layout.clockColumn >= 0) m_layout.clockOffset_s = clockOffsetIn(names[index(m_layout.clockColumn)]);
  }

  void findDecimalSign() {
    if (m_options.decimalComma) {
      m_layout.decimalComma = *m_options.decimalComma;
      return;
    }
    int commas = 0, dots = 0;
    eachDataRow([&](const Row& row) {
      for (std::size_t c = 0; c < row.size(); ++c) {
        if (static_cast<int>(c) == m_layout.timeColumn || static_cast<int>(c) == m_layout.clockColumn) continue;
        if (parseNumber(row[c], true) && row[c].find(',') != std::string::npos) ++commas;
        if (parseNumber(row[c], false) && row[c].find('.') != std::string::npos) ++dots;
      }
    });
    m_layout.decimalComma = commas > dots;
  }

  [[nodiscard]] bool isTimeColumn(std::size_t c) const { return static_cast<int>(c) == m_layout.timeColumn || static_cast<int>(c) == m_layout.clockColumn; }
  [[nodiscard]] bool isMostlyNumbers(std::size_t c) const {
    long numbers = 0, cells = 0;
    eachDataRow([&](const Row& row) {
      if (isMissing(trim(row[c]))) return;
      ++cells;
      numbers += parseNumber(row[c], m_layout.decimalComma) ? 1 : 0;
    });
    return cells == 0 || 2 * numbers > cells;
  }

  /// A few names that come again and again beside one column of numbers.
  void findTall() {
    int value = -1, name = -1, unit = -1;
    for (std::size_t c = 0; c < m_layout.width; ++c) {
      if (isTimeColumn(c)) continue;
      std::set<std::string> texts;
      std::size_t rows = 0;
      eachDataRow([&](const Row& row) { texts.insert(row[c]), ++rows; });
      if (isMostlyNumbers(c)) {
        const std::string heading = lower(m_layout.headerRow >= 0 ? m_sample[index(m_layout.headerRow)][c] : "");
        if (value < 0 || heading.find("value") != std::string::npos || heading.find("reading") != std::string::npos ||
            heading.find("state") != std::string::npos)
          value = static_cast<int>(c);
        continue;
      }
      if (texts.size() > kMostSensors || 2 * texts.size() > rows) continue;
      const bool areUnits =
          std::all_of(texts.begin(), texts.end(), [](const std::string& s) { return trim(s).empty() || unitIn(fmt::format("({})", lower(asUtf8(trim(s))))); });
      if (areUnits)
        unit = static_cast<int>(c);
      else if (name < 0)
        name = static_cast<int>(c);
    }
    if (value < 0 || name < 0) return;
    int numberColumns = 0; // beside times and names: with several, the names are remarks
    for (std::size_t c = 0; c < m_layout.width; ++c) numberColumns += !isTimeColumn(c) && isMostlyNumbers(c) ? 1 : 0;
    std::set<std::string> names;
    eachDataRow([&](const Row& row) { names.insert(row[index(name)]); });
    if (numberColumns > 2 || (numberColumns > 1 && unit < 0 && names.size() < 2)) return;
    m_layout.nameColumn = name;
    m_layout.valueColumn = value;
    m_layout.unitColumn = unit;
  }

  void describeSensors() {
    std::vector<std::string> order;
    std::map<std::string, std::vector<std::string>> cells;
    eachDataRow([&](const Row& row) {
      const std::string name = asUtf8(trim(row[index(m_layout.nameColumn)]));
      auto [it, isNew] = cells.try_emplace(name);
      if (isNew) order.push_back(name);
      const std::string_view unit = m_layout.unitColumn >= 0 ? trim(row[index(m_layout.unitColumn)]) : std::string_view();
      it->second.push_back(fmt::format("{} {}", row[index(m_layout.valueColumn)], unit));
    });
    for (const std::string& name : order) m_layout.columns.push_back(describeColumn(name, cells[name], m_layout.decimalComma, m_layout.columns, m_options));
  }

  void describeColumns() {
    m_layout.columns.resize(m_layout.width);
    for (std::size_t c = 0; c < m_layout.width; ++c) m_layout.columns[c].isTime = isTimeColumn(c);
    // twice: what has its unit marked comes first, so that the others can go by it
    for (const bool unmarked : {false, true})
      for (std::size_t c = 0; c < m_layout.width; ++c) {
        const std::string heading = headingOf(c);
        const bool isMarked = unitIn(lower(heading)).has_value();
        if (m_layout.columns[c].isTime || isMarked == unmarked) continue;
        if (looksLikeTimeName(heading) && m_layout.headerRow >= 0) {
          m_layout.columns[c].channel.name = heading;
          continue;
        }
        std::vector<std::string> cells;
        eachDataRow([&](const Row& row) { cells.push_back(row[c]); });
        m_layout.columns[c] = describeColumn(heading, cells, m_layout.decimalComma, m_layout.columns, m_options, roleByPlace(c));
      }
  }
  [[nodiscard]] std::string headingOf(std::size_t c) const {
    const std::string name = m_layout.headerRow >= 0 ? m_sample[index(m_layout.headerRow)][c] : std::string();
    return name.empty() ? fmt::format("column {}", c + 1) : name;
  }
  /// Without names: outside, then inside, as hand-kept sheets have it.
  [[nodiscard]] std::optional<Role> roleByPlace(std::size_t c) const {
    if (m_layout.headerRow >= 0) return std::nullopt;
    int before = 0;
    for (std::size_t k = 0; k < c; ++k) before += !isTimeColumn(k) && isMostlyNumbers(k) ? 1 : 0;
    return before == 0 ? Role::outside : before == 1 ? Role::room : Role::note;
  }
  /// One thermometer whose name says nothing of its place is taken to stand outside, and asked about.
  void soleThermometer() {
    Column* only = nullptr;
    for (Column& c : m_layout.columns) {
      if (!c.use || !isTemperature(c.channel.role)) continue;
      if (only) return;
      only = &c;
    }
    if (!only || only->placeIsSaid || only->channel.statistic != Statistic::moment) return;
    only->channel.role = Role::outside;
    only->channel.id.clear();
    only->placeIsUnsure = true;
  }
  std::string_view m_bytes;
  const ReadOptions& m_options;
  std::vector<Row> m_sample;
  Status m_sampled = Done{};
  Layout m_layout;
};

} // namespace

Column describeColumn(const std::string& heading, const std::vector<std::string>& cells, bool decimalComma, const std::vector<Column>& others,
                      const ReadOptions& options, std::optional<Role> known) {
  Column column;
  Channel& channel = column.channel;
  channel.name = heading;
  long numbers = 0, written = 0;
  double sum = 0.0;
  std::map<std::string, long> units;
  for (const std::string& cell : cells) {
    if (isMissing(trim(cell))) continue;
    ++written;
    if (const auto v = parseNumber(cell, decimalComma)) ++numbers, sum += *v, ++units[unitBehind(cell)];
  }
  column.use = written == 0 || 2 * numbers > written;
  if (known)
    channel.role = *known, channel.id = *known == Role::room ? "house" : "", column.placeIsSaid = false;
  else
    column.placeIsSaid = guessRole(heading, channel);
  if (isTemperature(channel.role)) channel.statistic = statisticIn(heading);
  const auto common = std::max_element(units.begin(), units.end(), [](const auto& x, const auto& y) { return x.second < y.second; });
  const auto inHeading = unitIn(lower(heading));
  const auto behind = common == units.end() || common->first.empty() ? std::nullopt : unitIn(fmt::format("({})", common->first));
  if (inHeading)
    followUnit(channel, *inHeading);
  else if (behind)
    followUnit(channel, *behind);
  const auto choice = std::find_if(options.columns.begin(), options.columns.end(), [&](const ColumnChoice& c) { return c.heading == heading; });
  if (choice != options.columns.end()) {
    channel.role = choice->role;
    channel.id = choice->id;
    channel.statistic = choice->statistic;
    column.placeIsSaid = true;
    column.use = column.use && choice->use;
  }
  const double mean = numbers > 0 ? sum / static_cast<double>(numbers) : 0.0;
  takeUnit(column, inHeading, behind, mean, others, options);
  if (choice != options.columns.end() && !choice->unit.empty())
    if (const auto mark = unitIn(fmt::format("({})", lower(choice->unit)))) {
      column.mark = *mark;
      column.unitIsUnsure = false;
      column.unitIsMarked = false; // what is said of this column says nothing of others
      channel.unitIn = mark->unit;
      channel.unitWhy = Message{"log.as-you-said"};
    }
  return column;
}

void tellApart(std::vector<Column>& columns) {
  std::map<std::string, int> seen;
  for (Column& c : columns) {
    if (!c.use || c.isTime) continue;
    Channel& channel = c.channel;
    const auto key = [&] { return fmt::format("{} {}", roleText(channel.role, channel.id), static_cast<int>(channel.statistic)); };
    if (channel.role == Role::note || seen[key()]++ == 0) continue;
    if (channel.role == Role::outside || channel.role == Role::wind || channel.role == Role::sun || channel.role == Role::rain) {
      channel.role = Role::note;
      continue;
    }
    const std::string id = channel.id;
    for (int n = 2; n == 2 || seen[key()] > 0; ++n) channel.id = fmt::format("{}{}", id, n);
    ++seen[key()];
  }
}

Result<Layout> recogniseLayout(std::string_view bytes, const ReadOptions& options) { return Recogniser(bytes, options).run(); }

} // namespace muffle
