// SPDX-License-Identifier: GPL-3.0-or-later
//
// The reader against the habits of loggers. The same two readings are written in many ways and must come out the same.
#include "core/log/read.h"

#include "core/log/flags.h"

#include "core/log/nights.h"
#include "tests/support/near.h"
#include "words/words.h"

#include <fmt/format.h>

namespace muffle {
namespace {

struct Habit {
  const char* name;
  const char* text;
};

class ReadHabit : public ::testing::TestWithParam<Habit> {};

// each holds 2031-01-17 05:10 UTC (06:10 in Paris): outside -11.4, house 3.4; and ten minutes later -11.5, 3.3
TEST_P(ReadHabit, GivesTheSameReadings) {
  ReadOptions o;
  o.zone = *TimeZone::named("Europe/Paris");
  const auto read = readLog(GetParam().text, o);
  ASSERT_TRUE(read) << english(read.problem());
  ASSERT_EQ(read->log.time.size(), 2U);
  EXPECT_EQ(read->log.time[0], 1926393000);
  EXPECT_EQ(read->log.time[1], 1926393600);
  const Channel* outside = read->log.find(Role::outside);
  const Channel* house = read->log.find(Role::room);
  ASSERT_NE(outside, nullptr);
  ASSERT_NE(house, nullptr);
  EXPECT_CLOSE(static_cast<double>(outside->raw[0]), -11.4, 0.06, "a tenth of a degree Fahrenheit");
  EXPECT_CLOSE(static_cast<double>(house->raw[1]), 3.3, 0.06, "a tenth of a degree Fahrenheit");
}

INSTANTIATE_TEST_SUITE_P(
    Habits, ReadHabit,
    ::testing::Values(Habit{"own", "time,outside [C],room:house [C]\n2031-01-17T06:10:00+01:00,-11.4,3.4\n2031-01-17T06:20:00+01:00,-11.5,3.3\n"},
                      Habit{"utc", "time,outside [C],room:house [C]\n2031-01-17T05:10:00Z,-11.4,3.4\n2031-01-17T05:20:00Z,-11.5,3.3\n"},
                      Habit{"local", "Time,Outside,House\n2031-01-17 06:10,-11.4,3.4\n2031-01-17 06:20,-11.5,3.3\n"},
                      Habit{"semicolonComma", "Datum;Aussen;Innen temp\n17.01.2031 06:10;-11,4;3,4\n17.01.2031 06:20;-11,5;3,3\n"},
                      Habit{"dayFirst", "date,out temp,tunnel\n17/01/2031 06:10:00,-11.4,3.4\n17/01/2031 06:20:00,-11.5,3.3\n"},
                      Habit{"monthFirst", "date,out temp,tunnel\n1/17/2031 6:10 AM,-11.4,3.4\n1/17/2031 6:20 AM,-11.5,3.3\n"},
                      Habit{"fahrenheitMarked", "time\toutside \xC2\xB0"
                                                "F\thouse \xC2\xB0"
                                                "F\n2031-01-17 06:10\t11.5\t38.1\n2031-01-17 06:20\t11.3\t37.9\n"},
                      Habit{"twoColumns", "Date,Time,Outdoor C,Greenhouse C\n2031-01-17,06:10,-11.4,3.4\n2031-01-17,06:20,-11.5,3.3\n"},
                      Habit{"epoch", "timestamp,outside,inside\n1926393000,-11.4,3.4\n1926393600,-11.5,3.3\n"},
                      Habit{"bomCrlfQuotes", "\xEF\xBB\xBF\"Time\",\"Outside (\xC2\xB0"
                                             "C)\",\"House (\xC2\xB0"
                                             "C)\"\r\n\"2031-01-17 06:10\",\"-11.4\",\"3.4\"\r\n\"2031-01-17 06:20\",\"-11.5\",\"3.3\"\r\n"},
                      Habit{"preamble", "Logger 7\nserial 123\n\nTime,Outside,House\n2031-01-17 06:10,-11.4,3.4\n2031-01-17 06:20,-11.5,3.3\n"},
                      Habit{"noHeadings", "2031-01-17 06:10,-11.4,3.4\n2031-01-17 06:20,-11.5,3.3\n"},
                      Habit{"backwards", "time,outside,house\n2031-01-17 06:20,-11.5,3.3\n2031-01-17 06:10,-11.4,3.4\n"},
                      Habit{"trueMinus", "time,outside,house\n2031-01-17 06:10,\xE2\x88\x92"
                                         "11.4,3.4\n2031-01-17 06:20,\xE2\x88\x92"
                                         "11.5,3.3\n"},
                      Habit{"tornLastLine", "time,outside,house\n2031-01-17 06:10,-11.4,3.4\n2031-01-17 06:20,-11.5,3.3\n2031-01-"}),
    [](const auto& habit) { return std::string(habit.param.name); });

TEST(Read, KeepsGapsAndCountsWhatItCannotRead) {
  const auto read = readLog("time,outside,house\n2031-01-17 06:10,-11.4,\n2031-01-17 06:20,cold,3.3\nnonsense,1,2\n2031-01-17 06:30,-11,NaN\n", {});
  ASSERT_TRUE(read);
  EXPECT_EQ(read->log.time.size(), 3U);
  EXPECT_EQ(read->rowsLeftOut, 1);
  EXPECT_EQ(read->cellsLeftOut, 1);
  EXPECT_TRUE(std::isnan(read->log.find(Role::room)->raw[0]));
  EXPECT_EQ(read->firstProblems[0].where, "line 3");
}

TEST(Read, ReadsTheRepeatedHourOfAutumnOnceEach) {
  ReadOptions o;
  o.zone = *TimeZone::named("Europe/Paris");
  const auto read = readLog("time,outside\n2023-10-29 02:30,5\n2023-10-29 02:50,4\n2023-10-29 02:30,3\n2023-10-29 02:50,2\n2023-10-29 03:10,1\n", o);
  ASSERT_TRUE(read);
  ASSERT_EQ(read->log.time.size(), 5U);
  for (std::size_t i = 1; i < 5; ++i) EXPECT_GT(read->log.time[i], read->log.time[i - 1]);
  EXPECT_EQ(read->log.time[2] - read->log.time[0], 3600);
}

TEST(Read, ExplainsFilesThatAreNoTables) {
  for (const std::string& text : {std::string(), std::string("   \n\n"),
                                  std::string("\x7f"
                                              "ELF\0\0\1",
                                              7),
                                  std::string("just words\nand more\n"), std::string("a,b\n1,2\n3,4\n"), std::string("\"unclosed,quote\n1,2")}) {
    const auto read = readLog(text, {});
    ASSERT_FALSE(read) << text;
    EXPECT_FALSE(read.problem().allowed.empty());
  }
}

TEST(Read, DoesNotTakeANeighboursDegreeAgainstTheReadings) {
  const auto read = readLog("time,Aussen,Tunnel [F]\n2031-01-17 06:10,-4.5,37.4\n2031-01-17 06:20,-4.7,37.2\n", {});
  ASSERT_TRUE(read);
  EXPECT_EQ(read->unsure, std::vector<std::string>{"Aussen"}) << "-4.5 F would be -20 C outside a house at 3 C";
}

TEST(Read, SaysWhichUnitItTookAndWhy) {
  const auto read = readLog("time,outside,house\n2031-01-17 06:10,11.5,38.1\n2031-01-17 06:20,11.3,37.9\n", {});
  EXPECT_EQ(read->log.find(Role::room)->unitIn, "F");
  EXPECT_NE(english(read->log.find(Role::room)->unitWhy).find("no unit mark"), std::string::npos);
}

TEST(Flag, FindsAStuckSensorASpikeAndAStretchInFahrenheit) {
  Log log;
  Channel out{.name = "o", .role = Role::outside, .id = "", .unitIn = "C", .unitWhy = {}, .raw = {}, .flag = {}};
  Channel room = out;
  room.role = Role::room;
  for (int i = 0; i < 300; ++i) {
    log.time.push_back(1700000000 + i * 600);
    const double wave = std::sin(i / 20.0);
    out.raw.push_back(static_cast<float>(i >= 100 && i < 150 ? 1.25 : -3.0 + 4.0 * wave + 0.01 * (i % 7)));
    room.raw.push_back(static_cast<float>(i >= 200 && i < 230 ? (4.0 + wave) * 1.8 + 32.0 : i == 40 ? 25.0 : 4.0 + wave + 0.01 * (i % 5)));
  }
  for (Channel* c : {&out, &room}) c->flag.assign(300, 0);
  log.channels = {out, room};
  const auto problems = flagProblems(log, {46.0, 8.0, 500.0});
  ASSERT_EQ(problems.size(), 3U);
  EXPECT_EQ(problems[0].kind, "spike");
  EXPECT_EQ(problems[1].kind, "stuck");
  EXPECT_EQ(problems[1].count, 50);
  EXPECT_EQ(problems[2].kind, "unit");
  EXPECT_EQ(problems[2].count, 30);
  EXPECT_TRUE(std::isnan(log.channels[0].clean(120)));
  EXPECT_CLOSE(log.channels[1].clean(210), 4.0 + std::sin(210 / 20.0), 1e-4, "single precision of a Fahrenheit value");
  EXPECT_FLOAT_EQ(log.channels[1].raw[40], 25.0F); // raw stays
}

TEST(Nights, AreCutBySunsetAndDatedByTheEvening) {
  std::string text = "time,outside [C],room:house [C]\n";
  const TimeZone utc = TimeZone::utc();
  const UtcSeconds noon = daysSinceEpoch({2031, 1, 16}) * 86400 + 43200;
  for (int i = 0; i <= 144; ++i) { // noon to noon; coldest outside at 05:00, inside at 07:00
    const UtcSeconds t = noon + i * 600;
    const double hour = static_cast<double>(i) / 6.0 + 12.0;
    text += utc.iso(t) + "," + std::to_string(-10.0 + std::abs(hour - 29.0)) + "," + std::to_string(1.0 + 0.5 * std::abs(hour - 31.0)) + "\n";
  }
  const auto read = readLog(text, {});
  const auto nights = cutNights(read->log, {52.0, 0.0, 0.0}, utc, 2.0);
  ASSERT_EQ(nights.size(), 1U);
  EXPECT_EQ(isoDate(nights[0].date), "2031-01-16");
  EXPECT_TRUE(nights[0].complete);
  EXPECT_CLOSE(nights[0].outsideLow->value, -10.0, 1e-5, "printed to six digits");
  EXPECT_EQ(utc.iso(nights[0].outsideLow->at).substr(11, 5), "05:00");
  EXPECT_EQ(utc.iso(nights[0].insideLow->at).substr(11, 5), "07:00");
  EXPECT_CLOSE(*nights[0].lift_K(), 11.0, 1e-5, "printed to six digits");
  // below 2 degC from 05:00 to 09:00, but the night ends at sunrise near 08:00: a triangle cut short
  EXPECT_GT(*nights[0].degreeHours_K_h, 1.5);
  EXPECT_LT(*nights[0].degreeHours_K_h, 2.0);
}

TEST(Flag, TwiceIsTheSameAsOnce) {
  Log log;
  Channel out{.name = "o", .role = Role::outside, .id = "", .unitIn = "C", .unitWhy = {}, .raw = {}, .flag = {}};
  for (int i = 0; i < 400; ++i) {
    log.time.push_back(1700000000 + i * 600);
    const double wave = 5.0 * std::sin(i / 23.0) + 0.013 * (i % 11);
    out.raw.push_back(static_cast<float>(i == 60 ? 48.0 : i >= 120 && i < 160 ? wave * 1.8 + 32.0 : i >= 250 && i < 300 ? 2.5 : wave));
  }
  out.flag.assign(out.raw.size(), 0);
  log.channels = {out};
  const auto first = flagProblems(log, {46.0, 8.0, 500.0});
  const Log once = log;
  const auto second = flagProblems(log, {46.0, 8.0, 500.0});
  EXPECT_EQ(first.size(), second.size());
  EXPECT_EQ(once.channels[0].flag, log.channels[0].flag);
  for (std::size_t i = 0; i < log.time.size(); ++i) EXPECT_FLOAT_EQ(log.channels[0].raw[i], out.raw[i]) << "raw readings stay";
}

TEST(Flag, CallsAHoleAGapOnlyPastAnHour) {
  Log log;
  Channel out{.name = "o", .role = Role::outside, .id = "", .unitIn = "C", .unitWhy = {}, .raw = {}, .flag = {}};
  for (int i = 0; i < 200; ++i) {
    if ((i > 50 && i < 55) || (i > 100 && i < 130)) continue; // 50 minutes; five hours
    log.time.push_back(1700000000 + i * 600);
    out.raw.push_back(static_cast<float>(std::sin(i / 9.0)));
  }
  out.flag.assign(out.raw.size(), 0);
  log.channels = {out};
  const auto problems = flagProblems(log, {46.0, 8.0, 500.0});
  ASSERT_EQ(problems.size(), 1U);
  EXPECT_EQ(problems[0].kind, "gap");
  EXPECT_EQ(problems[0].count, 29);
  EXPECT_EQ(problems[0].to - problems[0].from, 30 * 600);
}

TEST(Nights, WithAHoleAreNotComplete) {
  Log log;
  Channel out{.name = "o", .role = Role::outside, .id = "", .unitIn = "C", .unitWhy = {}, .raw = {}, .flag = {}};
  const UtcSeconds noon = daysSinceEpoch({2031, 1, 16}) * 86400 + 43200;
  for (int i = 0; i <= 3 * 144; ++i) {
    if (i > 70 && i < 82) continue; // two hours of the first night
    log.time.push_back(noon + i * 600);
    out.raw.push_back(static_cast<float>(-4.0 + 5.0 * std::cos(i / 144.0 * 6.2831853)));
  }
  out.flag.assign(out.raw.size(), 0);
  log.channels = {out};
  const auto nights = cutNights(log, {46.0, 8.0, 0.0}, TimeZone::utc());
  ASSERT_EQ(nights.size(), 3U);
  EXPECT_FALSE(nights[0].complete);
  EXPECT_TRUE(nights[1].complete);
  EXPECT_FALSE(nights[1].lift_K()) << "no inside was logged";
  EXPECT_EQ(std::string(nights[1].sky()), "clear") << "a fall of ten kelvin";
  EXPECT_GT(nights[1].sunrise, nights[1].sunset);
}

TEST(Lift, IsTakenOverTheColdestSamples) {
  const std::vector<double> outside{-2.0, -9.0, -8.0, 3.0, -1.0}, inside{2.0, 1.0, 0.5, 8.0, 2.5};
  const LiftAtColdest lift = liftAtColdest(outside, inside, 2);
  EXPECT_CLOSE(lift.mean_K, (10.0 + 8.5) / 2.0, 1e-12, "rounding");
  EXPECT_CLOSE(lift.least_K, 8.5, 1e-12, "rounding");
  EXPECT_CLOSE(lift.coldestOutside_C, -9.0, 1e-12, "rounding");
  EXPECT_CLOSE(lift.liftAtColdest_K, 10.0, 1e-12, "rounding");
}

/// So many days of a reading each quarter of an hour from the first of December on, dates written in that order.
std::string fromDecember(int days, bool monthFirst) {
  std::string text = "Date;Time;Outside\r\n";
  for (int i = 0; i < days * 96; ++i) {
    const Date date = dateFromDays(daysSinceEpoch({2024, 12, 1}) + i / 96);
    const unsigned a = monthFirst ? date.month : date.day, b = monthFirst ? date.day : date.month;
    text += fmt::format("{:02}/{:02}/{};{:02}:{:02};{:.1f}\r\n", a, b, date.year, i / 4 % 24, i % 4 * 15, -3.0 + i % 7);
  }
  return text;
}

TEST(ReadDates, AMonthThatBeginsOnTheFirstIsReadRightHoweverLateItsFirstDayAboveTwelve) {
  for (const bool monthFirst : {true, false})
    for (const int days : {3, 9, 12, 20, 45}) {
      const auto read = readLog(fromDecember(days, monthFirst), {});
      ASSERT_TRUE(read) << english(read.problem());
      EXPECT_EQ(read->rowsLeftOut, 0) << days << (monthFirst ? ", month first" : ", day first");
      ASSERT_EQ(read->log.time.size(), static_cast<std::size_t>(days) * 96) << days;
      EXPECT_EQ(read->log.time.front(), daysSinceEpoch({2024, 12, 1}) * 86400) << days;
      EXPECT_EQ(read->log.time.back() - read->log.time.front(), days * 86400 - 900) << days << ": one day after the other";
    }
  std::string newestFirst = fromDecember(9, true), turned;
  const std::size_t heading = newestFirst.find('\n') + 1;
  for (std::size_t at = heading; at < newestFirst.size();) {
    const std::size_t next = newestFirst.find('\n', at) + 1;
    turned.insert(0, newestFirst.substr(at, next - at));
    at = next;
  }
  const auto backwards = readLog(newestFirst.substr(0, heading) + turned, {});
  ASSERT_TRUE(backwards);
  EXPECT_EQ(backwards->log.time.front(), daysSinceEpoch({2024, 12, 1}) * 86400) << "a table with the newest first";
  ReadOptions said;
  said.monthFirst = false;
  EXPECT_EQ(readLog(fromDecember(2, true), said)->log.time.front(), daysSinceEpoch({2024, 1, 12}) * 86400) << "what the grower says counts";
}

} // namespace
} // namespace muffle
