// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/json/fields.h"
#include "core/plan/plan.h"

namespace muffle {

/// Reads and checks a plan; every problem has its JSON pointer.
Result<Plan> planFromJson(const Json& document);
Json planToJson(const Plan& plan);
/// JSON Schema (draft 7) of the format, made from the same description that reads it.
Json planSchema();

} // namespace muffle
