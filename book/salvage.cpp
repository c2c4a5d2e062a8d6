// SPDX-License-Identifier: GPL-3.0-or-later
#include "book/salvage.h"

#include "book/book.h"
#include "book/files.h"
#include "book/seal.h"
#include "book/statement.h"
#include "core/json/message_text.h"
#include "core/log/soundness.h"
#include "core/plan/plan_json.h"

#include <fmt/format.h>

#include <algorithm>
#include <filesystem>
#include <set>

namespace muffle {
namespace {

namespace fs = std::filesystem;

constexpr std::int64_t kMostProbed = 20000; // row numbers that are asked for one by one

struct Connection {
  sqlite3* db = nullptr;
  ~Connection() { sqlite3_close_v2(db); }
};

class Salvager {
public:
  Salvager(sqlite3* from, Book& to) : m_from(from), m_to(to) {}

  /// Problem only if the new book cannot be written.
  Status run() {
    if (auto ok = takeLogs(); !ok) return ok;
    if (auto ok = takeSnapshots(); !ok) return ok;
    if (auto ok = takePlans(); !ok) return ok;
    if (auto ok = takeRecipes(); !ok) return ok;
    return takeSettings();
  }
  Salvaged found;
  bool tookAnything = false;

private:
  [[nodiscard]] bool has(const char* table, const char* column) const {
    return Statement(m_from, fmt::format("SELECT {} FROM {} LIMIT 0", column, table).c_str()).prepared();
  }

  /// Row numbers of a table that can be got at: from the front, from the back, and one by one between.
  [[nodiscard]] std::set<std::int64_t> rowsOf(const char* table) const {
    std::set<std::int64_t> rows;
    bool whole = false;
    for (const char* order : {"ASC", "DESC"}) {
      Statement s(m_from, fmt::format("SELECT rowid FROM {} NOT INDEXED ORDER BY rowid {}", table, order).c_str());
      auto row = s.step();
      for (; row && *row; row = s.step()) rows.insert(s.integer(0));
      whole = static_cast<bool>(row);
      if (whole) break;
    }
    const std::int64_t last = rows.empty() ? 64 : *rows.rbegin();
    for (std::int64_t id = 1; !whole && id <= std::min(last, kMostProbed); ++id) {
      Statement s(m_from, fmt::format("SELECT rowid FROM {} NOT INDEXED WHERE rowid = {}", table, id).c_str());
      if (auto row = s.step(); row && *row) rows.insert(id);
    }
    return rows;
  }

  /// True if the row is as it was written; an older book cannot tell, and is taken at its word.
  [[nodiscard]] bool isWhole(const char* table, std::int64_t id) const {
    if (!has(table, "digest")) return true;
    for (const SealedTable& t : sealedTables())
      if (std::string_view(t.name) == table) {
        Statement s(m_from, fmt::format("SELECT digest IS digest({}) FROM {} NOT INDEXED WHERE rowid = {}", t.columns, table, id).c_str());
        const auto row = s.step();
        return row && *row && s.integer(0) != 0;
      }
    return false;
  }

  void note(bool whole, Message what) {
    tookAnything = true;
    if (whole)
      found.saved.push_back(std::move(what));
    else
      found.doubtful.push_back(Message{"book.altered-look-it-over", std::move(what)});
  }

  [[nodiscard]] static Result<Plan> soundPlan(const std::string& text) {
    const auto json = parseJson(text);
    if (!json) return json.problems();
    return planFromJson(*json);
  }

  Status takePlans() {
    bool any = false;
    for (const std::int64_t id : rowsOf("plan")) {
      Statement s(m_from, fmt::format("SELECT name, json FROM plan NOT INDEXED WHERE rowid = {}", id).c_str());
      const auto row = s.step();
      const std::string name = row && *row ? s.text(0) : std::to_string(id);
      const auto plan = row && *row ? soundPlan(s.text(1)) : Result<Plan>(Problem{});
      if (!plan) {
        found.lost.push_back(Message{"book.plan", name});
        continue;
      }
      if (auto added = m_to.addPlan(*plan); !added) return added.problems();
      note(isWhole("plan", id), Message{"book.plan", plan->name});
      any = true;
    }
    if (any || m_newestPlan.empty()) return Done{};
    const auto plan = soundPlan(m_newestPlan);
    if (auto added = m_to.addPlan(*plan); !added) return added.problems();
    found.doubtful.push_back(Message{"book.plan-taken-from-snapshot", plan->name, m_newestName});
    return Done{};
  }

  struct Column {
    Channel channel;
    bool whole = false;
  };

