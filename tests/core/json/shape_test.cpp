// SPDX-License-Identifier: GPL-3.0-or-later
//
// What does not look as it must is named by its place, its value and what is needed.
#include "core/json/shape.h"

#include <gtest/gtest.h>

namespace muffle {
namespace {

const Shape kTray = Shape::object({{"name", Shape::text()},
                                   {"rows", Shape::integer(1, 40)},
                                   {"covered", Shape::boolean(), true},
                                   {"sown", Shape::list(Shape::row({Shape::whole(), Shape::text()}))},
                                   {"labels", Shape::map(Shape::text()), true}});

std::string wrongIn(const char* text) {
  const auto found = misshapen(*parseJson(text), kTray, "/tray");
  return found.empty() ? std::string() : english(found.front());
}

TEST(Shape, WhatIsAsItMustBePasses) {
  EXPECT_EQ(wrongIn(R"({"name":"a","rows":1,"sown":[]})"), "");
  EXPECT_EQ(wrongIn(R"({"name":"a","rows":40,"covered":true,"sown":[[0,"leek"],[9223372036854775807,"x"]],"labels":{"x":"y"},"later":5})"), "");
}

TEST(Shape, WhatIsNotIsNamedWithItsPlaceItsValueAndWhatIsNeeded) {
  EXPECT_EQ(wrongIn(R"([])"), "/tray: a list stands here, an object {...} is needed");
  EXPECT_EQ(wrongIn(R"({"rows":1,"sown":[]})"), "/tray/name: this is missing, it is needed here");
  EXPECT_EQ(wrongIn(R"({"name":5,"rows":1,"sown":[]})"), "/tray/name: 5 stands here, a text is needed");
  EXPECT_EQ(wrongIn(R"({"name":"a","rows":41,"sown":[]})"), "/tray/rows: 41 stands here, a whole number from 1 to 40 is needed");
  EXPECT_EQ(wrongIn(R"({"name":"a","rows":2.5,"sown":[]})"), "/tray/rows: 2.5 stands here, a whole number from 1 to 40 is needed");
  EXPECT_EQ(wrongIn(R"({"name":"a","rows":0,"sown":[]})"), "/tray/rows: 0 stands here, a whole number from 1 to 40 is needed");
  EXPECT_EQ(wrongIn(R"({"name":"a","rows":18446744073709551615,"sown":[]})").substr(0, 11), "/tray/rows:");
  EXPECT_EQ(wrongIn(R"({"name":"a","rows":1,"sown":[[1]]})"), "/tray/sown/0: a list stands here, a list of 2 is needed");
  EXPECT_EQ(wrongIn(R"({"name":"a","rows":1,"sown":[[-1,"x"]]})"), "/tray/sown/0/0: -1 stands here, a whole number from 0 is needed");
  EXPECT_EQ(wrongIn(R"({"name":"a","rows":1,"sown":[],"labels":{"k":1}})"), "/tray/labels/k: 1 stands here, a text is needed");
  EXPECT_EQ(wrongIn(R"({"name":"a","rows":1,"sown":[],"covered":"yes"})"), "/tray/covered: \"yes\" stands here, true or false is needed");
}

} // namespace
} // namespace muffle
