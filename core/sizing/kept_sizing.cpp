// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sizing/kept_sizing.h"

#include "core/fit/calibrate.h"

#include "core/json/message_text.h"
#include "core/plan/measure_table.h"
#include "core/plan/plan_json.h"

#include <algorithm>
#include <cmath>
#include <utility>

namespace muffle {
namespace {

constexpr const char* kForm = "muffle-found-2"; // of another number nothing is read: a search is soon made again
constexpr double kMostWritten = 1e15;
constexpr std::size_t kMostKept = 200'000;

struct WrittenMeter {
  int of = 0, use = 0, index = 0;
  double amount = 0.0, heat_kWh = 0.0;
  std::vector<double> week = {};
};

struct WrittenPackage {
  std::vector<double> choice = {};
  int nights = 0, held = 0;
  double coldest_C = 0.0, degreeHours_K_h = 0.0, heater_kWh = 0.0, winters = 1.0, damp_h = 0.0, loadsAsleep = 0.0;
  std::optional<double> growth_d = {};
  bool isTried = false;
  std::string fails = {}; ///< as storedText() has it; empty: nothing
  std::vector<WrittenMeter> meters = {};
};

struct WrittenColder {
  double by_K = 1.0;
  int misses = 0;
  bool holds = false;
  int cheapest = -1;
  std::optional<double> extra = {};
};

struct WrittenLikely {
  Calibration factors = {};
  int misses = 0;
  bool holds = false;
  int cheapest = -1;
  std::optional<double> extra = {};
};

struct Written {
  std::string plan = {};
  std::vector<WrittenPackage> packages = {};
  double covered = 0.0, runs = 0.0, bound = 0.0, run_ms = 0.0;
  bool provedLeast = false, isStopped = false;
  std::vector<WrittenColder> colder = {};
  std::vector<WrittenLikely> likely = {};
};

template <class V> void describe(V& v, WrittenMeter& m) {
  v.integer("of", m.of, {0, static_cast<double>(Metered::water)}, "what is metered");
  v.integer("use", m.use, {0, static_cast<double>(MeterUse::pile)}, "what for");
  v.integer("index", m.index, {0, 1e6}, "among its kind");
  v.number("amount", m.amount, {-kMostWritten, kMostWritten}, "taken");
  v.number("heat_kWh", m.heat_kWh, {-kMostWritten, kMostWritten}, "given for it");
  v.numbers("week", m.week, {-kMostWritten, kMostWritten}, "by the hours of the week");
}

template <class V> void describe(V& v, WrittenPackage& p) {
  v.numbers("choice", p.choice, {-1, 1e6}, "of each measure");
  v.integer("nights", p.nights, {0, 1e6}, "judged");
  v.integer("held", p.held, {0, 1e6}, "of them");
  v.number("coldest_C", p.coldest_C, {-300, 300}, "of all nights");
  v.number("degree_hours_K_h", p.degreeHours_K_h, {0, kMostWritten}, "below the line");
  v.number("heater_kWh", p.heater_kWh, {0, kMostWritten}, "a winter");
  v.number("winters", p.winters, {1e-6, 1e6}, "that the log amounts to");
  v.number("damp_h", p.damp_h, {0, kMostWritten}, "a winter");
  v.number("growth_d", p.growth_d, {0, 1000}, "a winter");
  v.number("loads_asleep", p.loadsAsleep, {0, kMostWritten}, "a winter");
  v.boolean("tried", p.isTried, "against what is asked beside the log");
  v.text("fails", p.fails, "what it did not withstand");
  v.list("meters", p.meters, "over all winters", 1000);
}

template <class V, class Again> void describeAgain(V& v, Again& a) {
  v.integer("misses", a.misses, {0, 1e6}, "of the winner");
  v.boolean("holds", a.holds, "the winner");
  v.integer("cheapest", a.cheapest, {-1, 1e6}, "then");
  v.number("extra", a.extra, {-kMostWritten, kMostWritten}, "money a winter");
}

template <class V> void describe(V& v, WrittenColder& c) {
  v.number("by_K", c.by_K, {0, 100}, "colder throughout");
  describeAgain(v, c);
}

template <class V> void describe(V& v, WrittenLikely& l) {
  for (int f = 0; f < kFactorCount; ++f) v.number(factorName(f), factorOf(l.factors, f), {0, 1e6}, "factor");
  describeAgain(v, l);
}

template <class V> void describe(V& v, Written& w) {
  v.fixedText("form", kForm);
  v.anything("plan", w.plan, "searched from");
  v.list("packages", w.packages, "that were run", kMostKept);
  v.number("covered", w.covered, {0, kMostWritten}, "combinations");
  v.number("runs", w.runs, {0, kMostWritten}, "seasons");
  v.number("bound", w.bound, {0, kMostWritten}, "money a winter");
  v.number("run_ms", w.run_ms, {0, kMostWritten}, "of the search");
  v.boolean("proved", w.provedLeast, "least");
  v.boolean("stopped", w.isStopped, "before its end");
  v.list("colder", w.colder, "winters", 100);
  v.list("likely", w.likely, "houses", 100);
}

WrittenPackage written(const SizedPackage& p) {
  WrittenPackage w{
      .nights = p.nights, .held = p.held, .coldest_C = p.coldest_C, .degreeHours_K_h = p.degreeHours_K_h, .heater_kWh = p.heater_kWh, .winters = p.winters};
  w.choice.assign(p.choice.begin(), p.choice.end());
  w.damp_h = p.damp_h;
  w.growth_d = p.growth_d;
  w.loadsAsleep = p.loadsAsleep;
  w.isTried = p.isTried;
  if (p.fails) w.fails = storedText(*p.fails);
  for (const Meter& m : p.ledger.meters())
    w.meters.push_back({static_cast<int>(m.of), static_cast<int>(m.use), static_cast<int>(m.index), m.amount, m.heat_kWh, m.week});
  return w;
}

bool isChoiceOf(const Plan& plan, const std::vector<double>& choice) {
  if (choice.size() != plan.measures.size()) return false;
  for (std::size_t k = 0; k < choice.size(); ++k)
    if (choice[k] != std::floor(choice[k]) || choice[k] >= levelCount(plan.measures[k])) return false;
  return true;
}

SizedPackage read(const WrittenPackage& w, const Plan& plan) {
  const Package package = buildPackage(plan, Choice(w.choice.begin(), w.choice.end()));
  std::vector<Meter> meters;
  for (const WrittenMeter& m : w.meters)
    meters.push_back({static_cast<Metered>(m.of), static_cast<MeterUse>(m.use), static_cast<std::size_t>(m.index), m.amount, m.heat_kWh, {}, m.week});
  Summary s;
  s.nights = w.nights;
  s.held = w.held;
  s.coldest_C = w.coldest_C;
  s.degreeHours_K_h = w.degreeHours_K_h;
  s.winters = w.winters;
  s.heater_kWh = w.heater_kWh * w.winters;
  s.damp.above90_h = w.damp_h;
  s.ledger = Ledger(std::move(meters));
  s.cost = winterCost(package.plan, plan.prices, s.ledger, s.winters, package.kit);
  SizedPackage p = sizedPackage(plan, package, s);
  p.heater_kWh = w.heater_kWh;
  p.growth_d = w.growth_d;
  p.loadsAsleep = w.loadsAsleep;
  p.isTried = w.isTried;
  if (!w.fails.empty()) p.fails = messageFromStored(w.fails);
  return p;
}

} // namespace

Json keptToJson(const Sizing& sizing, const Plan& plan) {
  Written w{.covered = static_cast<double>(sizing.covered), .runs = static_cast<double>(sizing.runs), .bound = sizing.bound, .run_ms = sizing.run_ms};
  w.plan = planToJson(plan).dump();
  w.provedLeast = sizing.provedLeast;
  w.isStopped = sizing.isStopped;
  for (const SizedPackage& p : sizing.packages) w.packages.push_back(written(p));
  for (const ColderWinter& c : sizing.colder) w.colder.push_back({c.by_K, c.misses, c.holds, c.cheapest, c.extra});
  for (const LikelyHouse& l : sizing.likely) w.likely.push_back({l.factors, l.misses, l.holds, l.cheapest, l.extra});
  Json json;
  FieldWriter writer(json);
  describe(writer, w);
  return json;
}

Result<KeptSizing> keptFromJson(const Json& json, const std::atomic<bool>* stop) {
  if (!json.is_object()) return Problem{ProblemKind::badInput, "", Message{"json.stands-here", describeValue(json)}, Message{"json.object-needed"}};
  Problems problems;
  Written w;
  {
    FieldReader reader(json, "", problems);
    describe(reader, w);
    reader.finish();
  }
  if (!problems.empty()) return problems;
  const auto text = parseJson(w.plan);
  if (!text) return text.problems();
  const auto plan = planFromJson(*text);
  if (!plan) return plan.problems();
  KeptSizing kept{*plan, {}};
  for (std::size_t i = 0; i < w.packages.size(); ++i) {
    if (stop && *stop) return Problem{ProblemKind::cancelled, "", Message{"sizing.search-was-stopped"}, {}};
    if (!isChoiceOf(*plan, w.packages[i].choice))
      return Problem{ProblemKind::badInput, "/packages/" + std::to_string(i) + "/choice", Message{"sizing.choice-of-another-list"},
                     Message{"sizing.choice-allowed"}};
    kept.sizing.packages.push_back(read(w.packages[i], *plan));
  }
  rankPackages(kept.sizing, *plan);
  for (const WrittenColder& c : w.colder)
    if (c.cheapest < static_cast<int>(w.packages.size())) kept.sizing.colder.push_back({c.by_K, c.misses, c.holds, c.cheapest, c.extra});
  for (const WrittenLikely& l : w.likely)
    if (l.cheapest < static_cast<int>(w.packages.size())) kept.sizing.likely.push_back({l.factors, l.misses, l.holds, l.cheapest, l.extra});
  kept.sizing.covered = static_cast<std::size_t>(w.covered);
  kept.sizing.runs = static_cast<std::size_t>(w.runs);
  kept.sizing.provedLeast = w.provedLeast;
  kept.sizing.isStopped = w.isStopped;
  kept.sizing.bound = w.bound;
  kept.sizing.run_ms = w.run_ms;
  return kept;
}

Result<bool> isStillSo(const KeptSizing& kept, PackageScenes& scenes, const std::atomic<bool>* stop) {
  constexpr double kSame = 1e-9; // of what is reckoned the same way from the same numbers
  const Sizing& s = kept.sizing;
  if (s.packages.empty()) return false;
  const SizedPackage& then = s.packages[static_cast<std::size_t>(s.winner >= 0 ? s.winner : s.frontier.empty() ? 0 : s.frontier.back())];
  const auto now = runPackage(kept.plan, then.choice, scenes, stop);
  if (!now) return now.problems();
  const auto isSame = [](double a, double b) { return std::abs(a - b) <= kSame * std::max(1.0, std::abs(a)); };
  return now->nights == then.nights && now->held == then.held && isSame(now->cost.total(), then.cost.total()) && isSame(now->coldest_C, then.coldest_C) &&
         isSame(now->degreeHours_K_h, then.degreeHours_K_h);
}

} // namespace muffle
