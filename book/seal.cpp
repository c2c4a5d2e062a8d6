// SPDX-License-Identifier: GPL-3.0-or-later
#include "book/seal.h"

#include "book/statement.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <vector>

#define XXH_INLINE_ALL
#include <xxhash.h>

namespace muffle {
namespace {

constexpr std::size_t kMostNamed = 20; // of a book that is damaged all over

void add(Problems& found, sqlite3* db, Message what) {
  const char* file = sqlite3_db_filename(db, "main");
  if (found.size() < kMostNamed) found.push_back({ProblemKind::damaged, file ? file : "", std::move(what), Message{"book.whole-can-be-salvaged"}});
}

/// digest(value, ...): kind, length and bytes of each, so that no two rows of other cells meet.
void digestOfValues(sqlite3_context* context, int count, sqlite3_value** values) {
  XXH3_state_t state;
  XXH3_64bits_reset(&state);
  for (int i = 0; i < count; ++i) {
    const int kind = sqlite3_value_type(values[i]);
    const void* bytes = kind == SQLITE_BLOB ? sqlite3_value_blob(values[i]) : sqlite3_value_text(values[i]);
    const std::int64_t head[2] = {kind, sqlite3_value_bytes(values[i])};
    XXH3_64bits_update(&state, head, sizeof head);
    if (bytes && head[1] > 0) XXH3_64bits_update(&state, bytes, static_cast<std::size_t>(head[1]));
  }
  sqlite3_result_int64(context, static_cast<sqlite3_int64>(XXH3_64bits_digest(&state)));
}

/// "the plan "Tunnel"".
Message nameOf(const SealedTable& table, std::string name) {
  Message what = Message::of("book", table.name);
  what.arguments.emplace_back(std::move(name));
  return what;
}

enum class From {
  indices, ///< as they were written; a digest behind the blobs of a log is not worth reading the log for
  rows     ///< as they stand
};

Result<std::int64_t> sealOf(sqlite3* db, From from) {
  XXH3_state_t state;
  XXH3_64bits_reset(&state);
  for (const SealedTable& table : sealedTables()) {
    std::vector<std::array<std::int64_t, 2>> entries;
    Statement s(db, fmt::format("SELECT rowid, digest FROM {}{}", table.name, from == From::rows ? " NOT INDEXED" : "").c_str());
    for (;;) {
      auto row = s.step();
      if (!row) return row.problems();
      if (!*row) break;
      entries.push_back({s.integer(0), s.integer(1)});
    }
    std::sort(entries.begin(), entries.end()); // an index has an order of its own
    XXH3_64bits_update(&state, table.name, std::strlen(table.name));
    XXH3_64bits_update(&state, entries.data(), entries.size() * sizeof entries[0]);
  }
  return static_cast<std::int64_t>(XXH3_64bits_digest(&state));
}

} // namespace

const std::vector<SealedTable>& sealedTables() {
  static const std::vector<SealedTable> tables{
      {"plan", "name, json", "name"},
      {"log", "name, rows, time, record, in_use", "name"},
      {"channel", "log_id, position, name, role, role_id, unit_in, unit_why, raw, flag, statistic", "name"},
      {"setting", "key, value", "key"},
      {"snapshot", "name, at, json, by_hand, log_id, log_name, log_rows, record", "name"},
      {"recipe", "name, json", "name"},
  };
  return tables;
}

void addDigestFunction(sqlite3* db) {
  sqlite3_create_function_v2(db, "digest", -1, SQLITE_UTF8 | SQLITE_DETERMINISTIC, nullptr, &digestOfValues, nullptr, nullptr, nullptr);
}

Status digestAllRows(sqlite3* db) {
  for (const SealedTable& t : sealedTables())
    if (auto ok = execute(db, fmt::format("UPDATE {} SET digest = digest({})", t.name, t.columns)); !ok) return ok;
  return Done{};
}

Status seal(sqlite3* db) {
  const auto digest = sealOf(db, From::indices);
  if (!digest) return digest.problems();
  return execute(db, fmt::format("INSERT OR REPLACE INTO seal (id, digest) VALUES (1, {})", *digest));
}

Problems pageDamageOf(sqlite3* db) {
  Problems found;
  long places = 0;
  Statement s(db, "PRAGMA integrity_check");
  for (;;) {
    const auto row = s.step();
    if (!row) ++places;
    if (!row || !*row) break;
    const std::string text = s.text(0); // many lines in one, after a heading that names the database
    if (text != "ok") places += std::max<long>(1, static_cast<long>(std::count(text.begin(), text.end(), '\n')));
  }
  if (places > 0) add(found, db, places == 1 ? Message{"book.file-damaged-one-place"} : Message{"book.file-damaged-places", places});
  return found;
}

Problems damageOf(sqlite3* db) {
  Problems found = pageDamageOf(db);
  for (const SealedTable& t : sealedTables()) {
    Statement s(db, fmt::format("SELECT {} FROM {} NOT INDEXED WHERE digest IS NOT digest({})", t.named, t.name, t.columns).c_str());
    for (;;) {
      const auto row = s.step();
      if (!row) add(found, db, Message{"book.table-cannot-read", t.name});
      if (!row || !*row) break;
      add(found, db, Message{"book.is-altered", nameOf(t, s.text(0))});
    }
  }
  if (!found.empty()) return found;
  const auto rows = sealOf(db, From::rows), indices = sealOf(db, From::indices);
  Statement s(db, "SELECT digest FROM seal WHERE id = 1");
  const auto row = s.step();
  if (!rows || !row || !*row || s.integer(0) != *rows)
    add(found, db, Message{"book.rows-missing-or-foreign"});
  else if (!indices || *indices != *rows) // the next edit would be sealed by it
    add(found, db, Message{"book.index-is-altered"});
  return found;
}

} // namespace muffle
