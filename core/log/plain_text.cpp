// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/log/plain_text.h"

#include "core/log/cells.h"

#include <algorithm>
#include <cctype>
#include <cstdint>
#include <vector>

namespace muffle {
namespace {

constexpr std::size_t kLookedAtBytes = 20000;
constexpr std::size_t kLeastLines = 3;

void append(std::string& out, std::uint32_t point) {
  if (point < 0x80) {
    out += static_cast<char>(point);
  } else if (point < 0x800) {
    out += static_cast<char>(0xC0 | (point >> 6));
    out += static_cast<char>(0x80 | (point & 0x3F));
  } else if (point < 0x10000) {
    out += static_cast<char>(0xE0 | (point >> 12));
    out += static_cast<char>(0x80 | ((point >> 6) & 0x3F));
    out += static_cast<char>(0x80 | (point & 0x3F));
  } else {
    out += static_cast<char>(0xF0 | (point >> 18));
    out += static_cast<char>(0x80 | ((point >> 12) & 0x3F));
    out += static_cast<char>(0x80 | ((point >> 6) & 0x3F));
    out += static_cast<char>(0x80 | (point & 0x3F));
  }
}

std::string fromUtf16(std::string_view bytes, bool bigEndian) {
  std::string out;
  out.reserve(bytes.size() / 2);
  const auto unit = [&](std::size_t i) -> std::uint32_t {
    const auto a = static_cast<unsigned char>(bytes[i]), b = static_cast<unsigned char>(bytes[i + 1]);
    return bigEndian ? a << 8U | b : b << 8U | a;
  };
  for (std::size_t i = 0; i + 1 < bytes.size(); i += 2) {
    std::uint32_t point = unit(i);
    if (point >= 0xD800 && point < 0xDC00 && i + 3 < bytes.size()) {
      const std::uint32_t low = unit(i + 2);
      if (low >= 0xDC00 && low < 0xE000) point = 0x10000 + ((point - 0xD800) << 10) + (low - 0xDC00), i += 2;
    }
    append(out, point);
  }
  return out;
}

/// Words of a line, if blanks are all that sets its columns apart.
std::size_t words(std::string_view line) {
  std::size_t n = 0;
  bool inWord = false;
  for (const char c : line) {
    const bool blank = c == ' ' || c == '\r';
    if (!blank && !inWord) ++n;
    inWord = !blank;
  }
  return n;
}

/// No line has another separator, and most have as many words, with digits first.
bool isSetByBlanks(std::string_view bytes) {
  const std::string_view head = bytes.substr(0, kLookedAtBytes);
  if (head.find_first_of(";\t|\"") != std::string_view::npos) return false;
  std::vector<std::size_t> counts;
  for (std::size_t from = 0; from < head.size();) {
    const auto end = std::min(head.find('\n', from), head.size());
    const auto line = head.substr(from, end - from);
    from = end + 1;
    const auto first = line.find_first_not_of(' ');
    if (first == std::string_view::npos || !std::isdigit(static_cast<unsigned char>(line[first])) || end == head.size()) continue;
    if (line.find(',') != std::string_view::npos && line.find(", ") != std::string_view::npos) return false;
    const auto text = trim(line);
    if (!parseNumber(text.substr(text.rfind(' ') + 1), true) && !isMissing(text.substr(text.rfind(' ') + 1))) return false; // columns end otherwise
    counts.push_back(words(line));
  }
  if (counts.size() < kLeastLines) return false;
  const auto alike = std::count(counts.begin(), counts.end(), counts[counts.size() / 2]);
  return counts[counts.size() / 2] >= 3 && 10 * static_cast<std::size_t>(alike) >= 9 * counts.size();
}

std::string tabsForBlanks(std::string_view bytes) {
  std::string out;
  out.reserve(bytes.size());
  bool inBlanks = false, atStart = true;
  for (const char c : bytes) {
    if (c == ' ') {
      inBlanks = true;
      continue;
    }
    const bool ends = c == '\n' || c == '\r';
    if (inBlanks && !atStart && !ends) out += '\t';
    inBlanks = false;
    atStart = ends;
    out += c;
  }
  return out;
}

/// Every kind of line end as one: loggers on some systems end lines with two characters, old ones with the other alone.
std::string withPlainLineEnds(std::string_view bytes) {
  std::string out;
  out.reserve(bytes.size());
  for (std::size_t i = 0; i < bytes.size(); ++i) {
    if (bytes[i] != '\r') {
      out += bytes[i];
      continue;
    }
    out += '\n';
    if (i + 1 < bytes.size() && bytes[i + 1] == '\n') ++i;
  }
  return out;
}

} // namespace

std::string_view plainText(std::string_view bytes, std::optional<char> separator, std::string& own) {
  if (bytes.starts_with("\xEF\xBB\xBF")) {
    bytes.remove_prefix(3);
  } else if (bytes.starts_with("\xFF\xFE") || bytes.starts_with("\xFE\xFF")) {
    own = fromUtf16(bytes.substr(2), bytes.starts_with("\xFE\xFF"));
    bytes = own;
  }
  if (bytes.find('\r') != std::string_view::npos) {
    own = withPlainLineEnds(bytes);
    bytes = own;
  }
  if (separator ? *separator == ' ' : isSetByBlanks(bytes)) {
    own = tabsForBlanks(bytes);
    bytes = own;
  }
  return bytes;
}

} // namespace muffle
