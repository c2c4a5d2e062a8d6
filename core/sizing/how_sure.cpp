// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sizing/how_sure.h"

#include "core/fit/calibrate.h"
#include "core/parallel.h"
#include "core/plan/heaters.h"
#include "core/statistics/sigma_points.h"

#include <algorithm>
#include <cmath>
#include <random>

namespace muffle {
namespace {

/// Of packages that hold, what each costs and how much of that goes with each price.
struct Shares {
  std::vector<int> package;
  std::vector<double> cost;
  std::vector<std::vector<double>> by; ///< by price, by package
  std::size_t winner = 0;
};

/// The same plan with one price twice as high.
Plan doubled(Plan plan, const UncertainPrice& price) {
  switch (price.of) {
  case UncertainPrice::Of::electricity:
    plan.prices.electricity_per_kWh *= 2.0;
    for (TariffWindow& w : plan.prices.electricityWindows) w.price_per_kWh *= 2.0;
    break;
  case UncertainPrice::Of::fuel:
    for (FuelPrice& f : plan.prices.fuels)
      if (f.fuel == price.fuel) f.price_kWh *= 2.0;
    for (Heater& h : plan.heaters)
      if (carrierOf(h) == price.fuel) h.fuelPrice_kWh *= 2.0;
    break;
  case UncertainPrice::Of::measure: plan.measures[price.measure].price *= 2.0; break;
  }
  return plan;
}

double costOf(const Plan& plan, const SizedPackage& p) {
  const Package package = buildPackage(plan, p.choice);
  return winterCost(package.plan, package.plan.prices, p.ledger, p.winters, package.kit).total();
}

std::vector<UncertainPrice> uncertainPrices(const Plan& plan) {
  std::vector<UncertainPrice> prices{{.of = UncertainPrice::Of::electricity, .spread = plan.prices.electricitySpread}};
  const auto add = [&](Carrier fuel, double spread) {
    const auto there =
        std::find_if(prices.begin(), prices.end(), [fuel](const UncertainPrice& p) { return p.of == UncertainPrice::Of::fuel && p.fuel == fuel; });
    if (fuel == Carrier::electricity) return;
    if (there != prices.end())
      there->spread = std::max(there->spread, spread);
    else
      prices.push_back({.of = UncertainPrice::Of::fuel, .fuel = fuel, .spread = spread});
  };
  for (const Heater& h : plan.heaters) add(carrierOf(h), h.fuelPriceSpread);
  for (const FuelPrice& f : plan.prices.fuels) add(f.fuel, 0.0);
  for (std::size_t k = 0; k < plan.measures.size(); ++k)
    prices.push_back({.of = UncertainPrice::Of::measure, .measure = k, .spread = plan.measures[k].priceSpread});
  return prices;
}

/// The nearest multiples of one price at which another package is as cheap as the winner.
void findTurns(UncertainPrice& price, const Shares& s, const std::vector<double>& by) {
  for (std::size_t p = 0; p < s.cost.size(); ++p) {
    const double slope = by[s.winner] - by[p]; // money that the winner gains on it as the price rises to twice
    if (p == s.winner || std::abs(slope) < 1e-12) continue;
    const double factor = 1.0 + (s.cost[p] - s.cost[s.winner]) / slope;
    if (factor < 0.0) continue; // not even as a gift
    auto& turn = slope > 0.0 ? price.above : price.below;
    if (!turn || (slope > 0.0 ? factor < turn->factor : factor > turn->factor)) turn = UncertainPrice::Turn{factor, s.package[p]};
  }
}

} // namespace

HowSure howSure(const Sizing& sizing, const Plan& plan, unsigned draws) {
  HowSure sure;
  Shares s;
  for (std::size_t i = 0; i < sizing.packages.size(); ++i) {
    if (!sizing.packages[i].holds) continue;
    if (static_cast<int>(i) == sizing.winner) s.winner = s.package.size();
    s.package.push_back(static_cast<int>(i));
    s.cost.push_back(costOf(plan, sizing.packages[i]));
  }
  for (UncertainPrice& price : uncertainPrices(plan)) {
    const Plan other = doubled(plan, price);
    std::vector<double> by;
    for (std::size_t p = 0; p < s.package.size(); ++p) by.push_back(costOf(other, sizing.packages[static_cast<std::size_t>(s.package[p])]) - s.cost[p]);
    if (std::all_of(by.begin(), by.end(), [](double b) { return b == 0.0; })) continue; // nobody buys it
    findTurns(price, s, by);
    sure.hasRanges = sure.hasRanges || price.spread > 0.0;
    sure.prices.push_back(price);
    s.by.push_back(std::move(by));
  }
  if (!sure.hasRanges || draws == 0) return sure;
  std::mt19937_64 random(1); // the same draws whenever they are asked for
  unsigned stays = 0;
  for (unsigned d = 0; d < draws; ++d) {
    std::vector<double> cost = s.cost;
    for (std::size_t u = 0; u < sure.prices.size(); ++u) {
      const double off = sure.prices[u].spread * (2.0 * static_cast<double>(random() >> 11) * 0x1p-53 - 1.0);
      for (std::size_t p = 0; p < cost.size(); ++p) cost[p] += off * s.by[u][p];
    }
    const double least = *std::min_element(cost.begin(), cost.end());
    if (cost[s.winner] <= least + 1e-9) ++stays;
    sure.regret += (cost[s.winner] - least) / draws;
  }
  sure.stays = static_cast<double>(stays) / draws;
  return sure;
}

namespace {

/// The winner first, then what is warmest on the frontier and the cheapest others that hold.
std::vector<int> winnerAndRivals(const Sizing& sizing, std::size_t rivals) {
  std::vector<int> run;
  if (sizing.winner >= 0) run.push_back(sizing.winner);
  std::vector<int> others;
  for (std::size_t i = 0; i < sizing.packages.size(); ++i)
    if (sizing.packages[i].holds && static_cast<int>(i) != sizing.winner) others.push_back(static_cast<int>(i));
  const auto cost = [&](int i) { return sizing.packages[static_cast<std::size_t>(i)].cost.total(); };
  std::stable_sort(others.begin(), others.end(), [&](int a, int b) { return cost(a) < cost(b); });
  for (auto warmest = sizing.frontier.rbegin(); warmest != sizing.frontier.rend() && run.size() < 1 + rivals / 2; ++warmest)
    if (std::find(run.begin(), run.end(), *warmest) == run.end()) run.push_back(*warmest);
  for (const int i : others)
    if (run.size() <= rivals && std::find(run.begin(), run.end(), i) == run.end()) run.push_back(i);
  return run;
}

/// `run` packages again in each of `cases`, and into each of them what came of it. `season` runs a package in a case.
template <class Case, class Season>
Result<std::vector<Case>> runAgain(std::vector<Case> cases, const std::vector<int>& run, const Sizing& sizing, const Plan& plan, const SizingOptions& options,
                                   Season season) {
  std::vector<std::optional<Result<SizedPackage>>> all(cases.size() * run.size());
  forEachIndex(all.size(), options.threads, [&](std::size_t i) {
    const Package package = buildPackage(plan, sizing.packages[static_cast<std::size_t>(run[i / cases.size()])].choice);
    const Result<Simulation> found = season(package, cases[i % cases.size()]);
    all[i] = found ? Result<SizedPackage>(sizedPackage(plan, package, found->summary)) : Result<SizedPackage>(found.problem());
  });
  for (std::size_t c = 0; c < cases.size(); ++c) {
    double least = 0.0;
    for (std::size_t r = 0; r < run.size(); ++r) {
      const auto& package = *all[r * cases.size() + c];
      if (!package) return package.problem();
      if (run[r] == sizing.winner) {
        cases[c].misses = package->nights - package->held;
        cases[c].holds = package->holds;
        cases[c].extra = package->cost.total() - sizing.packages[static_cast<std::size_t>(sizing.winner)].cost.total();
      }
      if (package->holds && (cases[c].cheapest < 0 || package->cost.total() < least)) {
        cases[c].cheapest = run[r];
        least = package->cost.total();
      }
    }
  }
  return cases;
}

} // namespace

Result<std::vector<ColderWinter>> colderWinters(const Sizing& sizing, const Plan& plan, PackageScenes& scenes, const SizingOptions& options,
                                                std::size_t rivals) {
  const std::vector<int> run = winnerAndRivals(sizing, rivals);
  if (run.empty()) return std::vector<ColderWinter>();
  return runAgain(
      std::vector<ColderWinter>{{.by_K = 1.0}, {.by_K = 2.0}, {.by_K = 3.0}}, run, sizing, plan, options,
      [&](const Package& package, const ColderWinter& c) { return simulate(package.plan, colderBy(scenes.of(package.plan), c.by_K), {.stop = options.stop}); });
}

Result<std::vector<LikelyHouse>> likelyHouses(const Sizing& sizing, const Plan& plan, PackageScenes& scenes, const SizingOptions& options, std::size_t rivals) {
  if (sizing.winner < 0 || !plan.calibration) return std::vector<LikelyHouse>();
  const auto offsets = sigmaPoints(plan.calibration->logCovariance, kFactorCount);
  if (!offsets) return std::vector<LikelyHouse>(); // nothing is known of how sure the factors are
  const auto isOff = [](const std::vector<double>& offset) { return std::any_of(offset.begin(), offset.end(), [](double o) { return o != 0.0; }); };
  if (std::none_of(offsets->begin(), offsets->end(), isOff)) return std::vector<LikelyHouse>(); // known exactly
  std::vector<LikelyHouse> houses;
  for (const std::vector<double>& offset : *offsets) {
    LikelyHouse& house = houses.emplace_back(LikelyHouse{.factors = *plan.calibration});
    house.factors.logCovariance.clear();
    for (int f = 0; f < kFactorCount; ++f) factorOf(house.factors, f) *= std::exp(offset[static_cast<std::size_t>(f)]);
  }
  return runAgain(std::move(houses), winnerAndRivals(sizing, rivals), sizing, plan, options, [&](const Package& package, const LikelyHouse& house) {
    Plan other = package.plan;
    other.calibration = house.factors;
    return simulate(other, scenes.of(other), {.stop = options.stop});
  });
}

LikelyInShort inShort(const Sizing& sizing) {
  LikelyInShort all{.houses = static_cast<int>(sizing.likely.size())};
  for (const LikelyHouse& house : sizing.likely) {
    all.mostMissed = std::max(all.mostMissed, house.misses);
    if (house.holds) ++all.held;
    if (!house.extra) continue;
    all.cheapest = all.cheapest.value_or(0) + (house.cheapest == sizing.winner ? 1 : 0);
    if (!house.holds) continue;
    all.leastExtra = std::min(all.leastExtra.value_or(*house.extra), *house.extra);
    all.mostExtra = std::max(all.mostExtra.value_or(*house.extra), *house.extra);
  }
  return all;
}

} // namespace muffle
