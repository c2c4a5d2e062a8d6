// SPDX-License-Identifier: GPL-3.0-or-later
//
// What each verb does, with what it prints; the answer is the exit code. The command line itself is taken apart in main.cpp.
#pragma once

#include "cli/input.h"

#include <optional>
#include <string>
#include <vector>

namespace muffle {

// plans: plan_verbs.cpp
int runNetworkVerb(const std::string& file, const std::string& out, bool json);
int runCheck(const std::string& file, bool json);
/// Temperatures in degC, wind in m/s, clearness of the sky 0..1.
int runLoss(const std::string& file, double inside_C, double outside_C, double wind_m_s, double clear, bool json);
int runSimulate(const std::string& planFile, const LogOptions& log, const std::string& out, bool json);
struct SizeOptions {
  int threads = 0;
  bool exhaustive = false;
  std::optional<double> time_s = {};
  std::string holds = {}; ///< what counts as holding, in place of the plan's own
  std::string limit = {}; ///< limits beside the plan's own
};
// size_verb.cpp
int runSize(const std::string& planFile, const LogOptions& log, bool json, const SizeOptions& how);

// failures: failure_verbs.cpp
struct FailureAsked {
  std::string what = "mains";
  std::string from; ///< HH:MM by the clock of the place; empty: 02:00
  double for_h = 6.0;
  std::string night; ///< the date of its evening; empty: the coldest outside
  bool worst = false;
  std::vector<double> lines_C; ///< beside the plan's own
};
int runFail(const std::string& planFile, const LogOptions& log, const FailureAsked& asked, bool json);

// logs: log_verbs.cpp
/// What else may be asked of a log's nights.
struct NightQuestions {
  std::optional<double> line_C, growingBase_C;
  std::vector<double> annualLow_C;
};

/// The site as far as it was said.
struct GivenPlace {
  std::optional<double> latitude_deg, longitude_deg;
};

int runNights(const LogOptions& log, const GivenPlace& given, const NightQuestions& asked, bool json);
/// Writes the calibrated plan where `out` names a file.
int runFit(const std::string& planFile, const LogOptions& log, const std::string& out, bool json);

// books: book_verbs.cpp
int runExport(const std::string& path, const std::string& folder);
int runImport(const std::string& folder, const std::string& path);
int runSalvage(const std::string& path, const std::string& newBook, bool json);

// tables and measuring aids: table_verbs.cpp
int runMaterials();
int runCrops();
int listAids(bool json);
/// `given` are "key=value" with any unit.
int runCalc(const std::string& name, const std::vector<std::string>& given, bool json);

} // namespace muffle
