// SPDX-License-Identifier: GPL-3.0-or-later
//
// Water that freezes in the nodes of a network. The heat in a node is one curve of its temperature, straight in three pieces:
//   above 0 degC            slope C
//   0 .. -interval          slope C + L/interval: the water freezes
//   below -interval         slope C_frozen
// A step is solved with the slope of the piece that the node is on; where it passes into another, the heat of the step is laid
// out along the curve, so that none is lost. Pieces also set how well the links of frozen ground conduct.
#pragma once

#include <optional>
#include <span>
#include <vector>

namespace muffle {

/// Further than this no step is to take water past its freezing point.
inline constexpr double kFreezingOvershoot_K = 0.25;

struct FreezingWater {
  double latent_J = 0.0;           ///< of all its water, > 0
  double interval_K = 0.5;         ///< over which it freezes, > 0: fine soils hold unfrozen water for a kelvin, open water for none
  double frozenCapacity_J_K = 0.0; ///< sensible capacity when frozen, > 0
};

/// Heat of what has this capacity while thawed, above 0 degC, J; with water on its curve.
double heatHeld_J(double thawed_J_K, const std::optional<FreezingWater>& water, double t_C);

/// The nodes of a network whose water may freeze.
class FreezingNodes {
public:
  enum class Piece { thawed, freezing, frozen };

  void add(int slot, double capacity_J_K, const FreezingWater& water);
  [[nodiscard]] bool empty() const { return m_nodes.empty(); }
  /// Takes the pieces from the temperatures, by slot, and writes the capacities that belong to them.
  void start(std::span<const double> T, std::vector<double>& capacity);
  /// After a step from `before` to T: lays the heat of every node that has left its piece out along its curve. True if any
  /// has; capacities and temperatures are then changed.
  bool settle(std::span<const double> before, std::span<double> T, std::vector<double>& capacity);
  /// How far settle() would move the furthest node, K: a step that overshoots by much has sent its heat to the wrong places.
  [[nodiscard]] double overshoot_K(std::span<const double> before, std::span<const double> T) const;
  /// Heat stored by these nodes from one state to another, J.
  [[nodiscard]] double storage_J(std::span<const double> from, std::span<const double> to) const;
  /// 0 thawed, 0.5 freezing, 1 frozen; of a slot without water -1.
  [[nodiscard]] double frozen(int slot) const;
  [[nodiscard]] bool holds(int slot) const { return frozen(slot) >= 0.0; }

private:
  struct Node {
    int slot;
    double thawed_J_K;
    FreezingWater water;
    Piece piece = Piece::thawed;
  };
  [[nodiscard]] static double slope(const Node& node, Piece piece);
  [[nodiscard]] static Piece pieceAt(const Node& node, double t_C);
  [[nodiscard]] static double heat_J(const Node& node, double t_C);
  [[nodiscard]] static double temperature_C(const Node& node, double heat_J);
  /// Where a node that has left its piece comes to lie, degC.
  [[nodiscard]] static double settled_C(const Node& node, double before_C, double t_C);

  /// The temperatures of a node's piece: low <= T < high.
  struct Bounds {
    int slot;
    double low_C, high_C;
  };
  void takeBounds(std::size_t index);

  std::vector<Node> m_nodes;
  std::vector<Bounds> m_bounds; ///< by node
  std::vector<int> m_bySlot;    ///< index into m_nodes, or -1
};

} // namespace muffle
