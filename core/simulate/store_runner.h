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

#include "core/ground/soil.h"
#include "core/network/solver.h"
#include "core/simulate/assemble.h"
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

class StoreRunner {
public:
  StoreRunner(const Plan& plan, const Assembly& assembly, const Winter& winter);

  /// At the winter's first step; piles as another run left them, where given.
  void begin(Solver& solver, const std::vector<PilePresent>& from = {});
  /// After the solver has come to step i.
  void step(Solver& solver, std::size_t i);

  /// Nothing goes on beside the network: step() need not be called.
  [[nodiscard]] bool isIdle() const { return m_places.empty() && m_collecting.empty() && m_layered.empty(); }
  /// By compost pile of the plan.
  [[nodiscard]] const std::vector<PilePresent>& piles() const { return m_piles; }
  /// Heat that decay gave and that the network took, J, by compost pile.
  [[nodiscard]] const std::vector<CompostStep>& energy() const { return m_energy; }
  /// By store of the assembly: hours that what a collector warms was too hot to take more, and hours that its pump ran.
  [[nodiscard]] double stagnant_h(std::size_t store) const { return m_stagnant_h[store]; }
  [[nodiscard]] double collected_h(std::size_t store) const { return m_collected_h[store]; }
  /// Hours that the pump of a mound's coil ran, by compost pile.
  [[nodiscard]] double pumped_h(std::size_t pile) const { return m_pumped_h[pile]; }

private:
  struct Place {
    const StoreNodes* nodes;
    Blend blend;
    CompostAir air;
    UtcSeconds first;               ///< built
    double outside_W_K, ground_W_K; ///< of what the network does not hold
  };
  [[nodiscard]] int builtBy(const Place& place, std::size_t pile, UtcSeconds at) const;
  void breathe(std::size_t pile);
  void tend(std::size_t pile, std::size_t i);
  void goOn(const Solver& solver, std::size_t pile, std::size_t i, double h_s);
  void hand(Solver& solver, std::size_t pile, std::size_t i);
  void collect(Solver& solver, std::size_t i);
  void turnOver(Solver& solver);

  const Plan& m_plan;
  const Assembly& m_assembly;
  const Winter& m_winter;
  UndisturbedGround m_ground;
  std::vector<std::size_t> m_layered, m_collecting; ///< stores of water in two layers; with a collector
  std::vector<Place> m_places;
  std::vector<PilePresent> m_piles;
  std::vector<CompostStep> m_energy;
  std::vector<double> m_stagnant_h, m_collected_h, m_pumped_h;
  std::vector<bool> m_pumps;     ///< by compost pile: its pump runs now
  std::vector<double> m_taken_J; ///< by the network since the pile last went on
  std::size_t m_every;           ///< of the network's steps, a pile takes one
  std::size_t m_waiting = 0;     ///< steps since then
};

/// The first pile's day in the season that a moment belongs to: seasons begin in July.
UtcSeconds firstBuilt(const CompostPile& pile, UtcSeconds inSeason, double latitude_deg);

/// Days before a winter's log that a plan's stores are to be run; 0 for none.
int warmUpDays(const Plan& plan, const Winter& winter);

} // namespace muffle
