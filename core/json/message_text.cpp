// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/json/message_text.h"

#include "core/json/fields.h"

#include <array>

namespace muffle {
namespace {

constexpr std::array<const char*, static_cast<std::size_t>(Unit::degree) + 1> kUnitIds{
    "", "m", "m2", "m3", "litre", "kg", "C", "K", "W", "W/m2", "W/m", "kWh", "m2K/W", "m3/h", "L/min", "Pa", "s", "min", "h", "d", "%", "deg"};
constexpr int kMostNested = 8;

Json toJson(const Message& message);

Json toJson(const Argument& argument) {
  if (const auto* whole = std::get_if<long long>(&argument)) return *whole;
  if (const auto* text = std::get_if<std::string>(&argument)) return *text;
  if (const auto* amount = std::get_if<Amount>(&argument))
    return {{"value", amount->value}, {"unit", kUnitIds[static_cast<std::size_t>(amount->unit)]}, {"digits", amount->digits}};
  Json messages = Json::array();
  for (const Message& m : std::get<std::vector<Message>>(argument)) messages.push_back(toJson(m));
  return {{"messages", std::move(messages)}};
}

Json toJson(const Message& message) {
  Json json = Json::array({message.code});
  for (const Argument& a : message.arguments) json.push_back(toJson(a));
  return json;
}

std::optional<Message> messageOf(const Json& json, int depth);

std::optional<Argument> argumentOf(const Json& json, int depth) {
  if (json.is_number_integer()) return json.get<long long>();
  if (json.is_string()) return json.get<std::string>();
  if (!json.is_object()) return std::nullopt;
  if (const auto messages = json.find("messages"); messages != json.end() && messages->is_array()) {
    std::vector<Message> read;
    for (const Json& m : *messages) {
      auto message = messageOf(m, depth + 1);
      if (!message) return std::nullopt;
      read.push_back(std::move(*message));
    }
    return read;
  }
  const auto value = json.find("value"), unit = json.find("unit"), digits = json.find("digits");
  if (value == json.end() || !value->is_number() || unit == json.end() || !unit->is_string()) return std::nullopt;
  const auto id = std::find(kUnitIds.begin(), kUnitIds.end(), unit->get<std::string>());
  if (id == kUnitIds.end()) return std::nullopt;
  return Amount{value->get<double>(), static_cast<Unit>(id - kUnitIds.begin()),
                digits != json.end() && digits->is_number_integer() ? std::clamp(digits->get<int>(), 0, 17) : 0};
}

std::optional<Message> messageOf(const Json& json, int depth) {
  if (depth > kMostNested || !json.is_array() || json.empty() || !json[0].is_string()) return std::nullopt;
  Message message;
  message.code = json[0].get<std::string>();
  for (std::size_t i = 1; i < json.size(); ++i) {
    auto argument = argumentOf(json[i], depth);
    if (!argument) return std::nullopt;
    message.arguments.push_back(std::move(*argument));
  }
  return message;
}

} // namespace

std::string storedText(const Message& message) {
  return message.empty() ? std::string() : toJson(message).dump(-1, ' ', false, Json::error_handler_t::replace);
}

Message messageFromStored(std::string_view text) {
  if (text.empty()) return {};
  if (text.starts_with("[\""))
    if (auto message = messageOf(Json::parse(text, nullptr, false), 0)) return std::move(*message);
  return Message::verbatim(std::string(text));
}

} // namespace muffle
