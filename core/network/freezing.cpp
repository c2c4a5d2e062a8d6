// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/network/freezing.h"

#include <algorithm>
#include <cmath>

namespace muffle {

void FreezingNodes::add(int slot, double capacity_J_K, const FreezingWater& water) {
  if (m_bySlot.size() <= static_cast<std::size_t>(slot)) m_bySlot.resize(static_cast<std::size_t>(slot) + 1, -1);
  m_bySlot[static_cast<std::size_t>(slot)] = static_cast<int>(m_nodes.size());
  m_nodes.push_back({slot, capacity_J_K, water});
  m_bounds.emplace_back();
  takeBounds(m_nodes.size() - 1);
}

void FreezingNodes::takeBounds(std::size_t index) {
  constexpr double kFar_C = 1e9;
  const Node& n = m_nodes[index];
  m_bounds[index] = {n.slot,
                     n.piece == Piece::frozen     ? -kFar_C
                     : n.piece == Piece::freezing ? -n.water.interval_K
                                                  : 0.0,
                     n.piece == Piece::thawed     ? kFar_C
                     : n.piece == Piece::freezing ? 0.0
                                                  : -n.water.interval_K};
}

double FreezingNodes::slope(const Node& n, Piece piece) {
  switch (piece) {
  case Piece::thawed: return n.thawed_J_K;
  case Piece::freezing: return n.thawed_J_K + n.water.latent_J / n.water.interval_K;
  case Piece::frozen: return n.water.frozenCapacity_J_K;
  }
  return n.thawed_J_K;
}

FreezingNodes::Piece FreezingNodes::pieceAt(const Node& n, double t_C) {
  return t_C >= 0.0 ? Piece::thawed : t_C >= -n.water.interval_K ? Piece::freezing : Piece::frozen;
}

double heatHeld_J(double thawed_J_K, const std::optional<FreezingWater>& water, double t_C) {
  if (t_C >= 0.0 || !water) return thawed_J_K * t_C;
  const double slush = thawed_J_K + water->latent_J / water->interval_K;
  if (t_C >= -water->interval_K) return slush * t_C;
  return -slush * water->interval_K + water->frozenCapacity_J_K * (t_C + water->interval_K);
}

double FreezingNodes::heat_J(const Node& n, double t_C) { return heatHeld_J(n.thawed_J_K, n.water, t_C); }

double FreezingNodes::temperature_C(const Node& n, double heat) {
  if (heat >= 0.0) return heat / n.thawed_J_K;
  const double slush = slope(n, Piece::freezing);
  if (heat >= -slush * n.water.interval_K) return heat / slush;
  return -n.water.interval_K + (heat + slush * n.water.interval_K) / n.water.frozenCapacity_J_K;
}

void FreezingNodes::start(std::span<const double> T, std::vector<double>& capacity) {
  for (std::size_t i = 0; i < m_nodes.size(); ++i) {
    Node& n = m_nodes[i];
    n.piece = pieceAt(n, T[static_cast<std::size_t>(n.slot)]);
    capacity[static_cast<std::size_t>(n.slot)] = slope(n, n.piece);
    takeBounds(i);
  }
}

bool FreezingNodes::settle(std::span<const double> before, std::span<double> T, std::vector<double>& capacity) {
  bool changed = false;
  for (std::size_t i = 0; i < m_nodes.size(); ++i) {
    Node& n = m_nodes[i];
    const auto slot = static_cast<std::size_t>(n.slot);
    const Piece now = pieceAt(n, T[slot]);
    if (now == n.piece) continue;
    T[slot] = settled_C(n, before[slot], T[slot]);
    n.piece = pieceAt(n, T[slot]);
    capacity[slot] = slope(n, n.piece);
    takeBounds(i);
    changed = true;
  }
  return changed;
}

double FreezingNodes::settled_C(const Node& n, double before_C, double t_C) {
  return temperature_C(n, heat_J(n, before_C) + slope(n, n.piece) * (t_C - before_C));
}

double FreezingNodes::overshoot_K(std::span<const double> before, std::span<const double> T) const {
  double worst = 0.0;
  for (std::size_t i = 0; i < m_nodes.size(); ++i) {
    const Bounds& b = m_bounds[i];
    const auto slot = static_cast<std::size_t>(b.slot);
    if (T[slot] >= b.low_C && T[slot] < b.high_C) continue;
    const Node& n = m_nodes[i];
    worst = std::max(worst, std::abs(settled_C(n, before[slot], T[slot]) - T[slot]));
  }
  return worst;
}

double FreezingNodes::storage_J(std::span<const double> from, std::span<const double> to) const {
  double sum = 0.0;
  for (const Node& n : m_nodes) {
    const auto slot = static_cast<std::size_t>(n.slot);
    sum += heat_J(n, to[slot]) - heat_J(n, from[slot]);
  }
  return sum;
}

double FreezingNodes::frozen(int slot) const {
  if (static_cast<std::size_t>(slot) >= m_bySlot.size() || m_bySlot[static_cast<std::size_t>(slot)] < 0) return -1.0;
  const Piece piece = m_nodes[static_cast<std::size_t>(m_bySlot[static_cast<std::size_t>(slot)])].piece;
  return piece == Piece::thawed ? 0.0 : piece == Piece::freezing ? 0.5 : 1.0;
}

} // namespace muffle
