// SPDX-License-Identifier: GPL-3.0-or-later
//
// What core has to say, before there are words for it: a code and what it is said of. words/ holds the words of each code, in one
// place, and makes sentences of them for the command line and, in the units and the language chosen, for the window.
//
//   Message{"bay.long", Amount{bay.length_m, Unit::metre}}        words: "the bay is {} long"
#pragma once

#include <string>
#include <string_view>
#include <type_traits>
#include <utility>
#include <variant>
#include <vector>

namespace muffle {

/// What an amount is in. Inside everything is SI and degC; who shows it may turn it into other units.
enum class Unit {
  none,
  metre,
  squareMetre,
  cubicMetre,
  litre,
  kilogram,
  celsius,
  kelvin,
  watt,
  wattPerSquareMetre,
  wattPerMetre,
  kilowattHour,
  squareMetreKelvinPerWatt,
  cubicMetrePerHour,
  litrePerMinute,
  pascal,
  second,
  minute,
  hour,
  day,
  percent, ///< 0 to 100
  degree,  ///< of an angle
};

/// A number with its unit.
struct Amount {
  double value = 0.0;
  Unit unit = Unit::none;
  int digits = 0; ///< significant ones; 0: as many as it takes to say it as it was given
  bool operator==(const Amount&) const = default;
};

struct Message;
/// A whole number, an amount, a name as somebody wrote it, or further messages, one after the other.
using Argument = std::variant<long long, Amount, std::string, std::vector<Message>>;

struct Message {
  std::string code; ///< of the words; empty: nothing is said, or what somebody else said stands in the only argument
  std::vector<Argument> arguments;

  Message() = default;
  /// A code and what stands in the places of its words.
  template <class... A> explicit(sizeof...(A) == 0) Message(const char* code, A&&... arguments);
  /// Of a thing of a table, whose words go by its id: "aid.tank_power", "aid.tank_power.time".
  static Message of(const char* table, std::string_view id, const char* part = "");
  /// What stood in words before it came here, such as what a library reports: it is shown as it is.
  static Message verbatim(std::string words);

  /// What somebody wrote, of a message that is nothing else; empty for a code.
  [[nodiscard]] std::string given() const {
    const std::string* text = code.empty() && !arguments.empty() ? std::get_if<std::string>(&arguments.front()) : nullptr;
    return text ? *text : std::string();
  }
  [[nodiscard]] bool empty() const { return code.empty() && arguments.empty(); }
  bool operator==(const Message& other) const { return code == other.code && arguments == other.arguments; }
};

template <class A> Argument argument(A&& a) {
  using T = std::remove_cvref_t<A>;
  if constexpr (std::is_same_v<T, Message>)
    return std::vector<Message>{std::forward<A>(a)};
  else if constexpr (std::is_same_v<T, Amount> || std::is_same_v<T, std::vector<Message>>)
    return std::forward<A>(a);
  else if constexpr (std::is_integral_v<T>)
    return static_cast<long long>(a);
  else if constexpr (std::is_floating_point_v<T>)
    return Amount{static_cast<double>(a)};
  else
    return std::string(std::forward<A>(a));
}

template <class... A> Message::Message(const char* said, A&&... said_of) : code(said) {
  arguments.reserve(sizeof...(A));
  (arguments.push_back(argument(std::forward<A>(said_of))), ...);
}

inline Message Message::of(const char* table, std::string_view id, const char* part) {
  Message message;
  message.code = table;
  message.code.append(".").append(id);
  if (*part) message.code.append(".").append(part);
  return message;
}

inline Message Message::verbatim(std::string words) {
  Message message;
  message.arguments.emplace_back(std::move(words));
  return message;
}

} // namespace muffle
