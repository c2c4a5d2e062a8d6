// SPDX-License-Identifier: GPL-3.0-or-later
//
// Integrates a Network in time. A step goes by one of four methods, each a class of its own over one StepContext: DoubleStep and Bdf2Step while
// nothing jumps, RestartStep after a jump, TrBdf2Step where those will not do or accuracy is asked for.
// Deterministic; nothing is allocated after prepare() but when a modulator brings links into force or takes them out.
//
// A solver is a value: a copy is where a run stands, and goes on to the last bit as the one that it was copied from (they share the network,
// which never changes).
//
//   auto solver = Solver::prepare(network);
//   while (solver->time_s() < end) solver->advance(600.0);
//   solver->temperature_C(air);
#pragma once

#include "core/network/bdf2_step.h"
#include "core/network/double_step.h"
#include "core/network/restart_step.h"
#include "core/network/solver_options.h"
#include "core/network/step_context.h"
#include "core/network/tr_bdf2_step.h"

#include <span>
#include <vector>

namespace muffle {

/// Energies since reset(), J; into the network counts positive.
struct EnergyBalance {
  std::vector<double> thermostat_J; ///< by thermostat
  std::vector<double> source_J;     ///< by source
  std::vector<double> boundary_J;   ///< by node; 0 for free nodes
  double advection_J = 0.0;         ///< carried in by one-way links from free nodes
  double storageChange_J = 0.0;
  double throughput_J = 0.0; ///< sum of magnitudes of all exchanges
  /// |inputs - storage change| / throughput; 0 when nothing flowed.
  [[nodiscard]] double closure() const;
};

class Solver {
public:
  static Result<Solver> prepare(Network network, SolverOptions options = {});

  [[nodiscard]] const Network& network() const { return *m_context.network; }

  /// Back to the initial state at t = 0; limits and relays stay as they were set, what is given (setGiven) is nothing until it is told again.
  void reset();
  /// Replaces the free temperatures (by node; boundary entries are ignored) and keeps the clock.
  void setTemperatures(std::span<const double> temperature_C);
  /// Of a boundary or source made by Driver::set(), from the end of the next step that is worked out: within it, it comes to that from
  /// what it was. Of two steps taken as one the second is already worked out when the first is handed out.
  void setBoundary(int node, double value_C) { m_context.flows.setBoundary(node, value_C); }
  void setSource(int source, double value_W) { m_context.flows.setSource(source, value_W); }
  /// Of what a thermostat may give by itself, from the next step on, 0..1.
  void setLimit(std::size_t thermostat, double share);
  /// Makes a thermostat one that gives what it gives, whatever its sensor says, from the next step on; nullptr: nothing.
  void setGiven(std::size_t thermostat, std::shared_ptr<const GivenHeat> heat);
  /// A relay that is commanded, from the next step on.
  void setRelay(int relay, bool on);
  /// One step of h > 0 seconds. False if no solution was found even after halving the step 12 times.
  bool advance(double h);

  [[nodiscard]] double time_s() const { return m_context.time; }
  [[nodiscard]] double temperature_C(int node) const { return m_context.start.T[m_context.flows.slot(node)]; }
  [[nodiscard]] int freeCount() const { return m_context.flows.freeCount(); }
  /// Mean power of thermostat i over the last advance(), W.
  [[nodiscard]] double lastPower_W(int thermostat) const { return m_context.lastPower[static_cast<std::size_t>(thermostat)]; }
  /// Energy through the links of a group, from -> to, over the last advance(), J.
  [[nodiscard]] double groupEnergy_J(int group) const { return m_context.lastEnergy[static_cast<std::size_t>(m_context.flows.groupRow(group))]; }
  /// Energy that a boundary node took from the network over the last advance(), J.
  [[nodiscard]] double boundaryEnergy_J(int node) const { return m_context.lastEnergy[m_context.flows.slot(node)]; }
  /// Times thermostat i switched on (hysteresis).
  [[nodiscard]] int starts(int thermostat) const { return m_context.starts[static_cast<std::size_t>(thermostat)]; }
  /// Flow through link i at the present temperatures, W, from -> to; links first, then vents.
  [[nodiscard]] double linkFlow_W(int link) const;
  [[nodiscard]] EnergyBalance balance() const;
  /// A signal's value now, switches by the relays' states.
  [[nodiscard]] double signalNow(int signal) const { return strengthNow(signal); }
  /// Of the network's relay, now; of one that counts water, what stands on its surface.
  [[nodiscard]] bool relayIsOn(int relay) const { return m_context.flows.relays().isOn(relay); }
  [[nodiscard]] double water_g(int relay) const { return m_context.flows.relays().water_g(relay); }
  [[nodiscard]] long newtonIterations() const { return m_context.iterations; }
  /// Pairs of steps taken as one.
  [[nodiscard]] long doubleSteps() const { return m_double.taken(); }
  /// Puts every free node on its steady value (d/dt = 0) for the present inputs, thermostats off. False if none is found.
  bool solveSteady();

private:
  Solver() = default;
  explicit Solver(StepContext context);
  [[nodiscard]] double strengthNow(int modulator) const;

  StepContext m_context;
  TrBdf2Step m_trBdf2;
  Bdf2Step m_bdf2;
  DoubleStep m_double;
  RestartStep m_restart;
};

} // namespace muffle
