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

/// Made in nearly every file, so that what makes, copies and ends one stands in message.cpp: written out wherever a message is made it is a
/// third of what there is to compile.
struct Message {
  std::string code; ///< of the words; empty: nothing is said, or what somebody else said stands in the only argument
  std::vector<Argument> arguments;

  Message();
  Message(const Message& other);
  Message(Message&& other) noexcept;
  Message& operator=(const Message& other);
  Message& operator=(Message&& other) noexcept;
  ~Message();
  /// A code and what stands in the places of its words: names, whole numbers, amounts, bare numbers and other messages.
  template <class... A> explicit(sizeof...(A) == 0) Message(const char* said, const A&... saidOf) : Message(Places{sizeof...(A)}, said) { (add(saidOf), ...); }
  /// Of a thing of a table, whose words go by its id: "aid.tank_power", "aid.tank_power.time".
  static Message of(const char* table, std::string_view id, const char* part = "");
  /// What stood in words before it came here, such as what a library reports: it is shown as it is.
  static Message verbatim(std::string words);

  /// What somebody wrote, of a message that is nothing else; empty for a code.
  [[nodiscard]] std::string given() const;
  [[nodiscard]] bool empty() const { return code.empty() && arguments.empty(); }
  bool operator==(const Message& other) const;

private:
  struct Places {
    std::size_t count;
  };
  Message(Places places, const char* said);
  void addWhole(long long number);
  void add(Amount amount);
  void add(std::string_view name);
  void add(const Message& message);
  void add(const std::vector<Message>& messages);
  template <class N>
  requires std::is_arithmetic_v<N>
  void add(N number) {
    if constexpr (std::is_floating_point_v<N>)
      add(Amount{static_cast<double>(number)});
    else
      addWhole(static_cast<long long>(number));
  }
};

} // namespace muffle
