// SPDX-License-Identifier: GPL-3.0-or-later
#include "book/book.h"

#include "book/files.h"
#include "book/seal.h"
#include "book/statement.h"
#include "core/log/recipe.h"
#include "core/plan/plan_json.h"

#include <fmt/format.h>

#include <filesystem>

namespace muffle {
namespace {

constexpr int kApplicationId = 0x4D75666C; // "Mufl"
constexpr int kSchemaVersion = 3;

constexpr const char* kSchema = R"sql(
CREATE TABLE plan (id INTEGER PRIMARY KEY, name TEXT NOT NULL, json TEXT NOT NULL, digest INTEGER);
CREATE TABLE log (id INTEGER PRIMARY KEY, name TEXT NOT NULL, rows INTEGER NOT NULL, time BLOB NOT NULL, record TEXT NOT NULL DEFAULT '{}',
  in_use INTEGER NOT NULL DEFAULT 1, digest INTEGER);
CREATE TABLE channel (id INTEGER PRIMARY KEY, log_id INTEGER NOT NULL REFERENCES log(id) ON DELETE CASCADE,
  position INTEGER NOT NULL, name TEXT NOT NULL, role INTEGER NOT NULL, role_id TEXT NOT NULL,
  unit_in TEXT NOT NULL, unit_why TEXT NOT NULL, raw BLOB NOT NULL, flag BLOB NOT NULL, statistic INTEGER NOT NULL DEFAULT 0, digest INTEGER,
  UNIQUE (log_id, position));
CREATE TABLE setting (key TEXT PRIMARY KEY, value TEXT NOT NULL, digest INTEGER);
CREATE TABLE snapshot (id INTEGER PRIMARY KEY, name TEXT NOT NULL, at INTEGER NOT NULL, json TEXT NOT NULL, by_hand INTEGER NOT NULL DEFAULT 1,
  log_id INTEGER NOT NULL DEFAULT 0, log_name TEXT NOT NULL DEFAULT '', log_rows INTEGER NOT NULL DEFAULT 0, record TEXT NOT NULL DEFAULT '{}', digest INTEGER);
CREATE TABLE recipe (id INTEGER PRIMARY KEY, name TEXT NOT NULL UNIQUE, json TEXT NOT NULL, digest INTEGER);
CREATE TABLE seal (id INTEGER PRIMARY KEY CHECK (id = 1), digest INTEGER NOT NULL);
CREATE INDEX log_digest ON log(digest);
CREATE INDEX channel_digest ON channel(digest);
)sql";

// what each version added to the one before
constexpr const char* kToVersion2 = R"sql(
ALTER TABLE log ADD COLUMN record TEXT NOT NULL DEFAULT '{}';
ALTER TABLE channel ADD COLUMN statistic INTEGER NOT NULL DEFAULT 0;
CREATE TABLE recipe (id INTEGER PRIMARY KEY, name TEXT NOT NULL UNIQUE, json TEXT NOT NULL);
)sql";
constexpr const char* kToVersion3 = R"sql(
ALTER TABLE log ADD COLUMN in_use INTEGER NOT NULL DEFAULT 1;
ALTER TABLE snapshot ADD COLUMN by_hand INTEGER NOT NULL DEFAULT 1;
ALTER TABLE snapshot ADD COLUMN log_id INTEGER NOT NULL DEFAULT 0;
ALTER TABLE snapshot ADD COLUMN log_name TEXT NOT NULL DEFAULT '';
ALTER TABLE snapshot ADD COLUMN log_rows INTEGER NOT NULL DEFAULT 0;
ALTER TABLE snapshot ADD COLUMN record TEXT NOT NULL DEFAULT '{}';
ALTER TABLE plan ADD COLUMN digest INTEGER;
ALTER TABLE log ADD COLUMN digest INTEGER;
ALTER TABLE channel ADD COLUMN digest INTEGER;
ALTER TABLE setting ADD COLUMN digest INTEGER;
ALTER TABLE snapshot ADD COLUMN digest INTEGER;
ALTER TABLE recipe ADD COLUMN digest INTEGER;
CREATE TABLE seal (id INTEGER PRIMARY KEY CHECK (id = 1), digest INTEGER NOT NULL);
CREATE INDEX log_digest ON log(digest);
CREATE INDEX channel_digest ON channel(digest);
)sql";

} // namespace

