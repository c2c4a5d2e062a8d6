// SPDX-License-Identifier: GPL-3.0-or-later
//
// The demo plan, log and weather, as the benchmarks and the reference use them.
#pragma once

#include "book/files.h"
#include "core/log/flags.h"
#include "core/log/read.h"
#include "core/plan/heaters.h"
#include "core/plan/plan_json.h"
#include "core/simulate/simulate.h"
#include "tests/support/every_store.h"

namespace muffle::bench {

struct Demo {
  Plan plan;
  std::string bytes;
  Log log;
  std::shared_ptr<const Weather> weather;
  Scene scene;
};

inline ReadOptions demoOptions() {
  ReadOptions o;
  o.zone = *TimeZone::named("Europe/Paris");
  return o;
}

inline const Demo& demo() {
  static const Demo d = [] {
    Demo made;
    made.plan = *planFromJson(*parseJson(*readFile(MUFFLE_DEMO_DIR "/plan.json")));
    made.bytes = *readFile(MUFFLE_DEMO_DIR "/log.csv");
    made.log = readLog(made.bytes, demoOptions())->log;
    flagProblems(made.log, made.plan.site.place);
    made.weather = std::make_shared<const Weather>(*weatherFromLog(made.log, made.plan.site));
    made.scene = makeScene(made.weather, made.plan);
    return made;
  }();
  return d;
}

/// Three-layer skins with a blanket and four more groups of barrels: about forty free nodes in one room.
inline Plan thickSkins() {
  Plan p = demo().plan;
  for (Skin* s : {&p.house.roof, &p.house.sides, &p.house.ends})
    s->layers = {{"twin-wall-8", 0.05}, {"pe-film-ir", 0.05}, {"twin-wall-16", 0.05}, {"bubble-wrap", 0.05}};
  p.house.blanket = NightBlanket{.material = "aluminised-screen", .leak = 0.1};
  for (int i = 0; i < 4; ++i) p.barrels.push_back({});
  return p;
}

/// The demo with a blanket, a warm bay and a low tunnel over a bed: three rooms of moist air.
inline Plan threeRooms() {
  Plan p = demo().plan;
  p.house.blanket = NightBlanket{.material = "aluminised-screen", .leak = 0.1};
  p.house.bay = WarmBay{};
  addHeater(p, {.place = {HeaterPlace::Of::bay}, .power_W = 4000.0});
  p.house.bedCovers.push_back({});
  return p;
}

/// The demo with three heaters by stages, a wood stove and a collector with its tank.
inline Plan everyHeat() {
  Plan p = demo().plan;
  p.waterLoops.push_back({});
  p.waterLoops.back().collector_m2 = 4.0;
  addHeater(p, {.kind = HeaterKind::propane, .power_W = 4000.0, .stage_K = 1.0});
  addHeater(p, {.power_W = 3000.0, .stage_K = 2.0});
  addHeater(p, {.kind = HeaterKind::woodStove, .power_W = 8000.0});
  return p;
}

/// The demo with every kind of store in every place it may have.
inline Plan everyStore() {
  Plan p = demo().plan;
  testing::addEveryStore(p);
  return p;
}

} // namespace muffle::bench
