// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/site/coordinates.h"

#include "tests/support/near.h"
#include "words/words.h"

namespace muffle {
namespace {

TEST(Coordinates, AreReadInAnyCommonForm) {
  const std::pair<const char*, Coordinates> written[] = {{"45.21, 3.14", {45.21, 3.14}},
                                                         {"45.21 3.14", {45.21, 3.14}},
                                                         {"-33.4;-70.6", {-33.4, -70.6}},
                                                         {"33.4 S 70.6 W", {-33.4, -70.6}},
                                                         {"45.21N, 3.14E", {45.21, 3.14}},
                                                         {"N 45.21 E 3.14", {45.21, 3.14}},
                                                         {"3.14 E 45.21 N", {45.21, 3.14}},
                                                         {"45°12'36\"N 3°8'24\"E", {45.21, 3.14}},
                                                         {"45° 12.6' N, 3° 8.4' E", {45.21, 3.14}},
                                                         {"45:12:36 N 3:08:24 W", {45.21, -3.14}},
                                                         {" +45.21 , -3.14 ", {45.21, -3.14}},
                                                         {"48,137 11,575", {48.137, 11.575}},
                                                         {"48,137° N, 11,575° E", {48.137, 11.575}},
                                                         {"-33,4; -70,6", {-33.4, -70.6}},
                                                         {"45,3", {45.0, 3.0}},
                                                         {"\u221241.3, 174.8", {-41.3, 174.8}},
                                                         {"41.3 S, \u20130.5", {-41.3, -0.5}}};
  for (const auto& [text, at] : written) {
    const auto read = parseCoordinates(text);
    ASSERT_TRUE(read) << text;
    EXPECT_CLOSE(read->latitude_deg, at.latitude_deg, 1e-6, "rounding") << text;
    EXPECT_CLOSE(read->longitude_deg, at.longitude_deg, 1e-6, "rounding") << text;
  }
}

TEST(Coordinates, WhatIsNoPlaceIsExplained) {
  for (const char* text : {"", "45.2", "Upper Vaunel", "95, 3", "45, 190", "45 N 46 N", "45°70' N 3 E", "1 2 3", "45,2,3", "nan, nan", "1e999, 3"}) {
    const auto read = parseCoordinates(text);
    ASSERT_FALSE(read) << text;
    EXPECT_NE(english(read.problem().allowed).find("45.21"), std::string::npos) << text;
  }
}

TEST(Coordinates, ALetterThatIsWestInOneTongueAndEastInAnotherIsAskedAgain) {
  const auto read = parseCoordinates("48.1 N 11.6 O"); // oeste, ouest; Ost, oost
  ASSERT_FALSE(read);
  EXPECT_NE(english(read.problem()).find("write W or E"), std::string::npos) << english(read.problem());
}

} // namespace
} // namespace muffle
