// SPDX-License-Identifier: GPL-3.0-or-later
//
// Damp hours of every room, and the leaves of the house.
#pragma once

#include "core/air/saturation_curve.h"
#include "core/results/dampness.h"
#include "core/results/results.h"
#include "core/run/run.h"

#include <cstdint>

namespace muffle {

class DampWatch final : public Observer {
public:
  DampWatch(const Assembly& assembly, const Winter& winter, double pressure_Pa);
  void see(const Run& run) override;

  static constexpr std::uint8_t kDamp = 1, kWet = 2;
  [[nodiscard]] const std::vector<std::uint8_t>& steps() const { return m_steps; } ///< kDamp and kWet
  [[nodiscard]] double leaf_C() const { return m_leaf_C; }                         ///< now, of one in the house
  void tell(WinterResult& result) const;

private:
  [[nodiscard]] bool isDamp(double air_C, double vapour_g_kg) const;

  SaturationCurve m_saturated;
  DampHours m_house;
  std::vector<DampHours> m_rooms;
  std::vector<std::uint8_t> m_steps;
  double m_leaf_C = 0.0;
};

} // namespace muffle
