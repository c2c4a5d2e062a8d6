// SPDX-License-Identifier: GPL-3.0-or-later
//
// Core values as the JSON that scripts read. docs/cli.md lists the keys.
#pragma once

#include "core/calc/aids.h"
#include "core/fit/calibrate.h"
#include "core/fit/explain.h"
#include "core/fit/house_loss.h"
#include "core/log/nights.h"
#include "core/log/read.h"
#include "core/plan/plan_json.h"
#include "core/simulate/simulate.h"
#include "core/sizing/sizing.h"

namespace muffle {

/// How cold a night to design for: the coldest logged, and what `annualLow_C` (may be empty) says of rarer ones.
Json designAnswer(const std::vector<Night>& nights, const std::vector<double>& annualLow_C);
/// Growing degree-hours and days above a base in every room that is logged.
Json growingAnswer(const Log& log, double base_C, const TimeZone& zone);
Json nightsAnswer(const ReadLog& read, const std::vector<LogProblem>& problems, const std::vector<Night>& nights, const TimeZone& zone);
Json lossAnswer(const HeatLoss& loss);
Json simulateAnswer(const Plan& plan, const Simulation& run, const Weather& weather, const TimeZone& zone);
/// Every step as CSV: time, outside, sky, sun, wind, air, floor, barrels, heater, loss by part.
std::string simulateSeries(const Plan& plan, const Simulation& run, const Weather& weather, const TimeZone& zone);
/// A winter's, by what it is for.
Json costAnswer(const Cost& cost, const Prices& prices);
/// What goes with the things of a plan: [{id, text, of}].
Json cautionsAnswer(const Plan& plan);

Json fitAnswer(const QuickFit& quick, const std::optional<MeasuredAgainstParts>& parts, const Calibrated& full, const std::optional<HouseLoss>& together);

Json aidsAnswer();
Json aidAnswer(const Aid& aid, const std::vector<Measured>& inputs, const std::vector<Measured>& answer);

} // namespace muffle
