// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/results/night_judge.h"

#include <algorithm>

namespace muffle {

std::vector<NightResult> judgeNights(const Plan& plan, const Winter& winter, std::size_t winterIndex, const HouseWatch& house, const DampWatch& damp,
                                     std::size_t last) {
  std::vector<NightResult> nights;
  const double line = plan.setpoints.hold_C;
  const auto others = otherRooms(plan);
  for (const NightSpan& span : winter.nights) {
    if (span.to > last) break;
    NightResult night{span.date, winterIndex, span.from, span.to, span.assessable};
    night.coldest_C = night.outsideLow_C = 1e9;
    for (std::size_t i = span.from; i <= span.to; ++i) {
      const double air = static_cast<double>(house.air_C()[i] - (house.below_K().empty() ? 0.0F : house.below_K()[i]));
      if (air < night.coldest_C) {
        night.coldest_C = air;
        night.coldestAt = winter.time(i);
      }
      night.outsideLow_C = std::min(night.outsideLow_C, winter.outside_C[i]);
      night.degreeHours_K_h += std::max(0.0, line - air) * winter.step_s / 3600.0;
      night.heater_kWh += static_cast<double>(house.heater_W()[i]) * winter.step_s / 3.6e6;
      if (damp.steps()[i] & DampWatch::kDamp) night.damp_h += winter.step_s / 3600.0;
      if (damp.steps()[i] & DampWatch::kWet) night.leafWet_h += winter.step_s / 3600.0;
    }
    night.held = night.coldest_C >= line - kHoldTolerance_K;
    for (std::size_t r = 0; r < house.rooms_C().size(); ++r) {
      double coldest_C = 1e9;
      for (std::size_t i = span.from; i <= span.to; ++i) {
        const double air = static_cast<double>(house.rooms_C()[r][i]);
        coldest_C = std::min(coldest_C, air);
        if (others[r].isJudged) night.degreeHours_K_h += std::max(0.0, *others[r].hold_C - air) * winter.step_s / 3600.0;
      }
      night.roomColdest_C.push_back(coldest_C);
      night.held = night.held && (!others[r].isJudged || coldest_C >= *others[r].hold_C - kHoldTolerance_K);
    }
    nights.push_back(night);
  }
  return nights;
}

} // namespace muffle
