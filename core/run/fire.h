// SPDX-License-Identifier: GPL-3.0-or-later
//
// Stoves that burn what is put on: each gives what its loads give by their curve (core/heater/heater.h), whatever the room wants. A load is put
// on at its time if somebody is there to do it, and burns on when nobody is. All that a winter's loads will give is known as it begins.
#pragma once

#include "core/assemble/assemble.h"
#include "core/run/component.h"

#include <span>
#include <vector>

namespace muffle {

class Fire final : public Component {
public:
  Fire(const Plan& plan, const Assembly& assembly, const Network& network, const Winter& winter);

  [[nodiscard]] bool isIdle() const { return m_stoves.empty(); }
  /// Nothing is lit, as before the run's first step.
  void goOut(Solver& solver) const;
  void begin(Solver& solver) override;
  void change(Solver& solver, std::size_t i, const Circumstances& now) override;
  void step(Solver& solver, std::size_t i) override;
  [[nodiscard]] std::any keep() const override { return m_state; }
  void goOn(const std::any& state) override { m_state = std::any_cast<const State&>(state); }
  /// The steps at which loads were put on so far, by heater of the assembly.
  [[nodiscard]] std::span<const std::size_t> loads(std::size_t heater) const;

private:
  struct Stove {
    std::size_t heater; ///< of the assembly
    std::size_t thermostat;
    std::vector<GivenHeat::Part> load; ///< by steps since it was put on
    double most_W;
    std::vector<std::size_t> loads; ///< the steps at which they are to be put on
  };
  struct State {
    std::vector<std::vector<std::size_t>> put; ///< by stove: the steps at which loads were put on
    std::vector<std::size_t> next;             ///< by stove: which of its loads is to be put on next
    std::size_t nextStep = 0;                  ///< when that is, of the first of them
    bool tended = true;
  };
  void stoke(std::size_t i);
  void foresee(Solver& solver, std::size_t stove, std::size_t i) const;

  double m_step_s;
  std::size_t m_steps;
  std::vector<Stove> m_stoves;
  State m_state;
};

} // namespace muffle
