// SPDX-License-Identifier: GPL-3.0-or-later
//
// One description of a structure serves reading, writing and the JSON Schema. A structure gives
//   template <class V> void describe(V& v, Barrels& b) {
//     v.number("litres", b.litres, {1, 20000}, "water in one barrel");
//   }
// and FieldReader, FieldWriter and FieldSchema walk it. A reader collects every problem with its JSON pointer; a key
// that is not described is a problem too, so that a misspelt one cannot pass silently.
#pragma once

#include "core/status.h"

#include <nlohmann/json.hpp>

#include <array>
#include <optional>
#include <set>
#include <string>
#include <string_view>
#include <vector>

namespace muffle {

using Json = nlohmann::ordered_json;

struct Range {
  double min;
  double max;
};

/// What a document may hold at most: past it reading would take long, or the stack. Plans and networks stay far below.
inline constexpr std::size_t kMostJsonBytes = std::size_t{256} << 20;
inline constexpr std::size_t kMostJsonDepth = 64;
inline constexpr std::size_t kMostJsonKeys = 2000; ///< of one object

/// Parses text; a syntax error and what goes past a bound are reported with their line, before anything is built.
Result<Json> parseJson(std::string_view text);

/// What a value is, for messages: `"abc"`, `12`, `a list`.
Message describeValue(const Json& value);

class FieldReader {
public:
  FieldReader(const Json& node, std::string pointer, Problems& problems);
  /// Reports keys that were not asked for.
  void finish();

  void number(const char* key, double& value, Range range, const char* what, bool required = false);
  void number(const char* key, std::optional<double>& value, Range range, const char* what);
  void integer(const char* key, int& value, Range range, const char* what, bool required = false);
  void boolean(const char* key, bool& value, const char* what);
  void text(const char* key, std::string& value, const char* what, bool required = false);
  void numbers(const char* key, std::vector<double>& values, Range range, const char* what);
  void texts(const char* key, std::vector<std::string>& values, const char* what, std::size_t most = 40);
  /// Any value, kept as its JSON text; empty for none.
  void anything(const char* key, std::string& value, const char* what);
  void fixedText(const char* key, std::string_view value);

  template <class E, std::size_t N>
  void choice(const char* key, E& value, const std::array<std::pair<E, const char*>, N>& names, const char*, bool required = false) {
    const Json* node = take(key, required);
    if (!node) return;
    std::string allowed;
    for (const auto& [option, name] : names) {
      if (node->is_string() && node->get_ref<const std::string&>() == name) {
        value = option;
        return;
      }
      allowed += (allowed.empty() ? "" : ", ") + std::string(name);
    }
    bad(key, Message{"json.no-such-choice", describeValue(*node), key}, Message{"json.use-one", allowed});
  }
  template <class T> void object(const char* key, T& value, const char*, bool required = false) {
    if (const Json* node = take(key, required)) readObject(*node, m_pointer + "/" + key, value);
  }
  template <class T> void object(const char* key, std::optional<T>& value, const char*) {
    const Json* node = take(key, false);
    if (!node || node->is_null()) {
      value.reset();
      return;
    }
    readObject(*node, m_pointer + "/" + key, value.emplace());
  }
  template <class T> void list(const char* key, std::vector<T>& values, const char*, std::size_t most = 200) {
    const Json* node = takeList(key, most);
    if (!node) return;
    values.assign(node->size(), T{});
    for (std::size_t i = 0; i < values.size(); ++i) readObject((*node)[i], m_pointer + "/" + key + "/" + std::to_string(i), values[i]);
  }

private:
  template <class T> void readObject(const Json& node, const std::string& pointer, T& value) {
    FieldReader inner(node, pointer, m_problems);
    if (!node.is_object()) {
      m_problems.push_back({ProblemKind::badInput, pointer, Message{"json.stands-here", describeValue(node)}, Message{"json.object-needed"}});
      return;
    }
    describe(inner, value);
    inner.finish();
  }
  const Json* take(const char* key, bool required);
  const Json* takeList(const char* key, std::size_t most);
  void bad(const char* key, Message what, Message allowed, int index = -1); ///< index: of a list's element
  bool numberIn(const char* key, const Json& node, double& value, Range range, int index = -1);

