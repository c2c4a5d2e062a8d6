// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/json/fields.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace muffle {

namespace {

constexpr std::size_t kMostText = 2000; // letters

/// Counts what stands outside strings; whether it is JSON at all is the parser's to say.
std::optional<Problem> pastABound(std::string_view text) {
  if (text.size() > kMostJsonBytes)
    return Problem{ProblemKind::badInput, "line 1", Message{"json.document-bytes", text.size()}, Message{"json.at-most", kMostJsonBytes}};
  std::vector<std::size_t> keys; // of each object and list that is open
  long line = 1;
  bool inString = false;
  for (std::size_t i = 0; i < text.size(); ++i) {
    const char c = text[i];
    if (c == '\n') ++line;
    if (inString) {
      if (c == '\\')
        ++i;
      else if (c == '"')
        inString = false;
      continue;
    }
    if (c == '"') {
      inString = true;
    } else if (c == '{' || c == '[') {
      keys.push_back(0);
      if (keys.size() > kMostJsonDepth)
        return Problem{ProblemKind::badInput, fmt::format("line {}", line), Message{"json.nested-deep", keys.size()},
                       Message{"json.at-most", kMostJsonDepth}};
    } else if ((c == '}' || c == ']') && !keys.empty()) {
      keys.pop_back();
    } else if (c == ':' && !keys.empty() && ++keys.back() > kMostJsonKeys) {
      return Problem{ProblemKind::badInput, fmt::format("line {}", line), Message{"json.object-more-than-keys", kMostJsonKeys},
                     Message{"json.at-most", kMostJsonKeys}};
    }
  }
  return {};
}

} // namespace

Result<Json> parseJson(std::string_view text) {
  if (auto past = pastABound(text)) return *past;
  try {
    return Json::parse(text);
  } catch (const Json::parse_error& error) {
    const auto at = std::min<std::size_t>(error.byte, text.size());
    const auto before = text.substr(0, at);
    const auto line = std::count(before.begin(), before.end(), '\n') + 1;
    const auto column = at - (before.rfind('\n') == std::string_view::npos ? 0 : before.rfind('\n') + 1);
    return Problem{ProblemKind::badInput, fmt::format("line {}", line), Message{"json.not-valid-json-column", column},
                   Message{"json.expected-one-json-document"}};
  } catch (const Json::exception&) {
    return Problem{ProblemKind::badInput, "line 1", Message{"json.not-valid-json-text"}, Message{"json.expected-one-json-document"}};
  }
}

Message describeValue(const Json& value) {
  if (value.is_object()) return Message{"json.object"};
  if (value.is_array()) return Message{"json.list"};
  std::string text = value.dump(-1, ' ', false, Json::error_handler_t::replace);
  if (text.size() > 60) text = text.substr(0, 57) + "...";
  return Message::verbatim(std::move(text));
}

FieldReader::FieldReader(const Json& node, std::string pointer, Problems& problems) : m_node(node), m_pointer(std::move(pointer)), m_problems(problems) {}

FieldReader::~FieldReader() = default;

void FieldReader::finish() {
  if (!m_node.is_object()) return;
  std::string known;
  for (const auto& key : m_known) known += (known.empty() ? "" : ", ") + key;
  for (const auto& [key, value] : m_node.items()) {
    if (!m_known.contains(key)) bad(key.c_str(), Message{"json.not-known", key}, Message{"json.known", known});
  }
}

void FieldReader::bad(const char* key, Message what, Message allowed, int index) {
  std::string escaped;
  for (const char* c = key; *c; ++c) escaped += *c == '~' ? "~0" : *c == '/' ? "~1" : std::string(1, *c);
  if (index >= 0) escaped += fmt::format("/{}", index);
  m_problems.push_back({ProblemKind::badInput, m_pointer + "/" + escaped, std::move(what), std::move(allowed)});
}

const Json* FieldReader::take(const char* key, bool required) {
  m_known.insert(key);
  const auto it = m_node.find(key);
  if (it != m_node.end()) return &*it;
  if (required) m_problems.push_back({ProblemKind::missing, m_pointer + "/" + key, Message{"json.missing", key}, Message{"json.is-needed"}});
  return nullptr;
}

const Json* FieldReader::takeList(const char* key, std::size_t most) {
  const Json* node = take(key, false);
  if (!node) return nullptr;
  if (!node->is_array()) {
    bad(key, Message{"json.stands-here", describeValue(*node)}, Message{"json.list-needed"});
    return nullptr;
  }
  if (node->size() > most) {
    bad(key, Message{"json.entries", node->size()}, Message{"json.at-most", most});
    return nullptr;
  }
  return node;
}

