// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/results/dampness.h"

#include <algorithm>

namespace muffle {

void DampHours::add(bool damp, bool leafWet) {
  if (damp) m_sum.above90_h += m_step_h;
  if (leafWet) m_sum.leafWet_h += m_step_h;
  m_spell_h = damp || leafWet ? m_spell_h + m_step_h : 0.0;
  m_sum.longest_h = std::max(m_sum.longest_h, m_spell_h);
}

} // namespace muffle
