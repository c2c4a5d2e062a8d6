// SPDX-License-Identifier: GPL-3.0-or-later
//
// Of failures.
#include "words/tables.h"

namespace muffle {
namespace {

constexpr WordsOf kFailure[] = {
    {"failure.nothing-of-that-name", "this plan has no \"{}\" that could fail"},
    {"failure.it-has", "it has: {}"},
    {"failure.hours-allowed", "{} to {} are allowed"},
    {"failure.changes-nothing", "{} does nothing in any {} of the log"},
    {"failure.choose-another", "choose something else, a shorter failure, or a longer log"},
    {"failure.no-line-was-given", "no line was given"},
    {"failure.one-needed", "one is needed"},
    {"failure.length", "{}"},
};

} // namespace

std::span<const WordsOf> failureWords() { return kFailure; }

} // namespace muffle
