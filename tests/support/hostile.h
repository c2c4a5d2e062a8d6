// SPDX-License-Identifier: GPL-3.0-or-later
//
// Hostile texts made from sound ones: cut, doubled, turned about, nested, with numbers and letters that nobody expects. Made, not kept.
#pragma once

#include <array>
#include <random>
#include <string>
#include <string_view>
#include <vector>

namespace muffle {

inline std::vector<std::string> hostileTexts(const std::vector<std::string>& sound, int count, unsigned seed = 1) {
  static constexpr std::array<std::string_view, 34> kPieces{"\0",
                                                            "\xFF\xFE",
                                                            "\xEF\xBB\xBF",
                                                            "\xC3\x28",
                                                            "\xED\xA0\x80",
                                                            "\"",
                                                            "\\",
                                                            "{",
                                                            "}",
                                                            "[",
                                                            "]",
                                                            ",",
                                                            ";",
                                                            "\n",
                                                            "\r\n",
                                                            "\t",
                                                            "/",
                                                            "'",
                                                            "1e308",
                                                            "-1e308",
                                                            "nan",
                                                            "inf",
                                                            "-0",
                                                            "18446744073709551616",
                                                            "9999-12-31 23:59",
                                                            "0000-00-00",
                                                            "29.02.2031",
                                                            "\xE2\x88\x92",
                                                            "#",
                                                            "null",
                                                            "true",
                                                            "%n%s",
                                                            "../../",
                                                            "\x1b[2J"};
  std::mt19937 random(seed);
  const auto pick = [&](std::size_t n) { return n == 0 ? std::size_t{0} : static_cast<std::size_t>(random()) % n; };
  std::vector<std::string> all;
  for (int i = 0; i < count; ++i) {
    std::string t = sound[pick(sound.size())];
    for (std::size_t turns = 1 + pick(6); turns > 0 && !t.empty(); --turns) {
      const std::size_t at = pick(t.size()), n = 1 + pick(std::min<std::size_t>(t.size() - at, 40));
      switch (random() % 8) {
      case 0: t.resize(at); break;
      case 1: t.erase(at, n); break;
      case 2: t.insert(at, t.substr(pick(t.size()), n)); break;
      case 3: t.insert(at, kPieces[pick(kPieces.size())]); break;
      case 4: t.replace(at, n, kPieces[pick(kPieces.size())]); break;
      case 5: t[at] = static_cast<char>(random()); break;
      case 6: t.insert(at, std::string(1 + pick(3000), t[at])); break;
      default:
        for (std::size_t k = 0; k < 1 + pick(200); ++k) t.insert(at, random() % 2 ? "[" : "{\"a\":");
        break;
      }
    }
    all.push_back(std::move(t));
  }
  return all;
}

} // namespace muffle
