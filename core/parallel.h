// SPDX-License-Identifier: GPL-3.0-or-later
//
// Independent pieces of work on several cores. Each piece writes its own place, so that the number of threads never changes
// a result.
#pragma once

#include <algorithm>
#include <atomic>
#include <cstddef>
#include <thread>
#include <vector>

namespace muffle {

/// Whether several threads are to give up: because the caller asked, or because one of them found that the rest is of no use.
class Stop {
public:
  explicit Stop(const std::atomic<bool>* asked) : m_asked(asked) {}
  explicit operator bool() const { return m_found || (m_asked && *m_asked); }
  void set() { m_found = true; }
  /// What a run inside a piece looks at: it ends in its midst when the caller asks.
  [[nodiscard]] const std::atomic<bool>* flag() const { return m_asked ? m_asked : &m_found; }

private:
  const std::atomic<bool>* m_asked;
  std::atomic<bool> m_found{false};
};

/// Calls work(0..count-1), each once, on up to `threads` threads, the caller's among them; 0 means all cores. `work` must not
/// throw. Returns when all are done.
template <class Work> void forEachIndex(std::size_t count, int threads, Work work) {
  const std::size_t cores = threads > 0 ? static_cast<std::size_t>(threads) : std::max(1U, std::thread::hardware_concurrency());
  std::atomic<std::size_t> next{0};
  const auto take = [&] {
    for (std::size_t i = next++; i < count; i = next++) work(i);
  };
  std::vector<std::jthread> others;
  for (std::size_t t = 1; t < std::min(cores, count); ++t) others.emplace_back(take);
  take();
}

} // namespace muffle
