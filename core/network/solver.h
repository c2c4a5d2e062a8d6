// SPDX-License-Identifier: GPL-3.0-or-later
//
// Integrates a Network in time with TR-BDF2: second order, L-stable, one matrix per step for both stages.
//   gamma = 2 - sqrt 2, d = gamma/2, w = sqrt 2/4
//   trapezium to t + gamma h:   C (Tg - T) = d h (f + fg)
//   BDF2 to t + h:              C (T1 - T) = h (w f + w fg + d f1)
// Bank et al., IEEE Trans. Computer-Aided Design 4 (1985) 436; Hosea and Shampine, Appl. Numer. Math. 20 (1996) 21.
// Each stage is solved along the slopes at the start of the step. If what the links' curves leave over is more than the
// tolerance, Newton rounds from exact evaluations follow. The step's energies are summed, with the step's weights, from the
// flows that its linear solves imply, so that the balance closes whatever the tolerance; every step starts from exact flows.
//   ideal thermostats   one power per step, found from the step's linear response, within 0..power_W
//   hysteresis          the crossing is located inside the step and the step is split there
// Deterministic; nothing is allocated after prepare() but when a modulator brings links into force or takes them out.
//
// A solver is a value: a copy is where a run stands, and goes on to the last bit as the one that it was copied from (they share the network,
// which never changes).
//
//   auto solver = Solver::prepare(network);
//   while (solver->time_s() < end) solver->advance(600.0);
//   solver->temperature_C(air);
#pragma once

#include "core/network/flows.h"
#include "core/network/ideal_thermostats.h"
#include "core/network/network.h"

#include <memory>
#include <span>
#include <vector>

namespace muffle {

struct SolverOptions {
  /// A stage is accepted when its next Newton update would be below this, K. Changes the answer by a fifth of it (rms over
  /// the demo season; a step of 600 s itself is right to 2e-3 rms); tighter costs up to two more evaluations per stage.
  double newtonTolerance_K = 2e-3;
  /// A hysteresis switch is located to this closeness of its threshold, K.
  double switchTolerance_K = 1e-3;
  /// Equal steps in which nothing jumps go by two-step BDF (see bdf2_step.cpp), those after a jump as restart_step.cpp has it, for seasons: 0.4 of the time,
  /// and 0.014 K rms off instead of 0.002 K (docs/performance.md).
  bool multistep = false;
  /// Two of those steps are taken as one where the weather and the house go on in nearly straight lines (see double_step.cpp): 0.7 of the time
  /// again, and 0.03 to 0.05 K rms off.
  bool doubleSteps = true;
  /// Groups of links whose energy is wanted: by link, then by vent, the group (0..) or -1. May be empty.
  std::vector<int> groupOfLink = {};
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

/// Held tables have their next value at a step's end itself.
inline constexpr double kInside = 1.0 - 1e-9;

class Solver {
public:
  static Result<Solver> prepare(Network network, SolverOptions options = {});

  [[nodiscard]] const Network& network() const { return *m_network; }

  /// Back to the initial state at t = 0; limits and relays stay as they were set.
  void reset();
  /// Replaces the free temperatures (by node; boundary entries are ignored) and keeps the clock.
  void setTemperatures(std::span<const double> temperature_C);
  /// Of a boundary or source made by Driver::set(), from the end of the next step that is worked out: within it, it comes to that from
  /// what it was. Of two steps taken as one the second is already worked out when the first is handed out.
  void setBoundary(int node, double value_C) { m_flows.setBoundary(node, value_C); }
  void setSource(int source, double value_W) { m_flows.setSource(source, value_W); }
  /// Of what a thermostat may give by itself, from the next step on, 0..1.
  void setLimit(std::size_t thermostat, double share);
  /// A relay that is commanded, from the next step on.
  void setRelay(int relay, bool on);
  /// One step of h > 0 seconds. False if no solution was found even after halving the step 12 times.
  bool advance(double h);

