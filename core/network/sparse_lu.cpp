// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/network/sparse_lu.h"

#include <algorithm>
#include <limits>
#include <set>
#include <tuple>
#include <type_traits>

namespace muffle {
namespace {

constexpr int kVector = 4;

/// y += x factor, over `width` values.
template <int kWidth> inline void add(double* __restrict y, const double* __restrict x, double factor, int width) {
  const int n = kWidth > 0 ? kWidth : width;
  for (int i = 0; i < n; ++i) y[i] += x[i] * factor;
}

/// The inverse of a dense block by columns, in place, by Gauss-Jordan steps; `inverse` takes one over each pivot of the
/// first `count`. kWidth 0: the width is known only at run time.
template <int kWidth> void invert(double* block, int width, double* inverse, int count) {
  const int n = kWidth > 0 ? kWidth : width;
  for (int k = 0; k < count; ++k) {
    double* const pivot = block + k * n;
    const double one = 1.0 / pivot[k];
    inverse[k] = one;
    for (int i = 0; i < n; ++i) pivot[i] *= -one;
    pivot[k] = one;
    for (int j = 0; j < count; ++j) {
      if (j == k) continue;
      double* const column = block + j * n;
      const double factor = column[k];
      column[k] = 0.0;
      add<kWidth>(column, pivot, factor, n);
    }
  }
}

/// b = block b over the first `count` entries.
template <int kWidth> void multiply(const double* block, int width, double* b, int count) {
  constexpr int kMostWidth = 64;
  if (width > kMostWidth) {
    const std::vector<double> from(b, b + count);
    std::fill_n(b, count, 0.0);
    for (int j = 0; j < count; ++j) add<0>(b, block + j * width, from[static_cast<std::size_t>(j)], count);
    return;
  }
  double sum[kWidth > 0 ? kWidth : kMostWidth] = {};
  for (int j = 0; j < count; ++j) add<kWidth>(sum, block + j * width, b[j], width);
  for (int i = 0; i < count; ++i) b[i] = sum[i];
}

/// Calls with the width as a constant where it is a usual one, so that the loops over a column unroll.
template <typename Do> void withWidth(int width, Do&& go) {
  switch (width) {
  case 4: return go(std::integral_constant<int, 4>());
  case 8: return go(std::integral_constant<int, 8>());
  case 12: return go(std::integral_constant<int, 12>());
  case 16: return go(std::integral_constant<int, 16>());
  default: return go(std::integral_constant<int, 0>());
  }
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
  m_width = (n - m_tail + kVector - 1) / kVector * kVector;
  m_value.assign(static_cast<std::size_t>(valueCount()), 0.0);
  m_inverse.assign(count, 0.0);
  m_updateStart.push_back(0);
  for (std::size_t k = 0; k < sparse; ++k) {
    for (int p = m_start[k]; p < m_start[k + 1]; ++p) {
      for (int q = m_start[k]; q < m_start[k + 1]; ++q)
        m_update.push_back({entry(m_row[static_cast<std::size_t>(p)], m_row[static_cast<std::size_t>(q)]), n + q});
      m_updateStart.push_back(static_cast<int>(m_update.size()));
      m_step.push_back({static_cast<int>(k), m_row[static_cast<std::size_t>(p)]});
    }
  }
}

int SparseLu::entry(int row, int column) const {
  if (row >= m_n || column >= m_n) return dump();
  const int pivot = std::min(row, column);
  const int other = std::max(row, column);
  if (pivot >= m_tail) return m_dense + (column - m_tail) * m_width + row - m_tail;
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
#pragma GCC unroll 2
      for (int u = updateStart[p]; u < updateStart[p + 1]; ++u) a[update[u].target] -= factor * upper[update[u].upper];
    }
  }
  if (to <= m_tail) return;
  withWidth(m_width, [&](auto width) { invert<width()>(a + m_dense, m_width, m_inverse.data() + m_tail, m_n - m_tail); });
}

template <bool kTwo> void SparseLu::solveMany(double* __restrict b, double* __restrict c) const {
  const double* const upper = m_value.data() + m_n;
  const double* const lower = upper + m_pairs;
  const Step* const step = m_step.data();
#pragma GCC unroll 8
  for (int p = 0; p < m_pairs; ++p) {
    b[step[p].to] -= lower[p] * b[step[p].from];
    if constexpr (kTwo) c[step[p].to] -= lower[p] * c[step[p].from];
  }
  if (m_tail < m_n) {
    const double* const block = m_value.data() + m_dense;
    withWidth(m_width, [&](auto width) {
      multiply<width()>(block, m_width, b + m_tail, m_n - m_tail);
      if constexpr (kTwo) multiply<width()>(block, m_width, c + m_tail, m_n - m_tail);
    });
  }
  const int* const start = m_start.data();
  const double* const inverse = m_inverse.data();
  int p = m_pairs - 1;
  for (int k = m_tail - 1; k >= 0; --k) {
    double sum = b[k];
    [[maybe_unused]] double other = kTwo ? c[k] : 0.0;
    for (; p >= start[k]; --p) {
      sum -= upper[p] * b[step[p].to];
      if constexpr (kTwo) other -= upper[p] * c[step[p].to];
    }
    b[k] = sum * inverse[k];
    if constexpr (kTwo) c[k] = other * inverse[k];
  }
}

void SparseLu::solve(double* b) const { solveMany<false>(b, nullptr); }

void SparseLu::solve(double* b, double* c) const { solveMany<true>(b, c); }

} // namespace muffle
