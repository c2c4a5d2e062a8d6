// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sizing/sizing.h"

#include "core/parallel.h"
#include "core/plan/heaters.h"
#include "core/plan/measure_table.h"
#include "core/plan/names.h"
#include "core/sizing/search.h"
#include "core/sizing/usual_measures.h"

#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <mutex>
#include <tuple>
#include <utility>

namespace muffle {
namespace {

constexpr std::size_t kMostPackages = 1'000'000'000'000;
constexpr double kWeeks = kWinterDays / 7.0;

Choice choiceAt(const Plan& plan, std::size_t index) {
  Choice choice(plan.measures.size(), -1);
  for (std::size_t k = plan.measures.size(); k-- > 0;) {
    const auto options = static_cast<std::size_t>(levelCount(plan.measures[k])) + 1;
    choice[k] = static_cast<int>(index % options) - 1;
    index /= options;
  }
  return choice;
}

void judge(SizedPackage& p, const Plan& plan) {
  const Ask& ask = plan.ask;
  p.holds = p.nights - p.held <= ask.missesAllowed && (!ask.toSpend || p.capital <= *ask.toSpend) &&
            (!ask.hoursPerWeek || p.cost.hours <= *ask.hoursPerWeek * kWeeks);
}

void rank(Sizing& s) {
  s.winner = -1;
  s.frontier.clear();
  std::vector<int> order(s.packages.size());
  for (std::size_t i = 0; i < order.size(); ++i) order[i] = static_cast<int>(i);
  const auto at = [&](int i) -> SizedPackage& { return s.packages[static_cast<std::size_t>(i)]; };
  // money first; of equal money less work, then warmer, then the order of the measures: never a matter of chance
  std::stable_sort(order.begin(), order.end(), [&](int a, int b) {
    const auto key = [&](int i) { return std::tuple(at(i).cost.total(), at(i).cost.hours, at(i).degreeHours_K_h); };
    return key(a) < key(b);
  });
  double least = 1e300;
  for (const int i : order) {
    at(i).onFrontier = false;
    if (s.winner < 0 && at(i).holds) s.winner = i;
    if (at(i).degreeHours_K_h < least - 1e-9) {
      least = at(i).degreeHours_K_h;
      at(i).onFrontier = true;
      s.frontier.push_back(i);
    }
  }
}

} // namespace

int levelCount(const Measure& m) { return hasMaterial(m.kind) ? 1 : static_cast<int>(m.levels.size()); }

SizedPackage sizedPackage(const Plan& plan, const Package& package, const Summary& s) {
  SizedPackage p{package.choice, package.label, s.cost, s.nights, s.held, s.coldest_C, s.degreeHours_K_h, s.heater_kWh / s.winters};
  p.ledger = s.ledger;
  p.winters = s.winters;
  for (std::size_t k = 0; k < package.choice.size(); ++k) {
    const Measure& m = plan.measures[k];
    if (package.choice[k] >= 0) p.capital += measureCapital(plan, m, m.levels.empty() ? 0.0 : m.levels[static_cast<std::size_t>(package.choice[k])]);
  }
  judge(p, plan);
  return p;
}

void rankPackages(Sizing& sizing, const Plan& plan) {
  for (SizedPackage& p : sizing.packages) judge(p, plan);
  std::sort(sizing.packages.begin(), sizing.packages.end(), [](const SizedPackage& a, const SizedPackage& b) { return a.choice < b.choice; });
  rank(sizing);
}

Package buildPackage(const Plan& base, const Choice& choice) {
  Package p{choice, base, {}, {}};
  std::vector<Message> built;
  bool hasHeater = false;
  for (std::size_t k = 0; k < base.measures.size(); ++k) {
    if (choice[k] < 0) continue;
    const Measure& m = base.measures[k];
    const MeasureRow& row = rowOf(m.kind);
    const double level = m.levels.empty() ? 0.0 : m.levels[static_cast<std::size_t>(choice[k])];
    const bool isAnother = m.kind == MeasureKind::heater && std::exchange(hasHeater, true);
    (isAnother ? row.also : row.apply)(p.plan, m, level);
    const double capital = measureCapital(p.plan, m, level);
    const double everyNight_h = row.isDrawnDaily ? 0.0 : m.hoursPerNight * kWinterDays;
    if (capital > 0.0 || m.hoursPerWinter > 0.0 || everyNight_h > 0.0)
      p.plan.kit.push_back({m.name, row.id, materialOf(m), level, capital, m.life_years, m.hoursPerWinter + everyNight_h});
    built.push_back(nameOf(m, level));
  }
  p.label = built.empty() ? Message{"sizing.as-it-is"} : Message{"sizing.with", std::move(built)};
  p.kit = kitOf(p.plan);
  return p;
}

std::size_t packageCount(const Plan& plan) {
  constexpr std::size_t kEnough = 1'000'000'000'000'000;
  std::size_t count = 1;
  for (const Measure& m : plan.measures) {
    count *= static_cast<std::size_t>(levelCount(m)) + 1;
    if (count > kEnough) return kEnough;
  }
  return count;
}

namespace {

/// Simulates, prices and ranks the choices on all cores. The scene's shape is that of every one of them.
Result<Sizing> run(const Plan& plan, std::shared_ptr<const Weather> weather, std::size_t count, const std::function<Choice(std::size_t)>& choiceOf,
                   const SizingOptions& options) {
  const auto begin = std::chrono::steady_clock::now();
  const Scene scene = makeScene(std::move(weather), plan);
  Sizing sizing;
  sizing.packages.resize(count);
  std::size_t done = 0;
  Stop stop(options.stop);
  std::mutex mutex;
  std::optional<Problem> problem;
  forEachIndex(count, options.threads, [&](std::size_t i) {
    if (stop) return;
    const Package package = buildPackage(plan, choiceOf(i));
    auto run = simulate(package.plan, scene, {.stop = stop.flag()});
    const std::scoped_lock lock(mutex);
    if (!run) {
      if (!problem) problem = run.problem();
      stop.set();
      return;
    }
    sizing.packages[i] = sizedPackage(plan, package, run->summary);
    if (options.progress && !options.progress({.done = ++done, .of = count, .found = {}, .bound = {}})) {
      stop.set();
      if (!problem) problem = Problem{ProblemKind::cancelled, "", Message{"sizing.search-was-stopped"}, {}};
    }
  });
  if (problem) return *problem;
  if (stop) return Problem{ProblemKind::cancelled, "", Message{"sizing.search-was-stopped"}, {}};
  rank(sizing);
  sizing.covered = sizing.runs = count;
  sizing.provedLeast = true; // there is no other
  if (sizing.winner >= 0) sizing.bound = sizing.packages[static_cast<std::size_t>(sizing.winner)].cost.total();
  sizing.run_ms = std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begin).count();
  return sizing;
}

/// A fuel that nobody has priced would be burnt for nothing.
std::optional<Problem> unpriced(const Plan& plan) {
  for (std::size_t k = 0; k < plan.measures.size(); ++k) {
    const Measure& m = plan.measures[k];
    const Carrier takes = factsOf(m.heater).carrier;
    if (m.kind != MeasureKind::heater || takes == Carrier::electricity || listedPrice(plan.prices, takes)) continue;
    return Problem{ProblemKind::badInput, fmt::format("/measures/{}/heater", k), Message{"sizing.fuel-without-price", nameOf(m), factsOf(takes).id},
                   Message{"sizing.price-it-among-fuels"}};
  }
  return std::nullopt;
}

} // namespace

