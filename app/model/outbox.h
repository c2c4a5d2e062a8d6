// SPDX-License-Identifier: GPL-3.0-or-later
//
// What is still to be written into a book. Jobs are done in order on a thread of their own, each a transaction; of one key only the newest
// is kept. A job that the disk refuses stays, with all that come after it, is tried again by itself every few seconds, and can be handed to
// another book. Nothing is given up without the grower's word.
//
//   Outbox outbox(std::move(book), [] { /* on its thread: state() has changed */ });
//   outbox.put("plan", [plan](Book& b) { return b.savePlan(1, plan); });
#pragma once

#include "book/book.h"

#include <condition_variable>
#include <deque>
#include <functional>
#include <mutex>
#include <optional>
#include <string>
#include <thread>
#include <vector>

namespace muffle {

class Outbox {
public:
  using Job = std::function<Status(Book&)>;
  struct Entry {
    std::string key; ///< empty: to stay
    Job job;
  };
  struct State {
    std::size_t waiting = 0;        ///< jobs not in the book yet
    std::optional<Problem> stopped; ///< why the disk does not take them; nothing while all goes well
  };

  /// `book` is a connection of its own. `changed` is called on the outbox's thread whenever a job ends well or not.
  Outbox(Book book, std::function<void()> changed);
  /// Tries everything once more and ends.
  ~Outbox();
  Outbox(const Outbox&) = delete;
  Outbox& operator=(const Outbox&) = delete;

  /// Takes the place of waiting jobs of the same key and of those of `overtaken`, as far as they come after the last that was put to stay.
  void put(const std::string& key, Job job, const std::vector<std::string>& overtaken = {});
  /// A job that builds on all that were put before it, and is overtaken by none.
  void putToStay(Job job);
  void tryAgain();
  [[nodiscard]] State state() const;
  /// The newest job that was wrong in itself and is not tried again; told once.
  [[nodiscard]] std::optional<Problem> takeRefused();
  /// False if the disk refuses or time is up.
  bool waitUntilWritten(int timeout_ms);
  /// What waits, in order; it is no longer this outbox's to write.
  std::vector<Entry> takeAll();

private:
  void work(const std::stop_token& stop);
  mutable std::mutex m_mutex;
  std::condition_variable_any m_wake, m_done;
  std::deque<Entry> m_entries; ///< under m_mutex, as what follows
  std::optional<Problem> m_stopped, m_refused;
  bool m_again = false, m_atWork = false;
  Book m_book; ///< the thread's
  std::function<void()> m_changed;
  std::jthread m_worker; ///< last: it uses everything above
};

} // namespace muffle
