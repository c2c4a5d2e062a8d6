// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sizing/search.h"

#include "core/parallel.h"
#include "core/plan/heaters.h"
#include "core/plan/measure_table.h"
#include "core/plan/own_measure.h"
#include "core/plan/rooms.h"
#include "core/plan/store_rules.h"
#include "core/sizing/search_memory.h"
#include "core/sizing/sized_heaters.h"

#include <algorithm>
#include <chrono>
#include <map>
#include <mutex>
#include <optional>
#include <queue>
#include <tuple>
#include <utility>

namespace muffle {
namespace {

constexpr double kNever = 1e300;
constexpr double kNeverTooSmall = 50.0; // times the largest size, of the heater that says what a house takes
constexpr std::size_t kRound = 6;       // nodes looked at together, whatever the number of threads, so that it never changes the answer

/// Whether every room's lowest is above that outdoors, so that what keeps more in could only have made it higher. The floor of a house that is not heated may
/// still be as cold as last week's frost, and the sky colder than either: then it is the air outside that warms the house, and a blanket keeps that out.
bool isWarmerThanOutside(const NightResult& night) {
  return night.coldest_C >= night.outsideLow_C &&
         std::all_of(night.roomColdest_C.begin(), night.roomColdest_C.end(), [&](double coldest_C) { return coldest_C >= night.outsideLow_C; });
}

using Relaxed = RelaxedSeason;

class Search {
public:
  Search(const Plan& plan, PackageScenes& scenes, const SizingOptions& options)
      : m_plan(plan), m_scenes(scenes), m_options(options), m_stop(options.stop), m_memory(memoryOf(options, plan, scenes.weather())),
        m_heaters(sizedHeaters(plan, *scenes.weather())), m_open(relaxable(plan)) {
    if (m_heaters)
      for (const std::size_t k : m_heaters->measures) m_open[k] = false;
    m_slack = kBoundSlack_kWh_m2 * largestFloor_m2() * kWinterDays * dearest_kWh();
    for (std::size_t k = 0; k < plan.measures.size(); ++k) m_same.push_back(m_open[k] ? levelAsRelaxed(k) : kUndecided);
    // what costs most is decided first: its bound rises soonest
    for (std::size_t k = 0; k < plan.measures.size(); ++k)
      if (m_open[k]) m_order.push_back(k);
    std::stable_sort(m_order.begin(), m_order.end(), [&](std::size_t a, std::size_t b) { return leastCost(a) > leastCost(b); });
  }

  Result<Sizing> run() {
    const auto begin = std::chrono::steady_clock::now();
    const auto isLate = [&] { return m_options.time_s && std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count() > *m_options.time_s; };
    runLeaves(seeds());
    if (m_packages.empty() && !m_problem && !m_stop) {
      const auto first = firstThatCanBeBuilt(m_plan);
      if (!first) return nothingAllowed();
      runLeaves({*first});
    }
    if (!m_stop) plant();
    bool isCut = false;
    while (!m_problem && !m_stop && !m_queue.empty() && m_queue.top().bound <= incumbent() + 1e-9) {
      if (isLate()) {
        isCut = true;
        break;
      }
      m_below = m_queue.top().bound;
      round();
      tell();
    }
    if (m_problem) return *m_problem;
    if (m_stop && m_packages.empty()) return Problem{ProblemKind::cancelled, "", Message{"sizing.search-was-stopped"}, {}};
    const double left = m_stop ? m_below : m_queue.empty() ? kNever : m_queue.top().bound; // nodes of a round that was broken off are gone
    if (!isCut) runLeaves(neighbours());
    if (m_problem) return *m_problem;
    isCut = isCut || m_stop;
    Sizing sizing;
    sizing.isStopped = static_cast<bool>(m_stop);
    if (isCut) sizing.memory = memory();
    for (auto& [choice, package] : m_packages) sizing.packages.push_back(std::move(package));
    rankPackages(sizing, m_plan);
    sizing.covered = packageCount(m_plan);
    sizing.runs = m_runs;
    sizing.provedLeast = !isCut;
    const double cost = sizing.winner < 0 ? kNever : sizing.packages[static_cast<std::size_t>(sizing.winner)].cost.total();
    sizing.bound = isCut ? std::min(left, cost) : sizing.winner < 0 ? 0.0 : cost;
    sizing.run_ms = std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begin).count();
    return sizing;
  }

