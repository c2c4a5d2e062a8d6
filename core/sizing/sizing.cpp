// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sizing/sizing.h"

#include "core/parallel.h"
#include "core/plan/heaters.h"
#include "core/plan/measure_rules.h"
#include "core/plan/measure_table.h"
#include "core/plan/names.h"
#include "core/plan/own_measure.h"
#include "core/sizing/package_scenes.h"
#include "core/sizing/search.h"
#include "core/sizing/search_memory.h"
#include "core/sizing/usual_measures.h"
#include "core/sizing/withstands.h"

#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <functional>
#include <mutex>
#include <tuple>
#include <utility>

namespace muffle {
namespace {

constexpr std::size_t kMostPackages = 1'000'000'000'000;
constexpr double kWeeks = kWinterDays / 7.0;

/// Every combination that the measures' rules allow, the last measure varying fastest.
std::vector<Choice> allChoices(const Plan& plan) {
  std::vector<Choice> choices{Choice(plan.measures.size(), kUndecided)};
  for (std::size_t k = 0; k < plan.measures.size(); ++k) {
    std::vector<Choice> more;
    for (const Choice& choice : choices)
      for (const int place : placesOf(plan.measures[k])) {
        more.push_back(choice);
        more.back()[k] = place;
        if (!mayBeBuilt(plan, more.back())) more.pop_back();
      }
    choices = std::move(more);
  }
  std::erase_if(choices, [&](const Choice& choice) { return !canBeBuilt(plan, choice); });
  return choices;
}

/// Pipes and the skirt.
double trench_m(const Plan& base, const Plan& package) {
  double dug_m = 0.0;
  for (std::size_t i = base.groundPipes.size(); i < package.groundPipes.size(); ++i) dug_m += package.groundPipes[i].count * package.groundPipes[i].length_m;
  if (package.house.floor.edgeDepth_m > base.house.floor.edgeDepth_m) dug_m += package.house.shape.perimeter_m();
  return dug_m;
}

/// Of energy and of what is bought, as if all came out dear, or all cheap.
double spreadOf(const SizedPackage& p, const Plan& plan) {
  double spread = p.cost.spread;
  for (std::size_t k = 0; k < p.choice.size(); ++k) {
    const Measure& m = plan.measures[k];
    if (p.choice[k] >= 0) spread += m.priceSpread * measureCapital(plan, m, levelAt(m, p.choice[k])) * annuityFactor(plan.prices.interest, m.life_years);
  }
  return spread;
}

double electric_W(const Plan& plan) {
  double sum_W = 0.0;
  for (const Heater& h : plan.heaters)
    if (carrierOf(h) == Carrier::electricity) sum_W += h.kind == HeaterKind::heatPump ? h.power_W / efficiencyOf(h) : h.power_W;
  return sum_W;
}

double fuelBurnt_kWh(const Ledger& ledger) {
  double sum_kWh = 0.0;
  for (const Meter& m : ledger.meters())
    if (m.of == Metered::fuel) sum_kWh += m.amount;
  return sum_kWh;
}

bool isWithinLimits(const SizedPackage& p, const Ask& ask) {
  const auto within = [](double value, const std::optional<double>& most) { return !most || value <= *most + 1e-9; };
  return within(p.capital, ask.toSpend) && within(p.cost.hours / kWeeks, ask.hoursPerWeek) && within(p.electric_W / 1000.0, ask.supply_kW) &&
         within(p.trench_m, ask.trench_m) && within(p.fuelStored_kWh, ask.fuelStore_kWh) && !(ask.noFireAsleep && p.loadsAsleep > 0.0);
}

void judge(SizedPackage& p, const Plan& plan) { p.holds = keepsTo(p, plan.ask) && !p.fails; }

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

bool keepsTo(const SizedPackage& p, const Ask& ask) { return !isTooCold(ask, p.nights - p.held, p.degreeHours_K_h / p.winters) && isWithinLimits(p, ask); }

bool isTooCold(const Ask& ask, int misses, double degreeHours_K_h) {
  return ask.coldAllowed_K_h ? degreeHours_K_h > *ask.coldAllowed_K_h + 1e-9 : misses > ask.missesAllowed;
}

SizedPackage sizedPackage(const Plan& plan, const Package& package, const Summary& s) {
  SizedPackage p{package.choice, package.label, s.cost, s.nights, s.held, s.coldest_C, s.degreeHours_K_h, s.heater_kWh / s.winters};
  p.ledger = s.ledger;
  p.winters = s.winters;
  for (std::size_t k = 0; k < package.choice.size(); ++k) {
    const Measure& m = plan.measures[k];
    if (package.choice[k] >= 0) p.capital += measureCapital(plan, m, levelAt(m, package.choice[k]));
  }
  p.damp_h = s.damp.above90_h;
  if (s.growth) p.growth_d = s.growth->days / s.winters;
  p.spread = spreadOf(p, plan);
  p.electric_W = electric_W(package.plan);
  p.trench_m = trench_m(plan, package.plan);
  p.fuelStored_kWh = fuelBurnt_kWh(s.ledger) / s.winters;
  for (const HeaterCount& heater : s.heaters) p.loadsAsleep += heater.atNight / s.winters;
  judge(p, plan);
  return p;
}

void rankPackages(Sizing& sizing, const Plan& plan) {
  for (SizedPackage& p : sizing.packages) judge(p, plan);
  std::sort(sizing.packages.begin(), sizing.packages.end(), [](const SizedPackage& a, const SizedPackage& b) { return a.choice < b.choice; });
  rank(sizing);
}

bool goTogether(const Plan& plan, const Choice& choice) {
  for (std::size_t k = 0; k < choice.size(); ++k) { // what one's own sets, the others may have made impossible
    if (choice[k] < 0 || plan.measures[k].kind != MeasureKind::own) continue;
    Choice others = choice;
    others[k] = kNotBuilt;
    if (!withSettings(buildPackage(plan, others).plan, plan.measures[k], levelAt(plan.measures[k], choice[k]))) return false;
  }
  return isSound(buildPackage(plan, choice).plan);
}

bool canBeBuilt(const Plan& plan, const Choice& choice) { return mayBeBuilt(plan, choice) && goTogether(plan, choice); }

std::optional<Choice> firstThatCanBeBuilt(const Plan& plan) {
  constexpr int kMostTries = 10'000;
  int tries = 0;
  Choice choice(plan.measures.size(), kUndecided);
  const std::function<bool(std::size_t)> decide = [&](std::size_t k) { // depth first, a broken rule ends a branch
    if (k == choice.size()) return ++tries < kMostTries && goTogether(plan, choice);
    for (const int place : placesOf(plan.measures[k])) {
      if (tries >= kMostTries) break;
      choice[k] = place;
      if (mayBeBuilt(plan, choice) && decide(k + 1)) return true;
    }
    choice[k] = kUndecided;
    return false;
  };
  return decide(0) ? std::optional(choice) : std::nullopt;
}

bool isSound(Plan plan) {
  plan.measures.clear(); // the list and what is asked are no part of a house
  plan.ask = {};
  return check(plan).empty();
}

Result<SizedPackage> runPackage(const Plan& plan, const Choice& choice, PackageScenes& scenes, const std::atomic<bool>* stop) {
  const Package package = buildPackage(plan, choice);
  const auto run = simulate(package.plan, scenes.of(package.plan), {.growth = true, .stop = stop});
  if (!run) return run.problems();
  return sizedPackage(plan, package, run->summary);
}

std::optional<Problem> tryPackage(SizedPackage& p, const Plan& plan, PackageScenes& scenes, const std::atomic<bool>* stop) {
  if (p.isTried || !asksMore(plan.ask)) return std::nullopt;
  auto fails = whatFails(buildPackage(plan, p.choice).plan, scenes, stop);
  if (!fails) { // stopped amid it, perhaps: nobody knows
    p.fails = Message{"sizing.not-tried"};
    judge(p, plan);
    return fails.problem();
  }
  p.isTried = true;
  p.fails = *std::move(fails);
  judge(p, plan);
  return std::nullopt;
}

std::optional<Problem> tryWinners(Sizing& sizing, const Plan& plan, PackageScenes& scenes, const std::atomic<bool>* stop) {
  for (int before = -1; sizing.winner >= 0 && sizing.winner != before;) {
    before = sizing.winner;
    if (auto why = tryPackage(sizing.packages[static_cast<std::size_t>(sizing.winner)], plan, scenes, stop)) return why;
    rank(sizing);
  }
  return std::nullopt;
}

Package buildPackage(const Plan& base, const Choice& choice) {
  Package p{choice, base, {}, {}};
  std::vector<Message> built;
  bool hasHeater = false;
  for (std::size_t k = 0; k < base.measures.size(); ++k) {
    if (choice[k] < 0) continue;
    const Measure& m = base.measures[k];
    const MeasureRow& row = rowOf(m.kind);
    const double level = levelAt(m, choice[k]);
    const bool isAnother = m.kind == MeasureKind::heater && std::exchange(hasHeater, true);
    (isAnother ? row.also : row.apply)(p.plan, m, level);
    const double capital = measureCapital(p.plan, m, level);
    const double everyNight_h = row.isDrawnDaily ? 0.0 : m.hoursPerNight * kWinterDays;
    if (capital > 0.0 || m.hoursPerWinter > 0.0 || everyNight_h > 0.0)
      p.plan.kit.push_back({m.name, row.id, materialOf(m), level, m.faces, capital, m.life_years, m.hoursPerWinter + everyNight_h});
    built.push_back(nameOf(m, level));
  }
  p.label = built.empty() ? Message{"sizing.as-it-is"} : Message{"sizing.with", built};
  p.kit = kitOf(p.plan);
  return p;
}

std::size_t packageCount(const Plan& plan) {
  constexpr std::size_t kEnough = 1'000'000'000'000'000;
  std::size_t count = 1;
  for (const Measure& m : plan.measures) {
    count *= placesOf(m).size();
    if (count > kEnough) return kEnough;
  }
  return count;
}

namespace {

Problem stoppedSearch() { return {ProblemKind::cancelled, "", Message{"sizing.search-was-stopped"}, {}}; }

/// Simulates, prices and ranks the choices on all cores; stopped, what has been run if that may be a part.
Result<Sizing> run(const Plan& plan, std::shared_ptr<const Weather> weather, const std::vector<Choice>& choices, const SizingOptions& options, bool mayBePart) {
  const auto begin = std::chrono::steady_clock::now();
  const SearchMemory* memory = memoryOf(options, plan, weather);
  PackageScenes scenes(weather);
  std::vector<std::optional<SizedPackage>> sized(choices.size());
  std::size_t done = 0;
  Stop stop(options.stop);
  std::mutex mutex;
  std::optional<Problem> problem;
  forEachIndex(choices.size(), options.threads, [&](std::size_t i) {
    if (stop) return;
    const SizedPackage* known = remembered(memory, choices[i]);
    auto package = known ? Result<SizedPackage>(*known) : runPackage(plan, choices[i], scenes, stop.flag());
    const std::scoped_lock lock(mutex);
    if (!package) {
      if (!problem && !stop) problem = package.problem();
      stop.set();
      return;
    }
    sized[i] = *std::move(package);
    if (options.progress && !options.progress({.done = ++done, .of = choices.size(), .found = {}, .bound = {}})) stop.set();
  });
  if (problem) return *problem;
  const auto isStopped = static_cast<bool>(stop);
  if (isStopped && !mayBePart) return stoppedSearch();
  Sizing sizing;
  for (auto& package : sized)
    if (package) sizing.packages.push_back(*std::move(package));
  if (sizing.packages.empty()) return stoppedSearch();
  rank(sizing);
  sizing.isStopped = isStopped;
  if (isStopped) {
    auto stoppedAt = std::make_shared<SearchMemory>(SearchMemory{plan, std::move(weather), {}, {}, {}});
    for (const SizedPackage& p : sizing.packages) stoppedAt->packages.emplace(p.choice, p);
    sizing.memory = std::move(stoppedAt);
  }
  if (!isStopped)
    if (auto why = tryWinners(sizing, plan, scenes, options.stop)) return *why;
  sizing.covered = choices.size();
  sizing.runs = sizing.packages.size();
  sizing.provedLeast = !isStopped; // there is no other
  if (sizing.winner >= 0 && !isStopped) sizing.bound = sizing.packages[static_cast<std::size_t>(sizing.winner)].cost.total();
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
  if (!options.exhaustive && count > kFewPackages) {
    PackageScenes scenes(std::move(weather));
    return searchPackages(plan, scenes, options);
  }
  const std::vector<Choice> choices = allChoices(plan);
  if (choices.empty()) return nothingAllowed();
  return run(plan, std::move(weather), choices, options, true);
}

Problem nothingAllowed() { return {ProblemKind::badInput, "/measures", Message{"sizing.rules-leave-nothing"}, Message{"sizing.loosen-a-rule"}}; }

Result<Sizing> oneChangeEach(const Plan& plan, std::shared_ptr<const Weather> weather, const SizingOptions& options) {
  std::vector<Choice> choices{Choice(plan.measures.size(), kNotBuilt)};
  for (std::size_t k = 0; k < plan.measures.size(); ++k)
    for (int level = 0; level < levelCount(plan.measures[k]); ++level) {
      choices.push_back(choices.front());
      choices.back()[k] = level;
      if (!isSound(buildPackage(plan, choices.back()).plan)) choices.pop_back();
    }
  return run(plan, std::move(weather), choices, options, false);
}

bool sameButPrices(Plan a, const Plan& b) {
  if (std::any_of(a.heaters.begin(), a.heaters.end(), [](const Heater& h) { return h.onlyBelowPrice_kWh.has_value(); }))
    return false;                                   // what they give goes by them
  const auto windows = a.prices.electricityWindows; // of other hours, other hours have to be counted
  a.prices = b.prices;
  a.prices.electricityWindows = windows;
  return a == b;
}

// What was proved without running everything is so at the prices it was proved at.
void reprice(Sizing& sizing, const Plan& plan, const Prices& prices) {
  if (sizing.runs < sizing.covered) {
    sizing.provedLeast = false;
    sizing.bound = 0.0;
  }
  Plan priced = plan; // what a heater burns is bought at them too
  priced.prices = prices;
  const auto priceAnew = [&prices](SizedPackage& p, const Plan& at) {
    const Package package = buildPackage(at, p.choice);
    p.cost = winterCost(package.plan, prices, p.ledger, p.winters, package.kit);
    p.spread = spreadOf(p, at);
    judge(p, at);
  };
  for (SizedPackage& p : sizing.packages) priceAnew(p, priced);
  for (ByThumb& rule : sizing.thumb) {
    rule.plan.prices = prices;
    priceAnew(rule.package, rule.plan);
  }
  const int winner = sizing.winner;
  rank(sizing);
  if (sizing.winner != winner) sizing.colder.clear(), sizing.likely.clear();
  const auto forgetMoney = [](auto& runAgain) {
    for (auto& r : runAgain) r.cheapest = -1, r.extra.reset();
  };
  forgetMoney(sizing.colder);
  forgetMoney(sizing.likely);
}

Message whyNot(const Sizing& sizing, int package, const Plan& plan) {
  const SizedPackage& p = sizing.packages[static_cast<std::size_t>(package)];
  if (package == sizing.winner) return Message{"sizing.cheapest-holds"};
  const Ask& ask = plan.ask;
  const bool isCold = isTooCold(ask, p.nights - p.held, p.degreeHours_K_h / p.winters);
  if (p.fails) return *p.fails;
  if (!isCold && ask.noFireAsleep && p.loadsAsleep > 0.0) return Message{"sizing.fire-while-asleep", std::llround(std::ceil(p.loadsAsleep))};
  if (!isCold && ask.supply_kW && p.electric_W > 1000.0 * *ask.supply_kW) return Message{"sizing.more-than-the-supply", p.electric_W / 1000.0, *ask.supply_kW};
  if (!isCold && ask.trench_m && p.trench_m > *ask.trench_m)
    return Message{"sizing.more-to-dig", Amount{p.trench_m, Unit::metre}, Amount{*ask.trench_m, Unit::metre}};
  if (!isCold && ask.fuelStore_kWh && p.fuelStored_kWh > *ask.fuelStore_kWh)
    return Message{"sizing.more-than-the-fuel-store", Amount{p.fuelStored_kWh, Unit::kilowattHour}, Amount{*ask.fuelStore_kWh, Unit::kilowattHour}};
  if (!p.holds && isCold && ask.coldAllowed_K_h)
    return Message{"sizing.colder-than-allowed", std::llround(p.degreeHours_K_h / p.winters), std::llround(*ask.coldAllowed_K_h)};
  if (!p.holds && !isCold) return Message{"sizing.more-than-there-is", std::llround(p.capital), plan.prices.currency, std::llround(p.cost.hours)};
  if (!p.holds) return Message{"sizing.misses-nights-allowed", p.nights - p.held, p.nights, plan.ask.missesAllowed};
  const Cost& best = sizing.packages[static_cast<std::size_t>(sizing.winner)].cost;
  return Message{"sizing.holds-but-costs-more", std::llround(p.cost.total() - best.total()), plan.prices.currency};
}

} // namespace muffle
