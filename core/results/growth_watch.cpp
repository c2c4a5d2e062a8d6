// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/results/growth_watch.h"

namespace muffle {

void GrowthWatch::see(const Run& run) {
  const Assembly& assembly = run.assembly();
  m_sum.add(run.solver().temperature_C(assembly.air), assembly.light >= 0 ? run.solver().signalNow(assembly.light) : 0.0);
}

} // namespace muffle
