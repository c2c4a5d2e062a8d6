// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/constants.h"
#include "core/house/longwave.h"
#include "core/network/solver.h"
#include "tests/cases/adapters.h"

#include <cmath>

namespace muffle::cases {
namespace {

/// Films and bodies as the house's covers have them (core/assemble/covers.cpp): a body is two opaque faces with its resistance between.
Json coverStackLoss(const Json& in) {
  Network net;
  const double outdoor = num(in, "outdoor_C");
  const int out = net.addBoundary("out", Driver::constant(outdoor));
  const int sky = net.addBoundary("sky", Driver::constant(std::pow(num(in, "sky_downward_W_per_m2") / kStefanBoltzmann_W_m2K4, 0.25) - kZeroCelsius_K));
  const int floor = net.addBoundary("floor", Driver::constant(num(in, "floor_C")));
  const int air = net.addBoundary("air", Driver::constant(num(in, "inside_air_C")));
  std::vector<LongwaveSheet> sheets;
  std::vector<int> node, partner;
  struct Layer {
    int outer, inner;
  };
  std::vector<Layer> layers;
  for (const Json& layer : in.at("layers")) {
    const int first = net.addNode("layer", 0.0, outdoor);
    if (layer.at("kind") == "film") {
      sheets.push_back({num(layer, "emissivity"), num(layer, "ir_transmittance")});
      node.push_back(first);
      partner.push_back(-1);
      layers.push_back({first, first});
      continue;
    }
    const int second = net.addNode("inner", 0.0, outdoor);
    constexpr double kNone_m2K_W = 1e-9;
    net.addConductance(first, second, 1.0 / std::max(num(layer, "R_m2K_per_W"), kNone_m2K_W));
    sheets.push_back({num(layer, "emissivity_out"), 0.0});
    sheets.push_back({num(layer, "emissivity_in"), 0.0});
    node.insert(node.end(), {first, second});
    partner.insert(partner.end(), {second, first});
    layers.push_back({first, second});
  }
  const LongwaveAreas areas = longwaveAreas(1.0, num(in, "floor_emissivity"), {{1.0, sheets}});
  std::vector<int> surface(areas.between.size(), -1);
  surface[0] = floor;
  surface[static_cast<std::size_t>(areas.outside[0])] = sky;
  for (std::size_t s = 0; s < sheets.size(); ++s) surface[static_cast<std::size_t>(areas.sheets[0][s])] = node[s];
  std::vector<int> fromFloor;
  for (std::size_t i = 0; i < surface.size(); ++i)
    for (std::size_t j = i + 1; j < surface.size(); ++j) {
      const auto isBody = [&](int a, int b) {
        for (std::size_t s = 0; s < node.size(); ++s)
          if (node[s] == a && partner[s] == b) return true;
        return false;
      };
      if (isBody(surface[i], surface[j])) continue;
      net.addRadiative(surface[i], surface[j], areas.between[i][j]);
      if (i == 0) fromFloor.push_back(static_cast<int>(net.links.size()) - 1);
    }
  net.addConductance(layers.front().outer, out, num(in, "h_out"));
  for (std::size_t l = 1; l < layers.size(); ++l) net.addConductance(layers[l - 1].inner, layers[l].outer, in.at("h_gap")[l - 1].get<double>());
  const double film = num(in, "h_film_in");
  net.addConductance(air, layers.back().inner, film);
  auto solver = Solver::prepare(net, {.newtonTolerance_K = 1e-9});
  if (!solver || !solver->solveSteady()) return {};
  Json surfaces = Json::array();
  for (const int n : node) surfaces.push_back(solver->temperature_C(n));
  double loss = film * (num(in, "inside_air_C") - solver->temperature_C(layers.back().inner));
  for (const int link : fromFloor) loss += solver->linkFlow_W(link);
  return {{"surfaces_C", surfaces}, {"loss_W_per_m2", loss}, {"apparent_U_W_per_m2K", loss / (num(in, "inside_air_C") - outdoor)}};
}

} // namespace

void addBodies(Adapters& a) { a["cover_stack_loss"] = coverStackLoss; }

} // namespace muffle::cases
