// SPDX-License-Identifier: GPL-3.0-or-later
//
// Every kind of store put into a plan's house, in every place it may have.
#pragma once

#include "core/plan/heaters.h"
#include "core/plan/plan.h"
#include "tests/support/yard.h"

namespace muffle::testing {

inline CompostPile hotBed() {
  CompostPile c;
  c.recipe = {{"horse-manure", 900.0, {}}, {"straw", 60.0, {}}};
  c.width_m = 1.5;
  c.length_m = 2.0;
  return c;
}

inline void addEveryStore(Plan& p) {
  p.house.bedCovers.push_back({});
  p.barrels.push_back({});
  p.barrels.push_back({.film_W_m2K = 0.0, .layered = true});
  p.groundPipes.push_back({.collector_m2 = 3.0});
  p.groundPipes.push_back({.name = "beside", .place = PipePlace::beside, .count = 1, .length_m = 25.0, .depth_m = 1.5, .rule = {24.0, 6.0}});
  p.compost.push_back(hotBed());
  CompostPile chamber = hotBed();
  chamber.place = PilePlace::chamber;
  chamber.fan_m3_h = 200.0;
  p.compost.push_back(chamber);
  CompostPile mound = hotBed();
  mound.place = PilePlace::mound;
  mound.recipe.front().wet_kg = 4000.0;
  mound.recipe.back().wet_kg = 400.0;
  mound.width_m = mound.length_m = 2.5;
  p.compost.push_back(mound);
  p.waterLoops.push_back({});
  p.waterLoops.back().collector_m2 = 4.0;
  Heater& boiler = firstHeater(p, {HeaterPlace::Of::tank, p.waterLoops.size() - 1});
  boiler.power_W = 2000.0;
  boiler.for_h = 8.0;
  p.soilCables.push_back({});
  p.mass.push_back({});
  p.mass.push_back({.name = "flags", .kind = MassKind::path, .area_m2 = 8.0, .thickness_m = 0.08});
}

inline Plan yardWithEveryStore() {
  Plan p = yard();
  addEveryStore(p);
  return p;
}

} // namespace muffle::testing
