// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/plan_upgrade.h"

#include <fmt/format.h>

#include <initializer_list>

namespace muffle {
namespace {

constexpr const char* kFirst = "muffle-plan-1";
constexpr double kBayHeater_W = 2000.0; // that a bay of the first form had where it did not say

class FromFirst {
public:
  explicit FromFirst(UpgradedPlan& plan) : m_plan(plan) {}

  void run() {
    Json& document = m_plan.document;
    document["schema"] = kPlanSchema;
    if (const auto list = document.find("heaters"); list != document.end() && list->is_array()) m_heaters = *list;
    if (const auto heater = document.find("heater"); heater != document.end()) {
      if (heater->is_object()) {
        Json& now = add("heater", "house");
        for (const auto& [key, value] : heater->items()) now[key] = value;
        m_plan.moved.emplace_back(at(""), "/heater");
      } else if (!heater->is_null()) {
        m_heaters.push_back(*heater);
        m_plan.moved.emplace_back(at(""), "/heater");
      }
      document.erase("heater");
    }
    if (const auto house = document.find("house"); house != document.end() && house->is_object())
      if (const auto bay = house->find("warm_bay"); bay != house->end() && bay->is_object()) ofBay(*bay);
    if (const auto loops = document.find("water_loops"); loops != document.end() && loops->is_array())
      for (std::size_t i = 0; i < loops->size(); ++i)
        if ((*loops)[i].is_object()) ofTank((*loops)[i], i);
    if (!m_heaters.empty()) document["heaters"] = std::move(m_heaters);
  }

private:
  Json& add(const std::string& id, const std::string& in) {
    Json& heater = m_heaters.emplace_back(Json::object());
    heater["id"] = id;
    heater["in"] = in;
    return heater;
  }
  [[nodiscard]] std::string at(const std::string& key) const { return fmt::format("/heaters/{}{}", m_heaters.size() - 1, key); }
  static bool isNone(const Json& power) { return power.is_number() && power.get<double>() == 0.0; }

  void ofBay(Json& bay) {
    const auto said = bay.find("heater_W");
    const Json power = said == bay.end() ? Json(kBayHeater_W) : *said;
    bay.erase("heater_W");
    if (isNone(power)) return;
    Json& heater = add("bay-heater", "bay");
    heater["power_W"] = power;
    m_plan.moved.emplace_back(at("/power_W"), "/house/warm_bay/heater_W");
  }

  void ofTank(Json& loop, std::size_t index) {
    const auto power = loop.find("boiler_W");
    if (power != loop.end() && !isNone(*power)) {
      Json& heater = add(fmt::format("boiler-{}", index + 1), fmt::format("tank:{}", index + 1));
      heater["kind"] = "boiler";
      for (const auto& [old, now] : kOfTank) {
        const auto value = loop.find(old);
        if (value == loop.end()) continue;
        heater[now] = *value;
        m_plan.moved.emplace_back(at(std::string("/") + now), fmt::format("/water_loops/{}/{}", index, old));
      }
    }
    for (const auto& [old, now] : kOfTank) loop.erase(old);
  }

  static constexpr std::initializer_list<std::pair<const char*, const char*>> kOfTank{
      {"boiler_W", "power_W"}, {"boiler_holds_C", "holds_C"}, {"boiler_from_h", "from_h"}, {"boiler_for_h", "for_h"}, {"fuel_price_kWh", "fuel_price_kWh"}};
  UpgradedPlan& m_plan;
  Json m_heaters = Json::array();
};

} // namespace

void UpgradedPlan::tellWhere(Problems& problems) const {
  for (Problem& problem : problems)
    for (const auto& [now, before] : moved)
      if (problem.where == now || problem.where.starts_with(now + "/")) {
        problem.where = before + problem.where.substr(now.size());
        break;
      }
}

std::optional<UpgradedPlan> upgradePlan(const Json& document) {
  const auto schema = document.is_object() ? document.find("schema") : document.end();
  if (schema == document.end() || !schema->is_string() || schema->get_ref<const std::string&>() != kFirst) return std::nullopt;
  UpgradedPlan plan{document, {}};
  FromFirst(plan).run();
  return plan;
}

} // namespace muffle
