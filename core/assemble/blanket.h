// SPDX-License-Identifier: GPL-3.0-or-later
//
// When a night blanket is drawn, by its rule, over a winter's weather.
#pragma once

#include "core/calendar.h"
#include "core/plan/plan.h"
#include "core/weather/weather.h"

#include <vector>

namespace muffle {

/// 1 for each step (from i to i + 1) that the blanket is closed, else 0. By light, sun or cold it closes at the threshold and opens
/// only a tenth of the light, or a kelvin, beyond it, so that it does not flutter; the first step of a winter is open.
/// The zone serves the rule by the clock. By the rule `inside` these are the steps in which it may be closed: whether it is
/// shows in the run.
std::vector<double> blanketClosed(const NightBlanket& blanket, const Winter& winter, const TimeZone& zone);

/// The steps at which it is closed over the winter.
std::vector<std::size_t> drawnAt(const std::vector<double>& closed);

} // namespace muffle
