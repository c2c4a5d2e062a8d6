// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/json/fields.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace muffle {

namespace {

/// Counts what stands outside strings; whether it is JSON at all is the parser's to say.
std::optional<Problem> pastABound(std::string_view text) {
  if (text.size() > kMostJsonBytes)
    return Problem{ProblemKind::badInput, "line 1", fmt::format("the document has {} bytes", text.size()),
                   fmt::format("at most {} are allowed", kMostJsonBytes)};
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
        return Problem{ProblemKind::badInput, fmt::format("line {}", line), fmt::format("nested {} deep", keys.size()),
                       fmt::format("at most {} are allowed", kMostJsonDepth)};
    } else if ((c == '}' || c == ']') && !keys.empty()) {
      keys.pop_back();
    } else if (c == ':' && !keys.empty() && ++keys.back() > kMostJsonKeys) {
      return Problem{ProblemKind::badInput, fmt::format("line {}", line), fmt::format("an object of more than {} keys", kMostJsonKeys),
                     fmt::format("at most {} are allowed", kMostJsonKeys)};
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
    return Problem{ProblemKind::badInput, fmt::format("line {}", line), fmt::format("not valid JSON at column {}", column),
                   "expected one JSON document in UTF-8"};
  } catch (const Json::exception&) { return Problem{ProblemKind::badInput, "line 1", "not valid JSON text", "expected one JSON document in UTF-8"}; }
}

std::string describeValue(const Json& value) {
  if (value.is_object()) return "an object";
  if (value.is_array()) return "a list";
  std::string text = value.dump(-1, ' ', false, Json::error_handler_t::replace);
  if (text.size() > 60) text = text.substr(0, 57) + "...";
  return text;
}

FieldReader::FieldReader(const Json& node, std::string pointer, Problems& problems) : m_node(node), m_pointer(std::move(pointer)), m_problems(problems) {}

void FieldReader::finish() {
  if (!m_node.is_object()) return;
  std::string known;
  for (const auto& key : m_known) known += (known.empty() ? "" : ", ") + key;
  for (const auto& [key, value] : m_node.items()) {
    if (!m_known.contains(key)) bad(key.c_str(), fmt::format("\"{}\" is not known here", key), "known: " + known);
  }
}

void FieldReader::bad(const char* key, std::string what, std::string allowed, int index) {
  std::string escaped;
  for (const char* c = key; *c; ++c) escaped += *c == '~' ? "~0" : *c == '/' ? "~1" : std::string(1, *c);
  if (index >= 0) escaped += fmt::format("/{}", index);
  m_problems.push_back({ProblemKind::badInput, m_pointer + "/" + escaped, std::move(what), std::move(allowed)});
}

const Json* FieldReader::take(const char* key, bool required, const char* what) {
  m_known.insert(key);
  const auto it = m_node.find(key);
  if (it != m_node.end()) return &*it;
  if (required) m_problems.push_back({ProblemKind::missing, m_pointer + "/" + key, fmt::format("\"{}\" is missing", key), fmt::format("give the {}", what)});
  return nullptr;
}

const Json* FieldReader::takeList(const char* key, const char* what, std::size_t most) {
  const Json* node = take(key, false, what);
  if (!node) return nullptr;
  if (!node->is_array()) {
    bad(key, describeValue(*node) + " stands here", "a list [...] is needed");
    return nullptr;
  }
  if (node->size() > most) {
    bad(key, fmt::format("{} entries", node->size()), fmt::format("at most {} are allowed", most));
    return nullptr;
  }
  return node;
}

bool FieldReader::numberIn(const char* key, const Json& node, double& value, Range range, const char* what, int index) {
  if (!node.is_number()) {
    bad(key, fmt::format("{} is {}", what, describeValue(node)), fmt::format("a number from {} to {} is needed", range.min, range.max), index);
    return false;
  }
  const double read = node.get<double>();
  if (!(read >= range.min && read <= range.max)) {
    bad(key, fmt::format("{} is {}", what, describeValue(node)), fmt::format("allowed is {} to {}", range.min, range.max), index);
    return false;
  }
  value = read;
  return true;
}

void FieldReader::number(const char* key, double& value, Range range, const char* what, bool required) {
  if (const Json* node = take(key, required, what)) numberIn(key, *node, value, range, what);
}

void FieldReader::number(const char* key, std::optional<double>& value, Range range, const char* what) {
  const Json* node = take(key, false, what);
  double read = 0.0;
  if (node && !node->is_null() && numberIn(key, *node, read, range, what)) value = read;
}

void FieldReader::integer(const char* key, int& value, Range range, const char* what, bool required) {
  const Json* node = take(key, required, what);
  double read = 0.0;
  if (!node || !numberIn(key, *node, read, range, what)) return;
  if (read != std::floor(read)) {
    bad(key, fmt::format("{} is {}", what, describeValue(*node)), "a whole number is needed");
    return;
  }
  value = static_cast<int>(read);
}

void FieldReader::boolean(const char* key, bool& value, const char* what) {
  const Json* node = take(key, false, what);
  if (!node) return;
  if (node->is_boolean())
    value = node->get<bool>();
  else
    bad(key, fmt::format("{} is {}", what, describeValue(*node)), "true or false is needed");
}

void FieldReader::text(const char* key, std::string& value, const char* what, bool required) {
  const Json* node = take(key, required, what);
  if (!node) return;
  if (!node->is_string())
    bad(key, fmt::format("{} is {}", what, describeValue(*node)), "text in quotes is needed");
  else if (node->get_ref<const std::string&>().size() > 2000)
    bad(key, fmt::format("{} is too long", what), "at most 2000 characters are allowed");
  else
    value = node->get<std::string>();
}

void FieldReader::numbers(const char* key, std::vector<double>& values, Range range, const char* what) {
  const Json* node = takeList(key, what, 100000);
  if (!node) return;
  std::vector<double> read;
  for (std::size_t i = 0; i < node->size(); ++i) {
    double value = 0.0;
    if (!numberIn(key, (*node)[i], value, range, what, static_cast<int>(i))) return;
    read.push_back(value);
  }
  values = std::move(read);
}

void FieldReader::fixedText(const char* key, std::string_view value) {
  const Json* node = take(key, true, "schema name");
  if (node && !(node->is_string() && node->get_ref<const std::string&>() == value))
    bad(key, fmt::format("{} is not this format", describeValue(*node)), fmt::format("\"{}\" is needed", value));
}

} // namespace muffle
