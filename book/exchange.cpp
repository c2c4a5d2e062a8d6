// SPDX-License-Identifier: GPL-3.0-or-later
#include "book/book.h"
#include "book/files.h"
#include "core/json/message_text.h"
#include "core/json/shape.h"
#include "core/log/soundness.h"
#include "core/plan/plan_json.h"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <filesystem>
#include <iterator>
#include <map>
#include <vector>

namespace muffle {
namespace {

namespace fs = std::filesystem;

/// Flags as runs [first row, rows, flag]; most readings have none.
Json flagRuns(const std::vector<std::uint8_t>& flags) {
  Json runs = Json::array();
  for (std::size_t i = 0; i < flags.size();) {
    std::size_t end = i + 1;
    while (end < flags.size() && flags[end] == flags[i]) ++end;
    if (flags[i]) runs.push_back({i, end - i, flags[i]});
    i = end;
  }
  return runs;
}

/// Readings as a table: seconds since 1970 and each channel's raw value, to the last digit.
std::string table(const Log& log) {
  std::string out = "utc_s";
  for (std::size_t c = 0; c < log.channels.size(); ++c) out += fmt::format(",{}", c);
  out += '\n';
  for (std::size_t i = 0; i < log.time.size(); ++i) {
    out += std::to_string(log.time[i]);
    for (const Channel& c : log.channels) {
      out += ',';
      if (!std::isnan(c.raw[i])) out += fmt::format("{}", c.raw[i]);
    }
    out += '\n';
  }
  return out;
}

Problem damaged(const std::string& where, Message what) { return {ProblemKind::badInput, where, std::move(what), Message{"book.folder-written-muffle-cli"}}; }

/// The index of an export, as far as its readers need not ask again.
const Shape& indexShape() {
  constexpr UtcSeconds kFar = 1LL << 40;
  static const Shape channel =
      Shape::object({{"name", Shape::text()},
                     {"role", Shape::integer(0, static_cast<int>(Role::note))},
                     {"id", Shape::text()},
                     {"unit_in", Shape::text()},
                     {"unit_why", Shape::text()},
                     {"statistic", Shape::integer(0, static_cast<int>(Statistic::highest)), true},
                     {"flags", Shape::list(Shape::row({Shape::whole(), Shape::whole(), Shape::integer(0, static_cast<int>(Flag::clock))}))}});
  static const Shape log = Shape::object({{"file", Shape::text()},
                                          {"name", Shape::text(), true},
                                          {"in_use", Shape::boolean(), true},
                                          {"record", Shape::anything(), true},
                                          {"channels", Shape::list(channel)}});
  static const Shape ofLog = Shape::object({{"name", Shape::text()}, {"rows", Shape::whole()}, {"record", Shape::anything()}, {"file", Shape::text(), true}});
  static const Shape snapshot = Shape::object(
      {{"name", Shape::text()}, {"at", Shape::integer(-kFar, kFar)}, {"plan", Shape::anything()}, {"by_hand", Shape::boolean(), true}, {"log", ofLog, true}});
  static const Shape index = Shape::object({{"schema", Shape::text()},
                                            {"plans", Shape::list(Shape::text())},
                                            {"logs", Shape::list(log)},
                                            {"settings", Shape::map(Shape::text())},
                                            {"snapshots", Shape::list(snapshot)},
                                            {"recipes", Shape::list(Shape::anything()), true}});
  return index;
}

Result<Log> readTable(const std::string& path, const Json& meta) {
  auto text = readFile(path);
  if (!text) return text.problems();
  Log log;
  log.name = meta.value("name", "");
  for (const Json& m : meta.at("channels")) {
    Channel c;
    c.name = m.at("name").get<std::string>();
    c.role = static_cast<Role>(m.at("role").get<int>());
    c.id = m.at("id").get<std::string>();
    c.unitIn = m.at("unit_in").get<std::string>();
    c.unitWhy = messageFromStored(m.at("unit_why").get<std::string>());
    c.statistic = static_cast<Statistic>(m.value("statistic", 0));
    log.channels.push_back(std::move(c));
  }
  const char* p = text->data();
  const char* const end = p + text->size();
  const auto nextLine = [&] {
    while (p < end && *p != '\n') ++p;
    if (p < end) ++p;
  };
  nextLine();
  for (long line = 2; p < end; ++line) {
    UtcSeconds t = 0;
    auto parsed = std::from_chars(p, end, t);
    if (parsed.ec != std::errc{} || (!log.time.empty() && t <= log.time.back()))
      return damaged(fmt::format("{}: line {}", path, line), Message{"book.time-not-later-than"});
    p = parsed.ptr;
    log.time.push_back(t);
    for (Channel& c : log.channels) {
      if (p >= end || *p != ',') return damaged(fmt::format("{}: line {}", path, line), Message{"book.column-missing"});
      ++p;
      float value = std::numeric_limits<float>::quiet_NaN();
      if (p < end && *p != ',' && *p != '\n') {
        const auto number = std::from_chars(p, end, value);
        if (number.ec != std::errc{}) return damaged(fmt::format("{}: line {}", path, line), Message{"book.not-number"});
        p = number.ptr;
      }
      c.raw.push_back(value);
    }
    if (p < end && *p != '\n') return damaged(fmt::format("{}: line {}", path, line), Message{"book.column-too-many"});
    nextLine();
  }
  for (std::size_t k = 0; k < log.channels.size(); ++k) {
    Channel& c = log.channels[k];
    c.flag.assign(log.time.size(), 0);
    for (const Json& run : meta.at("channels")[k].at("flags")) {
      const auto from = run[0].get<std::uint64_t>(), rows = run[1].get<std::uint64_t>(), flag = run[2].get<std::uint64_t>();
      if (from > c.flag.size() || rows > c.flag.size() - from) return damaged(path, Message{"book.flag-lies-beyond-last"});
      std::fill_n(c.flag.begin() + static_cast<long>(from), rows, static_cast<std::uint8_t>(flag));
    }
  }
  if (const auto sound = soundLog(log); !sound) return damaged(path, asMessage(sound.problem()));
  if (meta.contains("record"))
    if (auto ok = recordFromJson(meta.at("record"), log); !ok) return ok.problems();
  return log;
}

} // namespace

namespace {

/// What goes wrong in a folder of our own is told of what was to be made there.
Problems toldOf(const std::string& asked, const std::string& own, Problems problems) {
  for (Problem& p : problems)
    if (p.where.starts_with(own)) p.where = asked;
  return problems;
}

} // namespace

Status exportBook(const Book& book, const std::string& asked) {
  std::error_code error;
  fs::path target = fs::path(asked).lexically_normal();
  if (!target.has_filename() && target.has_parent_path()) target = target.parent_path(); // "DIR/"
  const std::string folder = target.string();
  const bool exists = fs::exists(folder, error);
  if (exists && (!fs::is_directory(folder, error) || !fs::is_empty(folder, error)))
    return Problem{ProblemKind::badInput, asked, Message{"book.folder-not-empty"}, Message{"book.name-new-empty-folder"}};
  const auto plans = book.plans();
  if (!plans) return plans.problems();
  auto logs = book.logs();
  if (!logs) return logs.problems();
  const std::size_t inUse = logs->size();
  auto kept = book.keptLogs();
  if (!kept) return kept.problems();
  std::move(kept->begin(), kept->end(), std::back_inserter(*logs));
  const auto settings = book.settings();
  if (!settings) return settings.problems();
  const auto snapshots = book.snapshots();
  if (!snapshots) return snapshots.problems();
  const auto recipes = book.recipes();
  if (!recipes) return recipes.problems();

  // written in a folder of its own and renamed, so that the export appears whole; in a folder that is there already, file by file, the
  // index last: without it nothing is an export
  if (!exists && target.has_parent_path()) fs::create_directories(target.parent_path(), error);
  if (error) return Problem{ProblemKind::storage, asked, Message{"book.cannot-be-made", error.message()}, Message{"book.check-name-permissions"}};
  auto made = exists ? TemporaryFolder::in(folder) : TemporaryFolder::beside(folder);
  if (!made) return made.problems();
  const std::string part = made->path();
  Json index{{"schema", "muffle-book-1"}, {"plans", Json::array()},     {"logs", Json::array()},
             {"settings", *settings},     {"snapshots", Json::array()}, {"recipes", Json::array()}};
  for (const Recipe& r : *recipes) index["recipes"].push_back(recipeToJson(r));
  for (std::size_t i = 0; i < plans->size(); ++i) {
    const std::string name = fmt::format("plan-{}.json", i + 1);
    index["plans"].push_back(name);
    if (auto ok = writeFile(part + "/" + name, planToJson((*plans)[i].plan).dump(2) + "\n"); !ok) return toldOf(asked, part, ok.problems());
  }
  for (std::size_t i = 0; i < logs->size(); ++i) {
    const Log& log = (*logs)[i].log;
    const std::string name = fmt::format("log-{}.csv", i + 1);
    Json entry{{"file", name}, {"name", log.name}, {"record", recordToJson(log)}, {"channels", Json::array()}};
    if (i >= inUse) entry["in_use"] = false; // held by snapshots alone
    for (const Channel& c : log.channels)
      entry["channels"].push_back({{"name", c.name},
                                   {"role", static_cast<int>(c.role)},
                                   {"id", c.id},
                                   {"unit_in", c.unitIn},
                                   {"unit_why", storedText(c.unitWhy)},
                                   {"statistic", static_cast<int>(c.statistic)},
                                   {"flags", flagRuns(c.flag)}});
    index["logs"].push_back(entry);
    if (auto ok = writeFile(part + "/" + name, table(log)); !ok) return toldOf(asked, part, ok.problems());
  }
  for (const Snapshot& s : *snapshots) {
    const auto plan = parseJson(s.planJson);
    const auto record = parseJson(s.record);
    const auto sound = plan ? planFromJson(*plan) : Result<Plan>(plan.problems());
    if (!sound || !record) // what cannot come back is not passed on
      return Problem{ProblemKind::damaged, book.path(), Message{"book.snapshot-damaged", s.name}, Message{"book.whole-can-be-salvaged"}};
    Json entry{{"name", s.name}, {"at", s.at}, {"plan", *plan}};
    if (!s.byHand) entry["by_hand"] = false;
    if (s.logRows > 0) {
      entry["log"] = {{"name", s.logName}, {"rows", s.logRows}, {"record", *record}};
      const auto of = std::find_if(logs->begin(), logs->end(), [&](const StoredLog& l) { return l.id == s.log; });
      if (of != logs->end()) entry["log"]["file"] = fmt::format("log-{}.csv", of - logs->begin() + 1);
    }
    index["snapshots"].push_back(std::move(entry));
  }
  const std::string indexName = "book.json";
  if (auto ok = writeFile(part + "/" + indexName, index.dump(2) + "\n"); !ok) return toldOf(asked, part, ok.problems());
  const auto failed = [&] {
    return Problem{ProblemKind::storage, asked, Message{"book.cannot-be-made", error.message()}, Message{"book.check-name-permissions"}};
  };
  if (!exists) {
    const fs::path around = target.has_parent_path() ? target.parent_path() : fs::path(".");
    fs::permissions(part, fs::status(around, error).permissions() & fs::perms::mask & ~fs::perms(07000), error); // as open as the folder it stands in
    fs::rename(part, folder, error);
    if (error) return failed();
    made->release();
    return Done{};
  }
  std::vector<fs::path> names;
  for (const auto& file : fs::directory_iterator(part, error))
    if (file.path().filename() != indexName) names.push_back(file.path().filename());
  names.emplace_back(indexName);
  for (std::size_t i = 0; i < names.size() && !error; ++i) {
    fs::rename(fs::path(part) / names[i], target / names[i], error);
    if (!error) continue;
    const Problem problem = failed();
    std::error_code ignored;
    for (std::size_t k = 0; k < i; ++k) fs::remove(target / names[k], ignored);
    return problem;
  }
  if (error) return failed();
  return Done{};
}

Status importBook(const std::string& folder, const std::string& path) {
  std::error_code error;
  const bool exists = fs::exists(path, error);
  if (error) return Problem{ProblemKind::storage, path, Message{"book.cannot-be-made", error.message()}, Message{"book.check-name-permissions"}};
  if (exists) return Problem{ProblemKind::badInput, path, Message{"book.book-already-exists"}, Message{"book.name-new-muffle-file"}};
  const auto text = readFile(folder + "/book.json");
  if (!text) return text.problems();
  const auto parsed = parseJson(*text);
  if (!parsed) return damaged(folder + "/book.json", asMessage(parsed.problem()));
  const Json& index = *parsed;
  if (!index.is_object() || index.value("schema", Json()) != Json("muffle-book-1")) return damaged(folder + "/book.json", Message{"book.not-muffle-export"});
  if (auto found = misshapen(index, indexShape()); !found.empty()) {
    for (Problem& p : found) p.where = folder + "/book.json: " + p.where;
    return found;
  }
  auto made = TemporaryFolder::beside(path);
  if (!made) return made.problems();
  const std::string part = made->path() + "/book.muffle";
  const auto fill = [&]() -> Status {
    auto book = Book::open(part, Book::Mode::create);
    if (!book) return book.problems();
    std::map<std::string, RowId> logIds; // by file
    for (const Json& name : index.at("plans")) {
      const std::string file = folder + "/" + fs::path(name.get<std::string>()).filename().string();
      const auto planText = readFile(file);
      if (!planText) return planText.problems();
      const auto json = parseJson(*planText);
      if (!json) return damaged(file, asMessage(json.problem()));
      const auto plan = planFromJson(*json);
      if (!plan) {
        Problems problems = plan.problems();
        for (Problem& p : problems) p.where = file + ": " + p.where;
        return problems;
      }
      if (auto id = book->addPlan(*plan); !id) return id.problems();
    }
    for (const Json& entry : index.at("logs")) {
      const auto log = readTable(folder + "/" + fs::path(entry.at("file").get<std::string>()).filename().string(), entry);
      if (!log) return log.problems();
      auto id = book->addLog(*log, entry.value("in_use", true));
      if (!id) return id.problems();
      logIds[entry.at("file").get<std::string>()] = *id;
    }
    for (const auto& [key, value] : index.at("settings").items())
      if (auto ok = book->setSetting(key, value.get<std::string>()); !ok) return ok;
    for (const Json& r : index.value("recipes", Json::array())) {
      const auto recipe = recipeFromJson(r);
      if (!recipe) return damaged(folder + "/book.json", Message{"book.recipe-problem", asMessage(recipe.problem())});
      if (auto ok = book->saveRecipe(*recipe); !ok) return ok;
    }
    for (const Json& s : index.at("snapshots")) {
      const auto plan = planFromJson(s.at("plan"));
      if (!plan) return damaged(folder + "/book.json", Message{"book.plan-snapshot", describeValue(s.at("name")), asMessage(plan.problem())});
      Snapshot snapshot{.name = s.at("name").get<std::string>(),
                        .at = s.at("at").get<UtcSeconds>(),
                        .planJson = planToJson(*plan).dump(),
                        .byHand = s.value("by_hand", true)};
      if (s.contains("log")) {
        const Json& log = s.at("log");
        snapshot.logName = log.at("name").get<std::string>();
        snapshot.logRows = log.at("rows").get<std::int64_t>();
        snapshot.record = log.at("record").dump();
        if (const auto of = logIds.find(log.value("file", "")); of != logIds.end()) snapshot.log = of->second;
      }
      if (auto id = book->takeOverSnapshot(snapshot); !id) return id.problems();
    }
    return Done{};
  };
  if (auto ok = fill(); !ok) return toldOf(path, made->path(), ok.problems());
  fs::rename(part, path, error);
  if (error) return Problem{ProblemKind::storage, path, Message{"book.cannot-written", error.message()}, Message{"book.check-name-permissions"}};
  return Done{};
}

} // namespace muffle
