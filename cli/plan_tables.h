// SPDX-License-Identifier: GPL-3.0-or-later
//
// docs/plan-format.md, from the plan's JSON Schema.
#pragma once

#include "core/json/fields.h"

#include <string>

namespace muffle {

std::string planTables(const Json& schema);

} // namespace muffle
