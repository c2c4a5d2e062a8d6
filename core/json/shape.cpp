// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/json/shape.h"

#include <fmt/format.h>

namespace muffle {

Shape Shape::integer(std::int64_t least, std::int64_t most) {
  Shape s(Kind::integer);
  s.m_least = least;
  s.m_most = most;
  return s;
}

Shape Shape::list(Shape of) {
  Shape s(Kind::list);
  s.m_parts.push_back(std::move(of));
  return s;
}

Shape Shape::row(std::vector<Shape> cells) {
  Shape s(Kind::row);
  s.m_parts = std::move(cells);
  return s;
}

Shape Shape::object(std::vector<Field> fields) {
  Shape s(Kind::object);
  s.m_fields = std::make_shared<const std::vector<Field>>(std::move(fields));
  return s;
}

Shape Shape::map(Shape of) {
  Shape s(Kind::map);
  s.m_parts.push_back(std::move(of));
  return s;
}

namespace {

bool isInteger(const Json& node, std::int64_t least, std::int64_t most) {
  if (node.is_number_unsigned())
    return node.get<std::uint64_t>() <= static_cast<std::uint64_t>(std::max<std::int64_t>(most, 0)) &&
           (least <= 0 || node.get<std::uint64_t>() >= static_cast<std::uint64_t>(least));
  return node.is_number_integer() && node.get<std::int64_t>() >= least && node.get<std::int64_t>() <= most;
}

} // namespace

Problems misshapen(const Json& node, const Shape& shape, const std::string& pointer) {
  using Kind = Shape::Kind;
  const auto wrong = [&](Message allowed) -> Problems {
    return {{ProblemKind::badInput, pointer.empty() ? "/" : pointer, Message{"json.stands-here", describeValue(node)}, std::move(allowed)}};
  };
  switch (shape.m_kind) {
  case Kind::anything: return {};
  case Kind::text: return node.is_string() ? Problems{} : wrong(Message{"json.text-needed"});
  case Kind::boolean: return node.is_boolean() ? Problems{} : wrong(Message{"json.true-false-needed"});
  case Kind::integer:
    if (isInteger(node, shape.m_least, shape.m_most)) return {};
    return wrong(shape.m_most == INT64_MAX ? Message{"json.whole-number-from-needed", shape.m_least}
                                           : Message{"json.whole-number-from-to", shape.m_least, shape.m_most});
  case Kind::list:
  case Kind::row:
    if (!node.is_array()) return wrong(Message{"json.list-needed"});
    if (shape.m_kind == Kind::row && node.size() != shape.m_parts.size()) return wrong(Message{"json.list-of", shape.m_parts.size()});
    for (std::size_t i = 0; i < node.size(); ++i)
      if (auto found = misshapen(node[i], shape.m_kind == Kind::row ? shape.m_parts[i] : shape.m_parts.front(), fmt::format("{}/{}", pointer, i));
          !found.empty())
        return found;
    return {};
  case Kind::object:
  case Kind::map:
    if (!node.is_object()) return wrong(Message{"json.object-needed"});
    if (shape.m_kind == Kind::map) {
      for (const auto& [key, value] : node.items())
        if (auto found = misshapen(value, shape.m_parts.front(), pointer + "/" + key); !found.empty()) return found;
      return {};
    }
    for (const Shape::Field& f : *shape.m_fields) {
      const auto at = node.find(f.key);
      if (at == node.end()) {
        if (f.mayLack) continue;
        return {{ProblemKind::missing, pointer + "/" + f.key, Message{"json.is-missing"}, Message{"json.is-needed"}}};
      }
      if (auto found = misshapen(*at, f.shape, pointer + "/" + f.key); !found.empty()) return found;
    }
    return {};
  }
  return {};
}

} // namespace muffle