  [[nodiscard]] double time_s() const { return m_time; }
  [[nodiscard]] double temperature_C(int node) const { return m_start.T[m_flows.slot(node)]; }
  [[nodiscard]] int freeCount() const { return m_flows.freeCount(); }
  /// Mean power of thermostat i over the last advance(), W.
  [[nodiscard]] double lastPower_W(int thermostat) const { return m_lastPower[static_cast<std::size_t>(thermostat)]; }
  /// Energy through the links of a group, from -> to, over the last advance(), J.
  [[nodiscard]] double groupEnergy_J(int group) const { return m_lastEnergy[static_cast<std::size_t>(m_flows.groupRow(group))]; }
  /// Energy that a boundary node took from the network over the last advance(), J.
  [[nodiscard]] double boundaryEnergy_J(int node) const { return m_lastEnergy[m_flows.slot(node)]; }
  /// Times thermostat i switched on (hysteresis).
  [[nodiscard]] int starts(int thermostat) const { return m_starts[static_cast<std::size_t>(thermostat)]; }
  /// Flow through link i at the present temperatures, W, from -> to; links first, then vents.
  [[nodiscard]] double linkFlow_W(int link) const;
  [[nodiscard]] EnergyBalance balance() const;
  /// A signal's value now, switches by the relays' states.
  [[nodiscard]] double signalNow(int signal) const { return strengthNow(signal); }
  /// Of the network's relay, now; of one that counts water, what stands on its surface.
  [[nodiscard]] bool relayIsOn(int relay) const { return m_flows.relays().isOn(relay); }
  [[nodiscard]] double water_g(int relay) const { return m_flows.relays().water_g(relay); }
  [[nodiscard]] long newtonIterations() const { return m_iterations; }
  /// Pairs of steps taken as one.
  [[nodiscard]] long doubleSteps() const { return m_doubleSteps; }
  /// Puts every free node on its steady value (d/dt = 0) for the present inputs, thermostats off. False if none is found.
  bool solveSteady();

private:
  Solver() = default;
  [[nodiscard]] double strengthNow(int modulator) const;
  void restart();
  bool balanceAlgebraic();
  bool solveStages(double h);
  void explicitPartOfMiddle(double s);
  void explicitPartOfEnd(double h, double s);
  double predict(const FlowState& from, FlowState& to, double s, double* beside);
  bool refine(FlowState& stage, double s, double previous);
  bool solveMiddle(double s, double* beside);
  bool settleEnd(double h, bool refineAnyway = false);
  void takeNext();
  void imply(FlowState& stage, double s, std::size_t count);
  [[nodiscard]] const FlowState& base(const FlowState& stage) const;
  void report(FlowState& stage);
  double moveByPowers(FlowState& stage, const std::vector<double>& before, const std::vector<std::vector<double>>& response);
  void shift(FlowState& stage, double s, const std::vector<std::vector<double>>& response, double& furthest);
  void sumStep(double outer, double last);
  [[nodiscard]] double contraction(double update_K) const;
  void middleUnit(std::size_t thermostat, double s);
  void endUnit(std::size_t thermostat, double h, double s);
  void unitResponses(double h);
  IdealThermostats::Outcome choosePowers(double h);
  bool holdSetpoints(double h);
  bool advanceSmooth(double h);
  [[nodiscard]] bool isPossible(const FlowState& stage) const;
  bool advanceOnce(double h);
  bool advanceSingly(double h);
  [[nodiscard]] bool mayMultistep(double h) const { return m_options.multistep && m_equalStep_s == h; }
  /// A matrix of the two-step method that is good for several steps, and what belongs to it.
  struct FactoredStage {
    bool isFactored = false;
    long layout = 0;               ///< of the flows when it was
    double s = 0.0;                ///< that it was factored for
    int age = 0;                   ///< solves with it
    double off_K = 0.0;            ///< how far the stage in hand lies from where it was factored
    std::vector<double> factoredT; ///< by slot
    FlowSlopes slopes;
    NetworkFlows::Factors factors;
    std::vector<std::vector<double>> response; ///< by thermostat, free slot: K/W
    std::vector<bool> hasResponse;             ///< by thermostat
  };
  [[nodiscard]] FactoredStage makeFactoredStage() const;
  bool advanceBdf2(double h);
  /// What a thermostat may give at a time, W.
  [[nodiscard]] double limitAt(std::size_t thermostat, double time_s) const;
  bool setpointsStay(double time_s);
  bool limitsStay(double time_s);
  /// Adds a thermostat's heat to a right-hand side.
  void addHeat(std::vector<double>& rhs, std::size_t thermostat, double heat) const {
    for (const Heated& h : m_heated[thermostat]) rhs[h.slot] += h.share * heat;
  }
  bool predictBdf2(double h);
  void predictStage(FlowState& stage, double s, FactoredStage& factored);
  void reuseFactors(const FlowState& stage, double s, FactoredStage& factored);
  bool settleStage(FlowState& stage, double s, FactoredStage& factored, bool findPower);
  bool solveStage(FlowState& stage, double s, FactoredStage& factored);
  bool newtonRound(FlowState& stage, double s, FactoredStage& factored, bool findPower);
  using ResponseOf = const std::vector<double>& (Solver::*)(std::size_t thermostat, double s, FactoredStage& factored);
  const std::vector<double>& stageResponse(std::size_t thermostat, double s, FactoredStage& factored);
  IdealThermostats::Outcome findPowers(const FlowState& stage, double s, FactoredStage& factored, ResponseOf responseOf);
  bool stagePowers(const FlowState& stage, double s, FactoredStage& factored);
  [[nodiscard]] bool hasJumped(const FlowState& stage, double s, const FactoredStage& factored) const;
  void acceptBdf2(double h, double s);
  const std::vector<double>& restartResponse(std::size_t thermostat, double s, FactoredStage& factored);
  bool restartStage(FlowState& stage, double s, double first);
  double moveStages();
  bool solveRestart(double s);
  bool advanceRestart(double h);
  void takeSetpoints(double time_s);
  bool advanceDouble(double h);
  bool predictDouble(double h, double s);
  [[nodiscard]] bool holdsInMiddle() const;
  bool interpolateMiddle();
  void splitDouble(double s);
  void count(const std::vector<double>& energy_J, const std::vector<double>& value, const std::vector<double>& heat_J, double h);
  void finishDouble(double h);
  void passThresholds();
  void accept(double h);
  double switchTime(double h, std::size_t& which);
  bool bisectSwitch(double h, double guess, std::size_t which, double& used);
  [[nodiscard]] double crossingTarget(std::size_t thermostat) const;

