// SPDX-License-Identifier: GPL-3.0-or-later
//
// One thread that works things out in the order they were asked for. Those still waiting when it is destroyed are dropped, and the one at
// work is told to stop: nothing is saved here.
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

  using Job = std::function<void(const std::stop_token&)>;
  void post(Job job) {
    {
      const std::scoped_lock lock(m_mutex);
      m_jobs.push_back(std::move(job));
    }
    m_wake.notify_one();
  }

private:
  void work(const std::stop_token& stop) {
    for (;;) {
      Job job;
      {
        std::unique_lock lock(m_mutex);
        m_wake.wait(lock, stop, [this] { return !m_jobs.empty(); });
        if (stop.stop_requested() || m_jobs.empty()) return;
        job = std::move(m_jobs.front());
        m_jobs.pop_front();
      }
      job(stop);
    }
  }

  std::mutex m_mutex;
  std::condition_variable_any m_wake;
  std::deque<Job> m_jobs;
  std::jthread m_worker; ///< last: it uses everything above
};

} // namespace muffle
