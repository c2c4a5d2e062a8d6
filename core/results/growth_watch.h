// SPDX-License-Identifier: GPL-3.0-or-later
//
// What grows in the house's air and light, for those who need no series of them.
#pragma once

#include "core/results/growth.h"
#include "core/run/run.h"

namespace muffle {

class GrowthWatch final : public Observer {
public:
  GrowthWatch(double step_s, const GrowthResponse& crop) : m_sum(step_s, crop) {}
  void see(const Run& run) override;
  [[nodiscard]] const Growth& ofWholeDays() const { return m_sum.ofWholeDays(); }

private:
  GrowthSum m_sum;
};

} // namespace muffle
