// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assemble/soil_under.h"

#include "core/ground/soil.h"
#include "core/material/materials.h"

#include <fmt/format.h>

#include <numeric>

namespace muffle {
namespace {

const std::vector<double> kLayers_m{0.02, 0.04, 0.08, 0.14, 0.22, 0.30, 0.40};
constexpr std::size_t kEdgeLayer = 3; // below the third, at 0.14 m

const FloorCover* coverOf(const Floor& floor) { return floor.cover.empty() ? nullptr : findFloorCover(floor.cover); }

/// What lies on the soil and the soil, from a floor's surface to a node below.
Solid underFloor(const std::string& id, const Floor& floor, int surface, int below, double area_m2, const std::vector<double>& thickness_m, double start_C,
                 double below_C, double factor) {
  Solid solid{.id = id, .area_m2 = area_m2, .from = surface, .to = below, .initial_C = start_C};
  solid.initialFar_C = below_C;
  if (const FloorCover* cover = coverOf(floor)) solid.layers.push_back({floor.cover_m, cover->conductivity_W_mK, 1000.0, cover->heat_J_m3K / 1000.0, 2});
  for (const SolidLayer& layer : soilLayers(floor, thickness_m, factor)) solid.layers.push_back(layer);
  return solid;
}

} // namespace

UndisturbedGround undisturbedGround(const Plan& plan) {
  const SoilHeat soil = soilHeat(*findSoilMaterial(plan.house.floor.soil));
  return {plan.site.groundMean_C, plan.site.groundAmplitude_K, plan.site.coldestDay(), soil.conductivity_W_mK, soil.heat_J_m3K};
}

double soilColumnDepth_m() { return std::accumulate(kLayers_m.begin(), kLayers_m.end(), 0.0); }

std::vector<SolidLayer> soilLayers(const Floor& floor, const std::vector<double>& thickness_m, double factor) {
  const SoilHeat soil = soilHeat(*findSoilMaterial(floor.soil), floor.moisture_kg_kg);
  std::vector<SolidLayer> layers;
  for (const double d : thickness_m) {
    SolidLayer layer{d, factor * soil.conductivity_W_mK, 1000.0, soil.heat_J_m3K / 1000.0, 1};
    layer.latent_J_m3 = soil.latent_J_m3;
    layer.frozenConductivity_W_mK = factor * soil.frozenConductivity_W_mK;
    layer.frozenHeat_J_m3K = soil.frozenHeat_J_m3K;
    layer.freezingInterval_K = soil.freezingInterval_K;
    layers.push_back(layer);
  }
  return layers;
}

std::vector<double> layersDownTo(double depth_m) {
  constexpr double kSliver_m = 0.03;
  std::vector<double> layers;
  double reached = 0.0;
  for (std::size_t l = 0; reached < depth_m - kSliver_m; ++l) {
    const double next = l < kLayers_m.size() ? kLayers_m[l] : kLayers_m.back();
    layers.push_back(std::min(next, depth_m - reached));
    reached += layers.back();
  }
  if (layers.empty()) layers.push_back(0.0);
  layers.back() += depth_m - reached;
  return layers;
}

void addSoilOver(Network& net, const std::string& id, const Floor& floor, int surface, int below, double area_m2, double depth_m, double start_C,
                 double below_C, double factor) {
  net.addSolid(underFloor(id, floor, surface, below, area_m2, layersDownTo(depth_m), start_C, below_C, factor));
}

SoilColumn addSoilColumn(Network& net, const std::string& id, const Floor& floor, int surface, int deep, double area_m2, double start_C, double deep_C,
                         double factor) {
  const FloorCover* cover = coverOf(floor);
  net.addSolid(underFloor(id, floor, surface, deep, area_m2, kLayers_m, start_C, deep_C, factor));
  const std::size_t first = cover ? 1 : 0;
  const auto under = [&](std::size_t layer) { return net.find(fmt::format("{}:{}", id, layer + first)); };
  SoilColumn column;
  column.edge = under(kEdgeLayer);
  double depth = cover ? floor.cover_m : 0.0;
  for (std::size_t l = 0; l < kLayers_m.size(); ++l) {
    column.node.push_back(under(l));
    column.depth_m.push_back(depth);
    if (l > 1 || (cover && l > 0)) column.below.push_back(under(l));
    depth += kLayers_m[l];
  }
  return column;
}

double floorEvaporation(const Floor& floor) {
  const FloorCover* cover = coverOf(floor);
  return cover ? cover->evaporation : 1.0;
}

} // namespace muffle
