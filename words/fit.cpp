// SPDX-License-Identifier: GPL-3.0-or-later
//
// Of fits.
#include "words/tables.h"

namespace muffle {
namespace {

constexpr WordsOf kFit[] = {
    {"fit.log-no-temperature-inside", "the log has no temperature inside"},
    {"fit.house-measured-air", "a house is measured by the air in it"},
    {"fit.whole-nights-inside-outside", "{} whole nights inside and outside, four days in"},
    {"fit.at-least", "at least {} are needed"},
    {"fit.fit-was-stopped", "the fit was stopped"},
    {"fit.fit-found-no-solution", "the fit found no solution"},
    {"fit.check-heater-and-sizes", "check heater power and sizes of the plan"},
    {"fit.winters-lows", "{} winters' lows"},
    {"fit.three-winters-needed", "at least 3 are needed"},
    {"fit.all-winters-one-low", "all winters have one low"},
    {"fit.lows-must-differ", "they must differ"},
    {"fit.no-nights-measured-heater", "no nights with a measured heater"},
    {"fit.log-heaters-watts-run", "log the heater's watts, or run one of known power"},
    {"fit.samples-heater-inside-outside", "{} samples with heater, inside and outside"},
    {"fit.readings-cannot-tell-loss", "the readings cannot tell loss from storage"},
    {"fit.heater-must-have-changed", "the heater must have been on and off, or the inside must have changed"},
    {"fit.samples-above-outside", "{} samples above the outside"},
    {"fit.inside-does-not-cool", "the inside does not cool towards the outside"},
    {"fit.choose-stretch-without-heat", "choose a stretch without heat or sun"},
    {"fit.points", "{} points"},
    {"fit.points-have-one-x", "all points have one x"},
    {"fit.two-points-needed", "at least two different ones are needed"},
    {"fit.no-balance-heater-loss", "no balance of heater, loss and storage by the hours of its nights"},
    {"fit.log-heaters-watts", "log the heater's watts"},
    {"fit.no-balance-hours-nights", "no balance by the hours of its nights"},
    {"fit.measured-heater-needed", "a measured heater is needed"},
    {"fit.log-no-temperature-inside-pile", "the log has no temperature inside this pile"},
    {"fit.channel-role-store-compost", "a channel of the role store:compost{} is needed"},
    {"fit.readings-from-inside-pile", "{} readings from inside the pile while it stands"},
    {"fit.day-of-readings-needed", "a day of them is needed"},
    {"fit.log-lacks-inside-outside", "the log lacks inside or outside temperatures"},
    {"fit.both-needed", "both are needed"},
    {"fit.no-night-both-temperatures", "no night has both temperatures throughout"},
    {"fit.one-night-needed", "at least one is needed"},
};

} // namespace

std::span<const WordsOf> fitWords() { return kFit; }

} // namespace muffle
