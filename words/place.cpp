// SPDX-License-Identifier: GPL-3.0-or-later
//
// Of places.
#include "words/tables.h"

namespace muffle {
namespace {

constexpr WordsOf kPlace[] = {
    {"place.no-place", "\"{}\" is no place"},
    {"place.name-people-latitude-longitude", "name, people, latitude and longitude are parted by tabs"},
    {"place.latitude-longitude-understood-45", "latitude and longitude are understood as 45.21, 3.14 or 45.21 N 3.14 E or 45°12'36\" N 3°8' E"},
    {"place.o-west-some-tongues", "\"{}\": O is west in some tongues and east in others, write W or E"},
    {"place.gives-one-direction-twice", "\"{}\" gives one direction twice"},
    {"place.latitude-most-90-degrees", "latitude {}: at most 90 degrees"},
    {"place.longitude-most-180-degrees", "longitude {}: at most 180 degrees"},
    {"place.not-known-time-zone", "\"{}\" is not a known time zone"},
    {"place.use-zone-name-such", "use a zone name such as Europe/Lisbon, or an offset such as +01:00"},
};

} // namespace

std::span<const WordsOf> placeWords() { return kPlace; }

} // namespace muffle