  /// See boundOf(). Nothing if a run failed: then there is a problem.
  std::optional<PackageBound> bound(const Choice& choice) {
    const auto limited = runRelaxed(asRun(choice), false);
    if (!limited) return std::nullopt;
    PackageBound bound{limited->misses, limited->degreeHours_K_h, fixedCost(m_plan, choice)};
    const auto set = m_heaters ? setOf(choice) : std::nullopt;
    if (!set) {
      bound.cost += atLeast(limited->money);
      return bound;
    }
    const auto traced = runRelaxed(asTraced(choice), true);
    if (!traced) return std::nullopt;
    bound.cost += atLeast(traced->least[*set]);
    return bound;
  }
  [[nodiscard]] const std::optional<Problem>& problem() const { return m_problem; }

private:
  /// A set of heaters that a node may still come to: among SizedHeaters::sets, or kNotBuilt for those that the house has.
  struct Alternative {
    int level = kNotBuilt;
    double fixed = 0.0;  ///< what is decided costs a winter, with it
    double energy = 0.0; ///< at least
    bool isTested = false;
    [[nodiscard]] double bound() const { return fixed + energy; }
  };
  struct Node {
    Choice choice; ///< the heater's own place, where it is sized, says nothing
    std::vector<Alternative> alternatives;
    bool isTraced = false;
    double bound = 0.0;
    std::size_t open = 0; ///< measures that are
    std::size_t serial = 0;
    [[nodiscard]] std::size_t best() const {
      return static_cast<std::size_t>(
          std::min_element(alternatives.begin(), alternatives.end(), [](const Alternative& a, const Alternative& b) { return a.bound() < b.bound(); }) -
          alternatives.begin());
    }
  };
  struct Later {
    bool operator()(const Node& a, const Node& b) const { return std::tie(a.bound, a.open, a.serial) > std::tie(b.bound, b.open, b.serial); }
  };
  enum class Work { trace, test, leaf };
  struct Job {
    Node node;
    Work work = Work::trace;
  };

  /// Of the house and whatever a measure of one's own makes of it.
  double largestFloor_m2() const {
    double largest = m_plan.house.shape.floor_m2();
    for (const Measure& m : m_plan.measures)
      for (int place = 0; place < levelCount(m) && setsAny(m, "/house/shape"); ++place)
        if (const auto made = withSettings(m_plan, m, levelAt(m, place))) largest = std::max(largest, made->house.shape.floor_m2());
    return largest;
  }
  /// Money for a kWh of heat when it costs most, whatever gives it.
  double dearest_kWh() const {
    double dearest = m_plan.prices.electricity_per_kWh;
    for (const TariffWindow& w : m_plan.prices.electricityWindows) dearest = std::max(dearest, w.price_per_kWh);
    for (const Heater& h : m_plan.heaters) dearest = std::max(dearest, h.fuelPrice_kWh / efficiencyOf(h));
    for (const Measure& m : m_plan.measures) {
      const HeaterKindFacts& facts = factsOf(m.heater);
      const FuelPrice* fuel = m.kind == MeasureKind::heater ? listedPrice(m_plan.prices, facts.carrier) : nullptr;
      if (fuel) dearest = std::max(dearest, fuel->price_kWh / facts.efficiency);
    }
    return dearest;
  }
  /// The level that makes the same house as the measure relaxed; kUndecided if none does.
  int levelAsRelaxed(std::size_t k) const {
    const Measure& m = m_plan.measures[k];
    Plan relaxed = m_plan;
    rowOf(m.kind).relax(relaxed, m);
    for (int level = 0; level < levelCount(m); ++level) {
      Plan with = m_plan;
      rowOf(m.kind).apply(with, m, levelAt(m, level));
      if (with == relaxed) return level;
    }
    return kUndecided;
  }
  double leastCost(std::size_t k) const {
    Choice choice(m_plan.measures.size(), kNotBuilt);
    double least = kNever;
    for (choice[k] = 0; choice[k] < levelCount(m_plan.measures[k]); ++choice[k]) least = std::min(least, fixedCost(m_plan, choice));
    return least;
  }
  /// Of money for the heat of a relaxed house, what that of a true one is not below.
  double atLeast(double money) const { return std::max(0.0, (1.0 - kBoundSlack) * money - m_slack); }
  double incumbent() const { return m_best ? m_packages.at(*m_best).cost.total() : kNever; }

