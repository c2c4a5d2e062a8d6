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
  auto solver = Solver::prepare(a.network, {.cruise = true}); // as simulate() does
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

void SeasonThickSkins(benchmark::State& state) { season(state, bench::thickSkins()); }

void SeasonThreeRooms(benchmark::State& state) { season(state, bench::threeRooms()); }

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
BENCHMARK(SeasonThickSkins)->Unit(benchmark::kMillisecond);
BENCHMARK(SeasonThreeRooms)->Unit(benchmark::kMillisecond);
BENCHMARK(EditOfBothWinters)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(ReadLogRows)->Unit(benchmark::kMillisecond);

} // namespace

BENCHMARK_MAIN();
