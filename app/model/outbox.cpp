// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/outbox.h"

#include <algorithm>
#include <chrono>
#include <utility>

namespace muffle {
namespace {
constexpr std::chrono::seconds kTriedAgain{4};
constexpr int kPatience_ms = 800; // with another program's lock; it is tried again anyway
} // namespace

Outbox::Outbox(Book book, std::function<void()> changed) : m_book(std::move(book)), m_changed(std::move(changed)) {
  m_book.setPatience(kPatience_ms);
  m_worker = std::jthread([this](const std::stop_token& stop) { work(stop); });
}

Outbox::~Outbox() {
  m_worker.request_stop();
  m_wake.notify_all();
}

void Outbox::put(const std::string& key, Job job, const std::vector<std::string>& overtaken) {
  {
    const std::scoped_lock lock(m_mutex);
    // the first may be at work just now: it is let finish
    const auto notAtWork = m_entries.begin() + (m_atWork && !m_entries.empty() ? 1 : 0);
    const auto stays = std::find_if(m_entries.rbegin(), m_entries.rend(), [](const Entry& e) { return e.key.empty(); });
    const auto from = std::max(notAtWork, stays.base());
    m_entries.erase(std::remove_if(from, m_entries.end(),
                                   [&](const Entry& e) { return e.key == key || std::find(overtaken.begin(), overtaken.end(), e.key) != overtaken.end(); }),
                    m_entries.end());
    m_entries.push_back({key, std::move(job)});
  }
  m_wake.notify_all();
}

void Outbox::putToStay(Job job) {
  {
    const std::scoped_lock lock(m_mutex);
    m_entries.push_back({{}, std::move(job)});
  }
  m_wake.notify_all();
}

void Outbox::tryAgain() {
  {
    const std::scoped_lock lock(m_mutex);
    m_again = true;
  }
  m_wake.notify_all();
}

Outbox::State Outbox::state() const {
  const std::scoped_lock lock(m_mutex);
  return {m_entries.size(), m_stopped};
}

std::optional<Problem> Outbox::takeRefused() {
  const std::scoped_lock lock(m_mutex);
  return std::exchange(m_refused, std::nullopt);
}

bool Outbox::waitUntilWritten(int timeout_ms) {
  std::unique_lock lock(m_mutex);
  m_done.wait_for(lock, std::chrono::milliseconds(timeout_ms), [this] { return m_entries.empty() || (m_stopped && !m_atWork && !m_again); });
  return m_entries.empty();
}

std::vector<Outbox::Entry> Outbox::takeAll() {
  std::unique_lock lock(m_mutex);
  m_done.wait(lock, [this] { return !m_atWork; });
  std::vector<Entry> all(std::make_move_iterator(m_entries.begin()), std::make_move_iterator(m_entries.end()));
  m_entries.clear();
  m_stopped.reset();
  return all;
}

void Outbox::work(const std::stop_token& stop) {
  std::unique_lock lock(m_mutex);
  bool last = false; // everything once more at the end
  for (;;) {
    if (m_stopped && !stop.stop_requested()) {
      m_wake.wait_for(lock, stop, kTriedAgain, [this] { return m_again; });
      m_again = false;
    } else if (!m_stopped) {
      m_wake.wait(lock, stop, [this] { return !m_entries.empty(); });
    }
    if (m_entries.empty() || last) {
      if (stop.stop_requested()) return;
      m_stopped.reset(); // all was taken away
      continue;
    }
    const Job job = m_entries.front().job;
    m_atWork = true;
    lock.unlock();
    const Status done = job(m_book);
    lock.lock();
    m_atWork = false;
    const bool disk = !done && (done.problem().kind == ProblemKind::storage || done.problem().kind == ProblemKind::damaged);
    if (disk) {
      m_stopped = done.problem();
      last = stop.stop_requested();
    } else {
      m_entries.pop_front();
      m_stopped.reset();
      if (!done) m_refused = done.problem();
    }
    lock.unlock();
    m_done.notify_all();
    m_changed();
    lock.lock();
  }
}

} // namespace muffle
