// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/network/sparse_lu.h"

#include <algorithm>
#include <limits>
#include <set>
#include <tuple>

namespace muffle {
namespace {

/// y -= x factor, over `count` values.
inline void subtract(double* __restrict y, const double* __restrict x, double factor, int count) {
  for (int i = 0; i < count; ++i) y[i] -= x[i] * factor;
}

} // namespace

SparseLu::SparseLu(int n, const std::vector<std::pair<int, int>>& pairs, const std::vector<bool>& isFixed) : m_n(n) {
  const auto count = static_cast<std::size_t>(n);
  std::vector<std::set<int>> neighbours(count);
  for (const auto& [a, b] : pairs) {
    if (a == b) continue;
    neighbours[static_cast<std::size_t>(a)].insert(b);
    neighbours[static_cast<std::size_t>(b)].insert(a);
  }
  // Minimum degree, fixed rows first. A solve waits along the longest chain of eliminations, so that among rows of one or
  // two neighbours the one whose chain is shortest goes first: a soil column is then halved again and again instead of
  // eaten from one end. Networks have at most a few hundred nodes: the plain search is quick enough.
  std::vector<bool> gone(count, false);
  std::vector<int> chain(count, 0);
  std::vector<std::vector<int>> rows;
  m_position.assign(count, 0);
  for (int k = 0; k < n; ++k) {
    int best = -1;
    auto bestKey = std::make_tuple(2, std::numeric_limits<std::size_t>::max(), 0, std::size_t{0});
    for (int i = 0; i < n; ++i) {
      const auto u = static_cast<std::size_t>(i);
      if (gone[u]) continue;
      const auto key = std::make_tuple(isFixed[u] ? 0 : 1, std::max<std::size_t>(neighbours[u].size(), 2), chain[u], neighbours[u].size());
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
      chain[static_cast<std::size_t>(a)] = std::max(chain[static_cast<std::size_t>(a)], chain[pivot] + 1);
      for (const int b : left)
        if (a != b) set.insert(b);
    }
    rows.push_back(left);
  }
  m_tail = n;
  while (m_tail > m_fixed && static_cast<int>(rows[static_cast<std::size_t>(m_tail - 1)].size()) == n - m_tail) --m_tail;
  const auto sparse = static_cast<std::size_t>(m_tail);
  m_start.assign(sparse + 1, 0);
  for (std::size_t k = 0; k < sparse; ++k) {
    for (int& row : rows[k]) row = m_position[static_cast<std::size_t>(row)];
    std::sort(rows[k].begin(), rows[k].end());
    m_start[k + 1] = m_start[k] + static_cast<int>(rows[k].size());
    m_row.insert(m_row.end(), rows[k].begin(), rows[k].end());
  }
  m_pairs = m_start[sparse];
  m_dense = n + 2 * m_pairs;
  m_value.assign(static_cast<std::size_t>(valueCount()), 0.0);
  m_inverse.assign(count, 0.0);
  m_updateStart.push_back(0);
  for (std::size_t k = 0; k < sparse; ++k) {
    for (int p = m_start[k]; p < m_start[k + 1]; ++p) {
      for (int q = m_start[k]; q < m_start[k + 1]; ++q)
        m_update.push_back({entry(m_row[static_cast<std::size_t>(p)], m_row[static_cast<std::size_t>(q)]), n + q});
      m_updateStart.push_back(static_cast<int>(m_update.size()));
    }
  }
}

int SparseLu::entry(int row, int column) const {
  if (row >= m_n || column >= m_n) return dump();
  const int pivot = std::min(row, column);
  const int other = std::max(row, column);
  if (pivot >= m_tail) return m_dense + (column - m_tail) * (m_n - m_tail) + row - m_tail;
  if (row == column) return row;
  const auto k = static_cast<std::size_t>(pivot);
  const auto begin = m_row.begin() + m_start[k];
  const auto end = m_row.begin() + m_start[k + 1];
  const auto it = std::lower_bound(begin, end, other);
  if (it == end || *it != other) return dump();
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
  for (int k = from; k < std::min(to, m_tail); ++k) {
    const double inverse = 1.0 / a[k];
    m_inverse[static_cast<std::size_t>(k)] = inverse;
    for (int p = start[k]; p < start[k + 1]; ++p) {
      const double factor = lower[p] * inverse;
      lower[p] = factor;
      for (int u = updateStart[p]; u < updateStart[p + 1]; ++u) a[update[u].target] -= factor * upper[update[u].upper];
    }
  }
  if (to > m_tail) factorTail();
}

void SparseLu::factorTail() {
  const int size = m_n - m_tail;
  double* const block = m_value.data() + m_dense;
  for (int k = 0; k < size; ++k) {
    double* const pivot = block + k * size;
    const double inverse = 1.0 / pivot[k];
    m_inverse[static_cast<std::size_t>(m_tail + k)] = inverse;
    for (int i = k + 1; i < size; ++i) pivot[i] *= inverse;
    for (int j = k + 1; j < size; ++j) subtract(block + j * size + k + 1, pivot + k + 1, block[j * size + k], size - k - 1);
  }
}

void SparseLu::solve(double* b) const {
  const double* const upper = m_value.data() + m_n;
  const double* const lower = upper + m_pairs;
  const int* const start = m_start.data();
  const int* const row = m_row.data();
  for (int k = 0; k < m_tail; ++k) {
    const double y = b[k];
    for (int p = start[k]; p < start[k + 1]; ++p) b[row[p]] -= lower[p] * y;
  }
  const int size = m_n - m_tail;
  double* const tail = b + m_tail;
  const double* const block = m_value.data() + m_dense;
  const double* const inverse = m_inverse.data() + m_tail;
  for (int k = 0; k < size; ++k) subtract(tail + k + 1, block + k * size + k + 1, tail[k], size - k - 1);
  for (int k = size - 1; k >= 0; --k) {
    tail[k] *= inverse[k];
    subtract(tail, block + k * size, tail[k], k);
  }
  for (int k = m_tail - 1; k >= 0; --k) {
    double sum = b[k];
    for (int p = start[k]; p < start[k + 1]; ++p) sum -= upper[p] * b[row[p]];
    b[k] = sum * m_inverse[static_cast<std::size_t>(k)];
  }
}

void SparseLu::solve(double* b, double* c) const {
  const double* const upper = m_value.data() + m_n;
  const double* const lower = upper + m_pairs;
  const int* const start = m_start.data();
  const int* const row = m_row.data();
  for (int k = 0; k < m_tail; ++k) {
    const double y = b[k];
    const double z = c[k];
    for (int p = start[k]; p < start[k + 1]; ++p) {
      b[row[p]] -= lower[p] * y;
      c[row[p]] -= lower[p] * z;
    }
  }
  const int size = m_n - m_tail;
  double* const tail = b + m_tail;
  double* const other = c + m_tail;
  const double* const block = m_value.data() + m_dense;
  const double* const inverse = m_inverse.data() + m_tail;
  for (int k = 0; k < size; ++k) {
    subtract(tail + k + 1, block + k * size + k + 1, tail[k], size - k - 1);
    subtract(other + k + 1, block + k * size + k + 1, other[k], size - k - 1);
  }
  for (int k = size - 1; k >= 0; --k) {
    tail[k] *= inverse[k];
    other[k] *= inverse[k];
    subtract(tail, block + k * size, tail[k], k);
    subtract(other, block + k * size, other[k], k);
  }
  for (int k = m_tail - 1; k >= 0; --k) {
    double first = b[k];
    double second = c[k];
    for (int p = start[k]; p < start[k + 1]; ++p) {
      first -= upper[p] * b[row[p]];
      second -= upper[p] * c[row[p]];
    }
    b[k] = first * m_inverse[static_cast<std::size_t>(k)];
    c[k] = second * m_inverse[static_cast<std::size_t>(k)];
  }
}

} // namespace muffle
