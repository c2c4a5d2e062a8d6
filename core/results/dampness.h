// SPDX-License-Identifier: GPL-3.0-or-later
//
// How damp the air of a room is, hour by hour, and whether its leaves are wet.
#pragma once

#include "core/results/results.h"

namespace muffle {

/// Rot and mildew thrive from here on.
inline constexpr double kDampHumidity = 0.90;

/// Counts a room's hours, one step after another.
class DampHours {
public:
  explicit DampHours(double step_s) : m_step_h(step_s / 3600.0) {}
  void add(bool damp, bool leafWet);
  [[nodiscard]] const Dampness& sum() const { return m_sum; }

private:
  double m_step_h;
  double m_spell_h = 0.0;
  Dampness m_sum;
};

} // namespace muffle
