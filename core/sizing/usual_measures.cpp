// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sizing/usual_measures.h"

#include "core/plan/measure_table.h"
#include "core/simulate/simulate.h"

#include <algorithm>
#include <cmath>

namespace muffle {

Measure usualMeasure(MeasureKind kind) { return rowOf(kind).usual; }

std::vector<Measure> changesToTry(const Plan& plan) {
  std::vector<Measure> changes;
  for (const MeasureRow& row : measureTable())
    for (Measure& m : row.suggest(plan, row.usual)) {
      m.isUsualPrice = row.pricedBy != PricedBy::nothing;
      const auto own = std::find_if(plan.measures.begin(), plan.measures.end(), [&](const Measure& o) { return o.kind == m.kind && o.material == m.material; });
      if (own != plan.measures.end()) {
        m.price = own->price;
        m.priceSpread = own->priceSpread;
        m.isUsualPrice = own->isUsualPrice;
        m.life_years = own->life_years;
        m.hoursPerWinter = own->hoursPerWinter;
        m.hoursPerNight = own->hoursPerNight;
      }
      changes.push_back(std::move(m));
    }
  return changes;
}

Result<double> usualHeater_W(const Plan& plan, double outside_C) {
  constexpr double kCalm_m_s = 1.0, kClear = 1.0, kStep_W = 500.0;
  const auto loss = steadyLoss(plan, plan.setpoints.night_C, outside_C, kCalm_m_s, kClear);
  if (!loss) return loss.problems();
  return std::max(1.0, std::ceil(loss->total_W / kStep_W)) * kStep_W;
}

std::vector<Measure> measuresToSearch(const Plan& plan, double heater_W) {
  std::vector<Measure> list;
  for (Measure& m : changesToTry(plan)) { // one of a kind, and no hardier crop: that is another question
    const bool isFirst = list.empty() || list.back().kind != m.kind;
    if (isFirst && rowOf(m.kind).isUsual) list.push_back(std::move(m));
  }
  for (Measure& m : list) {
    constexpr double kUsualSpread = 0.3; // as quotations differ from shop to shop
    if (m.isUsualPrice) m.priceSpread = kUsualSpread;
    if (m.kind == MeasureKind::barrels) m.levels.push_back(2.0 * m.levels.front());
    if (m.kind != MeasureKind::heater) continue;
    constexpr double kStep_W = 500.0;
    m.levels.clear();
    for (const double share : {0.5, 0.75, 1.0, 1.25}) {
      const double power_W = std::max(1.0, std::round(share * heater_W / kStep_W)) * kStep_W;
      if (m.levels.empty() || power_W > m.levels.back()) m.levels.push_back(power_W);
    }
  }
  return list;
}

} // namespace muffle
