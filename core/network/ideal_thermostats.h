// SPDX-License-Identifier: GPL-3.0-or-later
//
// The powers of ideal thermostats with which every sensor ends a step on its setpoint, or the power at a limit. Within a step sensors follow powers
// in straight lines, so that this is a linear complementarity problem with bounds.
//
// Thermostats that go by one sensor take turns, as stages: the one of the highest setpoint gives all it can before the next begins, and of equal
// setpoints the one that stands first. The stages of one sensor are solved together: what they give by its temperature is a staircase. Sensors that
// warm each other are gone round (projected Gauss-Seidel); where that creeps, those between their limits are put right by their linear system.
// Cottle, Pang and Stone, The Linear Complementarity Problem (1992), ch. 5.
#pragma once

#include "core/network/network.h"

#include <cstddef>
#include <utility>
#include <vector>

namespace muffle {

class IdealThermostats {
public:
  /// How the free slots end the step with a watt more of a thermostat, K/W. Asked only for those that must move.
  class Responses {
  public:
    virtual const std::vector<double>& of(std::size_t thermostat) = 0;

  protected:
    ~Responses() = default;
  };
  template <class F> class ResponsesBy final : public Responses {
  public:
    explicit ResponsesBy(F of) : m_of(std::move(of)) {}
    const std::vector<double>& of(std::size_t thermostat) override { return m_of(thermostat); }

  private:
    F m_of;
  };
  enum class Outcome { unchanged, moved, unsettled };

  IdealThermostats() = default;
  /// Sensors of `free` or more are boundaries, which no heater moves.
  IdealThermostats(const std::vector<Thermostat>& thermostats, const std::vector<std::size_t>& sensorSlot, std::size_t free);

  /// It gives what it is told to give: its power is no longer moved.
  void leaveOut(std::size_t thermostat);

  /// By thermostat: `power_W` is moved, and `error_K`, by how much its sensor ends below its setpoint, with it. One that is within `letBe_K` stays as it is;
  /// `enough_K`: what sensors that warm each other may be left off by.
  Outcome find(std::vector<double>& power_W, std::vector<double>& error_K, const std::vector<double>& setpoint_C, const std::vector<double>& limit_W,
               double letBe_K, double enough_K, Responses& responses);

private:
  struct Sensor {
    std::size_t slot;
    std::vector<std::size_t> stages; ///< thermostats; in their order by setpoint after arrange()
  };
  struct Step {
    std::vector<double>&power_W, &error_K;
    const std::vector<double>&setpoint_C, &limit_W;
    double letBe_K;
    Responses& responses;
  };
  [[nodiscard]] static bool rests(std::size_t thermostat, const Step& step);
  [[nodiscard]] static bool restInTurn(const Sensor& sensor, const Step& step);
  double change(std::size_t thermostat, double to_W, const Step& step) const;
  double change(std::size_t thermostat, double to_W, const std::vector<double>& response, const Step& step) const;
  double settleOne(const Sensor& sensor, const Step& step) const;
  double settleStages(Sensor& sensor, const Step& step) const;
  void settleTogether(const Step& step);

  std::vector<Sensor> m_sensors;
  std::vector<std::size_t> m_slotOf;  ///< by thermostat; kFixed for those that are not solved here
  std::vector<std::size_t> m_between; ///< thermostats between their limits
};

} // namespace muffle