void Book::Closer::operator()(sqlite3* db) const { sqlite3_close_v2(db); }

Result<Book> Book::open(const std::string& path, Mode mode, Check check) {
  Book book;
  book.m_path = path;
  const auto cannot = [&](Message why) {
    return Problem{ProblemKind::storage, path, Message{"book.cannot-opened", std::move(why)}, Message{"book.check-name-folder-permissions"}};
  };
  std::error_code error;
  const bool exists = std::filesystem::exists(path, error);
  if (error) return cannot(Message::verbatim(error.message()));
  if (exists && std::filesystem::is_regular_file(path, error) && std::filesystem::file_size(path, error) == 0)
    return Problem{ProblemKind::badInput, path, Message{"book.file-empty-no-book"}, Message{"book.new-book-made-under"}};
  if (mode == Mode::create && !exists) { // made elsewhere and put in its place whole: whatever happens, there is a book or there is none
    auto folder = TemporaryFolder::beside(path);
    if (!folder) return folder.problems();
    const std::string made = folder->path() + "/book.muffle";
    if (auto ok = writeEmptyBook(made); !ok) return cannot(ok.problem().what);
    if (auto ok = putInPlace(made, path); !ok) return ok.problems();
  }
  if (mode == Mode::existing && !exists) return Problem{ProblemKind::storage, path, Message{"book.no-such-book"}, Message{"book.name-existing-muffle-file"}};
  sqlite3* raw = nullptr;
  const std::string name = std::filesystem::path(path).is_absolute() ? path : "./" + path; // ":memory:" is a name like any other
  const int rc = sqlite3_open_v2(name.c_str(), &raw, SQLITE_OPEN_READWRITE, nullptr);
  book.m_db.reset(raw);
  if (rc != SQLITE_OK) return cannot(raw ? Message::verbatim(sqlite3_errmsg(raw)) : Message{"book.out-of-memory"});
  sqlite3_busy_timeout(raw, 20000); // a long log may be on its way in from another connection
  addDigestFunction(raw);
  // a file of another's making may hold functions and views that do what no book does
  if (auto ok = execute(raw, "PRAGMA trusted_schema = OFF; PRAGMA foreign_keys = ON; PRAGMA synchronous = FULL;"); !ok) return ok.problems();
  if (auto ok = book.migrate(); !ok) return ok.problems();
  if (check == Check::whole)
    if (auto damage = damageOf(raw); !damage.empty()) return damage;
  return book;
}

bool Book::isWritable() const { return sqlite3_db_readonly(m_db.get(), "main") == 0; }

void Book::setPatience(int milliseconds) { sqlite3_busy_timeout(m_db.get(), milliseconds); }

Result<std::int64_t> Book::version() const {
  Statement s(m_db.get(), "PRAGMA data_version");
  auto row = s.step();
  if (!row) return row.problems();
  return s.integer(0);
}

Status Book::copyTo(const std::string& path) const {
  Statement s(m_db.get(), "VACUUM INTO ?");
  s.bind(1, path);
  return s.run();
}

Status Book::change(const std::function<Status()>& work) {
  Transaction t(m_db.get());
  if (!t.begun()) return t.begun();
  if (auto ok = work(); !ok) return ok;
  if (auto ok = seal(m_db.get()); !ok) return ok;
  return t.commit();
}

/// Its schema, in a file that nobody else has.
Status Book::writeEmptyBook(const std::string& path) {
  Book book;
  book.m_path = path;
  sqlite3* raw = nullptr;
  const int rc = sqlite3_open_v2(path.c_str(), &raw, SQLITE_OPEN_READWRITE | SQLITE_OPEN_CREATE, nullptr);
  book.m_db.reset(raw);
  if (rc != SQLITE_OK)
    return raw ? sqliteProblem(raw) : Problem{ProblemKind::storage, path, Message{"book.not-enough-memory"}, Message{"book.close-other-programs"}};
  addDigestFunction(raw);
  if (auto ok = execute(raw, "PRAGMA synchronous = FULL;"); !ok) return ok;
  return book.change([&]() -> Status {
    if (auto ok = execute(raw, kSchema); !ok) return ok;
    return execute(raw, fmt::format("PRAGMA application_id = {}; PRAGMA user_version = {};", kApplicationId, kSchemaVersion));
  });
}

