// SPDX-License-Identifier: GPL-3.0-or-later
//
// What a table does not say: where its only thermometer hangs, and that its numbers are a spreadsheet's days.
#include "core/log/read.h"
#include "tests/support/near.h"
#include "words/words.h"

namespace muffle {
namespace {

ReadLog readOf(const std::string& text, const std::vector<ColumnChoice>& columns = {}) {
  ReadOptions options;
  options.columns = columns;
  auto read = readLog(text, options);
  EXPECT_TRUE(read) << (read ? "" : english(read.problem()));
  return read ? std::move(*read) : ReadLog{};
}

std::string tableOf(const std::string& heading) { return heading + "\n2031-01-17 06:10,-1.4\n2031-01-17 06:20,-1.5\n2031-01-17 06:30,-1.6\n"; }

TEST(LoneColumn, AThermometerWhoseHeadingSaysNoPlaceIsAskedAbout) {
  for (const char* heading : {"Time,Temperature (C)", "date,temp", "Time,T1 [C]", "Timestamp,Air temp C"}) {
    const auto read = readOf(tableOf(heading));
    ASSERT_EQ(read.placeless.size(), 1U) << heading;
    EXPECT_NE(read.log.find(Role::outside), nullptr) << heading;
  }
  for (const char* heading : {"Time,Outside temperature", "Time,Greenhouse temp", "time,room:house [C]", "Time,Soil temp", "date,min,max"})
    EXPECT_TRUE(readOf(std::string(heading) == "date,min,max" ? "date,min,max\n2031-01-17,-5,3\n2031-01-18,-6,2\n" : tableOf(heading)).placeless.empty())
        << heading;
}

TEST(LoneColumn, WithoutAnyHeadingItIsAskedAboutToo) {
  EXPECT_EQ(readOf("2031-01-17 06:10,-1.4\n2031-01-17 06:20,-1.5\n2031-01-17 06:30,-1.6\n").placeless.size(), 1U);
}

TEST(LoneColumn, ARowAReadingIsNoOther) {
  std::string tall = "time;sensor;value;unit\n";
  for (int i = 0; i < 9; ++i) tall += "2031-01-17 06:0" + std::to_string(i) + ";T1;-1." + std::to_string(i) + ";C\n";
  EXPECT_EQ(readOf(tall).placeless.size(), 1U);
}

TEST(LoneColumn, OnceItIsSaidItIsAskedNoMore) {
  const auto read = readOf(tableOf("Time,Temperature"), {{"Temperature", Role::room, "house", Statistic::moment, "C", true}});
  EXPECT_TRUE(read.placeless.empty());
  EXPECT_NE(read.log.find(Role::room), nullptr);
}

TEST(LoneColumn, BesideAnotherThermometerItIsTheHouses) {
  const auto read = readOf("Time,Outside,Temp\n2031-01-17 06:10,-1.4,2.0\n2031-01-17 06:20,-1.5,2.1\n");
  EXPECT_TRUE(read.placeless.empty());
  EXPECT_NE(read.log.find(Role::room), nullptr);
}

TEST(SpreadsheetDays, AreKnownByTheirValuesWhateverTheHeading) {
  // 47865 is 17 January 2031; 06:00 is a quarter of a day
  const std::string rows = "47865.25,-11.4,3.4\n47865.2569,-11.5,3.3\n47865.2639,-11.6,3.2\n47865.2708,-11.7,3.1\n";
  for (const std::string heading : {"x,Outside,House\n", "Reading,Outside,House\n", "", "When,Outside,House\n"}) {
    const auto read = readOf(heading + rows);
    ASSERT_EQ(read.log.time.size(), 4U) << heading;
    EXPECT_EQ(TimeZone::utc().iso(read.log.time[0]).substr(0, 16), "2031-01-17T06:00") << heading;
    EXPECT_CLOSE(static_cast<double>(read.log.time[1] - read.log.time[0]), 596.0, 6.0, "four decimals of a day are nine seconds") << heading;
  }
  const auto german = readOf("Messung;Aussen;Haus\n47865,25;-11,4;3,4\n47865,2569;-11,5;3,3\n47865,2639;-11,6;3,2\n");
  ASSERT_EQ(german.log.time.size(), 3U);
  EXPECT_EQ(TimeZone::utc().iso(german.log.time[0]).substr(0, 16), "2031-01-17T06:00");
  EXPECT_EQ(readOf("day,low,high\n47865,-5,3\n47866,-6,2\n47867,-4,4\n").log.time.size(), 3U) << "a row a day";
}

TEST(SpreadsheetDays, AMetersCountIsNone) {
  // a counter of kWh beside real times, and one alone
  const auto read = readOf("Time,Heater kWh\n2031-01-17 06:10,45231.2\n2031-01-17 06:20,45231.4\n2031-01-17 06:30,45231.6\n");
  EXPECT_EQ(TimeZone::utc().iso(read.log.time[0]).substr(0, 10), "2031-01-17");
  EXPECT_FALSE(readLog("count,power\n45231.2,3\n45238.9,4\n45239.1,2\n45261.0,1\n", {})) << "its steps are not a clock's";
}

} // namespace
} // namespace muffle
