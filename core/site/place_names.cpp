// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/site/place_names.h"

#include <utf8proc.h>

#include <cstdlib>
#include <memory>

namespace muffle {
namespace {

/// Letters that Unicode does not take apart.
std::string_view plainLetter(utf8proc_int32_t letter) {
  switch (letter) {
  case 0xF8: return "o";  // o with stroke
  case 0x142: return "l"; // l with stroke
  case 0x111: return "d"; // d with stroke
  case 0xF0: return "d";  // eth
  case 0xFE: return "th"; // thorn
  case 0xE6: return "ae";
  case 0x153: return "oe";
  case 0x131: return "i"; // dotless i
  case 0x127: return "h"; // h with stroke
  default: return {};
  }
}

bool isApostrophe(utf8proc_int32_t letter) { return letter == '\'' || letter == 0x2019 || letter == 0x2018 || letter == 0x2BC; }

/// Letters and digits in words parted by one space each; an apostrophe joins what it stands between.
class Words {
public:
  void add(std::string_view letters) {
    if (m_gap && !m_text.empty()) endWord(), m_text += ' ', m_word = m_text.size();
    m_gap = false;
    m_text += letters;
  }
  void gap() { m_gap = true; }
  std::string take() {
    endWord();
    return std::move(m_text);
  }

private:
  void endWord() {
    const std::string_view word = std::string_view(m_text).substr(m_word);
    if (word == "st")
      m_text.replace(m_word, 2, "saint");
    else if (word == "ste")
      m_text.replace(m_word, 3, "sainte");
  }
  std::string m_text;
  std::size_t m_word = 0;
  bool m_gap = false;
};

bool isPlain(std::string_view name) {
  for (const char c : name)
    if (static_cast<unsigned char>(c) >= 0x80) return false;
  return true;
}

} // namespace

std::string foldedName(std::string_view name) {
  Words words;
  if (isPlain(name)) { // most names, and ten times as quick
    for (char c : name) {
      if (c >= 'A' && c <= 'Z') c = static_cast<char>(c - 'A' + 'a');
      if ((c >= 'a' && c <= 'z') || (c >= '0' && c <= '9'))
        words.add({&c, 1});
      else if (c != '\'')
        words.gap();
    }
    return words.take();
  }
  utf8proc_uint8_t* mapped = nullptr;
  const auto options = static_cast<utf8proc_option_t>(UTF8PROC_STABLE | UTF8PROC_DECOMPOSE | UTF8PROC_COMPAT | UTF8PROC_CASEFOLD | UTF8PROC_STRIPMARK);
  const auto size = utf8proc_map(reinterpret_cast<const utf8proc_uint8_t*>(name.data()), static_cast<utf8proc_ssize_t>(name.size()), &mapped, options);
  const std::unique_ptr<utf8proc_uint8_t, decltype(&std::free)> owner(mapped, &std::free);
  if (size < 0) return {};
  for (utf8proc_ssize_t at = 0; at < size;) {
    utf8proc_int32_t letter = 0;
    const utf8proc_ssize_t length = utf8proc_iterate(mapped + at, size - at, &letter);
    if (length <= 0) return {};
    const std::string_view bytes(reinterpret_cast<const char*>(mapped + at), static_cast<std::size_t>(length));
    at += length;
    const auto category = utf8proc_category(letter);
    const bool isWord = (category >= UTF8PROC_CATEGORY_LU && category <= UTF8PROC_CATEGORY_LO) || category == UTF8PROC_CATEGORY_ND;
    if (isApostrophe(letter) || category == UTF8PROC_CATEGORY_LM) continue;
    if (!isWord)
      words.gap();
    else if (const auto plain = plainLetter(letter); !plain.empty())
      words.add(plain);
    else
      words.add(bytes);
  }
  return words.take();
}

} // namespace muffle
