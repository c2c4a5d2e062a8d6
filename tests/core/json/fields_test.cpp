// SPDX-License-Identifier: GPL-3.0-or-later
//
// One description reads, writes and makes the schema; the reader lets nothing pass silently.
#include "core/json/fields.h"
#include "words/words.h"

#include <gtest/gtest.h>

#include <cmath>

namespace muffle {

struct Tray {
  double depth_m = 0.05;
  std::optional<double> heat_W;
  int rows = 3;
  bool covered = false;
  std::string crop = "leek";
  std::vector<double> sown = {};
};

template <class V> void describe(V& v, Tray& t) {
  v.number("depth_m", t.depth_m, {0.01, 0.5}, "depth", true);
  v.number("heat_W", t.heat_W, {0.0, 500.0}, "cable");
  v.integer("rows", t.rows, {1.0, 40.0}, "rows");
  v.boolean("covered", t.covered, "cover");
  v.text("crop", t.crop, "crop");
  v.numbers("sown", t.sown, {0.0, 366.0}, "days");
}

namespace {

Problems problemsOf(const std::string& text, Tray* into = nullptr) {
  Problems problems;
  const Json json = *parseJson(text);
  Tray tray;
  FieldReader reader(json, "/tray", problems);
  describe(reader, into ? *into : tray);
  reader.finish();
  return problems;
}

TEST(Fields, ReadWhatIsSoundAndKeepDefaults) {
  Tray tray;
  EXPECT_TRUE(problemsOf(R"({"depth_m": 0.1, "heat_W": 75, "sown": [60, 75.5]})", &tray).empty());
  EXPECT_DOUBLE_EQ(tray.depth_m, 0.1);
  EXPECT_DOUBLE_EQ(*tray.heat_W, 75.0);
  EXPECT_EQ(tray.rows, 3);
  EXPECT_EQ(tray.sown.size(), 2U);
}

TEST(Fields, NameThePointerTheValueAndTheLimit) {
  const struct {
    const char* text;
    const char* says;
  } cases[] = {
      {R"({"depth_m": 2})", "/tray/depth_m"},
      {R"({"depth_m": "deep"})", "\"deep\""},
      {R"({})", "depth_m"},
      {R"({"depth_m": 0.1, "rows": 2.5})", "/tray/rows"},
      {R"({"depth_m": 0.1, "rows": 400})", "40"},
      {R"({"depth_m": 0.1, "covered": "yes"})", "/tray/covered"},
      {R"({"depth_m": 0.1, "crop": 7})", "/tray/crop"},
      {R"({"depth_m": 0.1, "sown": [60, 999]})", "/tray/sown/1"},
      {R"({"depth_m": 0.1, "depht_m": 0.2})", "depht_m"},
  };
  for (const auto& c : cases) {
    const Problems problems = problemsOf(c.text);
    ASSERT_EQ(problems.size(), 1U) << c.text;
    EXPECT_NE(english(problems.front()).find(c.says), std::string::npos) << english(problems.front());
    EXPECT_FALSE(problems.front().allowed.empty()) << c.text;
  }
}

TEST(Fields, CollectEveryProblemAtOnce) { EXPECT_EQ(problemsOf(R"({"depth_m": 9, "rows": 0, "covered": 1, "colour": "red"})").size(), 4U); }

TEST(Json, SyntaxErrorsNameTheirLine) {
  const auto broken = parseJson("{\n  \"a\": 1,\n  \"b\" 2\n}");
  ASSERT_FALSE(broken);
  EXPECT_NE(english(broken.problem()).find("line 3"), std::string::npos);
  EXPECT_FALSE(parseJson(""));
  EXPECT_FALSE(parseJson(std::string(100000, '[')));
}

TEST(Json, ValuesAreDescribedForPeople) {
  EXPECT_EQ(english(describeValue(Json("abc"))), "\"abc\"");
  EXPECT_EQ(english(describeValue(Json(12))), "12");
  EXPECT_EQ(english(describeValue(Json::array())), "a list");
}

} // namespace
} // namespace muffle
