// SPDX-License-Identifier: GPL-3.0-or-later
//
// Season time, steps a second, import rows a second. Run: cmake --preset bench && cmake --build --preset bench &&
// build/bench/bench/muffle_bench
#include "bench/demo_scene.h"
#include "core/network/solver.h"

#include <benchmark/benchmark.h>

namespace {

using namespace muffle;
using bench::demo;

void season(benchmark::State& state, const Plan& plan) {
  const Winter& winter = demo().weather->winters.front();
  const Assembly a = assemble(plan, winter, demo().scene.sun.front());
  auto solver = Solver::prepare(a.network);
  for (auto _ : state) {
    solver->reset();
    for (std::size_t i = 1; i < winter.size(); ++i) solver->advance(winter.step_s);
    if (solver->balance().closure() > 1e-6) state.SkipWithError("the energy balance does not close");
  }
  state.counters["nodes"] = static_cast<double>(solver->freeCount());
  state.counters["steps/s"] = benchmark::Counter(static_cast<double>(winter.size() - 1), benchmark::Counter::kIsIterationInvariantRate);
  state.counters["newton/step"] = static_cast<double>(solver->newtonIterations()) / static_cast<double>(winter.size() - 1);
}

void SeasonDemo(benchmark::State& state) { season(state, demo().plan); }

void SeasonForty(benchmark::State& state) { // three-layer skins with blanket and four groups of barrels: about forty free nodes
  Plan p = demo().plan;
  for (Skin* s : {&p.house.roof, &p.house.sides, &p.house.ends})
    s->layers = {{"twin-wall-8", 0.05}, {"pe-film-ir", 0.05}, {"twin-wall-16", 0.05}, {"bubble-wrap", 0.05}};
  p.house.blanket = NightBlanket{.material = "aluminised-screen", .leak = 0.1};
  for (int i = 0; i < 4; ++i) p.barrels.push_back({});
  season(state, p);
}

void EditOfBothWinters(benchmark::State& state) {
  for (auto _ : state) {
    auto run = simulate(demo().plan, demo().scene, {.series = true, .threads = 2});
    benchmark::DoNotOptimize(run);
  }
}

void ReadLogRows(benchmark::State& state) {
  for (auto _ : state) {
    auto read = readLog(demo().bytes, bench::demoOptions());
    benchmark::DoNotOptimize(read);
  }
  state.counters["rows/s"] = benchmark::Counter(static_cast<double>(demo().log.time.size()), benchmark::Counter::kIsIterationInvariantRate);
}

BENCHMARK(SeasonDemo)->Unit(benchmark::kMillisecond);
BENCHMARK(SeasonForty)->Unit(benchmark::kMillisecond);
BENCHMARK(EditOfBothWinters)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(ReadLogRows)->Unit(benchmark::kMillisecond);

} // namespace

BENCHMARK_MAIN();
