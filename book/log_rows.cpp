// SPDX-License-Identifier: GPL-3.0-or-later
//
// Logs as rows of a book.
#include "book/book.h"

#include "book/seal.h"
#include "book/statement.h"
#include "core/json/message_text.h"
#include "core/log/recipe.h"
#include "core/log/soundness.h"

#include <fmt/format.h>

namespace muffle {
namespace {

template <class T> Blob blobOf(const std::vector<T>& v) { return {v.data(), v.size() * sizeof(T)}; }
template <class T> std::vector<T> vectorOf(const Blob& blob) {
  std::vector<T> v(blob.size / sizeof(T));
  if (!v.empty()) std::memcpy(v.data(), blob.data, v.size() * sizeof(T));
  return v;
}

} // namespace

Result<std::vector<StoredLog>> Book::logs() const { return readLogs("in_use = 1"); }

Result<std::vector<StoredLog>> Book::keptLogs() const { return readLogs("in_use = 0"); }

Result<std::vector<StoredLog>> Book::readLogs(const std::string& which) const {
  std::vector<StoredLog> all;
  const auto damagedLog = [&](const std::string& name, const Message& what) {
    return Problem{ProblemKind::damaged, m_path, Message{"book.log-damaged", name, what}, Message{"book.whole-can-be-salvaged"}};
  };
  Statement s(m_db.get(), fmt::format("SELECT id, name, time, record FROM log WHERE {} ORDER BY id", which).c_str());
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
      if (c.integer(1) < 0 || c.integer(1) > 255 || c.integer(7) < 0 || c.integer(7) > 255)
        return damagedLog(stored.log.name, Message{"book.role-statistic-none"});
      channel.role = static_cast<Role>(c.integer(1));
      channel.id = c.text(2);
      channel.unitIn = c.text(3);
      channel.unitWhy = messageFromStored(c.text(4));
      channel.raw = vectorOf<float>(c.blob(5));
      channel.flag = vectorOf<std::uint8_t>(c.blob(6));
      channel.statistic = static_cast<Statistic>(c.integer(7));
      stored.log.channels.push_back(std::move(channel));
    }
    if (const auto sound = soundLog(stored.log); !sound) return damagedLog(stored.log.name, sound.problem().what);
    const auto record = parseJson(s.text(3));
    if (!record) return damagedLog(stored.log.name, Message{"book.decisions-cannot-read"});
    if (auto ok = recordFromJson(*record, stored.log); !ok) return damagedLog(stored.log.name, ok.problem().what);
    all.push_back(std::move(stored));
  }
  return all;
}

Result<RowId> Book::addLog(const Log& log, bool inUse) {
  RowId id = 0;
  auto ok = change([&]() -> Status {
    auto inserted = insertLog(log, inUse);
    if (!inserted) return inserted.problems();
    id = *inserted;
    return Done{};
  });
  if (!ok) return ok.problems();
  return id;
}

Status Book::replaceLogs(const Log* log) {
  return change([&]() -> Status {
    if (auto ok = execute(m_db.get(), "DELETE FROM log WHERE in_use = 1 AND id NOT IN (SELECT log_id FROM snapshot)"); !ok) return ok;
    if (auto ok = execute(m_db.get(), "UPDATE log SET in_use = 0, digest = digest(name, rows, time, record, 0) WHERE in_use = 1"); !ok) return ok;
    if (log)
      if (auto id = insertLog(*log, true); !id) return id.problems();
    return Done{};
  });
}

