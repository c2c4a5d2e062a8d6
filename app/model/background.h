// SPDX-License-Identifier: GPL-3.0-or-later
//
// One thread that runs jobs in the order they were given. Those still waiting when it is destroyed are run first, so that
// nothing that was to be saved is lost.
#pragma once

#include <condition_variable>
#include <deque>
#include <functional>
#include <mutex>
#include <thread>

namespace muffle {

class Background {
public:
  Background() : m_worker([this](const std::stop_token& stop) { work(stop); }) {}

  void post(std::function<void()> job) {
    {
      const std::scoped_lock lock(m_mutex);
      m_jobs.push_back(std::move(job));
    }
    m_wake.notify_one();
  }

private:
  void work(const std::stop_token& stop) {
    for (;;) {
      std::function<void()> job;
      {
        std::unique_lock lock(m_mutex);
        m_wake.wait(lock, stop, [this] { return !m_jobs.empty(); });
        if (m_jobs.empty()) return;
        job = std::move(m_jobs.front());
        m_jobs.pop_front();
      }
      job();
    }
  }

  std::mutex m_mutex;
  std::condition_variable_any m_wake;
  std::deque<std::function<void()>> m_jobs;
  std::jthread m_worker; ///< last: it uses everything above
};

} // namespace muffle
