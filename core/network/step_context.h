// SPDX-License-Identifier: GPL-3.0-or-later
//
// What every method of stepping works on: the network's flows, where the run stands, the stages in hand, the heaters and what is counted. A
// method is a class of its own with what it alone keeps; the Solver puts them in their order.
#pragma once

#include "core/network/flows.h"
#include "core/network/given_heat.h"
#include "core/network/ideal_thermostats.h"
#include "core/network/network.h"
#include "core/network/solver_options.h"

#include <algorithm>
#include <memory>
#include <vector>

namespace muffle {

/// Held tables have their next value at a step's end itself.
inline constexpr double kInside = 1.0 - 1e-9;

struct StepContext {
  struct Heated {
    std::size_t slot;
    double share;
  };

  /// A thermostat that gives what it gives, whatever its sensor says.
  struct Given {
    std::size_t thermostat;
    std::shared_ptr<const GivenHeat> heat = {}; ///< nullptr: nothing
    GivenHeat::Steps steps = {};                ///< of the step in hand
    double wanted_J = 0.0;                      ///< of that, with what is owed
    double mean_W = 0.0;                        ///< that, over its length
    double owed_J = 0.0;                        ///< what earlier steps gave less than they were to
  };

  SolverOptions options;
  std::shared_ptr<const Network> network;
  NetworkFlows flows;
  std::vector<std::size_t> sensorSlot;     ///< by thermostat
  std::vector<std::vector<Heated>> heated; ///< by thermostat: where its power goes

  double time = 0.0;
  FlowState start, middle, end;
  bool startIsExact = false;        ///< start.f and the slopes of TrBdf2Step belong to start.T
  std::vector<double> initial;      ///< by slot
  std::vector<double> explicitPart; ///< of the stage in hand: C (T - start) = explicitPart + s f
  std::vector<double> delta;        ///< by slot: the update in hand

  std::vector<double> power; ///< by thermostat, now
  std::vector<bool> on;
  std::vector<double> limit;      ///< by thermostat, W: of the step in hand
  std::vector<double> limitShare; ///< by thermostat, as set
  bool limitsVary = false;        ///< one of them goes by a signal
  std::vector<Given> given;
  IdealThermostats ideal;
  std::vector<double> error_K; ///< by thermostat: what its sensor lacks
  std::vector<double> setpoint, powerBefore, powerTried;
  double setpointsFrom_s = 0.0, setpointsUntil_s = 0.0; ///< setpoint is what the signals say then; until before from: not known to be at any time

  double equalStep_s = 0.0;  ///< the last step was whole and of this length, and end.T is where it began; 0 for none
  int smoothSteps = 0;       ///< whole ones of that length since something jumped; from two on middle.T is where the one before the last began
  bool inDoubleStep = false; ///< start is the middle of a double step
  /// By row, over the last step and the one before it; of the driven values; by thermostat.
  std::vector<double> step_J, before_J, stepValue, beforeValue, stepHeat_J, beforeHeat_J;

  std::vector<double> thermostat_J, lastPower;
  std::vector<double> energy_J, lastEnergy; ///< by row
  std::vector<double> valueIntegral;        ///< of the driven values
  std::vector<int> starts;
  double throughput_J = 0.0;
  long iterations = 0;

  /// Of a sound network.
  StepContext(Network network, SolverOptions options);
  StepContext() = default;
  /// Back to the initial state at t = 0.
  void reset();

  /// What a thermostat may give at a time, W.
  [[nodiscard]] double limitAt(std::size_t thermostat, double time_s) const;
  void takeSetpoints(double time_s);
  [[nodiscard]] bool knowsSetpointsAt(double time_s) const { return time_s >= setpointsFrom_s && time_s < setpointsUntil_s; }
  void knowSetpointsAt(double time_s);
  void beginGiven(double h);
  bool goOnGiving(double h, double s, bool twice);
  void countGiven();
  bool setpointsStay(double time_s);
  bool limitsStay(double time_s);
  [[nodiscard]] bool isPossible(const FlowState& stage) const;
  /// Adds a thermostat's heat to a right-hand side.
  void addHeat(std::vector<double>& rhs, std::size_t thermostat, double heat) const {
    if (heat == 0.0) return;
    for (const Heated& h : heated[thermostat]) rhs[h.slot] += h.share * heat;
  }
  double moveByPowers(FlowState& stage, const std::vector<double>& before, const std::vector<std::vector<double>>& response);
  void count(const std::vector<double>& energy_J, const std::vector<double>& value, const std::vector<double>& heat_J, double h);
  /// Ideal thermostats' powers, so that with delta and by their responses each sensor of the stage ends on its setpoint, or the power at a
  /// limit. Those before are in powerTried. `responseTo` a watt of a thermostat, by free slot: K/W.
  template <class ResponseTo> IdealThermostats::Outcome findPowers(const FlowState& stage, ResponseTo responseTo) {
    constexpr double kPowerTolerance_K = 1e-4;
    constexpr double kOnSetpoint_K = 1e-9; // only the last digits are off
    powerTried = power;
    for (std::size_t j = 0; j < power.size(); ++j) error_K[j] = setpoint[j] - stage.T[sensorSlot[j]] - delta[sensorSlot[j]];
    IdealThermostats::ResponsesBy responses(std::move(responseTo));
    return ideal.find(power, error_K, setpoint, limit, kOnSetpoint_K, kPowerTolerance_K, responses);
  }
};

} // namespace muffle