  SolverOptions m_options;
  std::shared_ptr<const Network> m_network;
  NetworkFlows m_flows;
  struct Heated {
    std::size_t slot;
    double share;
  };
  std::vector<std::size_t> m_sensorSlot;     ///< by thermostat
  std::vector<std::vector<Heated>> m_heated; ///< by thermostat: where its power goes

  double m_time = 0.0;
  FlowState m_start, m_middle, m_end;
  std::vector<double> m_nextFlows; ///< exact ones at m_end.T, by row, while m_end holds those its linear solve implies
  bool m_haveNextFlows = false;
  double m_endMoved_K = 0.0;        ///< the furthest that the end stage's linear solve moved anything
  bool m_startIsExact = false;      ///< m_start.f and m_slopes belong to m_start.T
  FlowSlopes m_slopes, m_endSlopes; ///< for this step's matrix; for the next one's
  double m_slopesOff_K = 0.0;       ///< the state has moved this far since m_slopes were taken
  double m_endSlopesOff_K = 0.0;
  std::vector<double> m_initial;      ///< by slot
  std::vector<double> m_explicitPart; ///< of the stage in hand: C (T - start) = m_explicitPart + s f
  std::vector<double> m_storing;      ///< by free slot: 1, or 0 for an algebraic node
  std::vector<double> m_delta;        ///< by slot: the update in hand
  std::vector<double> m_moved;        ///< by slot: what the reported rows are to follow
  std::vector<double> m_work;         ///< by row

  std::vector<double> m_power; ///< by thermostat, now
  std::vector<bool> m_on;
  std::vector<double> m_limit;      ///< by thermostat, W: of the step in hand
  std::vector<double> m_limitShare; ///< by thermostat, as set
  bool m_limitsVary = false;        ///< one of them goes by a signal
  IdealThermostats m_ideal;
  std::vector<double> m_error_K; ///< by thermostat: what its sensor lacks
  std::vector<double> m_setpoint, m_powerBefore, m_powerTried, m_powerAtStart;
  std::vector<std::vector<double>> m_responseMiddle, m_responseEnd; ///< by thermostat, free slot: K/W
  std::size_t m_besideStages = 0;                                   ///< the ideal thermostat whose responses are solved for with the stages
  bool m_besideIsCurrent = false;                                   ///< they belong to the matrix in force

  double m_equalStep_s = 0.0;               ///< the last step was whole and of this length, and m_end.T is where it began; 0 for none
  int m_smoothSteps = 0;                    ///< whole ones of that length since something jumped; from two on m_middle.T is where the one before the last began
  FactoredStage m_singleStep, m_doubleStep; ///< for steps of one length and of two
  FactoredStage m_restart;                  ///< for the stages of a restart after a jump; its responses are those of the end
  std::vector<std::vector<double>> m_firstResponse; ///< those of the first stage
  std::vector<double> m_roundFrom;                  ///< the stage's temperatures before the round in hand
  /// By row, over the last step and the one before it; of the driven values; by thermostat.
  std::vector<double> m_step_J, m_before_J, m_stepValue, m_beforeValue, m_stepHeat_J, m_beforeHeat_J;

  FlowState m_doubleEnd;                ///< where a double step ends
  std::vector<double> m_doubleEndValue; ///< the driven values there, without the middle's bend
  bool m_inDoubleStep = false;          ///< m_start is the middle of a double step
  int m_doubleStepsBarred = 0;          ///< steps to go until the next is tried

  std::vector<double> m_thermostat_J, m_lastPower;
  std::vector<double> m_energy_J, m_lastEnergy; ///< by row
  std::vector<double> m_valueIntegral;          ///< of the driven values
  std::vector<int> m_starts;
  double m_throughput_J = 0.0;
  long m_iterations = 0, m_doubleSteps = 0;
};

} // namespace muffle
