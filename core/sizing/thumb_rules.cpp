// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sizing/thumb_rules.h"

#include "core/plan/measure_table.h"
#include "core/sizing/usual_measures.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace muffle {
namespace {

constexpr double kHeaterStep_W = 500.0;

/// As the plan lists it where it does, else as it is usually bought.
Measure pricedFor(const Plan& plan, MeasureKind kind) {
  for (const Measure& m : plan.measures)
    if (m.kind == kind && (kind != MeasureKind::heater || m.heater == HeaterKind::electric)) {
      Measure listed = m;
      listed.id.clear();
      listed.excludes.clear();
      listed.needs.clear();
      listed.offer = Offer::open;
      return listed;
    }
  return usualMeasure(kind);
}

Measure heaterOfSize(const Plan& plan, double power_W) {
  Measure heater = pricedFor(plan, MeasureKind::heater);
  heater.levels = {std::max(kHeaterStep_W, std::ceil(power_W / kHeaterStep_W) * kHeaterStep_W)};
  return heater;
}

ThumbRule ruleOf(const Plan& plan, Message says, std::vector<Measure> builds) {
  ThumbRule rule{std::move(says), plan};
  rule.plan.measures = std::move(builds);
  return rule;
}

double coldestOutside_C(const Weather& weather) {
  double coldest_C = std::numeric_limits<double>::max();
  for (const Winter& winter : weather.winters)
    for (const auto outside_C : winter.outside_C)
      if (!std::isnan(outside_C)) coldest_C = std::min(coldest_C, static_cast<double>(outside_C));
  return coldest_C;
}

} // namespace

std::vector<ThumbRule> thumbRules(const Plan& plan, const Weather& weather) {
  std::vector<ThumbRule> rules;
  const HouseShape& shape = plan.house.shape;
  const double difference_K = plan.setpoints.hold_C - coldestOutside_C(weather);
  const auto isDouble = [](const House& house) { return std::min({house.roof.layers.size(), house.sides.layers.size(), house.ends.layers.size()}) > 1; };
  if (difference_K > 0.0) {
    const Measure alone = heaterOfSize(plan, shape.cover_m2() * difference_K * (isDouble(plan.house) ? kThumbDouble_W_m2K : kThumbSingle_W_m2K));
    rules.push_back(ruleOf(plan, Message{"thumb.heater", Amount{alone.levels[0], Unit::watt}}, {alone}));
    if (!isDouble(plan.house)) {
      const Measure under = heaterOfSize(plan, shape.cover_m2() * difference_K * kThumbDouble_W_m2K);
      Measure skin = pricedFor(plan, MeasureKind::secondSkin);
      skin.faces = CoveredFaces::all;
      rules.push_back(ruleOf(plan, Message{"thumb.double-and-heater", Amount{under.levels[0], Unit::watt}}, {skin, under}));
    }
  }
  Measure water = pricedFor(plan, MeasureKind::barrels);
  const double litres = plan.barrels.empty() ? Barrels{}.litres : plan.barrels.front().litres;
  water.levels = {std::max(1.0, std::round(kThumbWater_l_m2 * shape.floor_m2() / litres))};
  rules.push_back(ruleOf(plan, Message{"thumb.water", Amount{kThumbWater_l_m2 / 1000.0, Unit::metre}, Amount{water.levels[0]}}, {water}));
  rules.back().plan.heaters.clear();
  std::erase_if(rules, [](const ThumbRule& rule) { return !check(rule.plan).empty() || !goTogether(rule.plan, Choice(rule.plan.measures.size(), 0)); });
  return rules;
}

Result<std::vector<ByThumb>> runThumbRules(const Plan& plan, PackageScenes& scenes, const std::atomic<bool>* stop) {
  std::vector<ByThumb> all;
  for (ThumbRule& rule : thumbRules(plan, *scenes.weather())) {
    auto package = runPackage(rule.plan, Choice(rule.plan.measures.size(), 0), scenes, stop);
    if (!package) return package.problems();
    all.push_back({std::move(rule.says), std::move(rule.plan), *std::move(package)});
  }
  return all;
}

} // namespace muffle
