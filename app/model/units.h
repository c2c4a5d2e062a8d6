// SPDX-License-Identifier: GPL-3.0-or-later
//
// How numbers are shown and read in the window. Inside everything is SI and degC.
#pragma once

#include <QString>

#include <optional>

namespace muffle {

enum class Quantity {
  temperature,
  difference,
  length,
  thickness,
  angle,
  uValue,
  area,
  volume,
  power,
  energy,
  water,
  degreeHours,
  money,
  hours,
  count,
  airChanges,
  share,
  speed,
  price,
  areaPrice,
  airFlow,     ///< m3/h
  leakArea,    ///< cm2
  resistance,  ///< m2K/W
  areaHeat,    ///< J/m2K
  mass,        ///< kg
  factor,      ///< plain, with decimals
  waterFlow,   ///< L/min
  conductance, ///< W/K
  days,
  elevation ///< m above the sea, whole ones
};

struct Units {
  bool fahrenheit = false;
  bool feet = false;
  bool operator==(const Units&) const = default;

  /// "3.4 °C", "11 ft 2 in", "16.8 kW".
  [[nodiscard]] QString text(Quantity quantity, double si) const;
  /// The number alone, for labels that carry the unit once.
  [[nodiscard]] QString number(Quantity quantity, double si) const;
  [[nodiscard]] QString unit(Quantity quantity) const;
  [[nodiscard]] double show(Quantity quantity, double si) const;
  [[nodiscard]] double toSi(Quantity quantity, double shown) const;
  /// Reads what someone typed, with or without a unit: "7 ft 6", "2.3 m", "12 F", "3,4". Nothing if it cannot be read.
  [[nodiscard]] std::optional<double> parse(Quantity quantity, const QString& typed) const;
};

} // namespace muffle
