// SPDX-License-Identifier: GPL-3.0-or-later
#include "book/book.h"

#include "book/statement.h"
#include "core/log/recipe.h"
#include "core/log/soundness.h"
#include "core/plan/plan_json.h"

#include <fmt/format.h>

#include <filesystem>

namespace muffle {
namespace {

constexpr int kApplicationId = 0x4D75666C; // "Mufl"
constexpr int kSchemaVersion = 2;

constexpr const char* kSchema = R"sql(
CREATE TABLE plan (id INTEGER PRIMARY KEY, name TEXT NOT NULL, json TEXT NOT NULL);
CREATE TABLE log (id INTEGER PRIMARY KEY, name TEXT NOT NULL, rows INTEGER NOT NULL, time BLOB NOT NULL, record TEXT NOT NULL DEFAULT '{}');
CREATE TABLE channel (id INTEGER PRIMARY KEY, log_id INTEGER NOT NULL REFERENCES log(id) ON DELETE CASCADE,
  position INTEGER NOT NULL, name TEXT NOT NULL, role INTEGER NOT NULL, role_id TEXT NOT NULL,
  unit_in TEXT NOT NULL, unit_why TEXT NOT NULL, raw BLOB NOT NULL, flag BLOB NOT NULL, statistic INTEGER NOT NULL DEFAULT 0, UNIQUE (log_id, position));
CREATE TABLE setting (key TEXT PRIMARY KEY, value TEXT NOT NULL);
CREATE TABLE snapshot (id INTEGER PRIMARY KEY, name TEXT NOT NULL, at INTEGER NOT NULL, json TEXT NOT NULL);
CREATE TABLE recipe (id INTEGER PRIMARY KEY, name TEXT NOT NULL UNIQUE, json TEXT NOT NULL);
)sql";

// what each version added to the one before
constexpr const char* kToVersion2 = R"sql(
ALTER TABLE log ADD COLUMN record TEXT NOT NULL DEFAULT '{}';
ALTER TABLE channel ADD COLUMN statistic INTEGER NOT NULL DEFAULT 0;
CREATE TABLE recipe (id INTEGER PRIMARY KEY, name TEXT NOT NULL UNIQUE, json TEXT NOT NULL);
)sql";

template <class T> Blob blobOf(const std::vector<T>& v) { return {v.data(), v.size() * sizeof(T)}; }
template <class T> std::vector<T> vectorOf(const Blob& blob) {
  std::vector<T> v(blob.size / sizeof(T));
  if (!v.empty()) std::memcpy(v.data(), blob.data, v.size() * sizeof(T));
  return v;
}

} // namespace

void Book::Closer::operator()(sqlite3* db) const { sqlite3_close_v2(db); }

Result<Book> Book::open(const std::string& path, Mode mode) {
  Book book;
  book.m_path = path;
  const auto cannot = [&](const std::string& why) { return Problem{ProblemKind::storage, path, fmt::format("cannot be opened: {}", why), "check the name, the folder and its permissions"}; };
  std::error_code error;
  const bool exists = std::filesystem::exists(path, error);
  if (error) return cannot(error.message());
  if (exists && std::filesystem::is_regular_file(path, error) && std::filesystem::file_size(path, error) == 0)
    return Problem{ProblemKind::badInput, path, "this file is empty, it is no book", "a new book is made under a name of its own"};
  if (mode == Mode::existing && !exists) return Problem{ProblemKind::storage, path, "there is no such book", "name an existing *.muffle file"};
  sqlite3* raw = nullptr;
  const std::string name = std::filesystem::path(path).is_absolute() ? path : "./" + path; // ":memory:" is a name like any other
  const int rc = sqlite3_open_v2(name.c_str(), &raw, SQLITE_OPEN_READWRITE | (mode == Mode::create ? SQLITE_OPEN_CREATE : 0), nullptr);
  book.m_db.reset(raw);
  if (rc != SQLITE_OK)
    return cannot(raw ? sqlite3_errmsg(raw) : "out of memory");
  sqlite3_busy_timeout(raw, 20000); // a long log may be on its way in from another connection
  if (auto ok = execute(raw, "PRAGMA foreign_keys = ON; PRAGMA synchronous = FULL;"); !ok) return ok.problems();
  if (auto ok = book.migrate(); !ok) return ok.problems();
  return book;
}