  // ---- runs

  /// Of houses that are relaxed the same, the same.
  Choice asRun(Choice choice) const {
    for (std::size_t k = 0; k < choice.size(); ++k)
      if (choice[k] == kUndecided && m_same[k] != kUndecided) choice[k] = m_same[k];
    return choice;
  }

  /// Nothing is known beforehand of houses that are held where a store's thermostat may be either on or off.
  Relaxed nothingKnown(bool isTrace) const {
    Relaxed relaxed;
    if (!isTrace) return relaxed;
    relaxed.least.assign(m_heaters->sets.size(), 0.0);
    relaxed.neverShort.assign(m_heaters->sets.size(), false);
    return relaxed;
  }

  std::optional<Relaxed> runRelaxed(const Choice& choice, bool isTrace) {
    if (m_memory) {
      const auto& known = isTrace ? m_memory->traces : m_memory->tests;
      if (const auto it = known.find(choice); it != known.end()) return it->second;
    }
    Plan plan = relaxedPlan(m_plan, choice);
    if (isHeldWithinARule(plan)) return nothingKnown(isTrace);
    if (isTrace) {
      double largest_W = 0.0;
      for (const std::size_t k : m_heaters->measures)
        for (const double level_W : m_plan.measures[k].levels) largest_W = std::max(largest_W, level_W);
      Heater& heater = *heaterIn(plan, {HeaterPlace::Of::house});
      heater.power_W = kNeverTooSmall * largest_W;
      heater.stage_K = kNextStage_K * static_cast<double>(m_heaters->measures.size() - 1); // the last of a set asks for no more
    }
    Relaxed relaxed;
    const Scene& scene = m_scenes.of(plan);
    std::vector<std::optional<Result<WinterResult>>> all(scene.weather->winters.size());
    if (isTrace) {
      relaxed.least.assign(m_heaters->sets.size(), 0.0);
      relaxed.neverShort.assign(m_heaters->sets.size(), true);
    }
    for (std::size_t w = 0; w < all.size(); ++w) {
      all[w] = simulateWinter(plan, scene, w, {.heaterPower = isTrace, .stop = m_stop.flag()});
      if (!*all[w] || !isTrace) continue;
      for (std::size_t set = 0; set < m_heaters->sets.size(); ++set) {
        const LeastMoney least = leastMoney(*m_heaters, m_plan, set, w, (**all[w]).series.heater_W, scene.weather->winters[w].step_s);
        relaxed.least[set] += least.money;
        if (least.isShort) relaxed.neverShort[set] = false;
      }
    }
    auto run = summarise(plan, scene, std::move(all));
    if (!run) {
      fail(run.problem());
      return std::nullopt;
    }
    const double winters = run->summary.winters;
    const std::vector<OtherRoom> rooms = otherRooms(plan);
    const double lines = 1.0 + static_cast<double>(std::count_if(rooms.begin(), rooms.end(), [](const OtherRoom& room) { return room.isJudged; }));
    const auto isMissedByFar = [&](const NightResult& night) {
      constexpr double kFar_K = kHoldTolerance_K + kBoundSlack_K;
      bool is = night.coldest_C < plan.setpoints.hold_C - kFar_K;
      for (std::size_t r = 0; r < rooms.size(); ++r) is = is || (rooms[r].isJudged && night.roomColdest_C[r] < *rooms[r].hold_C - kFar_K);
      return is;
    };
    for (const NightResult& night : run->nights) {
      if (!night.assessable || night.held || !isWarmerThanOutside(night)) continue;
      if (isMissedByFar(night)) ++relaxed.misses;
      const double hours = static_cast<double>(night.to - night.from + 1) * scene.weather->winters[night.winter].step_s / 3600.0;
      const double slack_K_h = kBoundSlack_K * hours * lines;
      relaxed.degreeHours_K_h += (1.0 - kBoundSlack) * std::max(0.0, night.degreeHours_K_h - slack_K_h) / winters;
    }
    for (double& money : relaxed.least) money /= winters;
    for (std::size_t h = 0; h < plan.heaters.size(); ++h) relaxed.money += run->summary.ledger.money(plan, plan.prices, MeterUse::heater, h) / winters;
    return relaxed;
  }