std::string FieldReader::below(const char* key) const { return m_pointer + "/" + key; }
std::string FieldReader::below(const char* key, std::size_t index) const { return fmt::format("{}/{}/{}", m_pointer, key, index); }
bool FieldReader::isNothing(const Json* node) { return !node || node->is_null(); }
std::size_t FieldReader::sizeOf(const Json& list) { return list.size(); }
const Json& FieldReader::element(const Json& list, std::size_t index) { return list[index]; }

bool FieldReader::isObject(const Json& node, const std::string& pointer) {
  if (!node.is_object())
    m_problems.push_back({ProblemKind::badInput, pointer, Message{"json.stands-here", describeValue(node)}, Message{"json.object-needed"}});
  return node.is_object();
}

std::optional<std::size_t> FieldReader::choose(const char* key, std::span<const char* const> ids, bool required) {
  const Json* node = take(key, required);
  if (!node) return std::nullopt;
  std::string allowed;
  for (std::size_t i = 0; i < ids.size(); ++i) {
    if (node->is_string() && node->get_ref<const std::string&>() == ids[i]) return i;
    allowed += (allowed.empty() ? "" : ", ") + std::string(ids[i]);
  }
  bad(key, Message{"json.no-such-choice", describeValue(*node), key}, Message{"json.use-one", allowed});
  return std::nullopt;
}

bool FieldReader::numberIn(const char* key, const Json& node, double& value, Range range, int index) {
  if (!node.is_number()) {
    bad(key, Message{"json.is", key, describeValue(node)}, Message{"json.number-from-needed", range.min, range.max}, index);
    return false;
  }
  const double read = node.get<double>();
  if (!(read >= range.min && read <= range.max)) {
    bad(key, Message{"json.is", key, describeValue(node)}, Message{"json.allowed", range.min, range.max}, index);
    return false;
  }
  value = read;
  return true;
}

void FieldReader::number(const char* key, double& value, Range range, const char*, bool required) {
  if (const Json* node = take(key, required)) numberIn(key, *node, value, range);
}

void FieldReader::number(const char* key, std::optional<double>& value, Range range, const char*) {
  const Json* node = take(key, false);
  double read = 0.0;
  if (node && !node->is_null() && numberIn(key, *node, read, range)) value = read;
}

void FieldReader::integer(const char* key, int& value, Range range, const char*, bool required) {
  const Json* node = take(key, required);
  double read = 0.0;
  if (!node || !numberIn(key, *node, read, range)) return;
  if (read != std::floor(read)) {
    bad(key, Message{"json.is", key, describeValue(*node)}, Message{"json.whole-number-needed"});
    return;
  }
  value = static_cast<int>(read);
}

void FieldReader::boolean(const char* key, bool& value, const char*) {
  const Json* node = take(key, false);
  if (!node) return;
  if (node->is_boolean())
    value = node->get<bool>();
  else
    bad(key, Message{"json.is", key, describeValue(*node)}, Message{"json.true-false-needed"});
}

void FieldReader::text(const char* key, std::string& value, const char*, bool required) {
  const Json* node = take(key, required);
  if (!node) return;
  if (!node->is_string())
    bad(key, Message{"json.is", key, describeValue(*node)}, Message{"json.text-quotes-needed"});
  else if (node->get_ref<const std::string&>().size() > kMostText)
    bad(key, Message{"json.too-long", key}, Message{"json.text-at-most"});
  else
    value = node->get<std::string>();
}

void FieldReader::numbers(const char* key, std::vector<double>& values, Range range, const char*) {
  const Json* node = takeList(key, 100000);
  if (!node) return;
  std::vector<double> read;
  for (std::size_t i = 0; i < node->size(); ++i) {
    double value = 0.0;
    if (!numberIn(key, (*node)[i], value, range, static_cast<int>(i))) return;
    read.push_back(value);
  }
  values = std::move(read);
}

void FieldReader::texts(const char* key, std::vector<std::string>& values, const char*, std::size_t most) {
  const Json* node = takeList(key, most);
  if (!node) return;
  std::vector<std::string> read;
  for (std::size_t i = 0; i < node->size(); ++i) {
    const Json& entry = (*node)[i];
    if (!entry.is_string()) return bad(key, Message{"json.is", key, describeValue(entry)}, Message{"json.text-quotes-needed"}, static_cast<int>(i));
    if (entry.get_ref<const std::string&>().size() > kMostText)
      return bad(key, Message{"json.too-long", key}, Message{"json.text-at-most"}, static_cast<int>(i));
    read.push_back(entry.get<std::string>());
  }
  values = std::move(read);
}

void FieldReader::anything(const char* key, std::string& value, const char*) {
  if (const Json* node = take(key, false)) value = node->dump();
}

void FieldReader::fixedText(const char* key, std::string_view value) {
  const Json* node = take(key, true);
  if (node && !(node->is_string() && node->get_ref<const std::string&>() == value))
    bad(key, Message{"json.not-format", describeValue(*node)}, Message{"json.text-needed-is", std::string(value)});
}

} // namespace muffle
