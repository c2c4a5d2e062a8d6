// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/simulate/simulate.h"

#include "core/parallel.h"
#include "core/plan/crop_stands.h"
#include "core/results/groups.h"
#include "core/results/growth_watch.h"
#include "core/results/night_judge.h"
#include "core/results/series_recorder.h"
#include "core/results/store_watch.h"
#include "core/simulate/before_run.h"

#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <optional>

namespace muffle {
namespace {

bool isStopped(const SimulateOptions& options) { return options.stop && options.stop->load(std::memory_order_relaxed); }

Problem cancelled() { return {ProblemKind::cancelled, "", Message{"season.stopped"}, {}}; }
Problem noSolution(std::string where) {
  return {ProblemKind::noSolution, std::move(where), Message{"season.no-solution"}, Message{"season.check-sizes"}};
}

/// The winter's sum, from what looked on.
void sumUp(const Run& run, HouseWatch& house, const DampWatch& damp, StoreWatch& stores, WinterResult& result) {
  const EnergyBalance balance = run.solver().balance();
  result.closure = balance.closure();
  for (int i = 0; i < run.assembly().sunSources; ++i) result.sun_J += balance.source_J[static_cast<std::size_t>(i)];
  house.tell(run, balance, result);
  damp.tell(result);
  stores.tell(run, result);
}

/// Which hour of the local week, from Monday 0:00, each hour of the winter is.
std::vector<std::uint8_t> hoursOfWeek(const Plan& plan, const Winter& winter, std::size_t hours) {
  const auto named = TimeZone::named(plan.site.timeZone);
  LocalClock clock(named ? *named : TimeZone::utc());
  std::vector<std::uint8_t> all(hours);
  for (std::size_t h = 0; h < hours; ++h) all[h] = static_cast<std::uint8_t>(clock.hourOfWeek(winter.time(0) + static_cast<UtcSeconds>(h) * 3600));
  return all;
}

} // namespace

Result<WinterResult> simulateWinter(const Plan& plan, const Scene& scene, std::size_t index, const SimulateOptions& options) {
  const Winter& winter = scene.weather->winters[index];
  WinterResult result;
  Assembly assembly = assemble(plan, winter, scene.sun[index]);
  const double pressure_Pa = assembly.network.pressure_Pa;
  std::vector<int> groups = options.series ? countedGroups(assembly) : std::vector<int>{};
  std::vector<int> losses = lossGroups(assembly);
  auto prepared = Run::prepare(plan, std::move(assembly), winter, options.scenario, std::move(groups));
  if (!prepared) return prepared.problems();
  Run& run = *prepared;
  if (!startRun(run, plan, index < scene.before.size() ? &scene.before[index] : nullptr, options.stop)) return noSolution("start");
  if (isStopped(options)) return cancelled();

  const std::size_t hours = static_cast<std::size_t>(static_cast<double>(winter.size()) * winter.step_s / 3600.0) + 1;
  result.ledger = Ledger(options.series ? hours : 0, plan.prices.electricityWindows.empty() ? std::vector<std::uint8_t>() : hoursOfWeek(plan, winter, hours));
  HouseWatch house(plan, run.assembly(), winter, result.ledger);
  DampWatch damp(run.assembly(), winter, pressure_Pa);
  if (options.series) result.series.stores = StoreWatch::makeSeries(run.assembly(), winter.size());
  StoreWatch stores(run.assembly(), plan.setpoints.hold_C, options.series ? &result.series.stores : nullptr, result.ledger);
  std::vector<Observer*> observers{&house, &damp, &stores};
  std::optional<SeriesRecorder> series;
  if (options.series) observers.push_back(&series.emplace(plan, run.assembly(), winter, std::move(losses), house, damp, result));
  std::optional<GrowthWatch> growth;
  if (options.growth) observers.push_back(&growth.emplace(winter.step_s, growthResponseOf(plan)));
  result.soilDepth_m = run.assembly().soilDepth_m;
  result.stores.resize(run.assembly().stores.size());

  const std::size_t last = winter.size() - 1;
  const std::size_t tellAt = std::clamp<std::size_t>(options.tellAt, 1, last);
  for (Observer* observer : observers) observer->see(run);
  while (!run.isDone()) {
    constexpr std::size_t kLook = 1024; // steps
    if (run.step() % kLook == kLook - 1 && isStopped(options)) return cancelled();
    if (!run.advance()) return noSolution(fmt::format("step {}", run.step() + 1));
    for (Observer* observer : observers) observer->see(run);
    if (!options.tell || run.step() != tellAt) continue;
    result.nights = judgeNights(plan, winter, index, house, damp, run.step());
    options.tell(result, run.step());
  }
  result.nights = judgeNights(plan, winter, index, house, damp, last);
  if (options.heaterPower && !options.series) result.series.heater_W = house.heater_W();
  if (growth) result.growth = growth->ofWholeDays();
  sumUp(run, house, damp, stores, result);
  return result;
}

Result<Simulation> simulate(const Plan& plan, const Scene& scene, const SimulateOptions& options) {
  const auto begin = std::chrono::steady_clock::now();
  std::vector<std::optional<Result<WinterResult>>> runs(scene.weather->winters.size());
  forEachIndex(runs.size(), options.threads, [&](std::size_t i) { runs[i] = simulateWinter(plan, scene, i, options); });
  auto all = summarise(plan, scene, std::move(runs));
  if (all) all->summary.run_ms = std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begin).count();
  return all;
}

} // namespace muffle
