// SPDX-License-Identifier: GPL-3.0-or-later
//
// One table of words a subject. A code is the subject, a dot and a name.
#pragma once

#include "words/words.h"

namespace muffle {

std::span<const WordsOf> aidWords();
std::span<const WordsOf> bookWords();
std::span<const WordsOf> cautionWords();
std::span<const WordsOf> commandWords();
std::span<const WordsOf> cropWords();
std::span<const WordsOf> failureWords();
std::span<const WordsOf> fitWords();
std::span<const WordsOf> houseWords();
std::span<const WordsOf> jsonWords();
std::span<const WordsOf> logWords();
std::span<const WordsOf> materialWords();
std::span<const WordsOf> nameWords();
std::span<const WordsOf> networkWords();
std::span<const WordsOf> placeWords();
std::span<const WordsOf> planWords();
std::span<const WordsOf> problemWords();
std::span<const WordsOf> seasonWords();
std::span<const WordsOf> sizingWords();
std::span<const WordsOf> storeWords();

} // namespace muffle
