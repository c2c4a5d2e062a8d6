// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/network/sparse_lu.h"

#include <algorithm>
#include <limits>
#include <set>

namespace muffle {

SparseLu::SparseLu(int n, const std::vector<std::pair<int, int>>& pairs, const std::vector<bool>& isFixed) : m_n(n) {
  const auto count = static_cast<std::size_t>(n);
  std::vector<std::set<int>> neighbours(count);
  for (const auto& [a, b] : pairs) {
    if (a == b) continue;
    neighbours[static_cast<std::size_t>(a)].insert(b);
    neighbours[static_cast<std::size_t>(b)].insert(a);
  }
  // Minimum degree, fixed rows first. Networks have at most a few hundred nodes: the plain search is quick enough.
  std::vector<bool> gone(count, false);
  std::vector<std::vector<int>> rows;
  m_position.assign(count, 0);
  for (int k = 0; k < n; ++k) {
    int best = -1;
    auto bestKey = std::make_pair(2, std::numeric_limits<std::size_t>::max());
    for (int i = 0; i < n; ++i) {
      const auto u = static_cast<std::size_t>(i);
      if (gone[u]) continue;
      const auto key = std::make_pair(isFixed[u] ? 0 : 1, neighbours[u].size());
      if (key < bestKey) {
        bestKey = key;
        best = i;
      }
    }
    const auto pivot = static_cast<std::size_t>(best);
    if (isFixed[pivot]) ++m_fixed;
    gone[pivot] = true;
    m_position[pivot] = k;
    const std::vector<int> left(neighbours[pivot].begin(), neighbours[pivot].end());
    for (const int a : left) {
      auto& set = neighbours[static_cast<std::size_t>(a)];
      set.erase(best);
      for (const int b : left)
        if (a != b) set.insert(b);
    }
    rows.push_back(left);
  }
  m_start.assign(count + 1, 0);
  for (std::size_t k = 0; k < count; ++k) {
    for (int& row : rows[k]) row = m_position[static_cast<std::size_t>(row)];
    std::sort(rows[k].begin(), rows[k].end());
    m_start[k + 1] = m_start[k] + static_cast<int>(rows[k].size());
    m_row.insert(m_row.end(), rows[k].begin(), rows[k].end());
  }
  m_pairs = m_start[count];
  m_value.assign(static_cast<std::size_t>(valueCount()), 0.0);
  m_inverse.assign(count, 0.0);
  m_updateStart.push_back(0);
  for (std::size_t k = 0; k < count; ++k) {
    for (int p = m_start[k]; p < m_start[k + 1]; ++p) {
      for (int q = m_start[k]; q < m_start[k + 1]; ++q)
        m_update.push_back({entry(m_row[static_cast<std::size_t>(p)], m_row[static_cast<std::size_t>(q)]), n + q});
      m_updateStart.push_back(static_cast<int>(m_update.size()));
    }
  }
}

int SparseLu::entry(int row, int column) const {
  if (row >= m_n || column >= m_n) return m_n + 2 * m_pairs;
  if (row == column) return row;
  const int pivot = std::min(row, column);
  const int other = std::max(row, column);
  const auto k = static_cast<std::size_t>(pivot);
  const auto begin = m_row.begin() + m_start[k];
  const auto end = m_row.begin() + m_start[k + 1];
  const auto it = std::lower_bound(begin, end, other);
  if (it == end || *it != other) return m_n + 2 * m_pairs;
  const int p = static_cast<int>(it - m_row.begin());
  return row < column ? m_n + p : m_n + m_pairs + p;
}

void SparseLu::factor(int from, int to) {
  double* const a = m_value.data();
  const double* const upper = a;
  double* const lower = a + m_n + m_pairs;
  const int* const start = m_start.data();
  const int* const updateStart = m_updateStart.data();
  const Update* const update = m_update.data();
  for (int k = from; k < to; ++k) {
    const double inverse = 1.0 / a[k];
    m_inverse[static_cast<std::size_t>(k)] = inverse;
    for (int p = start[k]; p < start[k + 1]; ++p) {
      const double factor = lower[p] * inverse;
      lower[p] = factor;
      for (int u = updateStart[p]; u < updateStart[p + 1]; ++u) a[update[u].target] -= factor * upper[update[u].upper];
    }
  }
}

void SparseLu::solve(double* b) const {
  const double* const upper = m_value.data() + m_n;
  const double* const lower = upper + m_pairs;
  const int* const start = m_start.data();
  const int* const row = m_row.data();
  for (int k = 0; k < m_n; ++k) {
    const double y = b[k];
    for (int p = start[k]; p < start[k + 1]; ++p) b[row[p]] -= lower[p] * y;
  }
  for (int k = m_n - 1; k >= 0; --k) {
    double sum = b[k];
    for (int p = start[k]; p < start[k + 1]; ++p) sum -= upper[p] * b[row[p]];
    b[k] = sum * m_inverse[static_cast<std::size_t>(k)];
  }
}

} // namespace muffle