  /// What was known and what was run since.
  std::shared_ptr<const SearchMemory> memory() const {
    auto memory = m_memory ? std::make_shared<SearchMemory>(*m_memory) : std::make_shared<SearchMemory>(SearchMemory{m_plan, m_scenes.weather(), {}, {}, {}});
    memory->packages.insert(m_packages.begin(), m_packages.end());
    memory->traces.insert(m_traces.begin(), m_traces.end());
    memory->tests.insert(m_tests.begin(), m_tests.end());
    return memory;
  }

  std::optional<SizedPackage> runLeaf(const Choice& choice) {
    if (const SizedPackage* known = remembered(m_memory, choice)) return *known;
    auto package = runPackage(m_plan, choice, m_scenes, m_stop.flag());
    if (package) return *std::move(package);
    fail(package.problem());
    return std::nullopt;
  }
  void fail(const Problem& problem) {
    const std::scoped_lock lock(m_mutex);
    if (!m_problem && !m_stop) m_problem = problem;
    m_stop.set();
  }

  /// Packages themselves, those that have been run already left out.
  void runLeaves(std::vector<Choice> choices) {
    std::sort(choices.begin(), choices.end());
    choices.erase(std::unique(choices.begin(), choices.end()), choices.end());
    std::erase_if(choices, [this](const Choice& c) { return m_packages.contains(c) || !canBeBuilt(m_plan, c); });
    for (std::size_t from = 0; from < choices.size() && !m_stop; from += kRound) {
      const std::size_t count = std::min(kRound, choices.size() - from);
      std::vector<std::optional<SizedPackage>> done(count);
      forEachIndex(count, m_options.threads, [&](std::size_t i) {
        if (!m_stop) done[i] = runLeaf(choices[from + i]);
      });
      for (auto& package : done)
        if (package) take(std::move(*package));
      tell();
    }
  }
  void take(SizedPackage package) {
    ++m_runs;
    const Choice choice = package.choice;
    const auto key = [](const SizedPackage& p) { return std::tuple(p.cost.total(), p.cost.hours, p.degreeHours_K_h, p.choice); };
    const auto isBest = [&] { return package.holds && (!m_best || key(package) < key(m_packages.at(*m_best))); };
    if (isBest() && !m_stop)
      if (auto why = tryPackage(package, m_plan, m_scenes, m_stop.flag())) fail(*why);
    if (isBest()) m_best = choice;
    m_packages.emplace(choice, std::move(package));
  }
  void tell() {
    if (!m_options.progress || m_stop) return;
    SizingProgress progress{.done = m_runs, .of = 0, .found = {}, .bound = {}};
    if (m_best) progress.found = incumbent();
    if (!m_queue.empty()) progress.bound = std::min(m_queue.top().bound, incumbent());
    if (!m_options.progress(progress)) m_stop.set();
  }

  // ---- where it begins and ends

