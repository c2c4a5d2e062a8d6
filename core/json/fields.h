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
#include <span>
#include <string>
#include <string_view>
#include <vector>

// compiled once, in ordered_json.cpp, not by each file that reads or writes
extern template class nlohmann::basic_json<nlohmann::ordered_map>;

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

template <class E, std::size_t N> std::array<const char*, N> idsOf(const std::array<std::pair<E, const char*>, N>& names) {
  std::array<const char*, N> ids{};
  for (std::size_t i = 0; i < N; ++i) ids[i] = names[i].second;
  return ids;
}

// What needs no type of the caller's stands in fields.cpp: written out at each of a thousand fields it is most of what there is to compile.

class FieldReader {
public:
  FieldReader(const Json& node, std::string pointer, Problems& problems);
  ~FieldReader();
  FieldReader(const FieldReader&) = delete;
  FieldReader& operator=(const FieldReader&) = delete;
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
    if (const auto chosen = choose(key, idsOf(names), required)) value = names[*chosen].first;
  }
  template <class T> void object(const char* key, T& value, const char*, bool required = false) {
    if (const Json* node = take(key, required)) readObject(*node, below(key), value);
  }
  template <class T> void object(const char* key, std::optional<T>& value, const char*) {
    const Json* node = take(key, false);
    if (isNothing(node))
      value.reset();
    else
      readObject(*node, below(key), value.emplace());
  }
  template <class T> void list(const char* key, std::vector<T>& values, const char*, std::size_t most = 200) {
    const Json* node = takeList(key, most);
    if (!node) return;
    values.assign(sizeOf(*node), T{});
    for (std::size_t i = 0; i < values.size(); ++i) readObject(element(*node, i), below(key, i), values[i]);
  }

private:
  template <class T> void readObject(const Json& node, const std::string& pointer, T& value) {
    if (!isObject(node, pointer)) return;
    FieldReader inner(node, pointer, m_problems);
    describe(inner, value);
    inner.finish();
  }
  /// Which of the ids stands at the key; what is none of them is a problem.
  std::optional<std::size_t> choose(const char* key, std::span<const char* const> ids, bool required);
  [[nodiscard]] std::string below(const char* key) const;
  [[nodiscard]] std::string below(const char* key, std::size_t index) const;
  bool isObject(const Json& node, const std::string& pointer); ///< a problem where it is none
  static bool isNothing(const Json* node);                     ///< not there, or null
  static std::size_t sizeOf(const Json& list);
  static const Json& element(const Json& list, std::size_t index);
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
  explicit FieldWriter(Json& node); ///< becomes an object
  void number(const char* key, double& value, Range, const char*, bool = false);
  void number(const char* key, std::optional<double>& value, Range, const char*);
  void integer(const char* key, int& value, Range, const char*, bool = false);
  void boolean(const char* key, bool& value, const char*);
  void text(const char* key, std::string& value, const char*, bool = false);
  void numbers(const char* key, std::vector<double>& values, Range, const char*);
  void texts(const char* key, std::vector<std::string>& values, const char*, std::size_t = 40);
  void anything(const char* key, std::string& value, const char*);
  void fixedText(const char* key, std::string_view value);
  template <class E, std::size_t N> void choice(const char* key, E& value, const std::array<std::pair<E, const char*>, N>& names, const char*, bool = false) {
    for (const auto& [option, name] : names)
      if (option == value) fixedText(key, name);
  }
  template <class T> void object(const char* key, T& value, const char*, bool = false) {
    FieldWriter inner(below(key));
    describe(inner, value);
  }
  template <class T> void object(const char* key, std::optional<T>& value, const char* what) {
    if (value) object(key, *value, what);
  }
  template <class T> void list(const char* key, std::vector<T>& values, const char*, std::size_t = 200) {
    Json& list = emptyList(key);
    for (T& value : values) {
      FieldWriter inner(addTo(list));
      describe(inner, value);
    }
  }

private:
  Json& below(const char* key);
  Json& emptyList(const char* key);
  static Json& addTo(Json& list);
  Json& m_node;
};

/// Writes JSON Schema (draft 7) for a described structure; the defaults are those of the value walked.
class FieldSchema {
public:
  explicit FieldSchema(Json& node);
  void number(const char* key, double& value, Range range, const char* what, bool required = false);
  void number(const char* key, std::optional<double>&, Range range, const char* what);
  void integer(const char* key, int& value, Range range, const char* what, bool required = false);
  void boolean(const char* key, bool& value, const char* what);
  void text(const char* key, std::string&, const char* what, bool required = false);
  void numbers(const char* key, std::vector<double>&, Range range, const char* what);
  void texts(const char* key, std::vector<std::string>&, const char* what, std::size_t most = 40);
  void anything(const char* key, std::string&, const char* what);
  void fixedText(const char* key, std::string_view value);
  template <class E, std::size_t N>
  void choice(const char* key, E&, const std::array<std::pair<E, const char*>, N>& names, const char* what, bool required = false) {
    choices(key, idsOf(names), what, required);
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
    T value{};
    FieldSchema inner(itemsOf(key, what, most));
    describe(inner, value);
  }

private:
  void choices(const char* key, std::span<const char* const> ids, const char* what, bool required);
  Json& itemsOf(const char* key, const char* what, std::size_t most);
  Json& property(const char* key, const char* type, const char* what, bool required);
  Json& m_node;
};

} // namespace muffle
