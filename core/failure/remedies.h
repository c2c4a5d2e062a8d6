// SPDX-License-Identifier: GPL-3.0-or-later
//
// What would have carried a house over a failure: found by running the same failure with it.
#pragma once

#include "core/failure/failure.h"

#include <optional>

namespace muffle {

struct Remedies {
  std::optional<double> backup_W; ///< a heater that needs no mains and is not the one that fails, set to the line
  std::optional<double> water_l;  ///< more water in dark barrels, at the temperatures that the season has brought it to; not for a bay
  std::optional<double> warmer_K; ///< the house held so much warmer, day and night
};

/// That the first of the question's lines is not crossed by the failure at that moment. Each nothing where none within bounds would do: 100 kW, 20 000 litres,
/// 15 K; all nothing where the line holds already.
Result<Remedies> whatWouldHold(const Plan& plan, const Scene& scene, const FailureQuestion& question, std::size_t winter, std::size_t step,
                               const std::atomic<bool>* stop = nullptr);

} // namespace muffle
