// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/own_measure.h"

#include "core/plan/plan_json.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>

namespace muffle {
namespace {

constexpr std::array<std::string_view, 9> kMaySet{"/house/",       "/setpoints/",   "/barrels/", "/ground_pipes/", "/compost/",
                                                  "/water_loops/", "/soil_cables/", "/mass/",    "/heaters/"};

bool maySet(std::string_view field) {
  return std::any_of(kMaySet.begin(), kMaySet.end(), [field](std::string_view root) { return field.starts_with(root); });
}

std::string rootsAllowed() {
  std::string roots;
  for (const std::string_view root : kMaySet) roots += (roots.empty() ? "" : ", ") + std::string(root.substr(0, root.size() - 1));
  return roots;
}

Problem cannot(const Measure& m, const Setting& setting) {
  return {ProblemKind::badInput, "sets", Message{"plan.own-measure-cannot-set", m.name, setting.field}, Message{"plan.own-measure-may-set", rootsAllowed()}};
}

} // namespace

bool setsAny(const Measure& m, std::string_view pointer) {
  return std::any_of(m.sets.begin(), m.sets.end(), [pointer](const Setting& s) { return s.field.starts_with(pointer); });
}

Result<Plan> withSettings(const Plan& plan, const Measure& m, double level) {
  Plan alone = plan; // the list is no part of it
  alone.measures.clear();
  Json document = planToJson(alone);
  for (const Setting& setting : m.sets) {
    if (!maySet(setting.field)) return cannot(m, setting);
    const Json value = setting.to.empty() ? Json(level) : Json::parse(setting.to, nullptr, false);
    if (value.is_discarded()) return cannot(m, setting);
    try { // pointers that lead nowhere are thrown
      document[Json::json_pointer(setting.field)] = value;
    } catch (const Json::exception&) { return cannot(m, setting); }
  }
  auto made = planFromJson(document);
  if (!made) return made.problems();
  made->measures = plan.measures;
  return *std::move(made);
}

Plan putBack(Plan now, const Plan& before) {
  now.house = before.house;
  now.setpoints = before.setpoints;
  now.barrels = before.barrels;
  now.groundPipes = before.groundPipes;
  now.compost = before.compost;
  now.waterLoops = before.waterLoops;
  now.soilCables = before.soilCables;
  now.mass = before.mass;
  now.heaters = before.heaters;
  return now;
}

Result<std::vector<Setting>> settingsBetween(const Plan& from, const Plan& to) {
  const auto bare = [](Plan plan) {
    plan.measures.clear();
    return planToJson(plan);
  };
  std::vector<Setting> settings;
  for (const Json& step : Json::diff(bare(from), bare(to))) {
    const auto field = step["path"].get<std::string>();
    if (!maySet(field + "/")) continue;
    const bool isSet = step["op"] != "remove";
    if (!isSet || !maySet(field))
      return Problem{ProblemKind::badInput, field, Message{"plan.own-measure-takes-away", field}, Message{"plan.own-measure-only-sets"}};
    settings.push_back({field, step["value"].dump()});
  }
  if (settings.empty())
    return Problem{ProblemKind::badInput, "", Message{"plan.own-measure-changes-nothing"}, Message{"plan.own-measure-may-set", rootsAllowed()}};
  return settings;
}

} // namespace muffle
