// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assemble/blanket.h"

namespace muffle {
namespace {

std::vector<double> byTheClock(const NightBlanket& blanket, const Winter& winter, const TimeZone& zone) {
  const bool overMidnight = blanket.closesAt_h > blanket.opensAt_h;
  std::vector<double> closed(winter.size(), 0.0);
  LocalClock clock(zone);
  for (std::size_t i = 0; i < closed.size(); ++i) {
    const double hour = clock.hour(winter.time(i));
    const bool after = hour >= blanket.closesAt_h, before = hour < blanket.opensAt_h;
    closed[i] = (overMidnight ? after || before : after && before) ? 1.0 : 0.0;
  }
  return closed;
}

} // namespace

std::vector<std::size_t> drawnAt(const std::vector<double>& closed) {
  std::vector<std::size_t> steps;
  for (std::size_t i = 0; i < closed.size(); ++i)
    if (closed[i] > 0.0 && (i == 0 || closed[i - 1] == 0.0)) steps.push_back(i);
  return steps;
}

std::vector<double> blanketClosed(const NightBlanket& blanket, const Winter& winter, const TimeZone& zone) {
  if (blanket.rule == BlanketRule::clock) return byTheClock(blanket, winter, zone);
  constexpr double kLightBand = 1.1, kColdBand_K = 1.0;
  std::vector<double> night = nightOf(winter);
  if (blanket.rule == BlanketRule::night || blanket.rule == BlanketRule::inside) return night;
  std::vector<double> closed(winter.size(), 0.0);
  bool shut = false;
  for (std::size_t i = 0; i < winter.size(); ++i) {
    if (blanket.rule == BlanketRule::bright)
      shut = winter.sun_W_m2[i] > blanket.sunAbove_W_m2 / (shut ? kLightBand : 1.0);
    else if (blanket.rule == BlanketRule::dark)
      shut = winter.sun_W_m2[i] < blanket.sunBelow_W_m2 * (shut ? kLightBand : 1.0);
    else
      shut = night[i] > 0.0 && winter.outside_C[i] < blanket.outsideBelow_C + (shut ? kColdBand_K : 0.0);
    closed[i] = shut ? 1.0 : 0.0;
  }
  return closed;
}

} // namespace muffle
