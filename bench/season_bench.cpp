// SPDX-License-Identifier: GPL-3.0-or-later
//
// Season time, steps a second, import rows a second. Run: cmake --preset bench && cmake --build --preset bench &&
// build/bench/bench/muffle_bench
#include "bench/demo_scene.h"
#include "book/book.h"
#include "core/network/solver.h"
#include "core/run/run.h"

#include <benchmark/benchmark.h>
#include <fmt/format.h>

#include <cmath>
#include <filesystem>

namespace {

using namespace muffle;
using bench::demo;

void season(benchmark::State& state, const Plan& plan) {
  const Winter& winter = demo().weather->winters.front();
  const Assembly a = assemble(plan, winter, demo().scene.sun.front());
  auto solver = Solver::prepare(a.network, {.multistep = true}); // as simulate() does
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

void steps(benchmark::State& state, const Plan& plan) {
  const Scene scene = makeScene(demo().weather, plan);
  const Winter& winter = scene.weather->winters.front();
  const Assembly assembly = assemble(plan, winter, scene.sun.front());
  for (auto _ : state) {
    state.PauseTiming();
    auto run = Run::prepare(plan, assembly, winter, {});
    state.ResumeTiming();
    run->begin();
    while (!run->isDone()) run->advance(1);
    if (run->solver().balance().closure() > 1e-9) state.SkipWithError("the energy balance does not close");
  }
}

void SeasonOneHeater(benchmark::State& state) { steps(state, demo().plan); }

void SeasonHeatersFireAndLoop(benchmark::State& state) { steps(state, bench::everyHeat()); }

/// One winter as the product runs it, the weeks before its log included; without series, as a search does.
void SeasonEveryStore(benchmark::State& state) {
  const Plan plan = bench::everyStore();
  const Scene scene = makeScene(demo().weather, plan);
  for (auto _ : state) {
    auto run = simulateWinter(plan, scene, 0);
    if (!run || run->closure > 1e-6) state.SkipWithError("the energy balance does not close");
  }
  state.counters["nodes"] = static_cast<double>(Solver::prepare(assemble(plan, scene.weather->winters[0], scene.sun[0]).network)->freeCount());
  state.counters["before"] = static_cast<double>(scene.before[0].winter->size());
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

/// A million rows of five channels, a minute apart, as a logger writes them.
const std::string& million() {
  static const std::string text = [] {
    std::string made = "Date and time,Outside [C],House [C],Soil [C],Wind [m/s],Sun [W/m2]\n";
    constexpr int kRows = 1000000;
    made.reserve(45u * kRows);
    const TimeZone utc = TimeZone::utc();
    for (int i = 0; i < kRows; ++i) {
      const double wave = std::sin(i / 229.0), ripple = 0.1 * std::sin(i * 1.7);
      const std::string at = utc.iso(daysSinceEpoch({2029, 10, 1}) * 86400 + 60 * static_cast<UtcSeconds>(i));
      made += fmt::format("{} {},{:.2f},{:.2f},{:.2f},{:.1f},{:.0f}\n", at.substr(0, 10), at.substr(11, 5), -2.0 + 5.0 * wave + ripple,
                          4.0 + 5.0 * wave - ripple, 6.0 + ripple, 2.0 + wave, std::max(0.0, 300.0 * wave));
    }
    return made;
  }();
  return text;
}

void MillionRowsToStoredLog(benchmark::State& state) {
  const std::string path = (std::filesystem::temp_directory_path() / "muffle-bench.muffle").string();
  std::filesystem::remove(path);
  auto book = Book::open(path, Book::Mode::create);
  million();
  for (auto _ : state) {
    auto read = readLog(million(), bench::demoOptions());
    if (!book->replaceLogs(&read->log)) state.SkipWithError("not stored");
    state.counters["rows"] = static_cast<double>(read->log.time.size());
  }
  std::filesystem::remove(path);
}

void MillionRowsFlagged(benchmark::State& state) {
  Log log = readLog(million(), bench::demoOptions())->log;
  for (auto _ : state) benchmark::DoNotOptimize(flagProblems(log, demo().plan.site.place));
}

BENCHMARK(SeasonDemo)->Unit(benchmark::kMillisecond);
BENCHMARK(SeasonThickSkins)->Unit(benchmark::kMillisecond);
BENCHMARK(SeasonThreeRooms)->Unit(benchmark::kMillisecond);
BENCHMARK(SeasonOneHeater)->Unit(benchmark::kMillisecond);
BENCHMARK(SeasonHeatersFireAndLoop)->Unit(benchmark::kMillisecond);
BENCHMARK(SeasonEveryStore)->Unit(benchmark::kMillisecond);
BENCHMARK(EditOfBothWinters)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(ReadLogRows)->Unit(benchmark::kMillisecond);
BENCHMARK(MillionRowsToStoredLog)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(MillionRowsFlagged)->Unit(benchmark::kMillisecond);

} // namespace

BENCHMARK_MAIN();
