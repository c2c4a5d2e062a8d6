// SPDX-License-Identifier: GPL-3.0-or-later
//
// Measures of the grower's own: values that they give to fields of a plan, by the fields' places in its file (RFC 6901 pointers). Anything that a plan can say
// may be one, but prices, wishes, the list of measures itself, and the place.
#pragma once

#include "core/plan/plan.h"
#include "core/status.h"

namespace muffle {

/// The plan with its settings in force; a problem where a field is not there, may not be set, or the plan would be none.
Result<Plan> withSettings(const Plan& plan, const Measure& measure, double level);

/// What makes of one plan another, as settings: those that a measure of one's own would have. Only what it may set; things taken out of lists cannot be said
/// as settings, and are a problem.
Result<std::vector<Setting>> settingsBetween(const Plan& from, const Plan& to);

/// `now` with everything that a measure may set as it was in `before`; place, crops, prices, list and wishes stay.
Plan putBack(Plan now, const Plan& before);

/// Whether any setting begins with that pointer.
bool setsAny(const Measure& measure, std::string_view pointer);

} // namespace muffle
