// SPDX-License-Identifier: GPL-3.0-or-later
//
// Several files, one log; and how a kind of file is known again.
#include "core/log/merge.h"

#include "core/log/recipe.h"
#include "tests/support/near.h"
#include "words/words.h"

namespace muffle::merge_test {
namespace {

Log logOf(const std::string& text) { return std::move(readLog(text, {})->log); }

const char* const kFirst = "time,outside [C],house [C]\n2031-01-17 06:10,-11,3\n2031-01-17 06:20,-12,2\n";

TEST(Merge, AFileImportedTwiceAddsNothing) {
  const Log log = logOf(kFirst);
  const Merged merged = mergeLogs(log, log);
  EXPECT_EQ(merged.added, 0);
  EXPECT_EQ(merged.same, 4);
  EXPECT_EQ(merged.log.time, log.time);
  EXPECT_EQ(merged.log.channels[0].raw, log.channels[0].raw);
}

TEST(Merge, AnOverlappingFileAddsOnlyWhatIsNew) {
  const Merged merged = mergeLogs(logOf(kFirst), logOf("time,house [C],outside [C]\n2031-01-17 06:20,2,-12.5\n2031-01-17 06:30,1,-13\n"));
  EXPECT_EQ(merged.added, 2);
  EXPECT_EQ(merged.same, 1);
  EXPECT_EQ(merged.different, 1);
  ASSERT_EQ(merged.log.time.size(), 3U);
  EXPECT_CLOSE(static_cast<double>(merged.log.find(Role::outside)->raw[1]), -12.0, 1e-6, "what was there stays");
  EXPECT_CLOSE(static_cast<double>(merged.log.find(Role::room)->raw[2]), 1.0, 1e-6, "the new reading");
}

TEST(Merge, AnotherSensorGetsAColumnOfItsOwnBehindTheOthers) {
  const Merged merged = mergeLogs(logOf(kFirst), logOf("time,barrel [C]\n2031-01-17 06:15,9\n"));
  EXPECT_EQ(merged.newChannels, 1U);
  ASSERT_EQ(merged.log.channels.size(), 3U);
  EXPECT_EQ(merged.log.channels[2].role, Role::store);
  EXPECT_EQ(merged.log.time.size(), 3U);
  EXPECT_TRUE(std::isnan(merged.log.channels[2].raw[0]));
  EXPECT_TRUE(std::isnan(merged.log.channels[0].raw[1])) << "nothing is invented between";
}

TEST(Merge, TwoRemarksOfOneNameKeepApart) {
  Log log = logOf(kFirst);
  for (const float v : {1.0F, 2.0F}) {
    Channel remark;
    remark.name = "x";
    remark.raw.assign(log.time.size(), v);
    remark.flag.assign(log.time.size(), 0);
    log.channels.push_back(remark);
  }
  const Merged merged = mergeLogs(log, log);
  EXPECT_EQ(merged.added, 0);
  EXPECT_EQ(merged.different, 0);
  EXPECT_EQ(merged.log.channels.size(), 4U);
}

TEST(Merge, ComesOutTheSameWhicheverFileCameFirst) {
  const Log a = logOf(kFirst), b = logOf("time,outside [C],house [C]\n2031-01-16 06:10,-1,5\n2031-01-17 06:15,-11.5,2.5\n");
  const Log ab = mergeLogs(a, b).log, ba = mergeLogs(b, a).log;
  EXPECT_EQ(ab.time, ba.time);
  for (std::size_t c = 0; c < 2; ++c)
    for (std::size_t i = 0; i < ab.time.size(); ++i) EXPECT_EQ(ab.channels[c].raw[i], ba.channels[c].raw[i]);
}

TEST(Recipe, ReadsTheNextFileAsTheFirstWasRead) {
  const char* const text = "when,A,B\n02/01/2031 06:10,40,50\n02/01/2031 06:20,39,50\n";
  ReadOptions o;
  o.monthFirst = true;
  o.fahrenheit = true;
  o.columns = {{"A", Role::outside, "", Statistic::moment, "F", true}, {"B", Role::room, "house", Statistic::moment, "F", true}};
  const auto first = readLog(text, o);
  ASSERT_TRUE(first) << english(first.problem());
  const Recipe kept = recipeOf("yard logger", o, Clockwork::utc, *first);
  const auto again = recipeFromJson(recipeToJson(kept));
  ASSERT_TRUE(again) << english(again.problem());
  EXPECT_EQ(*again, kept);
  const std::vector<Recipe> shelf{*again};
  const Recipe* known = recipeFor(shelf, readLog(text, {})->headings);
  ASSERT_NE(known, nullptr) << "known by its headings";
  const auto second = readLog(text, withRecipe({}, *known));
  ASSERT_TRUE(second);
  EXPECT_EQ(second->log.time, first->log.time);
  EXPECT_CLOSE(static_cast<double>(second->log.find(Role::outside)->raw[0]), 40.0 / 9.0, 1e-5, "a float");
  EXPECT_EQ(recipeFor(shelf, {"when", "A"}), nullptr) << "another file";
}

TEST(Recipe, OfAWinterClockIsThePlacesOffsetInMidWinter) {
  const TimeZone paris = *TimeZone::named("Europe/Paris");
  const UtcSeconds july = daysSinceEpoch({2031, 7, 1}) * 86400;
  EXPECT_EQ(clockOf(Clockwork::winterTime, paris).offset_s(july), 3600);
  EXPECT_EQ(clockOf(Clockwork::place, paris).offset_s(july), 7200);
  const auto hobart = TimeZone::named("Australia/Hobart");
  EXPECT_EQ(clockOf(Clockwork::winterTime, *hobart).offset_s(daysSinceEpoch({2031, 1, 1}) * 86400), 36000) << "where July is winter";
}

TEST(Recipe, RefusesWhatItDoesNotKnow) {
  Json json = recipeToJson({"x", {}, {}, {}, {}, Clockwork::place, {}});
  json["clock"] = "sundial";
  const auto recipe = recipeFromJson(json);
  ASSERT_FALSE(recipe);
  EXPECT_EQ(recipe.problem().where, "/clock");
}

} // namespace
} // namespace muffle::merge_test
