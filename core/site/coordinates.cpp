// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/site/coordinates.h"

#include <fmt/format.h>

#include <cctype>
#include <charconv>
#include <cmath>
#include <string>
#include <vector>

namespace muffle {
namespace {

struct Angle {
  std::vector<double> parts; ///< degrees, minutes, seconds as far as written
  bool negative = false;
  char side = 0; ///< N, S, E or W; 0 without

  [[nodiscard]] double degrees() const {
    double sum = 0.0, unit = 1.0;
    for (const double part : parts) sum += part * unit, unit /= 60.0;
    return negative || side == 'S' || side == 'W' ? -sum : sum;
  }
  [[nodiscard]] bool isSound() const {
    if (parts.empty() || parts.size() > 3) return false;
    for (std::size_t i = 1; i < parts.size(); ++i)
      if (parts[i] >= 60.0) return false;
    return true;
  }
};

/// Every dash before a number is a minus; where no dot stands and two commas part digits, they are decimal ones.
std::string inPlainMarks(std::string_view written) {
  std::string text(written);
  for (const char* dash : {"\xE2\x88\x92", "\xE2\x80\x93"}) // minus sign, en dash
    for (std::size_t at = text.find(dash); at != std::string::npos; at = text.find(dash)) text.replace(at, 3, "-");
  std::vector<std::size_t> commas;
  const auto isDigit = [&](std::size_t i) { return i < text.size() && std::isdigit(static_cast<unsigned char>(text[i])); };
  for (std::size_t i = 1; i < text.size(); ++i)
    if (text[i] == ',' && isDigit(i - 1) && isDigit(i + 1)) commas.push_back(i);
  if (commas.size() == 2 && text.find('.') == std::string::npos)
    for (const std::size_t at : commas) text[at] = '.';
  return text;
}

/// Splits into numbers and letters; degree, minute and second marks only part the numbers.
bool scan(std::string_view text, std::vector<Angle>& angles) {
  Angle now;
  bool marked = false; // minutes may still follow the number in hand
  const auto finish = [&] {
    if (!now.parts.empty()) angles.push_back(now);
    now = {};
    marked = false;
  };
  for (std::size_t i = 0; i < text.size();) {
    const char c = text[i];
    const bool begins =
        std::isdigit(static_cast<unsigned char>(c)) || ((c == '-' || c == '+') && i + 1 < text.size() && std::isdigit(static_cast<unsigned char>(text[i + 1])));
    if (begins) {
      if (!now.parts.empty() && (!marked || c == '-' || c == '+')) finish();
      if (c == '-' || c == '+') now.negative = c == '-', ++i;
      double value = 0.0;
      const auto parsed = std::from_chars(text.data() + i, text.data() + text.size(), value);
      if (parsed.ec != std::errc{}) return false;
      i = static_cast<std::size_t>(parsed.ptr - text.data());
      now.parts.push_back(value);
      marked = false;
      continue;
    }
    const char letter = static_cast<char>(std::toupper(static_cast<unsigned char>(c)));
    if (letter == 'N' || letter == 'S' || letter == 'E' || letter == 'W') {
      if (now.parts.empty()) {
        if (!angles.empty() && angles.back().side == 0 && angles.size() == 2)
          angles.back().side = letter;
        else
          now.side = letter; // written before its number
      } else {
        if (now.side != 0)
          finish(), now.side = letter;
        else
          now.side = letter, finish();
      }
      ++i;
      continue;
    }
    if (c == ',' || c == ';' || c == '/') {
      finish();
      ++i;
    } else if (c == '\'' || c == '"' || c == ':' || (static_cast<unsigned char>(c) & 0x80U) != 0) { // marks of any kind
      marked = true;
      ++i;
    } else if (std::isspace(static_cast<unsigned char>(c))) {
      ++i;
    } else {
      return false;
    }
  }
  finish();
  return true;
}

} // namespace

Result<Coordinates> parseCoordinates(std::string_view text) {
  const auto bad = [&](Message what) { return Problem{ProblemKind::badInput, "", std::move(what), Message{"place.coordinates-as"}}; };
  constexpr std::size_t kLongest = 120;
  std::vector<Angle> angles;
  const std::string plain = inPlainMarks(text.substr(0, kLongest));
  if (const auto o = plain.find_first_of("oO"); o != std::string::npos && plain.find_first_not_of(" .,0123456789", o + 1) == std::string::npos && o > 0)
    return bad(Message{"place.o-is-unclear", text.substr(0, kLongest)});
  if (text.size() > kLongest || !scan(plain, angles) || angles.size() != 2 || !angles[0].isSound() || !angles[1].isSound())
    return bad(Message{"place.no-place", text.substr(0, kLongest)});
  const auto isLongitude = [](char side) { return side == 'E' || side == 'W'; };
  const auto isLatitude = [](char side) { return side == 'N' || side == 'S'; };
  if (isLongitude(angles[0].side) || isLatitude(angles[1].side)) std::swap(angles[0], angles[1]);
  if (isLongitude(angles[0].side) || isLatitude(angles[1].side)) return bad(Message{"place.gives-one-direction-twice", text});
  const Coordinates at{angles[0].degrees(), angles[1].degrees()};
  if (!(std::abs(at.latitude_deg) <= 90.0)) return bad(Message{"place.latitude-at-most", Amount{at.latitude_deg, Unit::none, 6}});
  if (!(std::abs(at.longitude_deg) <= 180.0)) return bad(Message{"place.longitude-at-most", Amount{at.longitude_deg, Unit::none, 6}});
  return at;
}

} // namespace muffle
