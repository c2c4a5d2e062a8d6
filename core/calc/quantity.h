// SPDX-License-Identifier: GPL-3.0-or-later
//
// A measured value as someone writes it, with its unit and, if known, how far off it may be.
//
//   const auto flow = readMeasured("310 +-15 L/h", QuantityKind::flow);   // 8.6e-5 m3/s, give or take 4e-6
#pragma once

#include "core/status.h"

#include <span>
#include <string>
#include <string_view>

namespace muffle {

enum class QuantityKind { temperature, difference, power, energy, flow, volume, time, share, conductance, heatPerVolume, number };

/// One way of writing a kind: SI value = written x factor + offset.
struct UnitOf {
  QuantityKind kind;
  const char* symbol;
  double factor;
  double offset = 0.0;
};

/// The units a kind may be written in; the first is taken where none is written, and shown.
std::span<const UnitOf> unitsOf(QuantityKind kind);

struct Measured {
  double value = 0.0;     ///< SI; temperatures in degC
  double uncertain = 0.0; ///< one standard uncertainty, SI, >= 0
};

/// "5.2 kW", "310 +-15 L/h", "21,5 C". The problem names the units allowed.
Result<Measured> readMeasured(std::string_view text, QuantityKind kind);
/// In the kind's first unit, with as many digits as its uncertainty bears: "310 ± 15 L/h".
std::string textOf(const Measured& measured, QuantityKind kind);

} // namespace muffle
