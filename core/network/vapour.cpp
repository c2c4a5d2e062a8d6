// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/network/vapour.h"

#include <cmath>

namespace muffle {

namespace {
constexpr int kNoGroup = -1;
}

int VapourFlows::addFilm(int air, int surface, int vapour, double wetShare, int group, int free, const SparseLu& lu) {
  const bool reported = air >= free || surface >= free || vapour >= free || group >= 0;
  m_films.push_back({air, surface, vapour, wetShare, group, reported, lu.entry(surface, surface), lu.entry(surface, vapour), lu.entry(surface, air),
                     lu.entry(vapour, surface), lu.entry(vapour, vapour), lu.entry(vapour, air)});
  return static_cast<int>(m_films.size()) - 1;
}

void VapourFlows::addLeaf(int leaf, int vapour, double g, int modulator, int free, const SparseLu& lu) {
  const bool reported = leaf >= free || vapour >= free;
  m_leaves.push_back({leaf, vapour, g, modulator < 0 ? g : 0.0, modulator, reported, lu.entry(leaf, leaf), lu.entry(leaf, vapour), lu.entry(vapour, leaf),
                      lu.entry(vapour, vapour)});
}

void VapourFlows::modulate(const std::vector<double>& modulator, const double* T, double* f) {
  for (Leaf& l : m_leaves) {
    if (l.modulator < 0) continue;
    const double g = l.full * modulator[static_cast<std::size_t>(l.modulator)];
    if (g == l.g) continue;
    const double q = (g - l.g) * (m_saturated.at(T[l.leaf]).g_kg - T[l.vapour]);
    f[l.leaf] -= q;
    f[l.vapour] += q;
    l.g = g;
  }
}

void VapourFlows::modulate(const std::vector<double>& modulator) {
  for (Leaf& l : m_leaves)
    if (l.modulator >= 0) l.g = l.full * modulator[static_cast<std::size_t>(l.modulator)];
}

double VapourFlows::filmFlow(const Film& n, const double* T, double h) const {
  const double excess = T[n.vapour] - m_saturated.at(T[n.surface]).g_kg;
  return kLatentPerFilm * (excess > 0.0 ? 1.0 : n.wetShare) * h * excess;
}

template <bool kSlopes> void VapourFlows::evaluateAs(const double* T, const FilmNow* film, double* f, VapourSlopes* slopes) const {
  for (std::size_t i = 0; i < m_films.size(); ++i) {
    const Film& n = m_films[i];
    const double x = T[n.vapour];
    const SaturationCurve::Point saturated = m_saturated.at(T[n.surface]);
    const double excess = x - saturated.g_kg;
    const double k = kLatentPerFilm * (excess > 0.0 ? 1.0 : n.wetShare) * film[i].h;
    const double q = k * excess;
    if constexpr (kSlopes) slopes->film[i] = {k, -k * saturated.slope_1_K, film[i].h > 0.0 ? q * film[i].slope / film[i].h : 0.0};
    f[n.vapour] -= q;
    f[n.surface] += q;
    if (n.group >= 0) f[n.group] += q;
  }
  for (std::size_t i = 0; i < m_leaves.size(); ++i) {
    const Leaf& l = m_leaves[i];
    const SaturationCurve::Point saturated = m_saturated.at(T[l.leaf]);
    const double q = l.g * (saturated.g_kg - T[l.vapour]);
    if constexpr (kSlopes) slopes->leaf[i].saturated = saturated.slope_1_K;
    f[l.leaf] -= q;
    f[l.vapour] += q;
  }
}

void VapourFlows::evaluate(const double* T, const std::vector<FilmNow>& film, double* f, VapourSlopes* slopes) const {
  if (slopes)
    evaluateAs<true>(T, film.data(), f, slopes);
  else
    evaluateAs<false>(T, film.data(), f, nullptr);
}

void VapourFlows::addAlong(const VapourSlopes& slopes, const double* delta, double* f) const {
  const auto move = [f](int from, int to, double q) {
    f[from] -= q;
    f[to] += q;
  };
  for (std::size_t i = 0; i < m_films.size(); ++i) {
    const Film& n = m_films[i];
    if (!n.reported) continue;
    const VapourSlopes::Film& s = slopes.film[i];
    move(n.vapour, n.surface, s.vapour * delta[n.vapour] + s.surface * delta[n.surface] + s.difference * (delta[n.air] - delta[n.surface]));
  }
  for (std::size_t i = 0; i < m_leaves.size(); ++i) {
    const Leaf& l = m_leaves[i];
    if (l.reported) move(l.leaf, l.vapour, slopes.leaf[i].g * (slopes.leaf[i].saturated * delta[l.leaf] - delta[l.vapour]));
  }
}

void VapourFlows::mark(ReportedRows& rows) const {
  for (const Film& n : m_films)
    for (const int row : {n.vapour, n.surface, n.group})
      for (const int slot : {n.vapour, n.surface, n.air}) rows.mark(row, slot);
  for (const Leaf& l : m_leaves) rows.markFlow(l.leaf, l.vapour, kNoGroup);
}

void VapourFlows::collectReported(const VapourSlopes& slopes, const ReportedRows& rows, std::vector<double>& values) const {
  for (std::size_t i = 0; i < m_films.size(); ++i) {
    const Film& n = m_films[i];
    if (!n.reported) continue;
    const VapourSlopes::Film& s = slopes.film[i];
    for (const auto& [row, sign] : {std::pair{n.vapour, -1.0}, {n.surface, 1.0}, {n.group, 1.0}}) {
      rows.add(values, row, n.vapour, sign * s.vapour);
      rows.add(values, row, n.surface, sign * (s.surface - s.difference));
      rows.add(values, row, n.air, sign * s.difference);
    }
  }
  for (std::size_t i = 0; i < m_leaves.size(); ++i) {
    const Leaf& l = m_leaves[i];
    if (l.reported) rows.addFlow(values, l.leaf, l.vapour, kNoGroup, slopes.leaf[i].g * slopes.leaf[i].saturated, slopes.leaf[i].g);
  }
}

void VapourFlows::fill(VapourSlopes& slopes, double s, double* a) const {
  for (std::size_t i = 0; i < m_films.size(); ++i) {
    const Film& n = m_films[i];
    const VapourSlopes::Film& slope = slopes.film[i];
    const double byVapour = s * slope.vapour;
    const double bySurface = s * (slope.surface - slope.difference);
    const double byAir = s * slope.difference;
    a[n.ss] -= bySurface;
    a[n.sv] -= byVapour;
    a[n.sa] -= byAir;
    a[n.vs] += bySurface;
    a[n.vv] += byVapour;
    a[n.va] += byAir;
  }
  for (std::size_t i = 0; i < m_leaves.size(); ++i) {
    const Leaf& l = m_leaves[i];
    slopes.leaf[i].g = l.g;
    const double byVapour = s * l.g;
    const double byLeaf = byVapour * slopes.leaf[i].saturated;
    a[l.ll] += byLeaf;
    a[l.vl] -= byLeaf;
    a[l.lv] -= byVapour;
    a[l.vv] += byVapour;
  }
}

double VapourFlows::curvature(const VapourSlopes& slopes, const double* from, const double* to, const std::vector<FilmNow>& filmFrom,
                              const std::vector<FilmNow>& filmTo, const std::vector<double>& inverse) const {
  const auto pivot = [&](int slot) { return slot < static_cast<int>(inverse.size()) ? inverse[static_cast<std::size_t>(slot)] : 0.0; };
  const auto moved = [&](int slot) { return to[slot] - from[slot]; };
  double worst = 0.0;
  for (std::size_t i = 0; i < m_films.size(); ++i) {
    const Film& n = m_films[i];
    const VapourSlopes::Film& s = slopes.film[i];
    const double along = s.vapour * moved(n.vapour) + s.surface * moved(n.surface) + s.difference * (moved(n.air) - moved(n.surface));
    const double left = filmFlow(n, to, filmTo[i].h) - filmFlow(n, from, filmFrom[i].h) - along;
    worst = std::max(worst, std::abs(left) * std::max(pivot(n.surface), pivot(n.vapour)));
  }
  for (std::size_t i = 0; i < m_leaves.size(); ++i) {
    const Leaf& l = m_leaves[i];
    const double left = l.g * (m_saturated.at(to[l.leaf]).g_kg - m_saturated.at(from[l.leaf]).g_kg - slopes.leaf[i].saturated * moved(l.leaf));
    worst = std::max(worst, std::abs(left) * std::max(pivot(l.leaf), pivot(l.vapour)));
  }
  return worst;
}

} // namespace muffle
