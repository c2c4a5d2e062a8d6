// SPDX-License-Identifier: GPL-3.0-or-later
//
// What goes on beside the network in a run, step by step: piles of compost that age, and solar collectors. The network meets a pile
// as a boundary at its temperature; what it took there over a step, the pile has given. A pile's temperature moves by hundredths
// of a kelvin in a step, so that taking it from the step's start is as good.
//
//   StoreRunner runner(plan, assembly, winter);
//   runner.begin(solver);
//   while (...) { solver.advance(h); runner.step(solver, i); }
#pragma once

#include "core/assemble/assemble.h"
#include "core/ground/soil.h"
#include "core/run/component.h"
#include "core/store/pile.h"

#include <optional>
#include <vector>

namespace muffle {

/// A place where piles are built, and the one that stands there now.
struct PilePresent {
  int built = 0;  ///< how many so far; 0: none yet
  CompostMix mix; ///< of what has been put there
  int toppedUp = 0;
  double watered_kg = 0.0;
  CompostState state;
  CompostRates rates;
};

class StoreRunner final : public Component {
public:
  StoreRunner(const Plan& plan, const Assembly& assembly, const Winter& winter);

  /// Piles as another run left them, if it had as many.
  void take(const std::vector<PilePresent>& piles);
  void begin(Solver& solver) override;
  void change(Solver& solver, std::size_t i, const Circumstances& now) override;
  void step(Solver& solver, std::size_t i) override;
  [[nodiscard]] std::any keep() const override { return m_state; }
  void goOn(const std::any& state) override { m_state = std::any_cast<const State&>(state); }

  /// Nothing goes on beside the network: step() need not be called.
  [[nodiscard]] bool isIdle() const { return m_places.empty() && m_collecting.empty() && m_layered.empty(); }
  /// By compost pile of the plan.
  [[nodiscard]] const std::vector<PilePresent>& piles() const { return m_state.piles; }
  /// Heat that decay gave and that the network took, J, by compost pile.
  [[nodiscard]] const std::vector<CompostStep>& energy() const { return m_state.energy; }
  /// By store of the assembly: hours that what a collector warms was too hot to take more, and hours that its pump ran.
  [[nodiscard]] double stagnant_h(std::size_t store) const { return m_state.stagnant_h[store]; }
  [[nodiscard]] double collected_h(std::size_t store) const { return m_state.collected_h[store]; }
  /// Hours that the pump of a mound's coil ran, by compost pile.
  [[nodiscard]] double pumped_h(std::size_t pile) const { return m_state.pumped_h[pile]; }

private:
  struct Place {
    const StoreNodes* nodes;
    Blend blend;
    UtcSeconds first;               ///< built
    double outside_W_K, ground_W_K; ///< of what the network does not hold
  };
  [[nodiscard]] int builtBy(const Place& place, std::size_t pile, UtcSeconds at) const;
  void breathe(std::size_t pile);
  void tend(std::size_t pile, std::size_t i);
  void goOn(const Solver& solver, std::size_t pile, std::size_t i, double h_s);
  void hand(Solver& solver, std::size_t pile, std::size_t i);
  void collect(Solver& solver, std::size_t i, double counted_s);
  void turnOver(Solver& solver);

  const Plan& m_plan;
  const Assembly& m_assembly;
  const Winter& m_winter;
  UndisturbedGround m_ground;
  std::vector<std::size_t> m_layered, m_collecting; ///< stores of water in two layers; with a collector
  std::vector<Place> m_places;
  std::size_t m_every; ///< of the network's steps, a pile takes one
  /// What changes on the way.
  struct State {
    std::vector<PilePresent> piles;
    std::vector<CompostAir> air; ///< by compost pile, as it stands
    std::vector<CompostStep> energy;
    std::vector<double> stagnant_h, collected_h, pumped_h;
    std::vector<bool> pumps;     ///< by compost pile: its pump runs now
    std::vector<double> taken_J; ///< by the network since the pile last went on
    std::size_t waiting = 0;     ///< steps since then
    Circumstances now;
  };
  State m_state;
};

/// The first pile's day in the season that a moment belongs to: seasons begin in July.
UtcSeconds firstBuilt(const CompostPile& pile, UtcSeconds inSeason, double latitude_deg);

/// Days before a winter's log that a plan's stores are to be run; 0 for none.
int warmUpDays(const Plan& plan, const Winter& winter);

} // namespace muffle
