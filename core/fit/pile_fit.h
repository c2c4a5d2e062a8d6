// SPDX-License-Identifier: GPL-3.0-or-later
//
// A pile put right by its own log: its rate is moved until its temperature in the plan's season agrees with the readings of a
// thermometer in it (role "store", id "compost" or "compost1", "compost2", ...). Golden section on the logarithm of the factor, whose
// rms error has one valley between a pile that never lights and one that is spent too soon.
#pragma once

#include "core/log/log.h"
#include "core/plan/plan.h"
#include "core/weather/weather.h"

#include <atomic>
#include <functional>
#include <memory>

namespace muffle {

/// The channel in a pile; nullptr if the log has none.
const Channel* pileChannel(const Log& log, std::size_t pile);

struct PileFit {
  double k20Factor = 1.0;               ///< to put in place of the pile's
  double before_K = 0.0, after_K = 0.0; ///< rms error of its temperature
  std::size_t readings = 0;
};
/// Problem if there are fewer than a day's readings while the pile stands. progress(done, of) false stops; `stop` does so amid a run.
Result<PileFit> fitPile(const Plan& plan, const Log& log, const std::shared_ptr<const Weather>& weather, std::size_t pile,
                        const std::function<bool(std::size_t, std::size_t)>& progress = {}, const std::atomic<bool>* stop = nullptr);

} // namespace muffle
