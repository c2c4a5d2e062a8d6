// SPDX-License-Identifier: GPL-3.0-or-later
//
// Small measuring aids: what a flow, a tank, a meter or a heater's duty says of heat, each with the uncertainty of its readings carried
// through (law of propagation, ISO/IEC Guide 98-3 (GUM) 5.1.2, slopes by central differences).
//
//   const auto answer = work(*aidNamed("flow_from_power"), {{5200.0, 100.0}, {12.0, 0.4}});
#pragma once

#include "core/calc/quantity.h"

#include <string>
#include <vector>

namespace muffle {

struct AidInput {
  const char* key;
  QuantityKind kind;
  const char* typical; ///< as it might be written, with what such a reading is usually off by
  double least, most;  ///< SI, allowed
};

struct AidOutput {
  const char* key;
  QuantityKind kind;
};

struct Aid {
  const char* name;
  std::vector<AidInput> inputs;
  std::vector<AidOutput> outputs;
  /// One value an output; nothing where the inputs have no answer.
  std::vector<double> (*compute)(const std::vector<double>& inputs);
};

/// What it is for, its formula, and what one of its inputs or outputs is.
Message whatOf(const Aid& aid);
Message formulaOf(const Aid& aid);
Message whatOf(const Aid& aid, const char* key);

const std::vector<Aid>& aids();
/// Null if there is none of that name.
const Aid* aidNamed(std::string_view name);

/// `inputs` in the aid's order. Problem with the input's key if one is out of range, or if there is no answer.
Result<std::vector<Measured>> work(const Aid& aid, const std::vector<Measured>& inputs);

} // namespace muffle
