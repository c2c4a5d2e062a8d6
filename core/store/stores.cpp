// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/store/stores.h"

#include "core/calendar.h"

#include <charconv>

namespace muffle {

std::optional<MonthDay> parseMonthDay(std::string_view text) {
  if (text.size() != 5 || text[2] != '-') return std::nullopt;
  MonthDay d{};
  const auto number = [&](std::size_t at, unsigned& value) {
    const char* const begin = text.data() + at;
    return std::from_chars(begin, begin + 2, value).ptr == begin + 2;
  };
  constexpr int kNoLeapYear = 2023;
  if (!number(0, d.month) || !number(3, d.day) || !isValid({kNoLeapYear, d.month, d.day})) return std::nullopt;
  return d;
}

} // namespace muffle
