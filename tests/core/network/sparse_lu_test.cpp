// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/network/sparse_lu.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

namespace {

using namespace muffle;

/// A dominant matrix with a chain of fixed rows hung on a block in which everything couples with everything.
struct System {
  int n;
  std::vector<std::vector<double>> a;
  SparseLu lu;

  System(int chain, int block) : n(chain + block), a(static_cast<std::size_t>(n), std::vector<double>(static_cast<std::size_t>(n), 0.0)) {
    std::mt19937 random(7);
    std::uniform_real_distribution<double> coupling(0.1, 2.0);
    std::vector<std::pair<int, int>> pairs;
    std::vector<bool> fixed(static_cast<std::size_t>(n), false);
    const auto couple = [&](int i, int j) {
      pairs.emplace_back(i, j);
      const auto u = static_cast<std::size_t>(i), v = static_cast<std::size_t>(j);
      a[u][v] = -coupling(random);
      a[v][u] = -coupling(random);
      a[u][u] += std::abs(a[u][v]);
      a[v][v] += std::abs(a[v][u]);
    };
    for (int i = 0; i < chain; ++i) couple(i, i + 1 < n ? i + 1 : 0);
    for (int i = 0; i + 1 < chain; ++i) fixed[static_cast<std::size_t>(i)] = true;
    for (int i = chain; i < n; ++i)
      for (int j = i + 1; j < n; ++j) couple(i, j);
    for (int i = 0; i < n; ++i) a[static_cast<std::size_t>(i)][static_cast<std::size_t>(i)] += 1.0;
    lu = SparseLu(n, pairs, fixed);
    for (int i = 0; i < n; ++i)
      for (int j = 0; j < n; ++j)
        if (a[static_cast<std::size_t>(i)][static_cast<std::size_t>(j)] != 0.0)
          lu.values()[static_cast<std::size_t>(lu.entry(lu.position(i), lu.position(j)))] = a[static_cast<std::size_t>(i)][static_cast<std::size_t>(j)];
    lu.factor(0, lu.fixedCount());
    lu.factor(lu.fixedCount(), n);
  }

  /// The largest residual of A x = b, with x by positions.
  [[nodiscard]] double residual(const std::vector<double>& x, const std::vector<double>& b) const {
    double worst = 0.0;
    for (int i = 0; i < n; ++i) {
      double sum = -b[static_cast<std::size_t>(lu.position(i))];
      for (int j = 0; j < n; ++j) sum += a[static_cast<std::size_t>(i)][static_cast<std::size_t>(j)] * x[static_cast<std::size_t>(lu.position(j))];
      worst = std::max(worst, std::abs(sum));
    }
    return worst;
  }
};

TEST(SparseLu, SolvesChainsAndBlocksOfEveryWidth) {
  for (const int chain : {2, 9})
    for (const int block : {1, 2, 3, 4, 5, 8, 9, 12, 15, 16, 23, 70}) { // whole and broken vectors, unrolled or not, past the fixed buffer
      const System s(chain, block);
      std::vector<double> b(static_cast<std::size_t>(s.n)), c(b);
      for (int i = 0; i < s.n; ++i) {
        b[static_cast<std::size_t>(i)] = 1.0 + i;
        c[static_cast<std::size_t>(i)] = std::sin(i);
      }
      std::vector<double> x = b, y = b, z = c;
      s.lu.solve(x.data());
      s.lu.solve(y.data(), z.data());
      EXPECT_LT(s.residual(x, b), 1e-9) << chain << " + " << block << ": rounding of some hundred terms of about 100";
      EXPECT_EQ(x, y) << "two right-hand sides together or one alone: the same bits";
      EXPECT_LT(s.residual(z, c), 1e-9);
    }
}

} // namespace