  const Json& m_node;
  std::string m_pointer;
  Problems& m_problems;
  std::set<std::string> m_known;
};

class FieldWriter {
public:
  explicit FieldWriter(Json& node) : m_node(node) { m_node = Json::object(); }
  void number(const char* key, double& value, Range, const char*, bool = false) { m_node[key] = value; }
  void number(const char* key, std::optional<double>& value, Range, const char*) {
    if (value) m_node[key] = *value;
  }
  void integer(const char* key, int& value, Range, const char*, bool = false) { m_node[key] = value; }
  void boolean(const char* key, bool& value, const char*) { m_node[key] = value; }
  void text(const char* key, std::string& value, const char*, bool = false) { m_node[key] = value; }
  void numbers(const char* key, std::vector<double>& values, Range, const char*) { m_node[key] = values; }
  void texts(const char* key, std::vector<std::string>& values, const char*, std::size_t = 40) { m_node[key] = values; }
  void anything(const char* key, std::string& value, const char*) {
    if (!value.empty()) m_node[key] = Json::parse(value, nullptr, false);
  }
  void fixedText(const char* key, std::string_view value) { m_node[key] = value; }
  template <class E, std::size_t N> void choice(const char* key, E& value, const std::array<std::pair<E, const char*>, N>& names, const char*, bool = false) {
    for (const auto& [option, name] : names)
      if (option == value) m_node[key] = name;
  }
  template <class T> void object(const char* key, T& value, const char*, bool = false) {
    FieldWriter inner(m_node[key]);
    describe(inner, value);
  }
  template <class T> void object(const char* key, std::optional<T>& value, const char* what) {
    if (value) object(key, *value, what);
  }
  template <class T> void list(const char* key, std::vector<T>& values, const char*, std::size_t = 200) {
    Json& list = m_node[key] = Json::array();
    for (T& value : values) {
      FieldWriter inner(list.emplace_back());
      describe(inner, value);
    }
  }

private:
  Json& m_node;
};

/// Writes JSON Schema (draft 7) for a described structure; the defaults are those of the value walked.
class FieldSchema {
public:
  explicit FieldSchema(Json& node) : m_node(node) {
    m_node["type"] = "object";
    m_node["additionalProperties"] = false;
    m_node["properties"] = Json::object();
  }
  void number(const char* key, double& value, Range range, const char* what, bool required = false) {
    Json& p = property(key, "number", what, required);
    p["minimum"] = range.min;
    p["maximum"] = range.max;
    if (!required) p["default"] = value;
  }
  void number(const char* key, std::optional<double>&, Range range, const char* what) {
    Json& p = property(key, "number", what, false);
    p["minimum"] = range.min;
    p["maximum"] = range.max;
  }
  void integer(const char* key, int& value, Range range, const char* what, bool required = false) {
    Json& p = property(key, "integer", what, required);
    p["minimum"] = range.min;
    p["maximum"] = range.max;
    if (!required) p["default"] = value;
  }
  void boolean(const char* key, bool& value, const char* what) { property(key, "boolean", what, false)["default"] = value; }
  void text(const char* key, std::string&, const char* what, bool required = false) { property(key, "string", what, required); }
  void numbers(const char* key, std::vector<double>&, Range range, const char* what) {
    property(key, "array", what, false)["items"] = {{"type", "number"}, {"minimum", range.min}, {"maximum", range.max}};
  }
  void texts(const char* key, std::vector<std::string>&, const char* what, std::size_t most = 40) {
    Json& p = property(key, "array", what, false);
    p["maxItems"] = most;
    p["items"] = {{"type", "string"}};
  }
  void anything(const char* key, std::string&, const char* what) { m_node["properties"][key] = {{"description", what}}; }
  void fixedText(const char* key, std::string_view value) { property(key, "string", "", true)["const"] = value; }
  template <class E, std::size_t N>
  void choice(const char* key, E&, const std::array<std::pair<E, const char*>, N>& names, const char* what, bool required = false) {
    Json& options = property(key, "string", what, required)["enum"] = Json::array();
    for (const auto& entry : names) options.push_back(entry.second);
  }
  template <class T> void object(const char* key, T& value, const char* what, bool required = false) {
    FieldSchema inner(property(key, "object", what, required));
    describe(inner, value);
  }
  template <class T> void object(const char* key, std::optional<T>&, const char* what) {
    T value{};
    object(key, value, what);
  }
  template <class T> void list(const char* key, std::vector<T>&, const char* what, std::size_t most = 200) {
    Json& p = property(key, "array", what, false);
    p["maxItems"] = most;
    T value{};
    FieldSchema inner(p["items"]);
    describe(inner, value);
  }

private:
  Json& property(const char* key, const char* type, const char* what, bool required) {
    if (required) m_node["required"].push_back(key);
    Json& p = m_node["properties"][key];
    p["type"] = type;
    if (*what) p["description"] = what;
    return p;
  }
  Json& m_node;
};

} // namespace muffle
