// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/network/reported_rows.h"

namespace muffle {

namespace {
constexpr int kMarked = 0, kNone = -1;
}

ReportedRows::ReportedRows(int free, int slots, int rows)
    : m_free(free), m_slots(slots), m_place(static_cast<std::size_t>(rows - free) * static_cast<std::size_t>(slots), kNone) {}

void ReportedRows::mark(int row, int slot) {
  if (row >= m_free) m_place[place(row, slot)] = kMarked;
}

void ReportedRows::number() {
  const int rows = m_slots > 0 ? m_free + static_cast<int>(m_place.size()) / m_slots : m_free;
  const auto take = [&](int fromSlot, int toSlot) {
    for (int row = m_free; row < rows; ++row)
      for (int slot = fromSlot; slot < toSlot; ++slot) {
        int& at = m_place[place(row, slot)];
        if (at == kNone) continue;
        at = static_cast<int>(m_entries.size());
        m_entries.push_back({row, slot});
      }
  };
  take(0, m_free);
  m_ofFree = m_entries.size();
  take(m_free, m_slots);
}

} // namespace muffle
