// SPDX-License-Identifier: GPL-3.0-or-later
//
// Stoves that burn what is put on: each step gives what its loads give by their curve (core/heater/heater.h), whatever the room wants. A load is put
// on at its time if somebody is there to do it, and burns on when nobody is.
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
  void begin(Solver& solver) override;
  void change(Solver& solver, std::size_t i, const Circumstances& now) override;
  void step(Solver& solver, std::size_t i) override;
  [[nodiscard]] std::any keep() const override { return m_state; }
  void goOn(const std::any& state) override { m_state = std::any_cast<const State&>(state); }

  /// What the solver may take of that thermostat's power by itself in the step in hand; 1 for those that are no stove's.
  [[nodiscard]] double limit(std::size_t thermostat) const;
  /// The steps at which loads were put on so far, by heater of the assembly.
  [[nodiscard]] std::span<const std::size_t> loads(std::size_t heater) const;

private:
  struct Stove {
    std::size_t heater; ///< of the assembly
    std::size_t thermostat;
    BurnCurve curve;
    double most_W;
    const std::vector<std::size_t>* loads;
  };
  struct Burning {
    std::vector<double> lit_s;         ///< loads that still give heat
    std::vector<std::size_t> put = {}; ///< the steps at which loads were put on
    double limit = 0.0;
  };
  struct State {
    std::vector<Burning> burning;
    bool tended = true;
  };
  void stoke(std::size_t i);

  double m_step_s;
  std::vector<Stove> m_stoves;
  State m_state;
};

} // namespace muffle
