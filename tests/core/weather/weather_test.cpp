// SPDX-License-Identifier: GPL-3.0-or-later
//
// Weather from a log: what is measured stays, what is estimated says so, holes are treated as the header promises.
#include "core/weather/weather.h"

#include "core/air/moist_air.h"
#include "core/constants.h"
#include "tests/support/near.h"
#include "words/words.h"

#include <cmath>

namespace muffle {
namespace {

Site valley() {
  Site s;
  s.place = {46.0, 8.0, 800.0};
  s.timeZone = "UTC";
  s.wind_m_s = 1.2;
  return s;
}

/// Days of ten-minute readings; the swing of each day in turn, K.
Log logOf(int days, std::vector<double> swings = {8.0}, bool withSun = false, bool withWind = false) {
  Log log;
  Channel outside, sun, wind;
  outside.role = Role::outside;
  sun.role = Role::sun;
  wind.role = Role::wind;
  const UtcSeconds start = daysSinceEpoch({2031, 1, 10}) * 86400;
  for (int i = 0; i < days * 144; ++i) {
    log.time.push_back(start + i * 600);
    const double hour = i / 6.0;
    const double swing = swings[static_cast<std::size_t>(std::max(i - 54, 0) / 144) % swings.size()]; // from nine to nine
    outside.raw.push_back(static_cast<float>(-2.0 + swing / 2.0 * std::cos(2.0 * kPi * (hour - 14.0) / 24.0)));
    sun.raw.push_back(static_cast<float>(std::max(0.0, 300.0 * std::cos(2.0 * kPi * (hour - 11.5) / 24.0))));
    wind.raw.push_back(3.5F);
  }
  for (Channel* c : {&outside, &sun, &wind}) c->flag.assign(log.time.size(), 0);
  log.channels.push_back(outside);
  if (withSun) log.channels.push_back(sun);
  if (withWind) log.channels.push_back(wind);
  return log;
}

void cutOut(Log& log, std::size_t from, std::size_t count) {
  const auto erase = [&](auto& v) { v.erase(v.begin() + static_cast<std::ptrdiff_t>(from), v.begin() + static_cast<std::ptrdiff_t>(from + count)); };
  erase(log.time);
  for (Channel& c : log.channels) erase(c.raw), erase(c.flag);
}

TEST(Weather, TakesHumidityFromItsColumnAndElseFromTheNightsLow) {
  Log log = logOf(6);
  const auto estimated = weatherFromLog(log, valley());
  EXPECT_EQ(estimated->humidity, InputKind::estimated);
  Channel humidity;
  humidity.role = Role::humidity;
  humidity.id = "outside";
  humidity.raw.assign(log.time.size(), 50.0F);
  humidity.flag.assign(log.time.size(), 0);
  log.channels.push_back(humidity);
  const auto measured = weatherFromLog(log, valley());
  EXPECT_EQ(measured->humidity, InputKind::measured);
  const Winter& w = measured->winters.front();
  const double pressure = pressureAtElevation_Pa(800.0);
  EXPECT_CLOSE(relativeHumidity(w.outside_C[200], w.outside_g_kg[200], pressure), 0.5, 1e-9, "as read");
  const Winter& e = estimated->winters.front();
  for (std::size_t i = 200; i < 500; ++i) EXPECT_LE(relativeHumidity(e.outside_C[i], e.outside_g_kg[i], pressure), 1.0 + 1e-9);
  EXPECT_LT(w.sky_C[200], e.sky_C[200]) << "drier air radiates less";
}

TEST(Weather, KeepsWhatWasMeasuredAndSaysWhatWasNot) {
  const auto plain = weatherFromLog(logOf(10), valley());
  ASSERT_TRUE(plain);
  EXPECT_EQ(plain->outside, InputKind::measured);
  EXPECT_EQ(plain->wind, InputKind::assumed);
  EXPECT_EQ(plain->sun, InputKind::estimated);
  EXPECT_DOUBLE_EQ(plain->winters.front().wind_m_s[100], 1.2);
  const auto full = weatherFromLog(logOf(10, {8.0}, true, true), valley());
  EXPECT_EQ(full->wind, InputKind::measured);
  EXPECT_EQ(full->sun, InputKind::measured);
  EXPECT_DOUBLE_EQ(full->winters.front().wind_m_s[100], 3.5);
  for (std::size_t i = 0; i < plain->winters.front().size(); i += 50)
    EXPECT_CLOSE(plain->winters.front().outside_C[i], static_cast<double>(logOf(10).channels[0].raw[i]), 1e-6, "a float's digits: the grid is the log's own");
}

TEST(Weather, EstimatesMoreSunOnDaysThatSwingWidely) {
  const auto w = weatherFromLog(logOf(12, {2.0, 14.0}), valley());
  const Winter& winter = w->winters.front();
  double dull = 0.0, bright = 0.0;
  for (std::size_t i = 0; i < winter.size(); ++i) (i / 144 % 2 ? bright : dull) += winter.sun_W_m2[i];
  EXPECT_GT(bright, 2.0 * dull);
}

TEST(Weather, HasNoSunAtNightAndNeverMoreThanOutsideTheAir) {
  const auto w = weatherFromLog(logOf(12, {14.0}), valley());
  const Winter& winter = w->winters.front();
  for (std::size_t i = 0; i < winter.size(); ++i) {
    EXPECT_TRUE(winter.zenith_deg[i] <= 91.0F || winter.sun_W_m2[i] == 0.0);
    EXPECT_LE(winter.sun_W_m2[i], static_cast<double>(winter.extraterrestrial_W_m2[i]) + 1e-6);
    EXPECT_LE(winter.diffuse_W_m2[i], winter.sun_W_m2[i] + 1e-6);
    EXPECT_LT(winter.sky_C[i], winter.outside_C[i] + 0.01) << "the sky is not warmer than the air";
  }
}

TEST(Weather, BridgesAShortHoleAndDoesNotJudgeItsNights) {
  Log log = logOf(12);
  cutOut(log, 5 * 144, 2 * 144);
  const auto w = weatherFromLog(log, valley());
  ASSERT_EQ(w->winters.size(), 1U);
  const Winter& winter = w->winters.front();
  EXPECT_EQ(winter.size(), 12U * 144U) << "no time is lost";
  EXPECT_EQ(winter.bridged[5 * 144 + 70], 1);
  EXPECT_EQ(winter.bridged[3 * 144], 0);
  int notJudged = 0;
  for (const NightSpan& n : winter.nights) notJudged += n.assessable ? 0 : 1;
  EXPECT_GE(notJudged, 2);
  EXPECT_LE(notJudged, 5) << "the nights of the hole and those cut at the ends";
}

TEST(Weather, ALongHoleStartsAnotherWinter) {
  Log log = logOf(30);
  cutOut(log, 10 * 144, 8 * 144);
  EXPECT_EQ(weatherFromLog(log, valley())->winters.size(), 2U);
}

TEST(Weather, NightsRunFromSunsetToSunriseInOrder) {
  const auto w = weatherFromLog(logOf(10), valley());
  const Winter& winter = w->winters.front();
  ASSERT_GE(winter.nights.size(), 9U);
  std::size_t before = 0;
  for (const NightSpan& n : winter.nights) {
    EXPECT_GE(n.from, before);
    EXPECT_GT(n.to, n.from);
    EXPECT_GT(winter.zenith_deg[(n.from + n.to) / 2], 90.0F);
    EXPECT_LT(n.to - n.from, 100U) << "a winter night at 46 degrees is under 16 h 40";
    before = n.to;
  }
}

TEST(Weather, RefusesALogWithoutOutsideOrWithHardlyAnyOfIt) {
  Log none = logOf(5);
  none.channels.front().role = Role::room;
  const auto missing = weatherFromLog(none, valley());
  ASSERT_FALSE(missing);
  EXPECT_NE(english(missing.problem()).find("outside"), std::string::npos);
  Log brief = logOf(5);
  cutOut(brief, 40, brief.time.size() - 40);
  EXPECT_FALSE(weatherFromLog(brief, valley()));
}

TEST(Weather, SteadyWeatherHasNoSunAndTheAskedSky) {
  const Winter clear = steadyWinter(valley(), -5.0, 2.0, 1.0), dull = steadyWinter(valley(), -5.0, 2.0, 0.0);
  EXPECT_DOUBLE_EQ(clear.outside_C.front(), -5.0);
  EXPECT_LT(clear.sky_C.front(), dull.sky_C.front() - 5.0);
  for (const double s : clear.sun_W_m2) EXPECT_DOUBLE_EQ(s, 0.0);
}

} // namespace
} // namespace muffle
