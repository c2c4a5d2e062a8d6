// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/store_list.h"

#include "core/plan/heaters.h"
#include "core/plan/names.h"

#include <fmt/format.h>

namespace muffle {

std::vector<StoreRef> storesOf(const Plan& plan) {
  std::vector<StoreRef> all;
  const auto add = [&all](StoreKind kind, const char* id, const auto& stores) {
    for (std::size_t i = 0; i < stores.size(); ++i) all.push_back({kind, i, fmt::format("{}:{}", id, i + 1), nameOf(stores[i])});
  };
  add(StoreKind::barrels, "barrels", plan.barrels);
  add(StoreKind::pipes, "pipes", plan.groundPipes);
  add(StoreKind::compost, "compost", plan.compost);
  add(StoreKind::loop, "loop", plan.waterLoops);
  add(StoreKind::cable, "cable", plan.soilCables);
  add(StoreKind::mass, "mass", plan.mass);
  return all;
}

void removeStore(Plan& plan, StoreKind kind, std::size_t index) {
  const auto drop = [index](auto& list) { list.erase(list.begin() + static_cast<std::ptrdiff_t>(index)); };
  switch (kind) {
  case StoreKind::barrels: return drop(plan.barrels);
  case StoreKind::pipes: return drop(plan.groundPipes);
  case StoreKind::compost: return drop(plan.compost);
  case StoreKind::cable: return drop(plan.soilCables);
  case StoreKind::mass: drop(plan.mass); return removePlace(plan, {HeaterPlace::Of::mass, index});
  case StoreKind::loop: break;
  }
  drop(plan.waterLoops);
  removePlace(plan, {HeaterPlace::Of::tank, index});
  const auto tank = static_cast<int>(index);
  for (CompostPile& pile : plan.compost) {
    if (pile.coilInto == CoilInto::tank && pile.tank == tank) pile.coilInto = CoilInto::house;
    if (pile.tank >= tank) pile.tank = std::max(pile.tank - 1, 0);
  }
}

bool warmsTank(const Plan& plan, const StoreRef& store) {
  return store.kind == StoreKind::compost && store.index < plan.compost.size() && plan.compost[store.index].place == PilePlace::mound &&
         plan.compost[store.index].coilInto == CoilInto::tank;
}

std::vector<StoreTrace> storeTraces(const Plan& plan, const StoreRef& store) {
  switch (store.kind) {
  case StoreKind::barrels:
    if (plan.barrels[store.index].layered) return {StoreTrace::content, StoreTrace::upper};
    return {StoreTrace::content};
  case StoreKind::loop:
    if (plan.waterLoops[store.index].radiator_l > 0.0) return {StoreTrace::content, StoreTrace::radiator};
    return {StoreTrace::content};
  case StoreKind::mass: return {StoreTrace::middle, StoreTrace::surface};
  case StoreKind::pipes: return {StoreTrace::outlet, StoreTrace::soilFirst, StoreTrace::soilLast, StoreTrace::soilAbout};
  case StoreKind::cable: return {StoreTrace::cableSoil, StoreTrace::root, StoreTrace::leafAir};
  case StoreKind::compost: break;
  }
  switch (plan.compost[store.index].place) {
  case PilePlace::hotBed: return {StoreTrace::core, StoreTrace::root, StoreTrace::surface};
  case PilePlace::chamber: return {StoreTrace::core, StoreTrace::chamberAir};
  case PilePlace::mound: break;
  }
  return {StoreTrace::core};
}

const char* storeTraceName(StoreTrace trace) {
  static const char* const kNames[] = {"content", "outlet",  "soil at inlet", "soil at outlet", "soil between", "core",   "root",
                                       "surface", "chamber", "soil at cable", "leaf air",       "upper half",   "middle", "radiator"};
  return kNames[static_cast<int>(trace)];
}

} // namespace muffle