Result<Sizing> size(const Plan& plan, std::shared_ptr<const Weather> weather, const SizingOptions& options) {
  if (auto why = unpriced(plan)) return *why;
  const std::size_t count = packageCount(plan);
  if (count > kMostPackages)
    return Problem{ProblemKind::badInput, "/measures", Message{"sizing.combinations", count}, Message{"sizing.combinations-at-most", kMostPackages}};
  if (options.exhaustive && count > kMostExhaustive)
    return Problem{ProblemKind::badInput, "/measures", Message{"sizing.combinations", count}, Message{"sizing.exhaustive-at-most", kMostExhaustive}};
  if (!options.exhaustive && count > kFewPackages) return searchPackages(plan, makeScene(std::move(weather), plan), options);
  return run(
      plan, std::move(weather), count, [&](std::size_t i) { return choiceAt(plan, i); }, options);
}

Result<Sizing> oneChangeEach(const Plan& plan, std::shared_ptr<const Weather> weather, const SizingOptions& options) {
  std::vector<Choice> choices{Choice(plan.measures.size(), -1)};
  for (std::size_t k = 0; k < plan.measures.size(); ++k)
    for (int level = 0; level < levelCount(plan.measures[k]); ++level) {
      choices.push_back(choices.front());
      choices.back()[k] = level;
    }
  return run(
      plan, std::move(weather), choices.size(), [&](std::size_t i) { return choices[i]; }, options);
}

// What was proved without running everything is so at the prices it was proved at.
void reprice(Sizing& sizing, const Plan& plan, const Prices& prices) {
  if (sizing.runs < sizing.covered) {
    sizing.provedLeast = false;
    sizing.bound = 0.0;
  }
  Plan priced = plan; // what a heater burns is bought at them too
  priced.prices = prices;
  for (SizedPackage& p : sizing.packages) {
    const Package package = buildPackage(priced, p.choice);
    p.cost = winterCost(package.plan, prices, p.ledger, p.winters, package.kit);
    judge(p, plan);
  }
  rank(sizing);
}

Message whyNot(const Sizing& sizing, int package, const Plan& plan) {
  const SizedPackage& p = sizing.packages[static_cast<std::size_t>(package)];
  if (package == sizing.winner) return Message{"sizing.cheapest-holds"};
  if (!p.holds && p.nights - p.held <= plan.ask.missesAllowed)
    return Message{"sizing.more-than-there-is", std::llround(p.capital), plan.prices.currency, std::llround(p.cost.hours)};
  if (!p.holds) return Message{"sizing.misses-nights-allowed", p.nights - p.held, p.nights, plan.ask.missesAllowed};
  const Cost& best = sizing.packages[static_cast<std::size_t>(sizing.winner)].cost;
  return Message{"sizing.holds-but-costs-more", std::llround(p.cost.total() - best.total()), plan.prices.currency};
}

} // namespace muffle
