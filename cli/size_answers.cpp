// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/size_answers.h"

#include "cli/answers.h"
#include "cli/digits.h"
#include "core/fit/calibrate.h"
#include "core/plan/names.h"
#include "core/plan/plan_json.h"
#include "core/sizing/why_not.h"
#include "words/words.h"

#include <fmt/format.h>

#include <algorithm>

namespace muffle {
namespace {

/// By which size of each measure it takes, "-" for none: the same in every answer of the same list.
std::string choiceId(const Choice& choice) {
  std::string id;
  for (const int place : choice) id += (id.empty() ? "" : ".") + (place < 0 ? std::string("-") : std::to_string(place + 1));
  return id;
}

std::string nameOfPrice(const Plan& plan, const UncertainPrice& price) {
  switch (price.of) {
  case UncertainPrice::Of::electricity: return "electricity";
  case UncertainPrice::Of::fuel: return factsOf(price.fuel).id;
  case UncertainPrice::Of::measure: break;
  }
  return english(nameOf(plan.measures[price.measure]));
}

Json sureAnswer(const Plan& plan, const Sizing& sizing, const HowSure& sure) {
  const auto label = [&](int i) { return i < 0 ? Json() : Json(english(sizing.packages[static_cast<std::size_t>(i)].label)); };
  Json out{{"stays_cheapest", sure.hasRanges ? Json(digits(sure.stays, 4)) : Json()}, {"regret", sure.hasRanges ? Json(digits(sure.regret, 2)) : Json()}};
  out["prices"] = Json::array();
  for (const UncertainPrice& price : sure.prices) {
    Json entry{{"price", nameOfPrice(plan, price)}, {"spread", price.spread}};
    for (const auto& [key, turn] : {std::pair{"below", &price.below}, {"above", &price.above}})
      if (*turn) entry[key] = {{"times", digits((*turn)->factor, 4)}, {"then", label((*turn)->package)}};
    out["prices"].push_back(std::move(entry));
  }
  const auto again = [&](Json entry, const auto& a) {
    entry.update({{"misses", a.misses}, {"holds", a.holds}, {"costs_more", digits(a.extra.value_or(0.0), 2)}, {"cheapest", label(a.cheapest)}});
    return entry;
  };
  out["colder"] = Json::array();
  for (const ColderWinter& c : sizing.colder) out["colder"].push_back(again({{"by_K", c.by_K}}, c));
  out["likely"] = Json::array();
  for (LikelyHouse house : sizing.likely) {
    Json factors;
    for (int f = 0; f < kFactorCount; ++f) factors[factorName(f)] = digits(factorOf(house.factors, f), 4);
    out["likely"].push_back(again({{"factors", factors}}, house));
  }
  return out;
}

} // namespace

Json sizeAnswer(const Plan& plan, const Sizing& sizing, const HowSure* sure) {
  const auto entry = [&](int i) {
    const SizedPackage& p = sizing.packages[static_cast<std::size_t>(i)];
    Json taken = Json::array();
    for (std::size_t k = 0; k < p.choice.size(); ++k) {
      if (p.choice[k] < 0) continue;
      const Measure& m = plan.measures[k];
      Json measure{{"measure", k}, {"name", english(nameOf(m))}};
      if (!m.id.empty()) measure["id"] = m.id;
      if (!m.levels.empty()) measure["level"] = m.levels[static_cast<std::size_t>(p.choice[k])];
      taken.push_back(measure);
    }
    return Json{{"label", english(p.label)},
                {"taken", taken},
                {"cost", costAnswer(p.cost, plan.prices)},
                {"nights", p.nights},
                {"held", p.held},
                {"coldest_C", digits(p.coldest_C, 2)},
                {"degree_hours_K_h", digits(p.degreeHours_K_h, 2)},
                {"growth_days", p.growth_d ? Json(digits(*p.growth_d, 2)) : Json()},
                {"heater_kWh", digits(p.heater_kWh, 1)},
                {"spend", digits(p.capital, 2)},
                {"spread", digits(p.spread, 2)},
                {"damp_h", digits(p.damp_h, 0)},
                {"electric_W", digits(p.electric_W, 0)},
                {"withstands", p.isTried ? Json(!p.fails) : Json()},
                {"holds", p.holds}};
  };
  Json out;
  if (sizing.winner >= 0) {
    out["plan"] = entry(sizing.winner);
    const Plan proposed = buildPackage(plan, sizing.packages[static_cast<std::size_t>(sizing.winner)].choice).plan;
    out["plan"]["plan"] = planToJson(proposed);
    out["cautions"] = cautionsAnswer(proposed);
    out["cost"] = out["plan"]["cost"];
  } else {
    out["plan"] = nullptr;
    out["cost"] = nullptr;
    out["why_none"] = fmt::format("none of {} packages holds {} C on all but {} nights; allow misses, lower the line or add measures", sizing.covered,
                                  plan.setpoints.hold_C, plan.ask.missesAllowed);
    out["loosen"] = Json::array();
    for (const Loosening& l : loosenings(sizing, plan)) out["loosen"].push_back(english(whatWouldDo(l, sizing, plan)));
  }
  out["proved_least"] = sizing.provedLeast && sizing.winner >= 0;
  out["bound"] = sizing.winner >= 0 || !sizing.provedLeast ? Json(digits(sizing.bound, 2)) : Json();
  out["gap"] = sizing.winner < 0 ? Json() : Json(digits(sizing.packages[static_cast<std::size_t>(sizing.winner)].cost.total() - sizing.bound, 2));
  out["frontier"] = Json::array();
  for (const int i : sizing.frontier) out["frontier"].push_back(entry(i));
  // the packages nearest in cost to the winner, and why each lost
  std::vector<int> order(sizing.packages.size());
  for (std::size_t i = 0; i < order.size(); ++i) order[i] = static_cast<int>(i);
  std::stable_sort(order.begin(), order.end(), [&](int a, int b) {
    return sizing.packages[static_cast<std::size_t>(a)].cost.total() < sizing.packages[static_cast<std::size_t>(b)].cost.total();
  });
  out["why_not"] = Json::array();
  for (const int i : order) {
    if (i == sizing.winner || out["why_not"].size() >= 12) continue;
    out["why_not"].push_back({{"id", choiceId(sizing.packages[static_cast<std::size_t>(i)].choice)},
                              {"label", english(sizing.packages[static_cast<std::size_t>(i)].label)},
                              {"total", digits(sizing.packages[static_cast<std::size_t>(i)].cost.total(), 2)},
                              {"why", english(whyNot(sizing, i, plan))}});
  }
  out["measures"] = Json::array();
  for (const MeasureVerdict& v : verdicts(sizing, plan)) {
    const SizedPackage& other = sizing.packages[static_cast<std::size_t>(v.other)];
    out["measures"].push_back({{"measure", v.measure},
                               {"id", plan.measures[v.measure].id},
                               {"name", english(nameOf(plan.measures[v.measure]))},
                               {"taken", v.isTaken},
                               {"otherwise", english(other.label)},
                               {"otherwise_holds", v.otherHolds},
                               {"otherwise_misses", v.misses},
                               {"otherwise_costs_more", digits(v.extra, 2)},
                               {"turns_at_price", v.turnsAt ? Json(digits(*v.turnsAt, 4)) : Json()}});
  }
  if (sizing.winner < 0)
    if (const int closest = closestToHolding(sizing); closest >= 0) out["closest"] = entry(closest);
  out["staircase"] = Json::array();
  for (const int i : staircase(sizing, plan)) out["staircase"].push_back(entry(i));
  if (sure) out["sensitivity"] = sureAnswer(plan, sizing, *sure);
  out["rules_of_thumb"] = Json::array();
  for (const ByThumb& rule : sizing.thumb)
    out["rules_of_thumb"].push_back({{"rule", english(rule.says)},
                                     {"cost_per_winter", digits(rule.package.cost.total(), 2)},
                                     {"money_now", digits(rule.package.capital, 2)},
                                     {"nights", rule.package.nights},
                                     {"held", rule.package.held},
                                     {"coldest_C", digits(rule.package.coldest_C, 2)},
                                     {"holds", rule.package.holds}});
  out["packages"] = sizing.packages.size();
  out["covered"] = sizing.covered;
  out["runs"] = sizing.runs;
  out["run_ms"] = digits(sizing.run_ms, 1);
  return out;
}

} // namespace muffle
