// SPDX-License-Identifier: GPL-3.0-or-later
//
// What goes on beside the network in a run, step by step: piles, collectors, later a fire. The network meets it as boundaries and sources that
// it sets between steps.
#pragma once

#include "core/network/solver.h"
#include "core/run/scenario.h"

#include <any>

namespace muffle {

class Component {
public:
  virtual ~Component() = default;
  /// At the run's first step.
  virtual void begin(Solver& solver) = 0;
  /// Before the solver goes on from step i under other circumstances than the step before.
  virtual void change(Solver& /*solver*/, std::size_t /*i*/, const Circumstances& /*now*/) {}
  /// After it has come to step i.
  virtual void step(Solver& solver, std::size_t i) = 0;
  /// Everything that what follows depends on; and back to it.
  [[nodiscard]] virtual std::any keep() const = 0;
  virtual void goOn(const std::any& state) = 0;
};

} // namespace muffle
