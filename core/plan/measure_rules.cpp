// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/measure_rules.h"

#include "core/plan/measure_table.h"
#include "core/plan/names.h"
#include "core/plan/own_measure.h"

#include <fmt/format.h>

#include <algorithm>
#include <optional>

namespace muffle {
namespace {

std::optional<std::size_t> called(const Plan& plan, const std::string& id) {
  for (std::size_t k = 0; k < plan.measures.size(); ++k)
    if (plan.measures[k].id == id) return k;
  return std::nullopt;
}

} // namespace

const std::string& idOf(Plan& plan, std::size_t measure) {
  std::string& id = plan.measures[measure].id;
  const std::string stem = rowOf(plan.measures[measure].kind).id;
  for (int n = 1; id.empty(); ++n)
    if (const std::string free = n == 1 ? stem : fmt::format("{}-{}", stem, n); !called(plan, free)) id = free;
  return id;
}

std::vector<int> placesOf(const Measure& m) {
  std::vector<int> places;
  if (m.offer != Offer::fixed) places.push_back(kNotBuilt);
  for (int place = 0; m.offer != Offer::ruledOut && place < levelCount(m); ++place) places.push_back(place);
  return places;
}

bool mayBeBuilt(const Plan& plan, std::span<const int> choice) {
  for (std::size_t k = 0; k < choice.size(); ++k) {
    const Measure& m = plan.measures[k];
    if (choice[k] == kUndecided) continue;
    if (choice[k] == kNotBuilt) {
      if (m.offer == Offer::fixed) return false;
      continue;
    }
    if (m.offer == Offer::ruledOut) return false;
    for (const std::string& id : m.excludes)
      if (const auto other = called(plan, id); other && choice[*other] >= 0) return false;
    for (const std::string& id : m.needs)
      if (const auto other = called(plan, id); other && choice[*other] == kNotBuilt) return false;
  }
  return true;
}

void checkMeasureRules(const Plan& plan, Problems& problems) {
  const auto bad = [&](std::size_t k, const char* key, Message what, Message allowed) {
    problems.push_back({ProblemKind::badInput, fmt::format("/measures/{}/{}", k, key), std::move(what), std::move(allowed)});
  };
  std::string ids;
  for (const Measure& m : plan.measures)
    if (!m.id.empty()) ids += (ids.empty() ? "" : ", ") + m.id;
  for (std::size_t k = 0; k < plan.measures.size(); ++k) {
    const Measure& m = plan.measures[k];
    if (!m.id.empty() && *called(plan, m.id) != k) bad(k, "id", Message{"plan.two-measures-called", m.id}, Message{"plan.each-needs-id-own"});
    for (const auto& [key, others] : {std::pair{"excludes", &m.excludes}, {"needs", &m.needs}})
      for (const std::string& id : *others)
        if (const auto other = called(plan, id); !other || *other == k)
          bad(k, key, Message{"plan.no-other-measure-called", id}, Message{"plan.measures-called", ids.empty() ? "-" : ids});
    if (m.kind != MeasureKind::own) {
      if (!m.sets.empty()) bad(k, "sets", Message{"plan.only-own-measures-set", rowOf(m.kind).id}, Message{"plan.kind-own-needed"});
      continue;
    }
    if (m.name.empty()) bad(k, "name", Message{"plan.own-measure-without-name"}, Message{"plan.give-it-a-name"});
    if (m.sets.empty()) bad(k, "sets", Message{"plan.own-measure-changes-nothing"}, Message{"plan.give-least-one"});
    for (int place = 0; place < levelCount(m); ++place)
      if (const auto made = withSettings(plan, m, levelAt(m, place)); !made) {
        Problem why = made.problem();
        if (why.where == "sets")
          bad(k, "sets", std::move(why.what), std::move(why.allowed));
        else // what the plan would be with it
          problems.push_back({ProblemKind::badInput, fmt::format("/measures/{}/sets", k),
                              Message{"plan.own-measure-makes", m.name, why.where, why.what}, std::move(why.allowed)});
        break;
      }
  }
}

} // namespace muffle
