// SPDX-License-Identifier: GPL-3.0-or-later
//
// Integrates a Network in time with TR-BDF2: second order, L-stable, one matrix per step for both stages.
//   gamma = 2 - sqrt 2, d = gamma/2, w = sqrt 2/4
//   trapezium to t + gamma h:   C (Tg - T) = d h (f + fg)
//   BDF2 to t + h:              C (T1 - T) = h (w f + w fg + d f1)
// Bank et al., IEEE Trans. Computer-Aided Design 4 (1985) 436; Hosea and Shampine, Appl. Numer. Math. 20 (1996) 21.
// Energies are summed with the same weights as the step, so that the balance closes to the Newton tolerance.
//   ideal thermostats   one power per step, found from the step's linear response, within 0..power_W
//   hysteresis          the crossing is located inside the step and the step is split there
// Deterministic; nothing is allocated after prepare().
//
//   auto solver = Solver::prepare(network);
//   while (solver->time_s() < end) solver->advance(600.0);
//   solver->temperature_C(air);
#pragma once

#include "core/network/network.h"
#include "core/network/sparse_lu.h"

#include <span>
#include <vector>

namespace muffle {

struct SolverOptions {
  /// A stage is accepted when its next Newton update would be below this, K. Changes the answer by about as much and
  /// the closure by conductance x tolerance; tighter costs one more evaluation per stage.
  double newtonTolerance_K = 5e-4;
  /// A hysteresis switch is located to this closeness of its threshold, K.
  double switchTolerance_K = 1e-3;
  /// Keep the energy through every link of each step (linkEnergy_J); costs about a tenth of the step.
  bool trackLinks = false;
};

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
  static Result<Solver> prepare(const Network& network, SolverOptions options = {});

  /// Back to the initial state at t = 0.
  void reset();
  /// Replaces the free temperatures (by node; boundary entries are ignored) and keeps the clock.
  void setTemperatures(std::span<const double> temperature_C);
  /// One step of h > 0 seconds. False if no solution was found even after halving the step 12 times.
  bool advance(double h);

  [[nodiscard]] double time_s() const { return m_time; }
  [[nodiscard]] double temperature_C(int node) const { return m_T[slot(node)]; }
  [[nodiscard]] int freeCount() const { return m_free; }
  /// Mean power of thermostat i over the last advance(), W.
  [[nodiscard]] double lastPower_W(int thermostat) const { return m_lastPower[static_cast<std::size_t>(thermostat)]; }
  /// Energy through link i, from -> to, over the last advance(), J. Links first, then vents. Needs trackLinks.
  [[nodiscard]] double linkEnergy_J(int link) const { return m_linkEnergy[static_cast<std::size_t>(link)]; }
  /// Times thermostat i switched on (hysteresis).
  [[nodiscard]] int starts(int thermostat) const { return m_starts[static_cast<std::size_t>(thermostat)]; }
  /// Flow through link i at the last solveSteady(), W, from -> to; links first, then vents.
  [[nodiscard]] double linkFlow_W(int link) const { return m_start.flow[static_cast<std::size_t>(link)]; }
  [[nodiscard]] EnergyBalance balance() const;
  [[nodiscard]] long newtonIterations() const { return m_iterations; }
  /// Puts every free node on its steady value (d/dt = 0) for the present inputs, thermostats off. False if none is found.
  bool solveSteady();

private:
  struct Pair { int a, b; double g; int mod; int link; };
  struct Natural { int a, b; double k, halfExponent; int mod; int link; bool third; };
  struct VentSlots { int a, b, sensor; double opens, full, g; int link; };
  struct Entries { int aa, ab, ba, bb; };
  struct VentEntries { Entries link; int as, bs; };
  struct Stage { std::vector<double> T, f, source, flow; };

  Solver() = default;
  [[nodiscard]] std::size_t slot(int node) const { return static_cast<std::size_t>(m_slot[static_cast<std::size_t>(node)]); }
  void compile(const Network& network);
  void drive(double t, Stage& stage) const;
  void evaluate(Stage& stage);
  void extrapolate(Stage& stage, const double* delta);
  void prepareBase(double s);
  void buildMatrix(double s, const double* T);
  bool newton(Stage& stage, const std::vector<double>& known, double s);
  bool trial(double h);
  bool correctIdeal(double h);
  bool advanceSmooth(double h);
  bool advanceOnce(double h);
  void accept(double h);
  void modulate(double t);
  void refreshStart();
  double switchTime(double h, std::size_t& which);
  bool bisectSwitch(double h, double guess, std::size_t which, double& used);
  [[nodiscard]] double crossingTarget(std::size_t thermostat) const;

  SolverOptions m_options;
  Network m_network;
  SparseLu m_lu;
  int m_free = 0;
  int m_slots = 0;
  std::vector<int> m_slot;
  std::vector<double> m_capacity; ///< by free slot
  std::vector<std::pair<int, int>> m_boundaries; ///< slot, node
  std::vector<Pair> m_conductance, m_radiative, m_advective;
  std::size_t m_modulatedFrom = 0; ///< conductances from here on are modulated
  std::vector<Natural> m_natural;
  std::vector<VentSlots> m_vents;
  std::vector<Entries> m_conductanceAt, m_radiativeAt, m_naturalAt, m_advectiveAt;
  std::vector<VentEntries> m_ventAt;
  std::vector<int> m_thermostatSensor, m_thermostatHeats, m_sourceSlot;
  std::vector<int> m_radiating; ///< slots at the ends of radiative links
  std::vector<double> m_fourth; ///< their T^4, by slot
  bool m_hasNonlinear = false;
  bool m_hasModulation = false;

  double m_time = 0.0;
  double m_endDrivenAt = -1.0; ///< time that m_end's sources and m_T's boundaries were worked out for
  std::vector<double> m_T;
  std::vector<double> m_modulator;
  std::vector<double> m_power; ///< by thermostat, now
  std::vector<bool> m_on;
  Stage m_start, m_middle, m_end;
  std::vector<double> m_known, m_update, m_slope, m_scratch, m_scratchMiddle;
  struct Slope { double a, b; };
  std::vector<Slope> m_radiativeSlope, m_ventSlope; ///< of the last matrix, W/K
  std::vector<double> m_naturalSlope;
  std::vector<double> m_setpoint;
  std::vector<std::vector<double>> m_responseMiddle, m_responseEnd;
  double m_baseFor = -1.0;
  std::vector<double> m_baseValues, m_baseInverse;

  std::vector<double> m_thermostat_J, m_source_J, m_boundary_J, m_linkEnergy, m_lastPower, m_initial;
  std::vector<int> m_starts;
  double m_advection_J = 0.0;
  double m_throughput_J = 0.0;
  long m_iterations = 0;
};

} // namespace muffle
