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

struct Snapshot {
  RowId id = 0;
  std::string name;
  UtcSeconds at = 0;
  std::string planJson;
};

class Book {
public:
  enum class Mode { existing, create };
  /// Opens a book, brings an older one up to date, refuses a newer one and anything that is not a book.
  static Result<Book> open(const std::string& path, Mode mode);

  [[nodiscard]] const std::string& path() const { return m_path; }

  Result<std::vector<StoredPlan>> plans() const; ///< in the order they were added
  Result<RowId> addPlan(const Plan& plan);
  Status savePlan(RowId id, const Plan& plan);
  Status removePlan(RowId id);

  Result<std::vector<StoredLog>> logs() const;
  Result<RowId> addLog(const Log& log);
  /// All logs give way to this one, or to none, in one transaction.
  Status replaceLogs(const Log* log);
  Result<RowId> newestLog() const; ///< 0 if there is none
  /// Flags, decisions and notes; raw readings are never rewritten. Problem if the stored log has another number of rows.
  Status saveFlags(RowId id, const Log& log);
  Status removeLog(RowId id);

  Result<std::vector<Recipe>> recipes() const; ///< in the order they were first kept
  Status saveRecipe(const Recipe& recipe);     ///< takes the place of one of the same name
  Status removeRecipe(const std::string& name);

  Result<std::map<std::string, std::string>> settings() const;
  Status setSetting(const std::string& key, const std::string& value);

  Result<std::vector<Snapshot>> snapshots() const;
  Result<RowId> addSnapshot(const std::string& name, UtcSeconds at, const Plan& plan);

private:
  struct Closer {
    void operator()(sqlite3* db) const;
  };
  Status migrate();
  Result<RowId> insertLog(const Log& log);
  std::string m_path;
  std::unique_ptr<sqlite3, Closer> m_db;
};

/// Everything in a book as JSON and CSV files in a folder, and back. Lossless; the folder must be new or empty, the book
/// must not exist.
Status exportBook(const Book& book, const std::string& folder);
Status importBook(const std::string& folder, const std::string& path);

} // namespace muffle
