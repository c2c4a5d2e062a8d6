// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assemble/assemble.h"
#include "core/network/solver.h"
#include "core/simulate/simulate.h"

#include <array>

namespace muffle {

Result<HeatLoss> steadyLoss(const Plan& plan, double inside_C, double outside_C, double wind_m_s, double skyClear) {
  const Winter winter = steadyWinter(plan.site, outside_C, wind_m_s, skyClear);
  const SunOnHouse dark = sunOnHouse(plan.house.shape, winter); // zero: no sun in this weather
  Plan still = plan;
  still.site.groundAmplitude_K = 0.0;
  still.heaters.clear();
  if (still.house.roofVoid && still.house.roofVoid->fan) still.house.roofVoid->fan.reset();
  if (still.house.blanket && still.house.blanket->rule != BlanketRule::bright) still.house.blanket->rule = BlanketRule::night;
  still.house.rollUp.reset();
  still.house.extractFan.reset();
  still.house.retractable.reset();
  still.house.ventOpens_C = 90.0;
  still.house.ventFull_C = 99.0;
  Assembly a = assemble(still, winter, dark, inside_C);
  a.network.nodes[static_cast<std::size_t>(a.air)].boundary = Driver::constant(inside_C);
  if (const auto bay = otherRoom(still, RoomKind::bay)) // house and bay at one temperature
    a.network.nodes[static_cast<std::size_t>(a.rooms[*bay].air)].boundary = Driver::constant(inside_C);
  auto solver = Solver::prepare(a.network);
  if (!solver) return solver.problems();
  if (!solver->solveSteady()) return Problem{ProblemKind::noSolution, "", Message{"season.no-steady-state-was"}, Message{"season.check-sizes"}};
  HeatLoss loss;
  loss.difference_K = inside_C - outside_C;
  std::array<double, kLossPathCount> watts{};
  std::array<bool, kLossPathCount> present{};
  for (const auto& [link, part] : a.losses) {
    watts[static_cast<std::size_t>(part)] += solver->linkFlow_W(link);
    present[static_cast<std::size_t>(part)] = true;
  }
  for (int p = 0; p < kLossPathCount; ++p) {
    if (!present[static_cast<std::size_t>(p)] || static_cast<LossPath>(p) == LossPath::vents) continue;
    loss.parts.push_back({static_cast<LossPath>(p), watts[static_cast<std::size_t>(p)]});
    loss.total_W += watts[static_cast<std::size_t>(p)];
  }
  return loss;
}

} // namespace muffle
