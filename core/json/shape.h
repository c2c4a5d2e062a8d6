// SPDX-License-Identifier: GPL-3.0-or-later
//
// What a document must look like before it is read without further asking: for documents that muffle writes itself and that others may have
// touched. Plans, networks and recipes, whose fields have ranges and words of their own, are described in fields.h.
//
//   const Shape note = Shape::object({{"kind", Shape::text()}, {"count", Shape::whole()}});
//   if (auto problems = misshapen(json, Shape::list(note), "/notes"); !problems.empty()) return problems;
#pragma once

#include "core/json/fields.h"

#include <cstdint>
#include <memory>
#include <string>
#include <vector>

namespace muffle {

class Shape {
public:
  struct Field;
  static Shape text() { return Shape(Kind::text); }
  static Shape boolean() { return Shape(Kind::boolean); }
  /// From least to most, both allowed.
  static Shape integer(std::int64_t least, std::int64_t most);
  static Shape whole() { return integer(0, INT64_MAX); }
  static Shape anything() { return Shape(Kind::anything); }
  static Shape list(Shape of);
  /// Of exactly these, in order.
  static Shape row(std::vector<Shape> cells);
  /// Keys that are not named are passed over: a later version may have written them.
  static Shape object(std::vector<Field> fields);
  /// Any keys, each with such a value.
  static Shape map(Shape of);

  friend Problems misshapen(const Json& node, const Shape& shape, const std::string& pointer);

private:
  enum class Kind { text, boolean, integer, anything, list, row, object, map };
  explicit Shape(Kind kind) : m_kind(kind) {}
  Kind m_kind;
  std::int64_t m_least = 0, m_most = 0;
  std::vector<Shape> m_parts;
  std::shared_ptr<const std::vector<Field>> m_fields;
};

struct Shape::Field {
  std::string key;
  Shape shape;
  bool mayLack = false;
};

/// The first thing that is not as it must be, with its JSON pointer; empty if all is.
Problems misshapen(const Json& node, const Shape& shape, const std::string& pointer = "");

} // namespace muffle