/// Within a transaction of the caller's.
Result<RowId> Book::insertLog(const Log& log, bool inUse) {
  if (auto sound = soundLog(log); !sound) return sound.problems(); // what is stored can be read again
  Statement s(m_db.get(), "INSERT INTO log (name, rows, time, record, in_use, digest) VALUES (?1, ?2, ?3, ?4, ?5, digest(?1, ?2, ?3, ?4, ?5))");
  s.bind(1, log.name);
  s.bind(2, static_cast<std::int64_t>(log.time.size()));
  s.bind(3, blobOf(log.time));
  s.bind(4, recordToJson(log).dump());
  s.bind(5, inUse ? 1 : 0);
  if (auto ok = s.run(); !ok) return ok.problems();
  const RowId id = sqlite3_last_insert_rowid(m_db.get());
  for (std::size_t i = 0; i < log.channels.size(); ++i) {
    const Channel& channel = log.channels[i];
    Statement c(m_db.get(), "INSERT INTO channel (log_id, position, name, role, role_id, unit_in, unit_why, raw, flag, statistic, digest) "
                            "VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7, ?8, ?9, ?10, digest(?1, ?2, ?3, ?4, ?5, ?6, ?7, ?8, ?9, ?10))");
    c.bind(1, id);
    c.bind(2, static_cast<std::int64_t>(i));
    c.bind(3, channel.name);
    c.bind(4, static_cast<std::int64_t>(channel.role));
    c.bind(5, channel.id);
    c.bind(6, channel.unitIn);
    c.bind(7, storedText(channel.unitWhy));
    c.bind(8, blobOf(channel.raw));
    c.bind(9, blobOf(channel.flag));
    c.bind(10, static_cast<std::int64_t>(channel.statistic));
    if (auto ok = c.run(); !ok) return ok.problems();
  }
  return id;
}

Result<RowId> Book::newestLog() const {
  Statement s(m_db.get(), "SELECT coalesce(max(id), 0) FROM log WHERE in_use = 1");
  auto row = s.step();
  if (!row) return row.problems();
  return s.integer(0);
}

Result<std::int64_t> Book::logDigest() const {
  Statement s(m_db.get(), "SELECT coalesce((SELECT digest(id, digest) FROM log WHERE in_use = 1 ORDER BY id DESC LIMIT 1), 0)");
  auto row = s.step();
  if (!row) return row.problems();
  return s.integer(0);
}

Status Book::saveFlags(RowId id, const Log& log) {
  return change([&]() -> Status {
    Statement rows(m_db.get(), "SELECT rows FROM log WHERE id = ?");
    rows.bind(1, id);
    auto row = rows.step();
    if (!row) return row.problems();
    if (!*row || rows.integer(0) != static_cast<std::int64_t>(log.time.size()))
      return Problem{ProblemKind::badInput, m_path, Message{"book.flags-of-another-log"}, Message{"book.store-log-itself"}};
    Statement r(m_db.get(), "UPDATE log SET record = ?1, digest = digest(name, rows, time, ?1, in_use) WHERE id = ?2");
    r.bind(1, recordToJson(log).dump());
    r.bind(2, id);
    if (auto ok = r.run(); !ok) return ok;
    for (std::size_t i = 0; i < log.channels.size(); ++i) {
      Statement c(m_db.get(), "UPDATE channel SET flag = ?1, digest = digest(log_id, position, name, role, role_id, unit_in, unit_why, raw, ?1, statistic) "
                              "WHERE log_id = ?2 AND position = ?3");
      c.bind(1, blobOf(log.channels[i].flag));
      c.bind(2, id);
      c.bind(3, static_cast<std::int64_t>(i));
      if (auto ok = c.run(); !ok) return ok;
    }
    return Done{};
  });
}

Status Book::removeLog(RowId id) {
  return change([&]() -> Status {
    Statement s(m_db.get(), "DELETE FROM log WHERE id = ?1 AND id NOT IN (SELECT log_id FROM snapshot)");
    s.bind(1, id);
    if (auto ok = s.run(); !ok) return ok;
    Statement kept(m_db.get(), "UPDATE log SET in_use = 0, digest = digest(name, rows, time, record, 0) WHERE id = ?1");
    kept.bind(1, id);
    return kept.run();
  });
}

} // namespace muffle
