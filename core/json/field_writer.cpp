// SPDX-License-Identifier: GPL-3.0-or-later
//
// Writing what is described, and the schema of it.
#include "core/json/fields.h"

namespace muffle {

FieldWriter::FieldWriter(Json& node) : m_node(node) { m_node = Json::object(); }
void FieldWriter::number(const char* key, double& value, Range, const char*, bool) { m_node[key] = value; }
void FieldWriter::number(const char* key, std::optional<double>& value, Range, const char*) {
  if (value) m_node[key] = *value;
}
void FieldWriter::integer(const char* key, int& value, Range, const char*, bool) { m_node[key] = value; }
void FieldWriter::boolean(const char* key, bool& value, const char*) { m_node[key] = value; }
void FieldWriter::text(const char* key, std::string& value, const char*, bool) { m_node[key] = value; }
void FieldWriter::numbers(const char* key, std::vector<double>& values, Range, const char*) { m_node[key] = values; }
void FieldWriter::texts(const char* key, std::vector<std::string>& values, const char*, std::size_t) { m_node[key] = values; }
void FieldWriter::anything(const char* key, std::string& value, const char*) {
  if (!value.empty()) m_node[key] = Json::parse(value, nullptr, false);
}
void FieldWriter::fixedText(const char* key, std::string_view value) { m_node[key] = value; }
Json& FieldWriter::below(const char* key) { return m_node[key]; }
Json& FieldWriter::emptyList(const char* key) { return m_node[key] = Json::array(); }
Json& FieldWriter::addTo(Json& list) { return list.emplace_back(); }

FieldSchema::FieldSchema(Json& node) : m_node(node) {
  m_node["type"] = "object";
  m_node["additionalProperties"] = false;
  m_node["properties"] = Json::object();
}

Json& FieldSchema::property(const char* key, const char* type, const char* what, bool required) {
  if (required) m_node["required"].push_back(key);
  Json& p = m_node["properties"][key];
  p["type"] = type;
  if (*what) p["description"] = what;
  return p;
}

void FieldSchema::number(const char* key, double& value, Range range, const char* what, bool required) {
  Json& p = property(key, "number", what, required);
  p["minimum"] = range.min;
  p["maximum"] = range.max;
  if (!required) p["default"] = value;
}

void FieldSchema::number(const char* key, std::optional<double>&, Range range, const char* what) {
  Json& p = property(key, "number", what, false);
  p["minimum"] = range.min;
  p["maximum"] = range.max;
}

void FieldSchema::integer(const char* key, int& value, Range range, const char* what, bool required) {
  Json& p = property(key, "integer", what, required);
  p["minimum"] = range.min;
  p["maximum"] = range.max;
  if (!required) p["default"] = value;
}

void FieldSchema::boolean(const char* key, bool& value, const char* what) { property(key, "boolean", what, false)["default"] = value; }
void FieldSchema::text(const char* key, std::string&, const char* what, bool required) { property(key, "string", what, required); }

void FieldSchema::numbers(const char* key, std::vector<double>&, Range range, const char* what) {
  property(key, "array", what, false)["items"] = {{"type", "number"}, {"minimum", range.min}, {"maximum", range.max}};
}

void FieldSchema::texts(const char* key, std::vector<std::string>&, const char* what, std::size_t most) { itemsOf(key, what, most) = {{"type", "string"}}; }

void FieldSchema::anything(const char* key, std::string&, const char* what) { m_node["properties"][key] = {{"description", what}}; }
void FieldSchema::fixedText(const char* key, std::string_view value) { property(key, "string", "", true)["const"] = value; }

void FieldSchema::choices(const char* key, std::span<const char* const> ids, const char* what, bool required) {
  Json& options = property(key, "string", what, required)["enum"] = Json::array();
  for (const char* id : ids) options.push_back(id);
}

Json& FieldSchema::itemsOf(const char* key, const char* what, std::size_t most) {
  Json& p = property(key, "array", what, false);
  p["maxItems"] = most;
  return p["items"];
}

} // namespace muffle
