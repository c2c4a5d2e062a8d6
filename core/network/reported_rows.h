// SPDX-License-Identifier: GPL-3.0-or-later
//
// How the flows that are only counted change with the temperatures: the rows of the Jacobian past the free slots (boundaries, tracked groups of links, what
// one-way links carry off), gathered by row and column when a matrix is factored. Many links meet in one entry, and a season asks for the product once a step.
#pragma once

#include <cstddef>
#include <utility>
#include <vector>

namespace muffle {

class ReportedRows {
public:
  ReportedRows() = default;
  /// For rows from `free` to `rows`, by the columns of all slots.
  ReportedRows(int free, int slots, int rows);

  /// A link's flow counts in the row and goes by the slot's temperature; nothing for rows before `free`.
  void mark(int row, int slot);
  /// Once all are marked.
  void number();

  /// W/K, by entry.
  [[nodiscard]] std::vector<double> makeValues() const { return std::vector<double>(m_entries.size(), 0.0); }
  /// Adds W/K to the entry of a row and slot that are marked; nothing for rows before `free`.
  void add(std::vector<double>& values, int row, int slot, double W_K) const {
    if (row >= m_free) values[static_cast<std::size_t>(m_place[place(row, slot)])] += W_K;
  }
  /// What never changes and, by its slot's factor, what does so with one temperature.
  void set(std::vector<double>& values, const std::vector<double>& constant, const std::vector<double>& bySlot, const std::vector<double>& factorOfSlot) const {
    for (std::size_t i = 0; i < values.size(); ++i) values[i] = constant[i] + bySlot[i] * factorOfSlot[static_cast<std::size_t>(m_entries[i].slot)];
  }
  /// A flow that changes by byA and -byB with the temperatures at its ends, taken from row a and given to row b and its group.
  void addFlow(std::vector<double>& values, int a, int b, int group, double byA, double byB) const {
    for (const auto& [row, sign] : {std::pair{a, -1.0}, {b, 1.0}, {group, 1.0}}) {
      add(values, row, a, sign * byA);
      add(values, row, b, -sign * byB);
    }
  }
  void markFlow(int a, int b, int group) {
    for (const int row : {a, b, group}) mark(row, a), mark(row, b);
  }
  /// Adds the product with `delta` (K, by slot) to f, by row.
  void multiply(const std::vector<double>& values, const double* delta, double* f) const { multiply(values, delta, f, m_entries.size()); }
  /// The same where boundaries stand still.
  void multiplyFree(const std::vector<double>& values, const double* delta, double* f) const { multiply(values, delta, f, m_ofFree); }

private:
  struct Entry {
    int row, slot;
  };
  [[nodiscard]] std::size_t place(int row, int slot) const {
    return static_cast<std::size_t>(row - m_free) * static_cast<std::size_t>(m_slots) + static_cast<std::size_t>(slot);
  }
  void multiply(const std::vector<double>& values, const double* delta, double* f, std::size_t count) const {
#pragma GCC unroll 8
    for (std::size_t i = 0; i < count; ++i) f[m_entries[i].row] += values[i] * delta[m_entries[i].slot];
  }

  int m_free = 0, m_slots = 0;
  std::vector<int> m_place; ///< by row and slot: the entry, or -1
  std::vector<Entry> m_entries;
  std::size_t m_ofFree = 0; ///< those of free slots come first
};

} // namespace muffle