Status Book::migrate() {
  const auto number = [&](const char* sql) -> Result<std::int64_t> {
    Statement s(m_db.get(), sql);
    auto row = s.step();
    if (!row) return Problem{ProblemKind::badInput, m_path, "this is not a Muffle book", "choose a *.muffle file"};
    return s.integer(0);
  };
  auto application = number("PRAGMA application_id");
  if (!application) return application.problems();
  auto version = number("PRAGMA user_version");
  if (!version) return version.problems();
  auto tables = number("SELECT count(*) FROM sqlite_master");
  if (!tables) return tables.problems();
  if (*application == 0 && *tables == 0) {
    Transaction t(m_db.get());
    if (auto ok = execute(m_db.get(), kSchema); !ok) return ok;
    if (auto ok = execute(m_db.get(), fmt::format("PRAGMA application_id = {}; PRAGMA user_version = {};", kApplicationId, kSchemaVersion)); !ok) return ok;
    return t.commit();
  }
  if (*application != kApplicationId) return Problem{ProblemKind::badInput, m_path, "this is not a Muffle book", "choose a *.muffle file"};
  if (*version > kSchemaVersion)
    return Problem{ProblemKind::badInput, m_path, fmt::format("this book has format {}", *version),
                   fmt::format("this version reads up to format {}; use a newer Muffle", kSchemaVersion)};
  if (*version == kSchemaVersion) return Done{};
  Transaction t(m_db.get());
  auto still = number("PRAGMA user_version"); // another process may have brought it up to date meanwhile
  if (!still) return still.problems();
  if (*still < 2)
    if (auto ok = execute(m_db.get(), kToVersion2); !ok) return ok;
  if (auto ok = execute(m_db.get(), fmt::format("PRAGMA user_version = {};", kSchemaVersion)); !ok) return ok;
  return t.commit();
}

Result<std::vector<StoredPlan>> Book::plans() const {
  std::vector<StoredPlan> all;
  Statement s(m_db.get(), "SELECT id, json FROM plan ORDER BY id");
  for (;;) {
    auto row = s.step();
    if (!row) return row.problems();
    if (!*row) break;
    const auto json = parseJson(s.text(1));
    if (!json) return json.problems();
    auto plan = planFromJson(*json);
    if (!plan) return plan.problems();
    all.push_back({s.integer(0), std::move(*plan)});
  }
  return all;
}

Result<RowId> Book::addPlan(const Plan& plan) {
  Statement s(m_db.get(), "INSERT INTO plan (name, json) VALUES (?, ?)");
  s.bind(1, plan.name);
  s.bind(2, planToJson(plan).dump());
  if (auto ok = s.run(); !ok) return ok.problems();
  return sqlite3_last_insert_rowid(m_db.get());
}

Status Book::savePlan(RowId id, const Plan& plan) {
  Statement s(m_db.get(), "UPDATE plan SET name = ?, json = ? WHERE id = ?");
  s.bind(1, plan.name);
  s.bind(2, planToJson(plan).dump());
  s.bind(3, id);
  return s.run();
}

Status Book::removePlan(RowId id) {
  Statement s(m_db.get(), "DELETE FROM plan WHERE id = ?");
  s.bind(1, id);
  return s.run();
}

