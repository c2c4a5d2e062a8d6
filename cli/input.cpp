// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/input.h"

#include "book/files.h"
#include "core/log/headings.h"
#include "core/plan/plan_json.h"
#include "words/words.h"

#include <fmt/format.h>

#include <cstdio>

namespace muffle {

int report(const std::string& file, const Problems& problems) {
  for (const Problem& p : problems) {
    const bool named = p.where.starts_with(file);
    std::fprintf(stderr, "%s%s\n", named ? "" : (file + ": ").c_str(), english(p).c_str());
  }
  return kBadInput;
}

void print(const Json& json) { std::fputs((json.dump(2) + "\n").c_str(), stdout); }

Result<Json> readJson(const std::string& path) {
  auto text = readFile(path);
  if (!text) return text.problems();
  return parseJson(*text);
}

Result<Plan> readPlan(const std::string& path) {
  auto json = readJson(path);
  if (!json) return json.problems();
  return planFromJson(*json);
}

namespace {

/// "Temperature=room:house", "Logger 2=outside".
Result<ColumnChoice> columnChoice(const std::string& text) {
  const auto split = text.rfind('=');
  ColumnChoice choice;
  if (split != std::string::npos) {
    choice.heading = text.substr(0, split);
    Channel channel;
    const std::string role = text.substr(split + 1), word = role.substr(0, role.find(':'));
    for (int r = 0; r <= static_cast<int>(Role::note); ++r)
      if (word == roleText(static_cast<Role>(r), "") && guessRole(role, channel)) {
        choice.role = channel.role;
        choice.id = channel.id;
        return choice;
      }
  }
  return Problem{ProblemKind::badInput, "--column", Message{"command.not-heading-role", text}, Message{"command.roles-are"}};
}

} // namespace

Result<ReadLog> readLogFile(const LogOptions& o, const std::string& zoneName) {
  auto bytes = readFile(o.file);
  if (!bytes) return bytes.problems();
  auto zone = TimeZone::named(zoneName);
  if (!zone) return zone.problems();
  ReadOptions options;
  options.zone = *zone;
  if (o.unit == "F") options.fahrenheit = true;
  if (o.unit == "C") options.fahrenheit = false;
  if (!o.separator.empty()) options.separator = o.separator == "tab" ? '\t' : o.separator[0];
  if (o.monthFirst) options.monthFirst = true;
  for (const std::string& text : o.columns) {
    auto choice = columnChoice(text);
    if (!choice) return choice.problems();
    options.columns.push_back(*choice);
  }
  auto read = readLog(*bytes, options);
  if (read)
    for (const std::string& name : read->placeless)
      fmt::print(stderr, "{}: \"{}\" is taken to hang outside, for its heading says no place: give --column \"{}=room:house\" where it hangs in the house\n",
                 o.file, name, name);
  return read;
}

} // namespace muffle
