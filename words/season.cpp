// SPDX-License-Identifier: GPL-3.0-or-later
//
// Of weather and runs.
#include "words/tables.h"

namespace muffle {
namespace {

constexpr WordsOf kSeason[] = {
    {"season.no-solution", "the simulation found no solution"},
    {"season.check-sizes", "check for sizes far outside the usual"},
    {"season.no-steady-state-was", "no steady state was found"},
    {"season.no-outside-column", "no column holds the outside temperature"},
    {"season.name-one-outside", "name one \"outside\", or set its role when importing"},
    {"season.less-than-a-day", "there is less than a day of usable outside temperatures"},
    {"season.a-day-needed", "at least one whole day and night is needed"},
    {"season.stopped", "stopped"},
};

} // namespace

std::span<const WordsOf> seasonWords() { return kSeason; }

} // namespace muffle
