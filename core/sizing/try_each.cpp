// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sizing/try_each.h"

#include "core/parallel.h"

#include <algorithm>
#include <mutex>

namespace muffle {

std::optional<Problem> tryEach(const std::vector<Plan>& plans, const std::shared_ptr<const Weather>& weather, const SizingOptions& options,
                               const std::function<void(std::size_t, const Simulation&)>& take) {
  Stop stop(options.stop);
  std::mutex mutex;
  std::size_t done = 0;
  std::optional<Problem> problem;
  // the sun on one shape is worked out once
  const auto sound = std::find_if(plans.begin(), plans.end(), [](const Plan& p) { return check(p).empty(); });
  if (sound == plans.end()) return std::nullopt;
  const Scene usual = makeScene(weather, *sound);
  forEachIndex(plans.size(), options.threads, [&](std::size_t i) {
    if (stop || !check(plans[i]).empty()) return;
    const auto run = simulate(plans[i], usual.serves(plans[i], weather) ? usual : makeScene(weather, plans[i]), {.series = true, .stop = stop.flag()});
    const std::scoped_lock lock(mutex);
    if (!run) {
      if (!problem) problem = run.problem();
      stop.set();
      return;
    }
    take(i, *run);
    if (options.progress && !options.progress({.done = ++done, .of = plans.size(), .found = {}, .bound = {}})) {
      stop.set();
      if (!problem) problem = Problem{ProblemKind::cancelled, "", Message{"sizing.comparison-was-stopped"}, {}};
    }
  });
  if (!problem && stop) return Problem{ProblemKind::cancelled, "", Message{"sizing.comparison-was-stopped"}, {}};
  return problem;
}

} // namespace muffle
