// SPDX-License-Identifier: GPL-3.0-or-later
//
// What one thread hears and another takes over.
#pragma once

#include "core/log/log.h"

#include <mutex>
#include <utility>
#include <vector>

namespace muffle {

class Incoming {
public:
  void put(Log log) {
    const std::scoped_lock lock(m_mutex);
    m_logs.push_back(std::move(log));
  }
  [[nodiscard]] std::vector<Log> takeAll() {
    const std::scoped_lock lock(m_mutex);
    return std::exchange(m_logs, {});
  }

private:
  std::mutex m_mutex;
  std::vector<Log> m_logs; ///< under m_mutex
};

} // namespace muffle