Result<std::vector<StoredLog>> Book::logs() const {
  std::vector<StoredLog> all;
  const auto damagedLog = [&](const std::string& name, const std::string& what) {
    return Problem{ProblemKind::storage, m_path, fmt::format("log \"{}\" is damaged: {}", name, what), "restore the book from an export"};
  };
  Statement s(m_db.get(), "SELECT id, name, time, record FROM log ORDER BY id");
  for (;;) {
    auto row = s.step();
    if (!row) return row.problems();
    if (!*row) break;
    StoredLog stored;
    stored.id = s.integer(0);
    stored.log.name = s.text(1);
    stored.log.time = vectorOf<UtcSeconds>(s.blob(2));
    Statement c(m_db.get(), "SELECT name, role, role_id, unit_in, unit_why, raw, flag, statistic FROM channel WHERE log_id = ? ORDER BY position");
    c.bind(1, stored.id);
    for (;;) {
      auto channelRow = c.step();
      if (!channelRow) return channelRow.problems();
      if (!*channelRow) break;
      Channel channel;
      channel.name = c.text(0);
      if (c.integer(1) < 0 || c.integer(1) > 255 || c.integer(7) < 0 || c.integer(7) > 255) return damagedLog(stored.log.name, "a role or statistic is none");
      channel.role = static_cast<Role>(c.integer(1));
      channel.id = c.text(2);
      channel.unitIn = c.text(3);
      channel.unitWhy = c.text(4);
      channel.raw = vectorOf<float>(c.blob(5));
      channel.flag = vectorOf<std::uint8_t>(c.blob(6));
      channel.statistic = static_cast<Statistic>(c.integer(7));
      stored.log.channels.push_back(std::move(channel));
    }
    if (const auto sound = soundLog(stored.log); !sound) return damagedLog(stored.log.name, sound.problem().what);
    const auto record = parseJson(s.text(3));
    if (!record) return record.problems();
    if (auto ok = recordFromJson(*record, stored.log); !ok) return ok.problems();
    all.push_back(std::move(stored));
  }
  return all;
}

Result<RowId> Book::addLog(const Log& log) {
  Transaction t(m_db.get());
  auto id = insertLog(log);
  if (!id) return id;
  if (auto ok = t.commit(); !ok) return ok.problems();
  return id;
}

Status Book::replaceLogs(const Log* log) {
  Transaction t(m_db.get());
  if (auto ok = execute(m_db.get(), "DELETE FROM log"); !ok) return ok;
  if (log)
    if (auto id = insertLog(*log); !id) return id.problems();
  return t.commit();
}

/// Within a transaction of the caller's.
Result<RowId> Book::insertLog(const Log& log) {
  Statement s(m_db.get(), "INSERT INTO log (name, rows, time, record) VALUES (?, ?, ?, ?)");
  s.bind(1, log.name);
  s.bind(2, static_cast<std::int64_t>(log.time.size()));
  s.bind(3, blobOf(log.time));
  s.bind(4, recordToJson(log).dump());
  if (auto ok = s.run(); !ok) return ok.problems();
  const RowId id = sqlite3_last_insert_rowid(m_db.get());
  for (std::size_t i = 0; i < log.channels.size(); ++i) {
    const Channel& channel = log.channels[i];
    Statement c(m_db.get(),
                "INSERT INTO channel (log_id, position, name, role, role_id, unit_in, unit_why, raw, flag, statistic) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)");
    c.bind(1, id);
    c.bind(2, static_cast<std::int64_t>(i));
    c.bind(3, channel.name);
    c.bind(4, static_cast<std::int64_t>(channel.role));
    c.bind(5, channel.id);
    c.bind(6, channel.unitIn);
    c.bind(7, channel.unitWhy);
    c.bind(8, blobOf(channel.raw));
    c.bind(9, blobOf(channel.flag));
    c.bind(10, static_cast<std::int64_t>(channel.statistic));
    if (auto ok = c.run(); !ok) return ok.problems();
  }
  return id;
}

Result<RowId> Book::newestLog() const {
  Statement s(m_db.get(), "SELECT coalesce(max(id), 0) FROM log");
  auto row = s.step();
  if (!row) return row.problems();
  return s.integer(0);
}

