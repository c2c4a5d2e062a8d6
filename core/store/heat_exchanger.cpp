// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/store/heat_exchanger.h"

#include <cmath>

namespace muffle {

double exchangerEffectiveness(FlowArrangement arrangement, double transferUnits, double capacityRatio) {
  const double N = transferUnits, r = capacityRatio;
  if (arrangement == FlowArrangement::parallel) return -std::expm1(-N * (1.0 + r)) / (1.0 + r);
  constexpr double kBalanced = 1e-9; // 1 - r, below which the limit is as good as the formula
  if (1.0 - r < kBalanced) return N / (1.0 + N);
  const double e = std::exp(-N * (1.0 - r));
  return (1.0 - e) / (1.0 - r * e);
}

double loopConductance_W_K(double flow_W_K, double ua_W_K) {
  return flow_W_K > 0.0 ? flow_W_K * exchangerEffectiveness(FlowArrangement::counterflow, ua_W_K / flow_W_K) : 0.0;
}

} // namespace muffle
