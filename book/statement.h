// SPDX-License-Identifier: GPL-3.0-or-later
//
// The few SQLite calls that a book needs, with their failures as values. SQLite's types stop here.
#pragma once

#include "core/status.h"

#include <sqlite3.h>

#include <cstdint>
#include <cstring>
#include <string>

namespace muffle {

struct Blob {
  const void* data = nullptr;
  std::size_t size = 0;
};

/// What went wrong on the disk, in the words of whoever has to mend it.
inline Problem sqliteProblem(sqlite3* db) {
  const char* name = sqlite3_db_filename(db, "main");
  const std::string file = name ? name : "";
  switch (sqlite3_errcode(db)) {
  case SQLITE_CORRUPT: return {ProblemKind::damaged, file, Message{"book.file-damaged"}, Message{"book.whole-can-be-salvaged"}};
  case SQLITE_FULL: return {ProblemKind::storage, file, Message{"book.disk-full"}, Message{"book.make-room-save-elsewhere"}};
  case SQLITE_READONLY: return {ProblemKind::storage, file, Message{"book.file-may-only-read"}, Message{"book.allow-writing-folder-save"}};
  case SQLITE_CANTOPEN: return {ProblemKind::storage, file, Message{"book.file-cannot-opened-writing"}, Message{"book.check-file-folder-may"}};
  case SQLITE_IOERR: return {ProblemKind::storage, file, Message{"book.disk-gives-error"}, Message{"book.check-disk-connection-save"}};
  case SQLITE_BUSY:
  case SQLITE_LOCKED: return {ProblemKind::storage, file, Message{"book.another-program-holds-file"}, Message{"book.close-program-wait"}};
  case SQLITE_NOMEM: return {ProblemKind::storage, file, Message{"book.not-enough-memory"}, Message{"book.close-other-programs"}};
  default: return {ProblemKind::storage, file, Message{"book.cannot-read-written", sqlite3_errmsg(db)}, Message{"book.check-disk-save-elsewhere"}};
  }
}

inline Status execute(sqlite3* db, const std::string& sql) {
  if (sqlite3_exec(db, sql.c_str(), nullptr, nullptr, nullptr) != SQLITE_OK) return sqliteProblem(db);
  return Done{};
}

class Statement {
public:
  Statement(sqlite3* db, const char* sql) : m_db(db) { m_ok = sqlite3_prepare_v2(db, sql, -1, &m_statement, nullptr) == SQLITE_OK; }
  ~Statement() { sqlite3_finalize(m_statement); }
  Statement(const Statement&) = delete;
  Statement& operator=(const Statement&) = delete;

  /// False if the statement does not fit the tables that are there.
  [[nodiscard]] bool prepared() const { return m_ok; }
  void bind(int i, std::int64_t v) { sqlite3_bind_int64(m_statement, i, v); }
  void bind(int i, const std::string& v) { sqlite3_bind_text(m_statement, i, v.data(), static_cast<int>(v.size()), SQLITE_TRANSIENT); }
  /// The bytes must outlive run().
  void bind(int i, Blob v) { sqlite3_bind_blob64(m_statement, i, v.size ? v.data : "", v.size, SQLITE_STATIC); }

  /// True for a row, false at the end.
  Result<bool> step() {
    if (!m_ok) return sqliteProblem(m_db);
    const int rc = sqlite3_step(m_statement);
    if (rc == SQLITE_ROW) return true;
    if (rc == SQLITE_DONE) return false;
    return sqliteProblem(m_db);
  }
  Status run() {
    auto row = step();
    if (!row) return row.problems();
    return Done{};
  }
  [[nodiscard]] std::int64_t integer(int c) const { return sqlite3_column_int64(m_statement, c); }
  [[nodiscard]] std::string text(int c) const {
    const auto* t = reinterpret_cast<const char*>(sqlite3_column_text(m_statement, c));
    return t ? std::string(t, static_cast<std::size_t>(sqlite3_column_bytes(m_statement, c))) : std::string();
  }
  [[nodiscard]] Blob blob(int c) const { return {sqlite3_column_blob(m_statement, c), static_cast<std::size_t>(sqlite3_column_bytes(m_statement, c))}; }

private:
  sqlite3* m_db;
  sqlite3_stmt* m_statement = nullptr;
  bool m_ok = false;
};

/// Rolls back unless committed.
class Transaction {
public:
  explicit Transaction(sqlite3* db) : m_db(db), m_begun(execute(db, "BEGIN IMMEDIATE")), m_open(static_cast<bool>(m_begun)) {}
  /// Without it each statement would be a transaction of its own: nothing may be done then.
  [[nodiscard]] const Status& begun() const { return m_begun; }
  ~Transaction() {
    if (m_open) sqlite3_exec(m_db, "ROLLBACK", nullptr, nullptr, nullptr);
  }
  Transaction(const Transaction&) = delete;
  Transaction& operator=(const Transaction&) = delete;
  Status commit() {
    auto ok = execute(m_db, "COMMIT");
    if (ok) m_open = false;
    return ok;
  }

private:
  sqlite3* m_db;
  Status m_begun;
  bool m_open = false;
};

} // namespace muffle
