// SPDX-License-Identifier: GPL-3.0-or-later
//
// Six January days between -8 and 2 degC with outside temperature alone, for tests of houses in frost.
#pragma once

#include "core/constants.h"
#include "core/log/log.h"
#include "core/weather/weather.h"

#include <cmath>
#include <memory>

namespace muffle::testing {

inline std::shared_ptr<const Weather> frost(const Site& site) {
  Log log;
  Channel outside{.name = "outside", .role = Role::outside, .id = "", .statistic = Statistic::moment, .unitIn = "C", .unitWhy = {}, .raw = {}, .flag = {}};
  for (int i = 0; i < 6 * 144; ++i) {
    log.time.push_back(daysSinceEpoch({2031, 1, 15}) * 86400 + 600 * i);
    outside.raw.push_back(static_cast<float>(-3.0 + 5.0 * std::cos(kPi * (i / 6.0 - 14.0) / 12.0)));
  }
  outside.flag.assign(outside.raw.size(), 0);
  log.channels.push_back(outside);
  return std::make_shared<const Weather>(*weatherFromLog(log, site));
}

/// Six metres by twelve of plain film, unheated.
inline Plan filmTunnel() {
  Plan p;
  p.site.place = {48.0, 0.0, 100.0};
  p.house.shape = {ShapeKind::arch, 6, 12, 0.5, 3.0, 90};
  p.setpoints.hold_C = 0.0;
  return p;
}

} // namespace muffle::testing
