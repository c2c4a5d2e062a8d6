// SPDX-License-Identifier: GPL-3.0-or-later
//
// Of command.
#include "words/tables.h"

namespace muffle {
namespace {

constexpr WordsOf kCommand[] = {
    {"command.no-such-wish", "\"{}\" is no such wish"},
    {"command.wishes-are", "with commas between: {}"},
    {"command.no-time-of-day", "\"{}\" is no time of the day"},
    {"command.time-as", "HH:MM is needed, such as 22:30"},
    {"command.no-date", "\"{}\" is no date"},
    {"command.date-as", "YYYY-MM-DD is needed, of the night's evening"},
    {"command.night-not-log", "the night of {} is not in the log"},
    {"command.no-night-log-whole", "no night of the log is whole"},
    {"command.night-was-logged-needed", "a night that was logged is needed"},
    {"command.not-heading-role", "\"{}\" is not HEADING=ROLE"},
    {"command.roles-are", "a role is outside, room:house, soil:ID, store:ID, cover:ID, wind, sun, humidity:ID, heater:ID, rain or note"},
};

} // namespace

std::span<const WordsOf> commandWords() { return kCommand; }

} // namespace muffle
