// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/simulate/before_run.h"

#include "core/network/solver.h"

namespace muffle {

std::optional<StateBefore> runBefore(const Plan& plan, const Scene::Before& before, const std::atomic<bool>* stop) {
  const Winter& winter = *before.winter;
  Assembly earlier = assemble(plan, winter, before.sun);
  StoreRunner runner(plan, earlier, winter);
  auto prepared = Solver::prepare(earlier.network, {.cruise = true});
  if (!prepared) return std::nullopt;
  runner.begin(*prepared);
  for (std::size_t i = 1; i < winter.size(); ++i) {
    if ((i & 255U) == 0 && stop && stop->load(std::memory_order_relaxed)) return std::nullopt;
    if (!prepared->advance(winter.step_s)) return std::nullopt;
    runner.step(*prepared, i);
  }
  StateBefore state;
  state.temperature_C.resize(prepared->network().nodes.size());
  for (std::size_t i = 0; i < state.temperature_C.size(); ++i) state.temperature_C[i] = prepared->temperature_C(static_cast<int>(i));
  state.piles = runner.piles();
  return state;
}

} // namespace muffle
