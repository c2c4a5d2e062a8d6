// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/message.h"

#include <utility>

namespace muffle {

Message::Message() = default;
Message::Message(const Message& other) = default;
Message::Message(Message&& other) noexcept = default;
Message& Message::operator=(const Message& other) = default;
Message& Message::operator=(Message&& other) noexcept = default;
Message::~Message() = default;

Message::Message(Places places, const char* said) : code(said) { arguments.reserve(places.count); }

void Message::addWhole(long long number) { arguments.emplace_back(number); }
void Message::add(Amount amount) { arguments.emplace_back(amount); }
void Message::add(std::string_view name) { arguments.emplace_back(std::string(name)); }
void Message::add(const Message& message) { arguments.emplace_back(std::vector<Message>{message}); }
void Message::add(const std::vector<Message>& messages) { arguments.emplace_back(messages); }

Message Message::of(const char* table, std::string_view id, const char* part) {
  Message message;
  message.code = table;
  message.code.append(".").append(id);
  if (*part) message.code.append(".").append(part);
  return message;
}

Message Message::verbatim(std::string words) {
  Message message;
  message.arguments.emplace_back(std::move(words));
  return message;
}

std::string Message::given() const {
  const std::string* text = code.empty() && !arguments.empty() ? std::get_if<std::string>(&arguments.front()) : nullptr;
  return text ? *text : std::string();
}

bool Message::operator==(const Message& other) const { return code == other.code && arguments == other.arguments; }

} // namespace muffle
