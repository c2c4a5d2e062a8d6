// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/simulate/blanket.h"

namespace muffle {

std::vector<double> blanketClosed(const NightBlanket& blanket, const Winter& winter) {
  constexpr double kLightBand = 1.1, kColdBand_K = 1.0;
  std::vector<double> night(winter.size(), 0.0);
  for (const NightSpan& span : winter.nights)
    for (std::size_t i = span.from; i < span.to; ++i) night[i] = 1.0;
  if (blanket.rule == BlanketRule::night) return night;
  std::vector<double> closed(winter.size(), 0.0);
  bool shut = false;
  for (std::size_t i = 0; i < winter.size(); ++i) {
    if (blanket.rule == BlanketRule::dark)
      shut = winter.sun_W_m2[i] < blanket.sunBelow_W_m2 * (shut ? kLightBand : 1.0);
    else
      shut = night[i] > 0.0 && winter.outside_C[i] < blanket.outsideBelow_C + (shut ? kColdBand_K : 0.0);
    closed[i] = shut ? 1.0 : 0.0;
  }
  return closed;
}

} // namespace muffle