  /// As it is, each heater alone, and everything with each of them: something that holds is known soon, if there is any.
  std::vector<Choice> seeds() const {
    const Choice bare(m_plan.measures.size(), kNotBuilt);
    Choice all(m_plan.measures.size(), kNotBuilt);
    for (std::size_t k = 0; k < all.size(); ++k) all[k] = m_same[k] != kUndecided ? m_same[k] : levelCount(m_plan.measures[k]) - 1;
    std::vector<Choice> seeds{bare, all};
    if (!m_heaters) return seeds;
    for (const std::size_t k : m_heaters->measures)
      for (int level = 0; level < levelCount(m_plan.measures[k]); ++level)
        for (Choice with : {bare, all}) {
          for (const std::size_t other : m_heaters->measures) with[other] = kNotBuilt;
          with[k] = level;
          seeds.push_back(std::move(with));
        }
    return seeds;
  }
  /// What differs from the winner in one measure; without a winner, from what came closest to holding.
  std::vector<Choice> neighbours() const {
    const auto closest = std::min_element(m_packages.begin(), m_packages.end(), [](const auto& a, const auto& b) {
      const auto key = [](const SizedPackage& p) { return std::tuple(p.nights - p.held, p.degreeHours_K_h, p.cost.total()); };
      return key(a.second) < key(b.second);
    });
    const Choice& at = m_best ? *m_best : closest->first;
    std::vector<Choice> all;
    for (std::size_t k = 0; k < at.size(); ++k)
      for (const int level : placesOf(m_plan.measures[k])) {
        all.push_back(at);
        all.back()[k] = level;
      }
    return all;
  }

  /// A node for each way to decide on what cannot be left open.
  void plant() {
    std::vector<Choice> roots{Choice(m_plan.measures.size(), kNotBuilt)};
    for (std::size_t k = 0; k < m_plan.measures.size(); ++k) {
      if (m_heaters && std::find(m_heaters->measures.begin(), m_heaters->measures.end(), k) != m_heaters->measures.end()) continue;
      if (m_open[k]) {
        for (Choice& root : roots) root[k] = kUndecided;
        continue;
      }
      std::vector<Choice> more;
      for (const Choice& root : roots)
        for (const int level : placesOf(m_plan.measures[k])) {
          more.push_back(root);
          more.back()[k] = level;
        }
      roots = std::move(more);
    }
    for (Choice& root : roots) {
      Choice decided = root;
      std::replace(decided.begin(), decided.end(), kUndecided, kNotBuilt);
      if (!goTogether(m_plan, decided)) continue;
      Node node{.choice = std::move(root), .alternatives = {Alternative{}}};
      if (m_heaters)
        for (std::size_t set = 0; set < m_heaters->sets.size(); ++set) node.alternatives.push_back({.level = static_cast<int>(set)});
      push(std::move(node));
    }
  }

  void push(Node node) {
    std::erase_if(node.alternatives, [&](Alternative& a) {
      const Choice decided = withLevel(node, a);
      a.fixed = fixedCost(m_plan, decided);
      return !mayBeBuilt(m_plan, decided) || isTooMuch(decided);
    });
    if (node.alternatives.empty()) return;
    node.open = static_cast<std::size_t>(std::count(node.choice.begin(), node.choice.end(), kUndecided));
    node.bound = node.alternatives[node.best()].bound();
    node.serial = m_serial++;
    m_queue.push(std::move(node));
  }
  /// What is decided already costs more than there is to spend.
  bool isTooMuch(const Choice& choice) const {
    if (!m_plan.ask.toSpend) return false;
    double capital = 0.0;
    for (std::size_t k = 0; k < choice.size(); ++k)
      if (choice[k] >= 0) {
        const Measure& m = m_plan.measures[k];
        capital += measureCapital(m_plan, m, levelAt(m, choice[k]));
      }
    return capital > *m_plan.ask.toSpend;
  }

  // ---- a round

  [[nodiscard]] bool isLeaf(const Node& node) const { return node.open == 0; }
  Choice withLevel(const Node& node, const Alternative& a) const {
    Choice choice = node.choice;
    if (m_heaters)
      for (std::size_t h = 0; h < m_heaters->measures.size(); ++h)
        choice[m_heaters->measures[h]] = a.level == kNotBuilt ? kNotBuilt : m_heaters->sets[static_cast<std::size_t>(a.level)][h];
    return choice;
  }
  /// Which set it has taken; nothing for none.
  std::optional<std::size_t> setOf(const Choice& choice) const {
    std::vector<int> levels;
    for (const std::size_t k : m_heaters->measures) levels.push_back(choice[k]);
    const auto it = std::find(m_heaters->sets.begin(), m_heaters->sets.end(), levels);
    if (it == m_heaters->sets.end()) return std::nullopt;
    return static_cast<std::size_t>(it - m_heaters->sets.begin());
  }
  /// With one heater, whichever it is: their heat goes the same ways.
  Choice asTraced(Choice choice) const {
    for (const std::size_t k : m_heaters->measures) choice[k] = kNotBuilt;
    choice[m_heaters->measures[m_heaters->leastRadiant]] = 0;
    return asRun(std::move(choice));
  }