Status Book::saveFlags(RowId id, const Log& log) {
  Transaction t(m_db.get());
  Statement rows(m_db.get(), "SELECT rows FROM log WHERE id = ?");
  rows.bind(1, id);
  auto row = rows.step();
  if (!row) return row.problems();
  if (!*row || rows.integer(0) != static_cast<std::int64_t>(log.time.size()))
    return Problem{ProblemKind::badInput, m_path, "these flags are of another log than the one stored", "store the log itself"};
  Statement r(m_db.get(), "UPDATE log SET record = ? WHERE id = ?");
  r.bind(1, recordToJson(log).dump());
  r.bind(2, id);
  if (auto ok = r.run(); !ok) return ok;
  for (std::size_t i = 0; i < log.channels.size(); ++i) {
    Statement c(m_db.get(), "UPDATE channel SET flag = ? WHERE log_id = ? AND position = ?");
    c.bind(1, blobOf(log.channels[i].flag));
    c.bind(2, id);
    c.bind(3, static_cast<std::int64_t>(i));
    if (auto ok = c.run(); !ok) return ok;
  }
  return t.commit();
}

Result<std::vector<Recipe>> Book::recipes() const {
  std::vector<Recipe> all;
  Statement s(m_db.get(), "SELECT json FROM recipe ORDER BY id");
  for (;;) {
    auto row = s.step();
    if (!row) return row.problems();
    if (!*row) break;
    const auto json = parseJson(s.text(0));
    if (!json) return json.problems();
    auto recipe = recipeFromJson(*json);
    if (!recipe) return recipe.problems();
    all.push_back(std::move(*recipe));
  }
  return all;
}

Status Book::saveRecipe(const Recipe& recipe) {
  Statement s(m_db.get(), "INSERT INTO recipe (name, json) VALUES (?, ?) ON CONFLICT (name) DO UPDATE SET json = excluded.json");
  s.bind(1, recipe.name);
  s.bind(2, recipeToJson(recipe).dump());
  return s.run();
}

Status Book::removeRecipe(const std::string& name) {
  Statement s(m_db.get(), "DELETE FROM recipe WHERE name = ?");
  s.bind(1, name);
  return s.run();
}

Status Book::removeLog(RowId id) {
  Statement s(m_db.get(), "DELETE FROM log WHERE id = ?");
  s.bind(1, id);
  return s.run();
}

Result<std::map<std::string, std::string>> Book::settings() const {
  std::map<std::string, std::string> all;
  Statement s(m_db.get(), "SELECT key, value FROM setting");
  for (;;) {
    auto row = s.step();
    if (!row) return row.problems();
    if (!*row) break;
    all[s.text(0)] = s.text(1);
  }
  return all;
}

Status Book::setSetting(const std::string& key, const std::string& value) {
  Statement s(m_db.get(), "INSERT INTO setting (key, value) VALUES (?, ?) ON CONFLICT (key) DO UPDATE SET value = excluded.value");
  s.bind(1, key);
  s.bind(2, value);
  return s.run();
}

Result<std::vector<Snapshot>> Book::snapshots() const {
  std::vector<Snapshot> all;
  Statement s(m_db.get(), "SELECT id, name, at, json FROM snapshot ORDER BY id");
  for (;;) {
    auto row = s.step();
    if (!row) return row.problems();
    if (!*row) break;
    all.push_back({s.integer(0), s.text(1), s.integer(2), s.text(3)});
  }
  return all;
}

Result<RowId> Book::addSnapshot(const std::string& name, UtcSeconds at, const Plan& plan) {
  Statement s(m_db.get(), "INSERT INTO snapshot (name, at, json) VALUES (?, ?, ?)");
  s.bind(1, name);
  s.bind(2, at);
  s.bind(3, planToJson(plan).dump());
  if (auto ok = s.run(); !ok) return ok.problems();
  return sqlite3_last_insert_rowid(m_db.get());
}

} // namespace muffle
