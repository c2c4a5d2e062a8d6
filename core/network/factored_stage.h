// SPDX-License-Identifier: GPL-3.0-or-later
//
// A stage of a method that keeps its matrix over several steps, and how it is brought from its predictor to its end: one exact evaluation and
// one solve a round, Newton's with a matrix that may be a few steps old. Hairer and Wanner, Solving Ordinary Differential Equations II, ch. IV.8.
#pragma once

#include "core/network/step_context.h"

namespace muffle {

class FactoredStage {
public:
  FactoredStage() = default;
  explicit FactoredStage(const StepContext& c);
  /// Its matrix is made anew before it is used again.
  void forget() { m_isFactored = false; }
  /// Brings its factors into force, and afterwards those that were.
  void swapFactors(StepContext& c) { c.flows.swapFactors(m_factors); }

  void predict(StepContext& c, FlowState& stage, double s);
  void reuse(StepContext& c, const FlowState& stage, double s);
  bool settle(StepContext& c, FlowState& stage, double s, bool findPower);
  bool solve(StepContext& c, FlowState& stage, double s);

  [[nodiscard]] const FlowSlopes& slopes() const { return m_slopes; }
  /// To a watt of each thermostat, by free slot: K/W; worked out where hasResponse().
  [[nodiscard]] const std::vector<std::vector<double>>& responses() const { return m_response; }
  std::vector<double>& response(std::size_t thermostat) { return m_response[thermostat]; }
  [[nodiscard]] bool hasResponse(std::size_t thermostat) const { return m_hasResponse[thermostat]; }
  void setHasResponse(std::size_t thermostat) { m_hasResponse[thermostat] = true; }

private:
  const std::vector<double>& responseTo(StepContext& c, std::size_t thermostat, double s);
  bool findPowersOf(StepContext& c, const FlowState& stage, double s);
  bool newtonRound(StepContext& c, FlowState& stage, double s, bool findPower);
  [[nodiscard]] bool hasJumped(const StepContext& c, const FlowState& stage, double s) const;

  bool m_isFactored = false;
  long m_layout = 0;               ///< of the flows when it was
  double m_s = 0.0;                ///< that it was factored for
  int m_age = 0;                   ///< solves with it
  double m_off_K = 0.0;            ///< how far the stage in hand lies from where it was factored
  std::vector<double> m_factoredT; ///< by slot
  FlowSlopes m_slopes;
  NetworkFlows::Factors m_factors;
  std::vector<std::vector<double>> m_response; ///< by thermostat, free slot: K/W
  std::vector<bool> m_hasResponse;             ///< by thermostat
  std::vector<double> m_roundFrom;             ///< the stage's temperatures before the round in hand
};

} // namespace muffle