  void round() {
    std::vector<Job> jobs;
    while (jobs.size() < kRound && !m_queue.empty() && m_queue.top().bound <= incumbent() + 1e-9) {
      Node node = m_queue.top();
      m_queue.pop();
      const Alternative& best = node.alternatives[node.best()];
      const bool sizesAreOpen =
          m_heaters && std::any_of(node.alternatives.begin(), node.alternatives.end(), [](const Alternative& a) { return a.level != kNotBuilt; });
      if (sizesAreOpen && !node.isTraced)
        jobs.push_back({std::move(node), Work::trace});
      else if (isLeaf(node))
        jobs.push_back({std::move(node), Work::leaf});
      else if (!best.isTested)
        jobs.push_back({std::move(node), Work::test});
      else
        branch(node);
    }
    std::vector<std::optional<Relaxed>> relaxed(jobs.size());
    std::vector<std::optional<SizedPackage>> leaves(jobs.size());
    forEachIndex(jobs.size(), m_options.threads, [&](std::size_t i) {
      const Job& job = jobs[i];
      if (m_stop) return;
      const Alternative& best = job.node.alternatives[job.node.best()];
      if (job.work == Work::leaf) {
        if (const Choice leaf = withLevel(job.node, best); !m_packages.contains(leaf) && canBeBuilt(m_plan, leaf)) leaves[i] = runLeaf(leaf);
      } else {
        const Choice key = job.work == Work::trace ? asTraced(job.node.choice) : asRun(withLevel(job.node, best));
        auto& known = job.work == Work::trace ? m_traces : m_tests;
        if (const auto it = known.find(key); it != known.end())
          relaxed[i] = it->second;
        else
          relaxed[i] = runRelaxed(key, job.work == Work::trace);
      }
    });
    if (m_stop) return;
    for (std::size_t i = 0; i < jobs.size(); ++i) {
      Node& node = jobs[i].node;
      if (jobs[i].work == Work::leaf) {
        node.alternatives.erase(node.alternatives.begin() + static_cast<std::ptrdiff_t>(node.best()));
        if (leaves[i]) take(std::move(*leaves[i]));
      } else if (jobs[i].work == Work::trace) {
        m_runs += m_traces.emplace(asTraced(node.choice), *relaxed[i]).second ? 1 : 0;
        takeTrace(node, *relaxed[i]);
      } else {
        m_runs += m_tests.emplace(asRun(withLevel(node, node.alternatives[node.best()])), *relaxed[i]).second ? 1 : 0;
        takeTest(node, *relaxed[i]);
      }
      push(std::move(node));
    }
  }
  void takeTrace(Node& node, const Relaxed& relaxed) const {
    node.isTraced = true;
    const bool isOne = m_heaters->measures.size() == 1; // of several the run is that of the last, which holds a little less
    if (isOne && isTooCold(relaxed)) std::erase_if(node.alternatives, [](const Alternative& a) { return a.level != kNotBuilt; });
    for (Alternative& a : node.alternatives) {
      if (a.level == kNotBuilt) continue;
      const auto level = static_cast<std::size_t>(a.level);
      a.energy = std::max(a.energy, atLeast(relaxed.least[level]));
      if (isOne && relaxed.neverShort[level]) a.isTested = true;
    }
  }
  /// So that nothing it stands for could hold.
  [[nodiscard]] bool isTooCold(const Relaxed& relaxed) const { return muffle::isTooCold(m_plan.ask, relaxed.misses, relaxed.degreeHours_K_h); }
  void takeTest(Node& node, const Relaxed& relaxed) const {
    const std::size_t best = node.best();
    if (isTooCold(relaxed)) {
      node.alternatives.erase(node.alternatives.begin() + static_cast<std::ptrdiff_t>(best));
      return;
    }
    Alternative& a = node.alternatives[best];
    // what one of this size takes is not the same at every hour as what is the least: with a tariff that tells
    if (!m_heaters || a.level == kNotBuilt) a.energy = std::max(a.energy, atLeast(relaxed.money));
    a.isTested = true;
  }
  /// The next measure is decided on. What was known of the whole holds for each part of it.
  void branch(const Node& node) {
    const std::size_t k = *std::find_if(m_order.begin(), m_order.end(), [&](std::size_t open) { return node.choice[open] == kUndecided; });
    for (const int level : placesOf(m_plan.measures[k])) {
      Node child = node;
      child.choice[k] = level;
      if (level != m_same[k]) {
        child.isTraced = false;
        for (Alternative& a : child.alternatives) a.isTested = false;
      }
      push(std::move(child));
    }
  }

