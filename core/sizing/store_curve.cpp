// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sizing/store_curve.h"

#include "core/sizing/try_each.h"
#include "core/store/pile.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace muffle {
namespace {

constexpr std::array kShares{0.0, 0.25, 0.5, 0.75, 1.0, 1.5, 2.0};

} // namespace

double storeSize(const Plan& plan, const StoreRef& store) {
  switch (store.kind) {
  case StoreKind::barrels: return plan.barrels[store.index].count;
  case StoreKind::pipes: return plan.groundPipes[store.index].count;
  case StoreKind::compost: return blendOf(plan.compost[store.index]).wet_kg;
  case StoreKind::loop: return plan.waterLoops[store.index].litres;
  case StoreKind::cable: return plan.soilCables[store.index].length_m;
  case StoreKind::mass: return plan.mass[store.index].area_m2;
  }
  return 0.0;
}

Plan withStoreSize(const Plan& plan, const StoreRef& store, double size) {
  Plan p = plan;
  const double now = storeSize(plan, store);
  const auto whole = [&] { return static_cast<int>(std::lround(size)); };
  const bool none = store.kind == StoreKind::barrels || store.kind == StoreKind::pipes ? whole() < 1 : size <= 0.0;
  if (none) {
    removeStore(p, store.kind, store.index);
    return p;
  }
  switch (store.kind) {
  case StoreKind::barrels: p.barrels[store.index].count = whole(); break;
  case StoreKind::pipes: {
    GroundPipes& pipes = p.groundPipes[store.index];
    pipes.price *= size / now;
    pipes.count = whole();
    break;
  }
  case StoreKind::compost: {
    CompostPile& pile = p.compost[store.index];
    const double share = size / now;
    for (PileIngredient& part : pile.recipe) part.wet_kg *= share;
    pile.water_kg *= share;
    pile.price *= share;
    pile.hoursToBuild *= share;
    pile.width_m *= std::sqrt(share);
    pile.length_m *= std::sqrt(share);
    break;
  }
  case StoreKind::loop: p.waterLoops[store.index].litres = size; break;
  case StoreKind::cable: p.soilCables[store.index].length_m = size; break;
  case StoreKind::mass: p.mass[store.index].area_m2 = size; break;
  }
  return p;
}

Result<std::vector<StorePoint>> storeCurve(const Plan& plan, std::shared_ptr<const Weather> weather, const StoreRef& store, const SizingOptions& options) {
  const double now = storeSize(plan, store);
  std::vector<double> sizes;
  const bool counted = store.kind == StoreKind::barrels || store.kind == StoreKind::pipes;
  for (const double share : kShares) {
    const double size = counted ? std::round(share * now) : share * now;
    if (sizes.empty() || size > sizes.back()) sizes.push_back(size);
  }
  if (counted && std::find(sizes.begin(), sizes.end(), now + 1.0) == sizes.end()) sizes.insert(std::upper_bound(sizes.begin(), sizes.end(), now), now + 1.0);
  const auto refs = storesOf(plan);
  const auto place = static_cast<std::size_t>(std::find_if(refs.begin(), refs.end(), [&](const StoreRef& r) { return r.id == store.id; }) - refs.begin());
  std::vector<Plan> plans;
  for (const double size : sizes) plans.push_back(withStoreSize(plan, store, size));
  std::vector<StorePoint> points(sizes.size());
  const auto problem = tryEach(plans, weather, options, [&](std::size_t i, const Simulation& run) {
    const Summary& s = run.summary;
    points[i] = {sizes[i], s.held, s.nights, s.coldest_C, s.degreeHours_K_h, s.heater_kWh / s.winters};
    if (sizes[i] <= 0.0) return;
    points[i].given_kWh = s.stores[place].given_kWh / s.winters;
    points[i].running_kWh = s.stores[place].electricity_kWh / s.winters;
  });
  if (problem) return *problem;
  std::erase_if(points, [](const StorePoint& p) { return p.nights == 0; });
  return points;
}

} // namespace muffle