Status Book::migrate() {
  const Problem notABook{ProblemKind::badInput, m_path, Message{"book.not-muffle-book"}, Message{"book.choose-muffle-file"}};
  const auto number = [&](const char* sql) -> Result<std::int64_t> {
    Statement s(m_db.get(), sql);
    auto row = s.step();
    if (!row && sqlite3_errcode(m_db.get()) == SQLITE_NOTADB) return notABook;
    if (!row) return row.problems();
    return s.integer(0);
  };
  auto application = number("PRAGMA application_id");
  if (!application) return application.problems();
  auto version = number("PRAGMA user_version");
  if (!version) return version.problems();
  if (*application != kApplicationId) return notABook;
  if (*version > kSchemaVersion)
    return Problem{ProblemKind::badInput, m_path, Message{"book.book-format", *version}, Message{"book.format-at-most", kSchemaVersion}};
  if (*version == kSchemaVersion) return Done{};
  if (auto damage = pageDamageOf(m_db.get()); !damage.empty()) return damage; // nothing is built on it
  return change([&]() -> Status {
    auto still = number("PRAGMA user_version"); // another process may have brought it up to date meanwhile
    if (!still) return still.problems();
    if (*still < 2)
      if (auto ok = execute(m_db.get(), kToVersion2); !ok) return ok;
    if (*still < 3) {
      if (auto ok = execute(m_db.get(), kToVersion3); !ok) return ok;
      if (auto ok = digestAllRows(m_db.get()); !ok) return ok;
    }
    return execute(m_db.get(), fmt::format("PRAGMA user_version = {};", kSchemaVersion));
  });
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
  RowId id = 0;
  auto ok = change([&]() -> Status {
    Statement s(m_db.get(), "INSERT INTO plan (name, json, digest) VALUES (?1, ?2, digest(?1, ?2))");
    s.bind(1, plan.name);
    s.bind(2, planToJson(plan).dump());
    auto done = s.run();
    id = sqlite3_last_insert_rowid(m_db.get());
    return done;
  });
  if (!ok) return ok.problems();
  return id;
}

Status Book::savePlan(RowId id, const Plan& plan) {
  return change([&]() -> Status {
    Statement s(m_db.get(), "UPDATE plan SET name = ?1, json = ?2, digest = digest(?1, ?2) WHERE id = ?3");
    s.bind(1, plan.name);
    s.bind(2, planToJson(plan).dump());
    s.bind(3, id);
    return s.run();
  });
}

Status Book::removePlan(RowId id) {
  return change([&]() -> Status {
    Statement s(m_db.get(), "DELETE FROM plan WHERE id = ?");
    s.bind(1, id);
    return s.run();
  });
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
  return change([&]() -> Status {
    Statement s(m_db.get(), "INSERT INTO recipe (name, json, digest) VALUES (?1, ?2, digest(?1, ?2)) "
                            "ON CONFLICT (name) DO UPDATE SET json = excluded.json, digest = excluded.digest");
    s.bind(1, recipe.name);
    s.bind(2, recipeToJson(recipe).dump());
    return s.run();
  });
}

Status Book::removeRecipe(const std::string& name) {
  return change([&]() -> Status {
    Statement s(m_db.get(), "DELETE FROM recipe WHERE name = ?");
    s.bind(1, name);
    return s.run();
  });
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
  return change([&]() -> Status {
    Statement s(m_db.get(), "INSERT INTO setting (key, value, digest) VALUES (?1, ?2, digest(?1, ?2)) "
                            "ON CONFLICT (key) DO UPDATE SET value = excluded.value, digest = excluded.digest");
    s.bind(1, key);
    s.bind(2, value);
    return s.run();
  });
}

} // namespace muffle