  const Plan& m_plan;
  PackageScenes& m_scenes;
  const SizingOptions& m_options;
  Stop m_stop;
  const SearchMemory* m_memory; ///< of an earlier search; null without one
  std::optional<SizedHeaters> m_heaters;
  double m_slack = 0.0;             ///< money a winter
  std::vector<bool> m_open;         ///< by measure: it may be left open
  std::vector<int> m_same;          ///< by measure: the level that makes the house it is relaxed to
  std::vector<std::size_t> m_order; ///< of what may be left open
  std::priority_queue<Node, std::vector<Node>, Later> m_queue;
  std::size_t m_serial = 0, m_runs = 0;
  double m_below = 0.0; ///< money a winter that nothing which holds can be below, as the last round began
  std::map<Choice, SizedPackage> m_packages;
  std::map<Choice, Relaxed> m_traces, m_tests;
  std::optional<Choice> m_best;
  std::mutex m_mutex;
  std::optional<Problem> m_problem;
};

} // namespace

std::vector<bool> relaxable(const Plan& plan) {
  std::vector<bool> may;
  for (const Measure& m : plan.measures) {
    Plan relaxed = plan;
    const auto ofItsKind = std::count_if(plan.measures.begin(), plan.measures.end(), [&](const Measure& o) { return o.kind == m.kind; });
    may.push_back(ofItsKind == 1 && levelCount(m) > 0 && m.offer != Offer::ruledOut &&
                  rowOf(m.kind).relax(relaxed, m)); // of two blankets the second hangs in place of the first
  }
  return may;
}

Plan relaxedPlan(const Plan& plan, const Choice& choice) {
  Plan relaxed = plan;
  bool hasHeater = false;
  for (std::size_t k = 0; k < plan.measures.size(); ++k) {
    const Measure& m = plan.measures[k];
    const MeasureRow& row = rowOf(m.kind);
    if (choice[k] == kUndecided) row.relax(relaxed, m);
    if (choice[k] < 0) continue;
    const double level = levelAt(m, choice[k]);
    const bool isAnother = m.kind == MeasureKind::heater && std::exchange(hasHeater, true);
    (isAnother ? row.also : row.apply)(relaxed, m, level);
  }
  return relaxed;
}

double fixedCost(const Plan& plan, const Choice& choice) {
  Choice decided = choice;
  std::replace(decided.begin(), decided.end(), kUndecided, kNotBuilt);
  const Package package = buildPackage(plan, decided);
  return winterCost(package.plan, plan.prices, Ledger(), 1.0, package.kit).total();
}

Result<PackageBound> boundOf(const Plan& plan, PackageScenes& scenes, const Choice& choice) {
  const SizingOptions options;
  Search search(plan, scenes, options);
  const auto bound = search.bound(choice);
  if (!bound) return *search.problem();
  return *bound;
}

Result<Sizing> searchPackages(const Plan& plan, PackageScenes& scenes, const SizingOptions& options) { return Search(plan, scenes, options).run(); }

} // namespace muffle
