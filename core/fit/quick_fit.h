// SPDX-License-Identifier: GPL-3.0-or-later
//
// A house measured from its log without any model: each night's watts against its lift, the balance of loss and storage over the
// dark hours, and how fast it cools where no heater ran.
#pragma once

#include "core/fit/heat_balance.h"
#include "core/log/nights.h"

#include <optional>
#include <vector>

namespace muffle {

struct QuickNight {
  Date date;
  double inside_C = 0.0;
  double lift_K = 0.0;   ///< mean of inside less outside, from three hours after sunset to sunrise
  double heater_W = 0.0; ///< mean
  double wind_m_s = 0.0;
};

struct QuickFit {
  std::vector<QuickNight> heated;     ///< nights with heater, inside and outside throughout, the heater on
  std::optional<RobustLine> line;     ///< of their watts on lift; nothing where its interval reaches zero
  std::optional<HeatBalance> balance; ///< by dark hours; the same
  std::vector<double> timeConstant_h; ///< of nights without heat that cooled through
  [[nodiscard]] double UA_W_K() const { return line ? line->slope : balance ? balance->UA_W_K : 0.0; }
  [[nodiscard]] double standardError_W_K() const { return line ? (line->high - line->low) / (2.0 * 1.96) : balance ? balance->seUA_W_K : 0.0; }
};

/// Widens the line's interval where neighbouring nights are off alike; in the nights' order, with ten pairs of neighbours or more.
void widenForAlikeNights(RobustLine& line, const std::vector<QuickNight>& nights);

/// Problem if the log has no inside or outside temperature, or nothing of it can be used.
Result<QuickFit> quickFit(const Log& log, const std::vector<Night>& nights);

} // namespace muffle
