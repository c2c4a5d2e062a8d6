// SPDX-License-Identifier: GPL-3.0-or-later
//
// Snapshots as rows of a book.
#include "book/book.h"
#include "book/seal.h"
#include "book/snapshots.h"
#include "book/statement.h"
#include "core/plan/plan_json.h"

#include <fmt/format.h>

namespace muffle {

Result<std::vector<Snapshot>> Book::snapshots() const {
  std::vector<Snapshot> all;
  Statement s(m_db.get(), "SELECT id, name, at, json, by_hand, log_id, log_name, log_rows, record FROM snapshot ORDER BY id");
  for (;;) {
    auto row = s.step();
    if (!row) return row.problems();
    if (!*row) break;
    all.push_back({s.integer(0), s.text(1), s.integer(2), s.text(3), s.integer(4) != 0, s.integer(5), s.text(6), s.integer(7), s.text(8)});
  }
  return all;
}

/// What stands now, as a snapshot that is not in the book yet.
Result<Snapshot> Book::stateNow(const std::string& name, UtcSeconds at, const Plan& plan) const {
  Snapshot now{.name = name, .at = at, .planJson = planToJson(plan).dump()};
  Statement s(m_db.get(), "SELECT id, name, rows, record FROM log WHERE in_use = 1 ORDER BY id DESC LIMIT 1");
  auto row = s.step();
  if (!row) return row.problems();
  if (*row) now.log = s.integer(0), now.logName = s.text(1), now.logRows = s.integer(2), now.record = s.text(3);
  return now;
}

/// Within a transaction of the caller's.
Result<RowId> Book::insertSnapshot(const Snapshot& snapshot) {
  Statement s(m_db.get(), "INSERT INTO snapshot (name, at, json, by_hand, log_id, log_name, log_rows, record, digest) "
                          "VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7, ?8, digest(?1, ?2, ?3, ?4, ?5, ?6, ?7, ?8))");
  s.bind(1, snapshot.name);
  s.bind(2, snapshot.at);
  s.bind(3, snapshot.planJson);
  s.bind(4, snapshot.byHand ? 1 : 0);
  s.bind(5, snapshot.log);
  s.bind(6, snapshot.logName);
  s.bind(7, snapshot.logRows);
  s.bind(8, snapshot.record);
  if (auto ok = s.run(); !ok) return ok.problems();
  return sqlite3_last_insert_rowid(m_db.get());
}

Result<RowId> Book::addSnapshot(const std::string& name, UtcSeconds at, const Plan& plan, bool byHand) {
  RowId id = 0;
  auto ok = change([&]() -> Status {
    auto now = stateNow(name, at, plan);
    if (!now) return now.problems();
    now->byHand = byHand;
    auto inserted = insertSnapshot(*now);
    if (!inserted) return inserted.problems();
    id = *inserted;
    return thinSnapshots(at);
  });
  if (!ok) return ok.problems();
  return id;
}

Result<RowId> Book::keepState(const std::string& why, UtcSeconds at, const Plan& plan) {
  const auto now = stateNow(why, at, plan);
  if (!now) return now.problems();
  const auto all = snapshots();
  if (!all) return all.problems();
  if (!all->empty()) {
    const Snapshot& newest = all->back();
    if (newest.planJson == now->planJson && newest.log == now->log && newest.record == now->record) return RowId{0};
  }
  return addSnapshot(why, at, plan, false);
}

Result<RowId> Book::takeOverSnapshot(const Snapshot& snapshot) {
  RowId id = 0;
  auto ok = change([&]() -> Status {
    auto inserted = insertSnapshot(snapshot);
    if (!inserted) return inserted.problems();
    id = *inserted;
    return Done{};
  });
  if (!ok) return ok.problems();
  return id;
}

Status Book::thinSnapshots(UtcSeconds now) {
  const auto all = snapshots();
  if (!all) return all.problems();
  for (const RowId id : outdatedSnapshots(*all, now)) {
    Statement s(m_db.get(), "DELETE FROM snapshot WHERE id = ?");
    s.bind(1, id);
    if (auto ok = s.run(); !ok) return ok;
  }
  std::vector<HeldLog> held;
  {
    Statement s(m_db.get(), "SELECT l.id, length(l.time) + (SELECT coalesce(sum(length(raw) + length(flag)), 0) FROM channel WHERE log_id = l.id) "
                            "FROM snapshot s JOIN log l ON l.id = s.log_id WHERE l.in_use = 0 ORDER BY s.id DESC");
    for (;;) {
      auto row = s.step();
      if (!row) return row.problems();
      if (!*row) break;
      held.push_back({s.integer(0), s.integer(1)});
    }
  }
  for (const RowId log : outdatedLogs(held)) {
    Statement s(m_db.get(), "UPDATE snapshot SET log_id = 0, digest = digest(name, at, json, by_hand, 0, log_name, log_rows, record) WHERE log_id = ?");
    s.bind(1, log);
    if (auto ok = s.run(); !ok) return ok;
  }
  return execute(m_db.get(), "DELETE FROM log WHERE in_use = 0 AND id NOT IN (SELECT log_id FROM snapshot)");
}

Result<Log> Book::logOf(const Snapshot& snapshot) const {
  if (snapshot.log == 0) return Problem{ProblemKind::missing, m_path, Message{"book.log-of-state-is-gone", snapshot.logName}, Message{"book.plan-of-state-is-kept"}};
  auto logs = readLogs(fmt::format("id = {}", snapshot.log));
  if (!logs) return logs.problems();
  if (logs->empty()) return Problem{ProblemKind::missing, m_path, Message{"book.log-of-state-is-gone", snapshot.logName}, Message{"book.plan-of-state-is-kept"}};
  Log log = std::move(logs->front().log);
  log.decisions.clear();
  log.notes.clear();
  const auto record = parseJson(snapshot.record);
  if (!record) return record.problems();
  if (auto ok = recordFromJson(*record, log); !ok) return ok.problems();
  return log;
}

} // namespace muffle
