// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/simulate/before_run.h"

namespace muffle {

std::optional<StateBefore> runBefore(const Plan& plan, const Scene::Before& before, const std::atomic<bool>* stop) {
  const Winter& winter = *before.winter;
  auto run = Run::prepare(plan, assemble(plan, winter, before.sun), winter);
  if (!run) return std::nullopt;
  run->begin();
  // Weeks back only the soil remembers, and three hours at a time are enough for it: the last ten days go hour by hour. Pipes and
  // loops go hour by hour throughout, for their fans and pumps do.
  constexpr std::size_t kStride = 3;
  constexpr double kFine_s = 10.0 * 86400.0;
  const auto fine = static_cast<std::size_t>(kFine_s / winter.step_s);
  const bool isSoilAlone = run->stores().isIdle() && !run->fire() && plan.groundPipes.empty() && plan.waterLoops.empty();
  while (!run->isDone()) {
    if (stop && stop->load(std::memory_order_relaxed)) return std::nullopt;
    if (!run->advance(isSoilAlone && run->step() + kStride + fine < winter.size() ? kStride : 1)) return std::nullopt;
  }
  StateBefore state;
  const Solver& solver = run->solver();
  for (std::size_t i = 0; i < solver.network().nodes.size(); ++i) state.temperature_C.push_back(solver.temperature_C(static_cast<int>(i)));
  state.piles = run->stores().piles();
  return state;
}

bool startRun(Run& run, const Plan& plan, const Scene::Before* before, const std::atomic<bool>* stop) {
  constexpr double kSpinUp_s = 5.0 * 86400.0; // where nothing is to be run before the log
  if (!before || !before->winter) return run.beginTwice(kSpinUp_s);
  const auto state = runBefore(plan, *before, stop);
  if (stop && stop->load(std::memory_order_relaxed)) return true;
  return state && run.begin(*state);
}

} // namespace muffle
