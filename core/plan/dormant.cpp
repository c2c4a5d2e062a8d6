// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/dormant.h"

#include <algorithm>

namespace muffle {

void keepDormant(Plan& plan) {
  Setpoints& s = plan.setpoints;
  constexpr double kOverLine_K = 0.5, kApart_K = 1.0, kOpens_K = 4.0; // a thermostat and a vent that do not fight; from ajar to open
  s.nightBands.clear();
  s.dayBands.clear();
  s.swingAtMost_K.reset();
  s.night_C = s.day_C = s.hold_C + kOverLine_K;
  s.tooWarm_C = std::max(kWakes_C, s.night_C + kApart_K); // a line that is warmer wakes it by itself
  House& h = plan.house;
  const double airs_C = s.night_C + kApart_K;
  h.ventOpens_C = airs_C;
  h.ventFull_C = airs_C + kOpens_K;
  h.ventLock.outsideBelow_C = std::min(h.ventLock.outsideBelow_C, s.hold_C); // the cold outside is what it is aired with
  if (h.rollUp) {
    h.rollUp->opens_C = airs_C + kOpens_K / 2.0;
    h.rollUp->full_C = h.rollUp->opens_C + kOpens_K;
  }
  if (h.extractFan) h.extractFan->above_C = airs_C + kOpens_K;
  if (h.retractable) h.retractable->outsideAbove_C = std::min(h.retractable->outsideAbove_C, airs_C);
  if (h.bay && h.bay->setpoints.warmest_C() > h.ventOpens_C) h.ventOpens_C = h.bay->setpoints.warmest_C(), h.ventFull_C = h.ventOpens_C + kOpens_K;
}

} // namespace muffle
