// SPDX-License-Identifier: GPL-3.0-or-later
//
// Plans of older forms, brought up to the present one.
#pragma once

#include "core/json/fields.h"

#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace muffle {

inline constexpr const char* kPlanSchema = "muffle-plan-2";

struct UpgradedPlan {
  Json document;
  std::vector<std::pair<std::string, std::string>> moved; ///< JSON pointers: where a value stands now, and where it stood

  /// What is said of a place, of the place where the reader knows it.
  void tellWhere(Problems& problems) const;
};

/// "muffle-plan-1" had one heater of the house, one in a bay and one on each tank, each with the thing it heats; now they are one list.
/// Nothing for a document of any other form.
std::optional<UpgradedPlan> upgradePlan(const Json& document);

} // namespace muffle
