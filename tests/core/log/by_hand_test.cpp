// SPDX-License-Identifier: GPL-3.0-or-later
//
// Readings as they are typed beside the thermometer.
#include "core/log/by_hand.h"

#include "core/log/merge.h"
#include "core/log/read.h"
#include "tests/support/near.h"
#include "words/words.h"

namespace muffle {
namespace {

const Date kFirst{2031, 1, 17};

HandSheet read(const char* text, bool fahrenheit = false) { return readByHand(text, kFirst, *TimeZone::named("Europe/Paris"), fahrenheit); }

UtcSeconds paris(const Date& d, int hour, int minute) { return daysSinceEpoch(d) * 86400 + (hour - 1) * 3600 + minute * 60; }

TEST(ByHand, ALineIsATimeAndTwoTemperatures) {
  const HandSheet sheet = read("7:10 -4 / 2.5");
  ASSERT_EQ(sheet.readings.size(), 1U);
  EXPECT_TRUE(sheet.problems.empty());
  EXPECT_EQ(sheet.readings[0].at, paris(kFirst, 7, 10));
  EXPECT_CLOSE(*sheet.readings[0].outside_C, -4.0, 1e-12, "as written");
  EXPECT_CLOSE(*sheet.readings[0].inside_C, 2.5, 1e-12, "as written");
}

TEST(ByHand, ManyWaysOfWritingItAreTheSame) {
  for (const char* line : {"7:10 -4 / 2.5", "7:10 -4/2.5", "07:10 -4 2.5", "7:10 -4,0 / 2,5", "7:10 am -4/2.5", "17.1.2031 7:10 -4/2.5",
                           "2031-01-17 7:10 -4 / 2.5", "17/1 7:10 -4/2.5", "17.1. 7:10 -4/2.5", "17 Jan 7:10 -4 / 2.5", "  7:10   -4  /  2.5  bench wet",
                           "7:10 \xE2\x88\x92"
                           "4 / 2.5"}) {
    const HandSheet sheet = read(line);
    ASSERT_EQ(sheet.readings.size(), 1U) << line << (sheet.problems.empty() ? "" : english(sheet.problems[0]));
    EXPECT_EQ(sheet.readings[0].at, paris(kFirst, 7, 10)) << line;
    EXPECT_CLOSE(*sheet.readings[0].outside_C, -4.0, 1e-12, "as written") << line;
    EXPECT_CLOSE(*sheet.readings[0].inside_C, 2.5, 1e-12, "as written") << line;
  }
}

TEST(ByHand, ADateStandsForTheLinesBelowIt) {
  const HandSheet sheet = read("20.12.2030\n18:00 1/8\n31/12\n7:00 -2/3\n1/1\n7:00 -3/3\n");
  ASSERT_EQ(sheet.readings.size(), 3U);
  EXPECT_EQ(sheet.readings[0].at, paris({2030, 12, 20}, 18, 0));
  EXPECT_EQ(sheet.readings[1].at, paris({2030, 12, 31}, 7, 0));
  EXPECT_EQ(sheet.readings[2].at, paris({2031, 1, 1}, 7, 0)) << "the year turns with the sheet";
}

TEST(ByHand, OneSideMayBeMissing) {
  const HandSheet sheet = read("7:10 -4\n8:00 / 3\n9:00 - / 4");
  ASSERT_EQ(sheet.readings.size(), 3U) << english(sheet.problems.front());
  EXPECT_FALSE(sheet.readings[0].inside_C);
  EXPECT_FALSE(sheet.readings[1].outside_C);
  EXPECT_CLOSE(*sheet.readings[2].inside_C, 4.0, 1e-12, "as written");
}

TEST(ByHand, LowsAndHighsNeedNoTime) {
  const HandSheet sheet = read("18/1 min -6 / 1.2\n18/1 max 4 / 19\n");
  const Log log = logByHand(sheet);
  ASSERT_EQ(log.channels.size(), 4U);
  EXPECT_EQ(log.time.size(), 1U);
  EXPECT_CLOSE(static_cast<double>(log.find(Role::outside, {}, Statistic::lowest)->raw[0]), -6.0, 1e-6, "a float");
  EXPECT_CLOSE(static_cast<double>(log.find(Role::room, {}, Statistic::highest)->raw[0]), 19.0, 1e-6, "a float");
}

TEST(ByHand, SaysWhatIsWrongWithALineAndKeepsTheOthers) {
  const HandSheet sheet = read("7:10 -4 / 2.5\nnothing today\n25:10 1/2\n8:00 -99 / 3\n8:10 1/2/3\n-4 / 2\n9:00 -1 / 5\n");
  EXPECT_EQ(sheet.readings.size(), 2U);
  ASSERT_EQ(sheet.problems.size(), 5U);
  EXPECT_EQ(sheet.problems[0].where, "line 2");
  for (const Problem& p : sheet.problems) EXPECT_FALSE(p.allowed.empty()) << english(p);
}

TEST(ByHand, FahrenheitIsConverted) {
  const HandSheet sheet = read("7:10 14 / 41", true);
  EXPECT_CLOSE(*sheet.readings.at(0).outside_C, -10.0, 1e-12, "the definition");
  EXPECT_CLOSE(*sheet.readings.at(0).inside_C, 5.0, 1e-12, "the definition");
}

TEST(ByHand, AddsToALoggersLog) {
  const Log base = std::move(readLog("time,outside [C],house [C]\n2031-01-17T05:00:00Z,-3,4\n2031-01-17T06:00:00Z,-4,3\n", {})->log);
  const Merged merged = mergeLogs(base, logByHand(read("7:30 -4.5 / 2.5")));
  EXPECT_EQ(merged.added, 2);
  EXPECT_EQ(merged.newChannels, 0U) << "they are the same places";
  EXPECT_EQ(merged.log.time.size(), 3U);
}

} // namespace
} // namespace muffle
