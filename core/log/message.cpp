// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/log/message.h"

#include "core/bounds.h"
#include "core/json/fields.h"
#include "core/log/cells.h"
#include "core/log/layout.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

Problem notAReading(std::string_view topic, std::string_view text) {
  return {ProblemKind::badInput, std::string(topic), Message{"log.no-reading", asUtf8(text.substr(0, 40))}, Message{"log.message-forms"}};
}

/// Adds a channel with one reading.
void add(Log& log, std::vector<Column>& columns, const std::string& heading, const std::string& cell) {
  Column column = describeColumn(heading, {cell}, false, columns, {});
  const auto v = parseNumber(cell, false);
  if (!v || !column.use) return;
  column.channel.raw.assign(1, static_cast<float>(*v * column.mark.factor + column.mark.offset));
  column.channel.flag.assign(1, 0);
  columns.push_back(column);
  log.channels.push_back(std::move(column.channel));
}

std::optional<UtcSeconds> timeIn(std::string_view text, DateForm form) {
  const auto clock = parseClock(text, form);
  if (!clock || !clock->hasTime) return std::nullopt;
  return clock->local - clock->offset_s.value_or(0); // a station that says no offset means UTC
}

} // namespace

Result<Log> readMessage(std::string_view topic, std::string_view text, UtcSeconds now) {
  if (text.size() > bounds::kMessageBytes)
    return Problem{ProblemKind::badInput, std::string(topic), Message{"log.message-bytes", text.size()}, Message{"log.at-most", bounds::kMessageBytes}};
  text = trim(text);
  Log log;
  log.time = {now};
  std::vector<Column> columns;
  const std::string sensor(topic.substr(topic.rfind('/') + 1));
  if (text.starts_with('{')) {
    const auto json = parseJson(text);
    if (!json || !json->is_object()) return notAReading(topic, text);
    if (json->size() > bounds::kMessageReadings)
      return Problem{ProblemKind::badInput, std::string(topic), Message{"log.message-readings", json->size()},
                     Message{"log.at-most", bounds::kMessageReadings}};
    for (const auto& [key, value] : json->items()) {
      if (looksLikeTimeName(key)) {
        const auto at = value.is_string()   ? timeIn(value.get_ref<const std::string&>(), DateForm::iso)
                        : value.is_number() ? timeIn(fmt::format("{:.0f}", value.get<double>()), DateForm::epoch)
                                            : std::nullopt;
        if (!at) return notAReading(topic, text);
        log.time = {*at};
      } else if (value.is_number()) {
        add(log, columns, key, fmt::format("{}", value.get<double>()));
      }
    }
    tellApart(columns);
    for (std::size_t c = 0; c < columns.size(); ++c) log.channels[c].role = columns[c].channel.role, log.channels[c].id = columns[c].channel.id;
  } else {
    const auto blank = text.find(' ');
    if (blank != std::string_view::npos)
      if (const auto at = timeIn(text.substr(0, blank), DateForm::iso)) {
        log.time = {*at};
        text = trim(text.substr(blank + 1));
      }
    add(log, columns, sensor, std::string(text));
  }
  if (log.channels.empty()) return notAReading(topic, text);
  return log;
}

} // namespace muffle
