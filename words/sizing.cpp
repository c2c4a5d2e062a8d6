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
    {"sizing.rare-night-not-held", "in a night of {} outside it falls to {}"},
    {"sizing.not-held-without-heater", "with {} out, nights missed: {}"},
    {"sizing.power-cut-not-held", "a power cut at the worst moment takes it to {}"},
    {"sizing.not-tried", "was not tried against what is asked beside the log"},
    {"sizing.rules-leave-nothing", "what is fixed, ruled out, needed and excluded leaves no combination"},
    {"sizing.loosen-a-rule", "open one of them"},
    {"sizing.fire-while-asleep", "wood is put on {} times a winter between 23 and 6"},
    {"sizing.more-than-the-supply", "takes {} kW, the supply gives {} kW"},
    {"sizing.more-to-dig", "{} to dig, {} allowed"},
    {"sizing.more-than-the-fuel-store", "burns {} a winter, there is room for {}"},
    {"sizing.colder-than-allowed", "{} degree-hours below the line a winter, {} allowed"},
    {"sizing.would-do-misses", "{} would do with nights missed: {}"},
    {"sizing.would-do-cold", "{} would do if {} degree-hours below the line were accepted"},
    {"sizing.would-do-spend", "{} would do with {} {} to spend"},
    {"sizing.would-do-hours", "{} would do with {} hours a week"},
    {"sizing.would-do-supply", "{} would do with a supply of {} kW"},
    {"sizing.would-do-trench", "{} would do with {} of trench"},
    {"sizing.by", "{}"},
    {"thumb.heater", "by area, usual loss and the coldest hour a heater of {}"},
    {"thumb.double-and-heater", "under a second skin, by area and usual loss, a heater of {}"},
    {"thumb.water", "water {} deep over the floor, {} barrels, and no heater"},
    {"sizing.choice-of-another-list", "is a choice of another list"},
    {"sizing.choice-allowed", "one size, or none, of each measure of the plan it is kept with"},
    {"sizing.would-do-fuel-store", "{} would do with room for {} of fuel"},
    {"sizing.would-do-fire-asleep", "{} would do if somebody put wood on in the night"},
    {"sizing.would-do-without-failure", "{} would do if it need not withstand more than the logged nights"},
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
