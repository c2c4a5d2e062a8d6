// SPDX-License-Identifier: GPL-3.0-or-later
//
// The demo plan, log and weather, as the benchmarks and the reference use them.
#pragma once

#include "book/files.h"
#include "core/log/read.h"
#include "core/plan/plan_json.h"
#include "core/simulate/simulate.h"

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
    flagProblems(made.log);
    made.weather = std::make_shared<const Weather>(*weatherFromLog(made.log, made.plan.site));
    made.scene = makeScene(made.weather, made.plan);
    return made;
  }();
  return d;
}

} // namespace muffle::bench
