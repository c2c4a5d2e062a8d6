// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/store/pipe_run.h"

#include "core/network/vapour.h"

#include <fmt/format.h>

namespace muffle {

PipeRun addPipeRun(Network& network, const std::string& id, const PipeRunShape& shape, AirEnd from, AirEnd to, double start_C, const std::vector<int>& far,
                   int modulator) {
  constexpr double kStillFilm_W_m2K = 1.0; // of air that stands in the pipe
  PipeRun run;
  run.flow = pipeFlow(shape.pipe, shape.air, shape.flow_m3_s);
  const double slice_m = shape.count * shape.pipe.length_m / shape.slices; // of pipe in a slice
  const double capacity_W_K = shape.count * run.flow.capacity_W_K;
  const double mixed_W_K = shape.count * run.flow.mixedConductance_W_K(shape.slices);
  const double air_kg = shape.air.density_kg_m3 * kPi / 4.0 * shape.pipe.inner_m * shape.pipe.inner_m * slice_m;
  const bool moist = from.vapour >= 0;
  RadialSoilShape soil{slice_m, shape.pipe.outer_m / 2.0, shape.soilRadius_m, shape.soil_W_mK, shape.soilHeat_J_m3K, shape.rings};
  const auto blow = [&](int a, int b, double strength) { network.addAdvective(a, b, strength).modulator = modulator; };
  AirEnd before = from;
  for (int s = 0; s < shape.slices; ++s) {
    const std::string name = fmt::format("{} {}", id, s + 1);
    const int outermost = far.empty() ? -1 : far[std::min(static_cast<std::size_t>(s), far.size() - 1)];
    run.soil.push_back(addRadialSoil(network, name, soil, start_C, outermost));
    const int face = run.soil.back().face();
    AirEnd here{network.addNode(name + " air", air_kg * shape.air.heat_J_kgK, start_C), -1};
    network.addConductance(here.air, face, kStillFilm_W_m2K * kPi * shape.pipe.inner_m * slice_m);
    blow(before.air, here.air, capacity_W_K);
    Link& film = network.addNatural(here.air, face, 1.0, mixed_W_K, 0.0);
    film.modulator = modulator;
    if (moist) {
      here.vapour = network.addNode(name + " vapour", air_kg * kEvaporation_J_kg / 1000.0, network.nodes[static_cast<std::size_t>(from.vapour)].initial_C);
      film.vapour = here.vapour;
      blow(before.vapour, here.vapour, capacity_W_K * kLatentPerExchange);
    }
    run.air.push_back(here.air);
    before = here;
  }
  if (to.air >= 0) blow(before.air, to.air, capacity_W_K);
  if (to.vapour >= 0 && moist) blow(before.vapour, to.vapour, capacity_W_K * kLatentPerExchange);
  return run;
}

} // namespace muffle
