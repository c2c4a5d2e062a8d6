// SPDX-License-Identifier: GPL-3.0-or-later
//
// The hours' balance P = UA (Ti - To) + C dTi/dt (core/fit/heat_balance.h) of a model: the readings of a log's nights with the air by the
// model in place of the sensor's. Measured and modelled house are then asked alike, whatever the two numbers stand for in a house with a
// soil of its own memory.
#pragma once

#include "core/fit/heat_balance.h"
#include "core/log/log.h"
#include "core/plan/plan.h"
#include "core/weather/weather.h"

namespace muffle {

/// air_C: by winter of the weather and step. Problem as of quickFit(), or without a heater in the log.
Result<HeatBalance> modelBalance(const std::vector<std::vector<float>>& air_C, const Weather& weather, const Log& log, const Site& site);

} // namespace muffle
