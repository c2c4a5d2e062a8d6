// SPDX-License-Identifier: GPL-3.0-or-later
//
// The same night as many loggers write it comes out the same: every time, every reading, the right degree.
#include "tests/support/logger_files.h"

#include "core/log/nights.h"
#include "core/log/read.h"
#include "tests/support/near.h"
#include "words/words.h"

#include <fmt/format.h>

#include <algorithm>

namespace muffle {
namespace {

class LoggerFiles : public ::testing::TestWithParam<LoggerFile> {};

TEST_P(LoggerFiles, GiveTheSameNight) {
  ReadOptions o;
  o.zone = *TimeZone::named(GetParam().zone);
  const auto read = readLog(GetParam().text, o);
  ASSERT_TRUE(read) << english(read.problem()) << "\n" << GetParam().text.substr(0, 300);
  const auto& wanted = writtenReadings();
  const Channel *outside = read->log.find(Role::outside), *house = read->log.find(Role::room);
  std::string said;
  for (const auto& sentence : read->recognised) said += english(sentence) + "\n";
  ASSERT_NE(outside, nullptr) << said;
  ASSERT_NE(house, nullptr) << said;
  ASSERT_EQ(read->log.time.size(), wanted.size()) << said;
  for (std::size_t i = 0; i < wanted.size(); ++i) {
    ASSERT_EQ(read->log.time[i], wanted[i].at) << "row " << i << "\n" << said;
    ASSERT_CLOSE(static_cast<double>(outside->raw[i]), wanted[i].outside_C, GetParam().tolerance_K, "what the file holds of it") << said;
    ASSERT_CLOSE(static_cast<double>(house->raw[i]), wanted[i].house_C, GetParam().tolerance_K, "what the file holds of it") << said;
  }
  EXPECT_TRUE(read->unsure.empty()) << said;
}

INSTANTIATE_TEST_SUITE_P(Habits, LoggerFiles, ::testing::ValuesIn(loggerFiles()), [](const auto& file) { return std::string(file.param.name); });

TEST(LoggerFilesCorpus, HoldsThirtyHabitsAndMore) { EXPECT_GE(loggerFiles().size(), 30U); }

TEST(LoggerFilesCorpus, LosesNothingWhereverAFileIsTorn) {
  ReadOptions o;
  o.zone = *TimeZone::named("Europe/Paris");
  const std::string whole = loggerFiles().front().text;
  for (std::size_t cut = whole.size() / 2; cut < whole.size(); cut += 7) {
    const auto read = readLog(std::string_view(whole).substr(0, cut), o);
    ASSERT_TRUE(read);
    const auto lines = static_cast<std::size_t>(std::count(whole.begin(), whole.begin() + static_cast<long>(cut), '\n')) - 1;
    ASSERT_GE(read->log.time.size(), lines) << "whole lines before the tear";
    ASSERT_LE(read->log.time.size(), lines + 1);
    for (std::size_t i = 0; i < lines; ++i) {
      ASSERT_CLOSE(static_cast<double>(read->log.channels[0].raw[i]), writtenReadings()[i].outside_C, 1e-5, "a float");
    }
  }
}

TEST(LoggerFilesCorpus, ARowCutOffBehindANewSensorsNameIsAReadingThatIsMissing) {
  std::string text = "time;sensor;value\n";
  for (int i = 0; i < 20; ++i) text += fmt::format("2031-01-17 10:{:02};outside;-{}\n2031-01-17 10:{:02};tunnel;{}\n", i, i, i, i);
  text += "2031-01-17 10:30;barrel\n2031-01-17 10:31;outside;-3\n";
  const auto read = readLog(text, {});
  ASSERT_TRUE(read);
  EXPECT_EQ(read->log.time.size(), 22U);
  for (const Channel& c : read->log.channels) EXPECT_EQ(c.raw.size(), read->log.time.size()) << c.name;
}

/// Whether reading the file brought to light that the logger's clock went back.
bool saysClockWentBack(const std::string& text) {
  const auto read = readLog(text, {});
  EXPECT_TRUE(read);
  return std::any_of(read->log.notes.begin(), read->log.notes.end(), [](const LogProblem& n) { return n.flag == Flag::clock; });
}

TEST(LoggerFilesCorpus, OnlyAClockThatWentBackIsSaidToHave) {
  std::string newestFirst = "time,outside\n", blocks = "time;sensor;value\n", twice = "time,outside\n", setBack = "time,outside\n";
  for (int i = 20; i >= 10; --i) newestFirst += fmt::format("2031-01-17 {}:00,-{}\n", i, i);
  for (const char* sensor : {"outside", "tunnel"})
    for (int i = 10; i < 20; ++i) blocks += fmt::format("2031-01-17 {}:00;{};{}\n", i, sensor, i);
  for (int pass = 0; pass < 2; ++pass)
    for (int i = 10; i < 20; ++i) twice += fmt::format("2031-01-17 {}:00,-{}\n", i, i);
  int n = 0;
  for (const int i : {10, 11, 12, 13, 14, 15, 16, 14, 15, 16, 17}) setBack += fmt::format("2031-01-17 {}:00,-{}\n", i, ++n);
  EXPECT_FALSE(saysClockWentBack(newestFirst)) << "a habit";
  EXPECT_FALSE(saysClockWentBack(blocks)) << "one sensor after the other";
  EXPECT_FALSE(saysClockWentBack(twice)) << "the same rows again";
  EXPECT_TRUE(saysClockWentBack(setBack)) << "the same times with other readings";
}

TEST(LoggerFilesCorpus, TwoSensorsOfOnePlaceInATallTableAreToldApart) {
  std::string text = "time;sensor;value\n";
  for (int i = 0; i < 20; ++i) text += fmt::format("2031-01-17 10:{:02};tunnel east;1\n2031-01-17 10:{:02};tunnel west;2\n", i, i);
  const auto read = readLog(text, {});
  ASSERT_TRUE(read);
  ASSERT_EQ(read->log.channels.size(), 2U);
  EXPECT_NE(read->log.channels[0].id, read->log.channels[1].id);
}

TEST(LoggerFilesCorpus, EachReadingGoesByTheDegreeWrittenBehindIt) {
  std::string wide = "time,outside,tunnel\n", tall = "time;sensor;value;unit\n";
  for (int i = 0; i < 30; ++i) { // someone changed the logger's unit half way
    wide += fmt::format("2031-01-17 10:{:02},{},3 C\n", i, i < 18 ? "-5 C" : "23 F");
    tall += fmt::format("2031-01-17 10:{:02};outside;{}\n2031-01-17 10:{:02};tunnel;3;C\n", i, i < 18 ? "-5;C" : "23;F", i);
  }
  for (const std::string& text : {wide, tall}) {
    const auto read = readLog(text, {});
    ASSERT_TRUE(read);
    for (std::size_t i = 0; i < 30; ++i)
      ASSERT_CLOSE(static_cast<double>(read->log.find(Role::outside)->raw[i]), -5.0, 1e-5, "a float") << i << text.substr(0, 30);
  }
}

TEST(LoggerFilesCorpus, AUnitThatIsNoDegreeMakesNoTemperature) {
  for (const char* text :
       {"time;sensor;value;unit\n2031-01-17 10:00;tunnel;88;%\n2031-01-17 10:00;yard temp;1;C\n2031-01-17 10:10;tunnel;89;%\n2031-01-17 10:10;yard temp;1;C\n",
        "time,yard temp [C],tunnel [%]\n2031-01-17 10:00,1,88\n2031-01-17 10:10,1,89\n"}) {
    const auto read = readLog(text, {});
    ASSERT_TRUE(read) << english(read.problem());
    EXPECT_NE(read->log.find(Role::humidity, "house"), nullptr) << text;
  }
}

} // namespace
} // namespace muffle
