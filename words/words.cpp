// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/words.h"

#include "words/tables.h"

#include <fmt/format.h>

#include <array>
#include <cmath>
#include <unordered_map>

namespace muffle {
namespace {

constexpr std::array<const char*, static_cast<std::size_t>(Unit::degree) + 1> kUnits{
    "", " m", " m2", " m3", " L", " kg", " °C", " K", " W", " W/m2", " W/m", " kWh", " m2K/W", " m3/h", " L/min", " Pa", " s", " min", " h", " d", " %", "°"};

std::string said(const Argument& argument, const Speaker& speaker) {
  if (const auto* whole = std::get_if<long long>(&argument)) return std::to_string(*whole);
  if (const auto* amount = std::get_if<Amount>(&argument)) return speaker.amount ? speaker.amount(*amount) : englishAmount(*amount);
  if (const auto* text = std::get_if<std::string>(&argument)) return *text;
  std::string all;
  for (const Message& m : std::get<std::vector<Message>>(argument)) {
    if (!all.empty()) all += ", ";
    all += say(m, speaker);
  }
  return all;
}

} // namespace

std::string_view wordsOf(std::string_view code) {
  static const std::unordered_map<std::string_view, std::string_view> all = [] {
    std::unordered_map<std::string_view, std::string_view> words;
    for (const auto& table : wordTables())
      for (const WordsOf& row : table) words.emplace(row.code, row.english);
    return words;
  }();
  const auto found = all.find(code);
  return found == all.end() ? std::string_view() : found->second;
}

std::string englishAmount(const Amount& amount) {
  std::string number;
  if (amount.unit == Unit::watt && std::abs(amount.value) >= 1000.0) return englishAmount({amount.value / 1000.0, Unit::none, amount.digits}) + " kW";
  if (amount.digits == 0)
    number = fmt::format("{:.10g}", amount.value);
  else if (std::abs(amount.value) >= std::pow(10.0, amount.digits))
    number = fmt::format("{:.0f}", amount.value); // not in powers of ten
  else
    number = fmt::format("{:.{}g}", amount.value, amount.digits);
  return number + kUnits[static_cast<std::size_t>(amount.unit)];
}

std::string say(const Message& message, const Speaker& speaker) {
  if (message.code.empty()) return message.arguments.empty() ? std::string() : said(message.arguments.front(), speaker);
  const std::string_view found = wordsOf(message.code);
  const std::string words = found.empty() ? message.code : speaker.words ? speaker.words(found) : std::string(found);
  std::string text;
  std::size_t next = 0;
  for (std::size_t i = 0; i < words.size(); ++i) {
    const bool isNext = words.compare(i, 2, "{}") == 0;
    const bool isNumbered = !isNext && words[i] == '{' && i + 2 < words.size() && words[i + 1] >= '0' && words[i + 1] <= '9' && words[i + 2] == '}';
    if (!isNext && !isNumbered) {
      text += words[i];
      continue;
    }
    const std::size_t which = isNext ? next++ : static_cast<std::size_t>(words[i + 1] - '0');
    if (which < message.arguments.size()) text += said(message.arguments[which], speaker);
    i += isNext ? 1 : 2;
  }
  return text;
}

std::string say(const Problem& problem, const Speaker& speaker) {
  std::string line = problem.where.empty() ? std::string() : problem.where + ": ";
  line += say(problem.what, speaker);
  if (!problem.allowed.empty()) line += ", " + say(problem.allowed, speaker);
  return line;
}

} // namespace muffle
