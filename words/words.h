// SPDX-License-Identifier: GPL-3.0-or-later
//
// The words of every code that core and book answer with: one table a subject, in English. A place {} takes the next argument; in another
// language, whose words stand in another order, {0}, {1}, ... take theirs.
//
//   english(problem)                       for the command line
//   say(message, {.words = translated, .amount = inTheGrowersUnits})    for the window
#pragma once

#include "core/message.h"
#include "core/status.h"

#include <functional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace muffle {

struct WordsOf {
  const char* code;
  const char* english; ///< as many {} as the code has arguments
};

/// All tables, one after the other.
std::vector<std::span<const WordsOf>> wordTables();
/// Empty for a code that is nowhere.
std::string_view wordsOf(std::string_view code);

/// Who speaks: in which language and which units.
struct Speaker {
  std::function<std::string(std::string_view english)> words = {}; ///< the same in the language; without it English
  std::function<std::string(const Amount&)> amount = {};           ///< a number with its unit; without it SI
};

/// A code without words is said as it is, so that it is seen and found.
std::string say(const Message& message, const Speaker& speaker = {});
/// "where: what, allowed".
std::string say(const Problem& problem, const Speaker& speaker = {});

inline std::string english(const Message& message) { return say(message); }
inline std::string english(const Problem& problem) { return say(problem); }
/// "3 m", "12.5 kg": SI, with as many digits as it is to have.
std::string englishAmount(const Amount& amount);

} // namespace muffle
