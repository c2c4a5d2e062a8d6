// SPDX-License-Identifier: GPL-3.0-or-later
//
// One grower's file: plans, logs, settings and snapshots in SQLite. Every call that changes something is one
// transaction, so that ending the process at any moment loses at most the edit in hand. docs/book-format.md.
//
//   auto book = Book::open("yard.muffle", Book::Mode::create);
//   const auto id = book->addPlan(plan);
#pragma once

#include "core/log/recipe.h"
#include "core/plan/plan.h"
#include "core/status.h"

#include <cstdint>
#include <functional>
#include <map>
#include <memory>
#include <string>
#include <vector>

struct sqlite3;

namespace muffle {

using RowId = std::int64_t;

struct StoredPlan {
  RowId id = 0;
  Plan plan;
};

struct StoredLog {
  RowId id = 0;
  Log log;
};

/// A state to come back to: the plan, and the log with the grower's word on it.
struct Snapshot {
  RowId id = 0;
  std::string name; ///< the grower's own, or what was about to be done
  UtcSeconds at = 0;
  std::string planJson;
  bool byHand = true;        ///< asked for by the grower; others are thinned out (snapshots.h)
  RowId log = 0;             ///< 0: there was none, or it is no longer kept
  std::string logName{};     ///< stays when the log itself is no longer kept
  std::int64_t logRows = 0;  ///< 0: there was none
  std::string record = "{}"; ///< decisions and notes on that log as they were, recordToJson
};

class Book {
public:
  enum class Mode { existing, create };
  enum class Check {
    whole,  ///< every page and every row is held against its digest
    opened, ///< this process has done so: a further connection of its own
  };
  /// Opens a book, brings an older one up to date, refuses a newer one and anything that is not a book. A damaged one is refused with a
  /// problem of kind `damaged` for each thing that is (see salvage.h).
  static Result<Book> open(const std::string& path, Mode mode, Check check = Check::whole);

  [[nodiscard]] const std::string& path() const { return m_path; }
  /// False if file or folder allow reading only.
  [[nodiscard]] bool isWritable() const;
  /// How long another program's lock is waited for; 20 s by itself.
  void setPatience(int milliseconds);
  /// Another number after any other connection has changed the book.
  [[nodiscard]] Result<std::int64_t> version() const;
  /// A copy as it stands, under a name that must not exist yet.
  Status copyTo(const std::string& path) const;

  Result<std::vector<StoredPlan>> plans() const; ///< in the order they were added
  Result<RowId> addPlan(const Plan& plan);
  Status savePlan(RowId id, const Plan& plan);
  Status removePlan(RowId id);

  Result<std::vector<StoredLog>> logs() const;     ///< those in use
  Result<std::vector<StoredLog>> keptLogs() const; ///< those that only snapshots still hold
  Result<RowId> addLog(const Log& log, bool inUse = true);
  /// All logs give way to this one, or to none, in one transaction; those that a snapshot holds are kept for it.
  Status replaceLogs(const Log* log);
  Result<RowId> newestLog() const; ///< 0 if there is none
  /// Another number once the log in use is another or is judged otherwise.
  Result<std::int64_t> logDigest() const;
  /// Flags, decisions and notes; raw readings are never rewritten. Problem if the stored log has another number of rows.
  Status saveFlags(RowId id, const Log& log);
  Status removeLog(RowId id);

  Result<std::vector<Recipe>> recipes() const; ///< in the order they were first kept
  Status saveRecipe(const Recipe& recipe);     ///< takes the place of one of the same name
  Status removeRecipe(const std::string& name);

  Result<std::map<std::string, std::string>> settings() const;
  Status setSetting(const std::string& key, const std::string& value);

  Result<std::vector<Snapshot>> snapshots() const; ///< oldest first
  /// Of this plan and the log in use; older ones are thinned out.
  Result<RowId> addSnapshot(const std::string& name, UtcSeconds at, const Plan& plan, bool byHand = true);
  /// The same by itself, and nothing (0) if neither plan nor log has changed since the newest.
  Result<RowId> keepState(const std::string& why, UtcSeconds at, const Plan& plan);
  /// As it was when it was written elsewhere; `log` names a log of this book.
  Result<RowId> takeOverSnapshot(const Snapshot& snapshot);
  /// The log of a snapshot with the decisions of then; problem if it is no longer kept.
  Result<Log> logOf(const Snapshot& snapshot) const;

private:
  struct Closer {
    void operator()(sqlite3* db) const;
  };
  static Status writeEmptyBook(const std::string& path);
  Status migrate();
  /// Runs a change as one transaction and seals the book anew; nothing of it stays if any part fails.
  Status change(const std::function<Status()>& work);
  Result<std::vector<StoredLog>> readLogs(const std::string& which) const;
  Result<RowId> insertLog(const Log& log, bool inUse);
  Result<RowId> insertSnapshot(const Snapshot& snapshot);
  Result<Snapshot> stateNow(const std::string& name, UtcSeconds at, const Plan& plan) const;
  Status thinSnapshots(UtcSeconds now);
  std::string m_path;
  std::unique_ptr<sqlite3, Closer> m_db;
};

/// Everything in a book as JSON and CSV files in a folder, and back. Lossless; the folder must be new or empty, the book
/// must not exist.
Status exportBook(const Book& book, const std::string& folder);
Status importBook(const std::string& folder, const std::string& path);

} // namespace muffle
