// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/results/dampness.h"

#include <algorithm>

namespace muffle {

double leafTemperature_C(double air_C, double floor_C, double above_C) {
  constexpr double kAir_W_m2K = 2.0 * 3.0;
  constexpr double kRadiation_W_m2K = 4.6; // each face: 4 x 0.95 sigma T^3 near 5 degC
  return (kAir_W_m2K * air_C + kRadiation_W_m2K * (floor_C + above_C)) / (kAir_W_m2K + 2.0 * kRadiation_W_m2K);
}

void DampHours::add(bool damp, bool leafWet) {
  if (damp) m_sum.above90_h += m_step_h;
  if (leafWet) m_sum.leafWet_h += m_step_h;
  m_spell_h = damp || leafWet ? m_spell_h + m_step_h : 0.0;
  m_sum.longest_h = std::max(m_sum.longest_h, m_spell_h);
}

} // namespace muffle
