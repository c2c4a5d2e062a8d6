// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/plan_tables.h"

#include <fmt/format.h>

#include <map>
#include <set>

namespace muffle {
namespace {

constexpr const char* kHead = R"(# The plan: schema "muffle-plan-2"

A JSON file. Unknown keys, wrong types and values outside the ranges are reported with their JSON pointer; nothing is guessed.
This page and [plan.schema.json](plan.schema.json) come from the description that reads the file (`muffle-cli schema --tables`,
`muffle-cli schema`). `*` is required.

Files of schema "muffle-plan-1" are read as well: its `heater`, a bay's `heater_W` and a tank's `boiler_...` become `heaters`.
)";

constexpr const char* kFoot = R"(
A layer's `gap_m` lies between it and the next layer inwards. `measures[].levels` are sizes to try besides leaving the measure out: barrels, watts, air
changes an hour, metres of skirt, how many kelvin lower a hardier crop lets every line be, or the night is kept; a second skin and a blanket need none. `price` is per m² of
cover (skin, blanket), per barrel, per kW, or for the whole (sealing). `muffle-cli materials` lists materials and soils; a plan may bring `materials` of its
own beside them.
)";

std::string number(const Json& value) { return value.is_number_float() ? fmt::format("{:g}", value.get<double>()) : value.dump(); }

class Tables {
public:
  explicit Tables(const Json& schema) { section("plan", schema); }
  [[nodiscard]] std::string text() const { return kHead + m_text + kFoot; }

private:
  /// One table, then those of the objects and lists in it. What has been described before is named.
  void section(const std::string& path, const Json& object) {
    m_text += fmt::format("\n## {}\n\n| key | meaning | allowed | default |\n|---|---|---|---|\n", path);
    std::set<std::string> required;
    if (object.contains("required"))
      for (const Json& key : object["required"]) required.insert(key.get<std::string>());
    std::vector<std::pair<std::string, const Json*>> inner;
    for (const auto& [key, value] : object["properties"].items()) {
      const std::string below = path == "plan" ? key : path + "." + key;
      const Json* nested = value.contains("properties") ? &value : value.contains("items") && value["items"].contains("properties") ? &value["items"] : nullptr;
      std::string allowed = nested ? described(below, *nested, nested != &value) : allowedOf(value);
      m_text += fmt::format("| `{}`{} | {} | {} | {} |\n", key, required.count(key) ? "*" : "", value.value("description", ""), allowed,
                            value.contains("default") ? number(value["default"]) : "");
      if (nested && m_where.at((*nested)["properties"].dump()) == below) inner.emplace_back(below, nested);
    }
    for (const auto& [below, nested] : inner) section(below, *nested);
  }

  std::string described(const std::string& path, const Json& object, bool isList) {
    const auto [place, isNew] = m_where.try_emplace(object["properties"].dump(), path);
    return fmt::format("{}, see {}", isList ? "list" : "object", isNew ? "`" + path + "` below" : "`" + place->second + "`");
  }

  static std::string allowedOf(const Json& value) {
    if (value.contains("const")) return value["const"].dump();
    if (value.contains("enum")) {
      std::string names;
      for (const Json& name : value["enum"]) names += (names.empty() ? "" : ", ") + name.get<std::string>();
      return names;
    }
    const Json& bounds = value.contains("items") ? value["items"] : value;
    const std::string list = value.contains("items") ? "list of " : "";
    if (bounds.contains("minimum")) return fmt::format("{}{} to {}", list, number(bounds["minimum"]), number(bounds["maximum"]));
    const std::string type = bounds.value("type", "");
    return list + (type == "string" ? "text" : type == "boolean" ? "true or false" : type);
  }

  std::string m_text;
  std::map<std::string, std::string> m_where; ///< by an object's properties: where they are described
};

} // namespace

std::string planTables(const Json& schema) { return Tables(schema).text(); }

} // namespace muffle
