// SPDX-License-Identifier: GPL-3.0-or-later
//
// LU without pivoting for a matrix of symmetric pattern whose structure is analysed once. Heat networks are nearly
// trees, so that elimination in minimum-degree order makes almost no fill and a factorisation is a short list of
// multiply-subtracts. Diagonal dominance (capacity and conductances on the diagonal) makes pivoting unnecessary.
//
// The rows left at the end, where everything couples with everything (surfaces that see each other), are kept as one dense
// block by columns, padded to whole vectors, and inverted: products with the inverse need not wait on one another as the
// two sweeps of a triangular solve would.
//
// Rows marked `fixed` never change between factorisations: they are eliminated first, and that part of the work is
// kept (base()) and reused.
//
//   SparseLu lu(n, pairs, isFixed);
//   lu.values()[lu.entry(i, j)] += a_ij;  lu.factor();  lu.solve(b);
#pragma once

#include <span>
#include <utility>
#include <vector>

namespace muffle {

class SparseLu {
public:
  SparseLu() = default;
  /// pairs: off-diagonal couplings (either order, repeats allowed), indices 0..n-1. isFixed has size n.
  SparseLu(int n, const std::vector<std::pair<int, int>>& pairs, const std::vector<bool>& isFixed);

  [[nodiscard]] int size() const { return m_n; }
  /// Position of row i in the elimination order; factor(), solve() and entry() speak of these positions.
  [[nodiscard]] int position(int original) const { return m_position[static_cast<std::size_t>(original)]; }
  /// Number of leading positions that are fixed.
  [[nodiscard]] int fixedCount() const { return m_fixed; }

  /// Index into values() of entry (row, column) in positions; a write-only dump for positions >= size().
  [[nodiscard]] int entry(int row, int column) const;
  [[nodiscard]] int valueCount() const { return dump() + 1; }
  [[nodiscard]] std::vector<double>& values() { return m_value; }

  /// Eliminates positions from..to-1 in place.
  void factor(int from, int to);
  void factor() { factor(0, m_n); }
  /// Solves A x = b in place; b has size() entries in positions.
  void solve(double* b) const;
  /// Two right-hand sides at the price of little more than one: a solve waits on itself.
  void solve(double* b, double* c) const;
  /// What factor() fills: a matrix may be set aside and taken up again, at the price of a swap.
  struct Numbers {
    std::vector<double> value, inverse;
  };
  [[nodiscard]] Numbers makeNumbers() const { return {m_value, m_inverse}; }
  void swap(Numbers& numbers) {
    m_value.swap(numbers.value);
    m_inverse.swap(numbers.inverse);
  }
  /// One over each pivot, by position.
  [[nodiscard]] std::vector<double>& inverseDiagonal() { return m_inverse; }
  [[nodiscard]] const std::vector<double>& inverseDiagonal() const { return m_inverse; }

private:
  struct Update {
    int target;
    int upper;
  };
  struct Step {
    int from, to;
  };
  [[nodiscard]] int dump() const { return m_dense + m_width * m_width; }
  template <bool kTwo> void solveMany(double* b, double* c) const;
  int m_n = 0;
  int m_fixed = 0;
  int m_pairs = 0;
  int m_tail = 0;  ///< the dense block holds the positions from here on
  int m_width = 0; ///< of that block, padded
  int m_dense = 0; ///< where it begins among the values
  std::vector<int> m_position;
  std::vector<int> m_start;       ///< size tail+1: pairs of pivot k are m_start[k]..m_start[k+1]-1
  std::vector<int> m_row;         ///< other position (> k) of each pair
  std::vector<int> m_updateStart; ///< size pairs+1
  std::vector<Update> m_update;
  std::vector<Step> m_step;    ///< by pair: its pivot and its other position
  std::vector<double> m_value; ///< diagonal, upper (pairs), lower (pairs), dense block by columns, dump
  std::vector<double> m_inverse;
};

} // namespace muffle
