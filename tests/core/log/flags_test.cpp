// SPDX-License-Identifier: GPL-3.0-or-later
//
// Each fault a log can have, made in one and found again; and the grower's word, which stands above the rules.
#include "core/log/flags.h"

#include "core/constants.h"
#include "core/sun/irradiance.h"
#include "tests/support/near.h"
#include "words/words.h"

#include <random>

namespace muffle::flags_test {
namespace {

const Place kPlace{46.0, 8.0, 500.0};
const UtcSeconds kStart = daysSinceEpoch({2031, 1, 5}) * 86400;

/// Days of ten-minute readings outside and in a house, with weather that is no sine and a sensor's noise.
Log weeks(int days) {
  std::mt19937 random(11);
  std::normal_distribution<double> noise(0.0, 0.08);
  Log log;
  Channel out, in;
  out.name = "out";
  out.role = Role::outside;
  in.name = "in";
  in.role = Role::room;
  in.id = "house";
  for (int i = 0; i < days * 144; ++i) {
    const double day = i / 144.0, hour = std::fmod(i / 6.0, 24.0);
    const double t = -2.0 + 3.0 * std::sin(day * 0.9) + 4.0 * std::cos(2.0 * kPi * (hour - 13.5) / 24.0) + 0.4 * std::sin(day * 31.0);
    log.time.push_back(kStart + i * 600);
    out.raw.push_back(static_cast<float>(t + noise(random)));
    in.raw.push_back(static_cast<float>(t + 6.0 + 2.0 * std::sin(day * 1.3) + noise(random)));
  }
  for (Channel* c : {&out, &in}) c->flag.assign(c->raw.size(), 0);
  log.channels = {out, in};
  return log;
}

std::vector<LogProblem> ofKind(const std::vector<LogProblem>& all, const std::string& kind) {
  std::vector<LogProblem> some;
  std::copy_if(all.begin(), all.end(), std::back_inserter(some), [&](const LogProblem& p) { return p.kind == kind; });
  return some;
}

/// The low sun of a January morning on the sensor's box from nine to half past ten UTC.
void shineOn(Log& log, int fromDay, int toDay) {
  for (std::size_t i = 0; i < log.time.size(); ++i) {
    const double day = static_cast<double>(log.time[i] - kStart) / 86400.0, hour = std::fmod(day * 24.0, 24.0);
    if (day >= fromDay && day < toDay && hour > 8.5 && hour < 11.0) log.channels[0].raw[i] += static_cast<float>(5.5 * std::sin(kPi * (hour - 8.5) / 2.5));
  }
}

TEST(Flags, NothingIsFoundInAGoodLog) {
  Log log = weeks(30);
  const auto problems = flagProblems(log, kPlace);
  EXPECT_TRUE(problems.empty()) << problems.front().kind << ": " << english(problems.front().why);
}

TEST(Flags, TheSunOnASensorIsFoundOnTheMorningsItShone) {
  Log log = weeks(30);
  shineOn(log, 8, 16);
  const auto found = ofKind(flagProblems(log, kPlace), "sun on the sensor");
  ASSERT_GE(found.size(), 7U);
  for (const LogProblem& p : found) {
    const double day = static_cast<double>(p.from - kStart) / 86400.0;
    EXPECT_GE(day, 8.0);
    EXPECT_LT(day, 16.0);
  }
  // what is left lies near the air
  const Log bare = weeks(30);
  for (std::size_t i = 0; i < log.time.size(); ++i)
    if (const double v = log.channels[0].clean(i); !std::isnan(v)) {
      EXPECT_LT(v - static_cast<double>(bare.channels[0].raw[i]), 2.2) << "what the rule lets pass";
    }
}

TEST(Flags, OneWarmMorningIsWeather) {
  Log log = weeks(30);
  shineOn(log, 8, 9);
  EXPECT_TRUE(ofKind(flagProblems(log, kPlace), "sun on the sensor").empty());
}

TEST(Flags, TwoSensorsChangedOverAreFoundWhereTheyWere) {
  Log log = weeks(10);
  for (std::size_t i = 400; i < 700; ++i) std::swap(log.channels[0].raw[i], log.channels[1].raw[i]);
  const auto found = ofKind(flagProblems(log, kPlace), "swapped");
  ASSERT_EQ(found.size(), 2U) << "one for each sensor";
  EXPECT_EQ(found[0].from, log.time[400]);
  EXPECT_EQ(found[0].to, log.time[699]);
  EXPECT_TRUE(std::isnan(log.channels[0].clean(500)));
}

TEST(Flags, ASensorThatDriftsAgainstAnotherIsNamedWithItsDrift) {
  Log log = weeks(60);
  Channel second = log.channels[1];
  second.name = "in, north";
  second.id = "house2";
  for (std::size_t i = 0; i < second.raw.size(); ++i)
    second.raw[i] += static_cast<float>(0.4 + 1.5 * static_cast<double>(i) / static_cast<double>(second.raw.size()));
  log.channels.push_back(second);
  const auto found = ofKind(flagProblems(log, kPlace), "drift");
  ASSERT_EQ(found.size(), 1U);
  EXPECT_EQ(found[0].channel, "in, north");
  const auto drift = driftBetween(log, log.channels[1], log.channels[2]);
  EXPECT_CLOSE(drift->change_K, 1.5 * 0.9, 0.1, "medians of the first and last tenth lie nine tenths apart");
}

TEST(Flags, TwoSensorsThatStandApartDoNotDrift) {
  Log log = weeks(60);
  Channel second = log.channels[1];
  second.id = "house2";
  for (float& v : second.raw) v += 1.7F;
  log.channels.push_back(second);
  EXPECT_TRUE(ofKind(flagProblems(log, kPlace), "drift").empty());
}

Channel sunOf(const Log& log, double clockAhead_s) {
  Channel sun;
  sun.name = "sun";
  sun.role = Role::sun;
  for (std::size_t i = 0; i < log.time.size(); ++i) {
    const double cloud = 0.7 + 0.3 * std::sin(static_cast<double>(i) / 144.0 * 2.1);
    sun.raw.push_back(static_cast<float>(cloud * clearSkyHorizontal_W_m2(sunPosition(static_cast<double>(log.time[i]) - clockAhead_s, kPlace).zenith_deg)));
  }
  sun.flag.assign(sun.raw.size(), 0);
  return sun;
}

TEST(Flags, AClockAnHourOffIsToldByTheSun) {
  Log log = weeks(30);
  log.channels.push_back(sunOf(log, 3600.0));
  const auto found = ofKind(flagProblems(log, kPlace), "clock");
  ASSERT_EQ(found.size(), 1U);
  EXPECT_NE(english(found[0].why).find("1 h fast"), std::string::npos) << english(found[0].why);
  log.channels.back() = sunOf(log, 0.0);
  EXPECT_TRUE(ofKind(flagProblems(log, kPlace), "clock").empty());
}

TEST(Flags, AreFoundInAChannelThatReadsLessOftenThanItsNeighbour) {
  Log log = weeks(10);
  for (std::size_t i = 0; i < log.time.size(); ++i) // the house every half hour, between the outside's readings
    if (i % 3 != 0) log.channels[1].raw[i] = std::numeric_limits<float>::quiet_NaN();
  log.channels[1].raw[300] = 40.0F;
  const auto found = ofKind(flagProblems(log, kPlace), "spike");
  ASSERT_EQ(found.size(), 1U);
  EXPECT_EQ(found[0].from, log.time[300]);
}

/// A heater that runs every other hour, and what it does to the sensor within a reading.
Log heated(double jump_K) {
  Log log = weeks(10);
  Channel heater;
  heater.name = "heater";
  heater.role = Role::heater;
  for (std::size_t i = 0; i < log.time.size(); ++i) {
    const bool on = i / 6 % 2 == 1;
    heater.raw.push_back(on ? 3000.0F : 0.0F);
    if (on) log.channels[1].raw[i] += static_cast<float>(jump_K);
  }
  heater.flag.assign(heater.raw.size(), 0);
  log.channels.push_back(heater);
  return log;
}

TEST(Flags, ASensorTheHeaterBlowsOnIsToldByItsJumps) {
  Log near = heated(2.5), far = heated(0.4);
  const auto found = ofKind(flagProblems(near, kPlace), "placement");
  ASSERT_EQ(found.size(), 1U);
  EXPECT_EQ(found[0].channel, "in");
  EXPECT_FALSE(std::isnan(near.channels[1].clean(20))) << "a remark: the readings count";
  EXPECT_CLOSE(*jumpAtHeater_K(near, near.channels[1], near.channels[2]), 2.5, 0.3, "the weather of ten minutes and the sensor's noise");
  EXPECT_TRUE(ofKind(flagProblems(far, kPlace), "placement").empty());
}

TEST(Decisions, ADismissedFlagGivesTheReadingBack) {
  Log log = weeks(10);
  log.channels[0].raw[200] = 30.0F;
  const auto first = ofKind(flagProblems(log, kPlace), "spike");
  ASSERT_EQ(first.size(), 1U);
  EXPECT_TRUE(std::isnan(log.channels[0].clean(200)));
  log.decisions.push_back({Verdict::dismissed, Flag::spike, first[0].index, first[0].from, first[0].to});
  const auto second = ofKind(flagProblems(log, kPlace), "spike");
  ASSERT_EQ(second.size(), 1U) << "still listed";
  EXPECT_EQ(second[0].verdict, Verdict::dismissed);
  EXPECT_CLOSE(log.channels[0].clean(200), 30.0, 1e-6, "a float");
  EXPECT_CLOSE(static_cast<double>(log.channels[0].raw[200]), 30.0, 1e-6, "raw was never touched");
}

TEST(Decisions, TheLastWordCountsAndAKindCanBeDismissedWhole) {
  Log log = weeks(10);
  for (const std::size_t i : {200, 500, 900}) log.channels[0].raw[i] = 30.0F;
  log.decisions.push_back({Verdict::dismissed, Flag::spike, -1, log.time.front(), log.time.back()});
  flagProblems(log, kPlace);
  EXPECT_CLOSE(log.channels[0].clean(900), 30.0, 1e-6, "a float");
  log.decisions.push_back({Verdict::accepted, Flag::spike, 0, log.time[500], log.time[500]});
  flagProblems(log, kPlace);
  EXPECT_TRUE(std::isnan(log.channels[0].clean(500)));
  EXPECT_FALSE(std::isnan(log.channels[0].clean(900)));
}

TEST(Decisions, ARemarkThatWasDismissedStaysSoWhenTheLogGrows) {
  Log log = heated(2.5);
  flagProblems(log, kPlace);
  log.decisions.push_back({Verdict::accepted, Flag::none, 1, log.time.front(), log.time[log.time.size() / 2]});
  EXPECT_EQ(ofKind(flagProblems(log, kPlace), "placement").at(0).verdict, Verdict::accepted);
}

TEST(Decisions, ReadingsCanBeSetAsideByHand) {
  Log log = weeks(4);
  log.decisions.push_back({Verdict::setAside, Flag::byHand, 1, log.time[100], log.time[120]});
  const auto found = ofKind(flagProblems(log, kPlace), "set aside");
  ASSERT_EQ(found.size(), 1U);
  EXPECT_EQ(found[0].count, 21);
  EXPECT_TRUE(std::isnan(log.channels[1].clean(110)));
  EXPECT_FALSE(std::isnan(log.channels[0].clean(110)));
  EXPECT_FALSE(std::isnan(log.channels[1].clean(121)));
}

} // namespace
} // namespace muffle::flags_test
