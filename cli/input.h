// SPDX-License-Identifier: GPL-3.0-or-later
//
// What the verbs share: exit codes, how problems are told, and how plans and logs are read.
#pragma once

#include "core/json/fields.h"
#include "core/log/read.h"
#include "core/plan/plan.h"
#include "core/status.h"

#include <string>
#include <vector>

namespace muffle {

inline constexpr int kDone = 0;
inline constexpr int kUsage = 2;
inline constexpr int kBadInput = 3;

/// On standard error, each with the file it is about. kBadInput.
int report(const std::string& file, const Problems& problems);
/// One JSON document on standard output.
void print(const Json& json);
Result<Json> readJson(const std::string& path);
Result<Plan> readPlan(const std::string& path);

struct LogOptions {
  std::string file;
  std::string zone = "UTC";
  std::string unit;
  std::string separator;
  bool monthFirst = false;
  std::vector<std::string> columns; ///< "HEADING=ROLE"
};

/// Clock times without an offset are of this zone. What was taken for granted is told on standard error.
Result<ReadLog> readLogFile(const LogOptions& options, const std::string& zoneName);

} // namespace muffle