  /// The columns of a log that still fit it.
  std::vector<Column> columnsOf(std::int64_t log, std::size_t rows, const std::string& name) {
    std::vector<std::pair<std::int64_t, Column>> columns;
    const bool statistics = has("channel", "statistic");
    for (const std::int64_t id : m_channels) {
      Statement s(m_from,
                  fmt::format("SELECT log_id, position, name, role, role_id, unit_in, unit_why, raw, flag, {} FROM channel NOT INDEXED WHERE rowid = {}",
                              statistics ? "statistic" : "0", id)
                      .c_str());
      const auto row = s.step();
      if (!row || !*row) { // its readings are out of reach; what it was called may not be
        Statement named(m_from, fmt::format("SELECT log_id, name FROM channel NOT INDEXED WHERE rowid = {}", id).c_str());
        const auto head = named.step();
        if (!head || !*head || named.integer(0) != log) continue;
        m_taken.insert(id);
        found.lost.push_back(Message{"book.column-log", named.text(1), name});
        m_isPart = true;
        continue;
      }
      if (s.integer(0) != log) continue;
      m_taken.insert(id);
      Column c;
      c.whole = isWhole("channel", id);
      c.channel.name = s.text(2), c.channel.id = s.text(4), c.channel.unitIn = s.text(5), c.channel.unitWhy = messageFromStored(s.text(6));
      const Blob raw = s.blob(7);
      const auto role = s.integer(3), statistic = s.integer(9);
      if (raw.size != rows * sizeof(float) || role < 0 || role > static_cast<int>(Role::note) || statistic < 0 ||
          statistic > static_cast<int>(Statistic::highest)) {
        found.lost.push_back(Message{"book.column-log", c.channel.name, name});
        m_isPart = true;
        continue;
      }
      c.channel.role = static_cast<Role>(role);
      c.channel.statistic = static_cast<Statistic>(statistic);
      c.channel.raw.resize(rows);
      std::memcpy(c.channel.raw.data(), raw.data, raw.size);
      c.channel.flag.assign(rows, 0);
      const Blob flags = s.blob(8);
      if (flags.size == rows) std::memcpy(c.channel.flag.data(), flags.data, rows);
      columns.emplace_back(s.integer(1), std::move(c));
    }
    std::stable_sort(columns.begin(), columns.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
    std::vector<Column> inOrder;
    for (auto& [position, column] : columns) inOrder.push_back(std::move(column));
    return inOrder;
  }

  Status takeLogs() {
    m_channels = rowsOf("channel");
    for (const std::int64_t id : rowsOf("log")) {
      Statement s(m_from, fmt::format("SELECT name, time, {}, {} FROM log NOT INDEXED WHERE rowid = {}", has("log", "record") ? "record" : "'{}'",
                                      has("log", "in_use") ? "in_use" : "1", id)
                              .c_str());
      const auto row = s.step();
      if (!row || !*row) {
        found.lost.push_back(Message{"book.log-number", id});
        continue;
      }
      Log log;
      log.name = s.text(0);
      const Blob times = s.blob(1);
      log.time.resize(times.size / sizeof(UtcSeconds));
      if (!log.time.empty()) std::memcpy(log.time.data(), times.data, log.time.size() * sizeof(UtcSeconds));
      bool whole = isWhole("log", id);
      std::vector<std::string> odd;
      m_isPart = false;
      for (Column& c : columnsOf(id, log.time.size(), log.name)) {
        if (!c.whole) odd.push_back(c.channel.name);
        log.channels.push_back(std::move(c.channel));
      }
      if (!soundLog(log)) {
        for (Channel& c : log.channels) std::fill(c.flag.begin(), c.flag.end(), std::uint8_t{0}); // they are worked out again
      }
      if (const auto sound = soundLog(log); !sound) {
        found.lost.push_back(Message{"book.log", log.name, sound.problem().what});
        continue;
      }
      Log judged = log;
      const auto record = parseJson(s.text(2));
      if (record && recordFromJson(*record, judged))
        log = std::move(judged);
      else
        found.lost.push_back(Message{"book.what-was-decided-log", log.name});
      auto added = m_to.addLog(log, s.integer(3) != 0);
      if (!added) return added.problems();
      m_logs[id] = *added;
      for (const std::string& name : odd) found.doubtful.push_back(Message{"book.altered-look-it-over", Message{"book.column-log", name, log.name}});
      const Message what{"book.log-rows-columns", log.name, log.time.size(), log.channels.size()};
      if (!whole || (odd.empty() && !m_isPart))
        note(whole, what);
      else
        found.doubtful.push_back(Message{"book.in-part", what});
      tookAnything = true;
    }
    for (const std::int64_t id : m_channels)
      if (!m_taken.contains(id)) found.lost.push_back(Message{"book.column-of-no-log", id});
    return Done{};
  }

  Status takeSnapshots() {
    const bool full = has("snapshot", "log_id");
    for (const std::int64_t id : rowsOf("snapshot")) {
      Statement s(m_from, fmt::format("SELECT name, at, json, {} FROM snapshot NOT INDEXED WHERE rowid = {}",
                                      full ? "by_hand, log_id, log_name, log_rows, record" : "1, 0, '', 0, '{}'", id)
                              .c_str());
      const auto row = s.step();
      Snapshot snapshot;
      if (row && *row) snapshot = {0, s.text(0), s.integer(1), s.text(2), s.integer(3) != 0, s.integer(4), s.text(5), s.integer(6), s.text(7)};
      if (!row || !*row || !soundPlan(snapshot.planJson)) {
        found.lost.push_back(Message{"book.snapshot", snapshot.name.empty() ? std::to_string(id) : snapshot.name});
        continue;
      }
      snapshot.log = m_logs.contains(snapshot.log) ? m_logs[snapshot.log] : 0;
      if (!parseJson(snapshot.record)) snapshot.record = "{}";
      if (auto added = m_to.takeOverSnapshot(snapshot); !added) return added.problems();
      note(isWhole("snapshot", id), Message{"book.snapshot", snapshot.name});
      m_newestPlan = snapshot.planJson;
      m_newestName = snapshot.name;
    }
    return Done{};
  }

  Status takeRecipes() {
    for (const std::int64_t id : rowsOf("recipe")) {
      Statement s(m_from, fmt::format("SELECT name, json FROM recipe NOT INDEXED WHERE rowid = {}", id).c_str());
      const auto row = s.step();
      const std::string name = row && *row ? s.text(0) : std::to_string(id);
      const auto json = row && *row ? parseJson(s.text(1)) : Result<Json>(Problem{});
      const auto recipe = json ? recipeFromJson(*json) : Result<Recipe>(Problem{});
      if (!recipe) {
        found.lost.push_back(Message{"book.recipe", name});
        continue;
      }
      if (auto ok = m_to.saveRecipe(*recipe); !ok) return ok;
      note(isWhole("recipe", id), Message{"book.recipe", recipe->name});
    }
    return Done{};
  }

  Status takeSettings() {
    for (const std::int64_t id : rowsOf("setting")) {
      Statement s(m_from, fmt::format("SELECT key, value FROM setting NOT INDEXED WHERE rowid = {}", id).c_str());
      const auto row = s.step();
      if (!row || !*row || !isWhole("setting", id)) { // an altered one is set again more easily than looked over
        found.lost.push_back(Message{"book.setting", row && *row ? s.text(0) : std::to_string(id)});
        continue;
      }
      if (auto ok = m_to.setSetting(s.text(0), s.text(1)); !ok) return ok;
      tookAnything = true;
    }
    return Done{};
  }

  sqlite3* m_from;
  Book& m_to;
  std::set<std::int64_t> m_channels, m_taken;
  bool m_isPart = false;         ///< a column of the log at work is lost
  std::map<RowId, RowId> m_logs; ///< old number to new
  std::string m_newestPlan, m_newestName;
};

} // namespace

Result<Salvaged> salvageBook(const std::string& path, const std::string& newBook) {
  std::error_code error;
  if (!fs::is_regular_file(path, error)) return Problem{ProblemKind::storage, path, Message{"book.no-such-book"}, Message{"book.name-existing-muffle-file"}};
  if (fs::exists(newBook, error)) return Problem{ProblemKind::badInput, newBook, Message{"book.book-already-exists"}, Message{"book.name-new-muffle-file"}};
  auto folder = TemporaryFolder::beside(newBook);
  if (!folder) return folder.problems();
  // what an ended process left half done is rolled back in the copy, not in the book
  const std::string copy = folder->path() + "/damaged.muffle", made = folder->path() + "/book.muffle";
  fs::copy_file(path, copy, error);
  if (error) return Problem{ProblemKind::storage, path, Message{"book.cannot-read", error.message()}, Message{"book.check-disk"}};
  fs::permissions(copy, fs::perms::owner_read | fs::perms::owner_write, error);
  if (fs::exists(path + "-journal", error)) fs::copy_file(path + "-journal", copy + "-journal", error);
  Connection from;
  if (sqlite3_open_v2(copy.c_str(), &from.db, SQLITE_OPEN_READWRITE, nullptr) != SQLITE_OK)
    return Problem{ProblemKind::damaged, path, Message{"book.nothing-can-read"}, Message{"book.restore-book-from-export"}};
  addDigestFunction(from.db);
  (void)execute(from.db, "PRAGMA trusted_schema = OFF; PRAGMA cell_size_check = ON;");
  Salvaged found;
  {
    auto book = Book::open(made, Book::Mode::create);
    if (!book) return book.problems();
    Salvager salvager(from.db, *book);
    if (auto ok = salvager.run(); !ok) return ok.problems();
    if (!salvager.tookAnything) return Problem{ProblemKind::damaged, path, Message{"book.nothing-can-read"}, Message{"book.restore-book-from-export"}};
    found = std::move(salvager.found);
  }
  fs::rename(made, newBook, error);
  if (error) return Problem{ProblemKind::storage, newBook, Message{"book.cannot-written", error.message()}, Message{"book.check-name-permissions"}};
  return found;
}

} // namespace muffle
