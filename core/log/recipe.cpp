// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/log/recipe.h"

#include "core/json/message_text.h"
#include "core/json/shape.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <set>

namespace muffle {
namespace {

enum class RowChoice { recognised, first, second };
constexpr std::array<std::pair<RowChoice, const char*>, 3> kDecimals{
    {{RowChoice::recognised, "recognised"}, {RowChoice::first, "point"}, {RowChoice::second, "comma"}}};
constexpr std::array<std::pair<RowChoice, const char*>, 3> kDates{
    {{RowChoice::recognised, "recognised"}, {RowChoice::first, "day first"}, {RowChoice::second, "month first"}}};
constexpr std::array<std::pair<RowChoice, const char*>, 3> kDegrees{{{RowChoice::recognised, "recognised"}, {RowChoice::first, "C"}, {RowChoice::second, "F"}}};
constexpr std::array<std::pair<char, const char*>, 5> kSeparators{{{0, "recognised"}, {',', "comma"}, {';', "semicolon"}, {'\t', "tab"}, {'|', "bar"}}};
constexpr std::array<std::pair<Clockwork, const char*>, 3> kClocks{
    {{Clockwork::place, "place"}, {Clockwork::winterTime, "winter time"}, {Clockwork::utc, "UTC"}}};
constexpr std::array<std::pair<Statistic, const char*>, 3> kStatistics{
    {{Statistic::moment, "moment"}, {Statistic::lowest, "lowest"}, {Statistic::highest, "highest"}}};
constexpr std::array<std::pair<Role, const char*>, 11> kRoles{{{Role::outside, "outside"},
                                                               {Role::room, "room"},
                                                               {Role::soil, "soil"},
                                                               {Role::store, "store"},
                                                               {Role::cover, "cover"},
                                                               {Role::wind, "wind"},
                                                               {Role::sun, "sun"},
                                                               {Role::humidity, "humidity"},
                                                               {Role::heater, "heater"},
                                                               {Role::rain, "rain"},
                                                               {Role::note, "note"}}};

RowChoice of(const std::optional<bool>& v) { return !v ? RowChoice::recognised : *v ? RowChoice::second : RowChoice::first; }
std::optional<bool> from(RowChoice c) { return c == RowChoice::recognised ? std::nullopt : std::optional(c == RowChoice::second); }

/// The choices as they are written down.
struct Written {
  Recipe recipe;
  RowChoice decimal = RowChoice::recognised, dates = RowChoice::recognised, degrees = RowChoice::recognised;
  char separator = 0;
};

} // namespace

template <class V> void describe(V& v, ColumnChoice& c) {
  v.text("heading", c.heading, "of the column", true);
  v.choice("role", c.role, kRoles, "what it is taken for", true);
  v.text("id", c.id, "of the room, store, ...");
  v.choice("statistic", c.statistic, kStatistics, "what a reading stands for");
  v.text("unit", c.unit, "as it is written in the column; empty as recognised");
  v.boolean("use", c.use, "false leaves it aside");
}

template <class V> void describe(V& v, Written& w) {
  v.fixedText("schema", "muffle-recipe-1");
  v.text("name", w.recipe.name, "of the recipe", true);
  v.choice("separator", w.separator, kSeparators, "between columns");
  v.choice("decimal", w.decimal, kDecimals, "sign");
  v.choice("dates", w.dates, kDates, "day or month first");
  v.choice("degrees", w.degrees, kDegrees, "of temperatures without a mark");
  v.choice("clock", w.recipe.clock, kClocks, "the logger's");
  v.list("columns", w.recipe.columns, "every column but the time's");
}

Json recipeToJson(const Recipe& recipe) {
  Written w{recipe, of(recipe.decimalComma), of(recipe.monthFirst), of(recipe.fahrenheit), recipe.separator.value_or('\0')};
  Json json;
  FieldWriter writer(json);
  describe(writer, w);
  return json;
}

Result<Recipe> recipeFromJson(const Json& json) {
  Problems problems;
  Written w;
  FieldReader reader(json, "", problems);
  if (!json.is_object()) return Problem{ProblemKind::badInput, "", Message{"json.stands-here", describeValue(json)}, Message{"json.object-needed"}};
  describe(reader, w);
  reader.finish();
  if (!problems.empty()) return problems;
  w.recipe.decimalComma = from(w.decimal);
  w.recipe.monthFirst = from(w.dates);
  w.recipe.fahrenheit = from(w.degrees);
  if (w.separator) w.recipe.separator = w.separator;
  return w.recipe;
}

const Recipe* recipeFor(const std::vector<Recipe>& recipes, const std::vector<std::string>& headings) {
  const std::set<std::string> wanted(headings.begin(), headings.end());
  for (const Recipe& r : recipes) {
    std::set<std::string> own;
    for (const ColumnChoice& c : r.columns) own.insert(c.heading);
    if (!own.empty() && own == wanted) return &r;
  }
  return nullptr;
}

TimeZone clockOf(Clockwork clock, const TimeZone& place) {
  if (clock == Clockwork::place) return place;
  if (clock == Clockwork::utc) return TimeZone::utc();
  const auto at = [&](unsigned month) { return place.offset_s(daysSinceEpoch({2031, month, 15}) * 86400); };
  const int offset = std::min(at(1), at(7)); // summer time is ahead, in either half of the world
  const auto fixed = TimeZone::named(fmt::format("{}{:02}:{:02}", offset < 0 ? '-' : '+', std::abs(offset) / 3600, std::abs(offset) / 60 % 60));
  return fixed ? *fixed : place;
}

ReadOptions withRecipe(ReadOptions options, const Recipe& recipe) {
  options.separator = recipe.separator;
  options.decimalComma = recipe.decimalComma;
  options.monthFirst = recipe.monthFirst;
  options.fahrenheit = recipe.fahrenheit;
  options.zone = clockOf(recipe.clock, options.zone);
  options.columns = recipe.columns;
  return options;
}

Recipe recipeOf(const std::string& name, const ReadOptions& options, Clockwork clock, const ReadLog& read) {
  Recipe recipe{name, options.separator, options.decimalComma, options.monthFirst, options.fahrenheit, clock, {}};
  for (const std::string& heading : read.headings) {
    const auto& channels = read.log.channels;
    const auto c = std::find_if(channels.begin(), channels.end(), [&](const Channel& ch) { return ch.name == heading; });
    if (c == channels.end())
      recipe.columns.push_back({heading, Role::note, "", Statistic::moment, "", false});
    else
      recipe.columns.push_back({heading, c->role, c->id, c->statistic, c->unitIn, true});
  }
  return recipe;
}

Json recordToJson(const Log& log) {
  Json json{{"decisions", Json::array()}, {"notes", Json::array()}};
  for (const Decision& d : log.decisions) json["decisions"].push_back({static_cast<int>(d.verdict), static_cast<int>(d.flag), d.channel, d.from, d.to});
  for (const LogProblem& n : log.notes)
    json["notes"].push_back(
        {{"kind", n.kind}, {"from", n.from}, {"to", n.to}, {"count", n.count}, {"why", storedText(n.why)}, {"flag", static_cast<int>(n.flag)}});
  return json;
}

Status recordFromJson(const Json& json, Log& log) {
  constexpr UtcSeconds kFar = 1LL << 40;
  const auto upTo = [](int most) { return Shape::integer(0, most); };
  const Shape time = Shape::integer(-kFar, kFar);
  const Shape shape = Shape::object(
      {{"decisions",
        Shape::list(Shape::row({upTo(static_cast<int>(Verdict::setAside)), upTo(static_cast<int>(Flag::clock)),
                                Shape::integer(-1, static_cast<std::int64_t>(log.channels.size()) - 1), time, time})),
        true},
       {"notes",
        Shape::list(Shape::object(
            {{"kind", Shape::text()}, {"from", time}, {"to", time}, {"count", Shape::whole()}, {"why", Shape::text()}, {"flag", Shape::whole()}})),
        true}});
  if (auto found = misshapen(json, shape); !found.empty()) return found;
  for (const Json& d : json.value("decisions", Json::array()))
    log.decisions.push_back(
        {static_cast<Verdict>(d[0].get<int>()), static_cast<Flag>(d[1].get<int>()), d[2].get<int>(), d[3].get<UtcSeconds>(), d[4].get<UtcSeconds>()});
  for (const Json& n : json.value("notes", Json::array())) {
    const auto flag = n.at("flag").get<std::uint64_t>();
    log.notes.push_back({n.at("kind").get<std::string>(), "", n.at("from").get<UtcSeconds>(), n.at("to").get<UtcSeconds>(), n.at("count").get<long>(),
                         messageFromStored(n.at("why").get<std::string>()),
                         flag <= static_cast<std::uint64_t>(Flag::clock) ? static_cast<Flag>(flag) : Flag::none});
  }
  return Done{};
}

} // namespace muffle
