// SPDX-License-Identifier: GPL-3.0-or-later
//
// Of places.
#include "words/tables.h"

namespace muffle {
namespace {

constexpr WordsOf kPlace[] = {
    {"place.no-place", "\"{}\" is no place"},
    {"place.columns-needed", "name, people, latitude and longitude are parted by tabs"},
    {"place.coordinates-as", "latitude and longitude are understood as 45.21, 3.14 or 45.21 N 3.14 E or 45°12'36\" N 3°8' E"},
    {"place.o-is-unclear", "\"{}\": O is west in some tongues and east in others, write W or E"},
    {"place.gives-one-direction-twice", "\"{}\" gives one direction twice"},
    {"place.latitude-at-most", "latitude {}: at most 90 degrees"},
    {"place.longitude-at-most", "longitude {}: at most 180 degrees"},
    {"place.not-known-time-zone", "\"{}\" is not a known time zone"},
    {"place.zone-as", "use a zone name such as Europe/Lisbon, or an offset such as +01:00"},
};

} // namespace

std::span<const WordsOf> placeWords() { return kPlace; }

} // namespace muffle
