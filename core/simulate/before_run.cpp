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
  // Weeks back only the soil remembers, and three hours at a time are enough for it: the last ten days go hour by hour. Pipes and
  // loops go hour by hour throughout, for their fans and pumps do.
  constexpr std::size_t kStride = 3;
  constexpr double kFine_s = 10.0 * 86400.0;
  const auto fine = static_cast<std::size_t>(kFine_s / winter.step_s);
  const bool isSoilAlone = runner.isIdle() && plan.groundPipes.empty() && plan.waterLoops.empty();
  for (std::size_t i = 0; i + 1 < winter.size();) {
    if (stop && stop->load(std::memory_order_relaxed)) return std::nullopt;
    const std::size_t stride = isSoilAlone && i + kStride + fine < winter.size() ? kStride : 1;
    if (!prepared->advance(static_cast<double>(stride) * winter.step_s)) return std::nullopt;
    i += stride;
    runner.step(*prepared, i);
  }
  StateBefore state;
  state.temperature_C.resize(prepared->network().nodes.size());
  for (std::size_t i = 0; i < state.temperature_C.size(); ++i) state.temperature_C[i] = prepared->temperature_C(static_cast<int>(i));
  state.piles = runner.piles();
  return state;
}

} // namespace muffle
