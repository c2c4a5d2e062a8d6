// SPDX-License-Identifier: GPL-3.0-or-later
//
// Of problem.
#include "words/tables.h"

namespace muffle {
namespace {

constexpr WordsOf kProblem[] = {
    {"problem.at", "{}: {}"},
    {"problem.at-allowed", "{}: {}, {}"},
    {"problem.allowed", "{}, {}"},
};

} // namespace

std::span<const WordsOf> problemWords() { return kProblem; }

} // namespace muffle
