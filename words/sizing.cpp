// SPDX-License-Identifier: GPL-3.0-or-later
//
// Of searches and comparisons.
#include "words/tables.h"

namespace muffle {
namespace {

constexpr WordsOf kSizing[] = {
    {"sizing.as-it-is", "as it is"},
    {"sizing.with", "{}"},
    {"sizing.half-the-width", "half the width, for arches"},
    {"sizing.six-tenths-of-the-width", "six tenths of the width, for gables"},
    {"sizing.search-was-stopped", "the search was stopped"},
    {"sizing.combinations", "{} combinations"},
    {"sizing.exhaustive-at-most", "at most {} can all be run; without that the search leaves out what cannot be the least"},
    {"sizing.combinations-at-most", "at most {} are searched; leave out some sizes"},
    {"sizing.cheapest-holds", "cheapest that holds"},
    {"sizing.misses-nights-allowed", "misses {} of {} nights, {} allowed"},
    {"sizing.fuel-without-price", "{} burns {}, which has no price"},
    {"sizing.price-it-among-fuels", "give its price in the list of fuels, 0 where it costs nothing"},
    {"sizing.more-than-there-is", "takes {} {} now and {} hours a winter: more than there is"},
    {"sizing.holds-but-costs-more", "holds, but costs {} {} more each winter"},
    {"sizing.comparison-was-stopped", "the comparison was stopped"},
    {"sizing.no-heater-stands-house", "no heater stands in the house"},
    {"sizing.setpoint-needs-one-add", "a setpoint needs one: add a heater"},
};

} // namespace

std::span<const WordsOf> sizingWords() { return kSizing; }

} // namespace muffle
