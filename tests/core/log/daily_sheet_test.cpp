// SPDX-License-Identifier: GPL-3.0-or-later
//
// A max/min thermometer: whose night a reading is of, and the hours between two readings.
#include "core/constants.h"
#include "core/log/nights.h"
#include "core/log/read.h"
#include "core/weather/daily_curve.h"
#include "core/weather/weather.h"
#include "tests/support/near.h"
#include "words/words.h"

#include <fmt/format.h>

namespace muffle::daily_sheet_test {
namespace {

const Place kPlace{46.0, 8.0, 500.0};

Site site() {
  Site s;
  s.place = kPlace;
  s.timeZone = "Europe/Paris";
  return s;
}

Log sheet(const std::string& text) {
  ReadOptions o;
  o.zone = *TimeZone::named("Europe/Paris");
  auto read = readLog(text, o);
  EXPECT_TRUE(read) << (read ? "" : english(read.problem()));
  return std::move(read->log);
}

std::string daysOf(int days) {
  std::string text = "Date,Outside min,Outside max,House min,House max\n";
  for (int d = 0; d < days; ++d) text += fmt::format("2031-01-{:02},{:.1f},{:.1f},{:.1f},{:.1f}\n", d + 5, -6.0 - 0.2 * d, 3.0 + 0.1 * d, 1.0, 14.0);
  return text;
}

TEST(DailySheet, IsKnownByItsHeadingsAndItsDates) {
  const Log log = sheet(daysOf(6));
  EXPECT_EQ(log.find(Role::outside), nullptr) << "a low is no reading of a moment";
  EXPECT_NE(log.find(Role::outside, {}, Statistic::lowest), nullptr);
  EXPECT_NE(log.find(Role::outside, {}, Statistic::highest), nullptr);
  EXPECT_NE(log.find(Role::room, "house", Statistic::lowest), nullptr);
}

TEST(DailySheet, BareLowsAndHighsAreTheWeathers) {
  for (const char* heading : {"date,min,max", "Date,Min (C),Max (C)", "day,Tmin,Tmax", "date,low [\xC2\xB0\x43],high [\xC2\xB0\x43]"}) {
    const Log log = sheet(std::string(heading) + "\n2031-01-05,-3.2,5.1\n2031-01-06,-4.2,4.1\n2031-01-07,-1.0,6.0\n");
    ASSERT_NE(log.find(Role::outside, {}, Statistic::lowest), nullptr) << heading;
    ASSERT_NE(log.find(Role::outside, {}, Statistic::highest), nullptr) << heading;
  }
  EXPECT_EQ(sheet("date,battery min,battery max\n2031-01-05,3.2,3.3\n2031-01-06,3.1,3.3\n").find(Role::outside, {}, Statistic::lowest), nullptr);
}

TEST(DailySheet, PutsTheLowToTheNightThatEndedThatMorning) {
  const auto nights = cutNights(sheet(daysOf(3)), kPlace, *TimeZone::named("Europe/Paris"));
  ASSERT_EQ(nights.size(), 3U);
  EXPECT_EQ(nights[0].date, (Date{2031, 1, 4}));
  EXPECT_CLOSE(nights[0].outsideLow->value, -6.0, 1e-6, "a float");
  EXPECT_CLOSE(*nights[1].lift_K(), 1.0 - -6.2, 1e-5, "floats");
  EXPECT_TRUE(nights[0].complete) << "it watches all night";
  EXPECT_FALSE(nights[0].dayHigh) << "the sheet begins in the morning";
  EXPECT_CLOSE(nights[1].dayHigh->value, 3.0, 1e-6, "the afternoon before");
}

TEST(DailySheet, ReadBeforeAndAfterSunriseIsOfTheSameNight) {
  // in January at 46 degrees north the sun rises about eight
  for (const char* clock : {"05:30", "07:10", "09:00", "18:00"}) {
    const auto nights = cutNights(sheet(fmt::format("time,outside low,outside high\n2031-01-17 {0},-5,2\n2031-01-18 {0},-7,3\n2031-01-19 {0},-6,3\n", clock)),
                                  kPlace, *TimeZone::named("Europe/Paris"));
    ASSERT_EQ(nights.size(), 3U) << clock;
    EXPECT_EQ(nights[1].date, (Date{2031, 1, 17})) << clock;
    EXPECT_CLOSE(nights[1].outsideLow->value, -7.0, 1e-6, "a float");
  }
}

TEST(DailyCurve, PassesThroughLowsAndHighsAtTheirHours) {
  const TimeZone zone = *TimeZone::named("Europe/Paris");
  const Log log = sheet(daysOf(6));
  const DailyCurve curve(dailyExtremes(log, log.find(Role::outside, {}, Statistic::lowest), log.find(Role::outside, {}, Statistic::highest), kPlace, zone),
                         kPlace);
  const std::int64_t day = daysSinceEpoch({2031, 1, 7});
  const DayLight light = dayLight(day, kPlace);
  double low = 1e9, high = -1e9;
  UtcSeconds lowAt = 0, highAt = 0;
  for (auto t = static_cast<UtcSeconds>(light.rise_utc) - 6 * 3600; t < static_cast<UtcSeconds>(light.set_utc); t += 60) {
    const double v = *curve.at(t);
    if (v < low) low = v, lowAt = t;
    if (v > high) high = v, highAt = t;
  }
  EXPECT_CLOSE(low, -6.4, 0.01, "a minute's step");
  EXPECT_CLOSE(high, 3.2, 0.01, "a minute's step");
  EXPECT_CLOSE(static_cast<double>(lowAt), light.rise_utc - 0.17 * 3600.0, 120.0, "two steps, s");
  EXPECT_CLOSE(static_cast<double>(highAt), light.noon_utc + 1.86 * 3600.0, 370.0, "half the ten minutes the low lies before sunrise, and a step, s");
}

TEST(DailyCurve, IsWithoutAJumpAtSunriseAndSunset) {
  const TimeZone zone = *TimeZone::named("Europe/Paris");
  const Log log = sheet(daysOf(6));
  const Log hours = outsideFromExtremes(log, kPlace, zone);
  for (std::size_t i = 1; i < hours.time.size(); ++i)
    ASSERT_LT(std::abs(hours.channels[0].raw[i] - hours.channels[0].raw[i - 1]), 0.6F) << "ten minutes at no more than 3.6 K an hour";
}

TEST(DailySheet, IsWeatherWithItsHoursSaidToBeEstimated) {
  const auto weather = weatherFromLog(sheet(daysOf(8)), site());
  ASSERT_TRUE(weather) << english(weather.problem());
  EXPECT_EQ(weather->outside, InputKind::estimated);
  ASSERT_EQ(weather->winters.size(), 1U);
  const Winter& w = weather->winters[0];
  EXPECT_GE(w.nights.size(), 6U);
  for (const NightSpan& n : w.nights) EXPECT_TRUE(n.assessable) << isoDate(n.date);
  EXPECT_CLOSE(*std::min_element(w.outside_C.begin(), w.outside_C.end()), -7.4, 0.05, "the coldest low, between two steps");
}

TEST(DailySheet, LeavesTheHolesOfAForgottenDay) {
  std::string text = "Date,Outside min,Outside max\n";
  for (int d = 0; d < 12; ++d)
    if (d != 5) text += fmt::format("2031-01-{:02},-6,3\n", d + 5);
  const auto weather = weatherFromLog(sheet(text), site());
  ASSERT_TRUE(weather);
  int judged = 0;
  for (const NightSpan& n : weather->winters.at(0).nights) judged += n.assessable ? 1 : 0;
  EXPECT_EQ(judged, 11 - 2) << "all but the night before the forgotten morning and the one after it";
}

/// Three weeks of readings whose days are no sine: cloud, wind and fronts by a fixed rule.
Log tenMinuteWeather() {
  Log log;
  Channel out;
  out.role = Role::outside;
  const UtcSeconds start = daysSinceEpoch({2031, 1, 5}) * 86400;
  for (int i = 0; i < 21 * 144; ++i) {
    const double day = i / 144.0, hour = std::fmod(i / 6.0, 24.0);
    const double front = 3.0 * std::sin(day * 0.9) + 1.5 * std::sin(day * 2.3);
    const double swing = 3.5 + 2.0 * std::sin(day * 1.7);
    const double sun = std::exp(-0.5 * std::pow((hour - 13.7) / 2.6, 2.0)); // narrower than a sine, as clear winter days are
    log.time.push_back(start + i * 600);
    out.raw.push_back(static_cast<float>(-3.0 + front + swing * (2.0 * sun - 0.8) + 0.3 * std::sin(i * 0.7)));
  }
  out.flag.assign(out.raw.size(), 0);
  log.channels.push_back(out);
  return log;
}

TEST(DailyCurve, ComesWithinWhatWasFoundInTheFieldOfHoursThatAreKnown) {
  const TimeZone zone = *TimeZone::named("UTC");
  const Log truth = tenMinuteWeather();
  Log daily; // a max/min thermometer read and set back each evening at eight
  Channel low, high;
  low.role = high.role = Role::outside;
  low.statistic = Statistic::lowest;
  high.statistic = Statistic::highest;
  float least = 1e9F, most = -1e9F;
  for (std::size_t i = 0; i < truth.time.size(); ++i) {
    least = std::min(least, truth.channels[0].raw[i]);
    most = std::max(most, truth.channels[0].raw[i]);
    if (truth.time[i] % 86400 != 20 * 3600) continue;
    daily.time.push_back(truth.time[i]);
    low.raw.push_back(least);
    high.raw.push_back(most);
    least = 1e9F, most = -1e9F;
  }
  for (Channel* c : {&low, &high}) c->flag.assign(c->raw.size(), 0);
  daily.channels = {low, high};
  const DailyCurve curve(dailyExtremes(daily, &daily.channels[0], &daily.channels[1], kPlace, zone), kPlace);
  double sum = 0.0, bias = 0.0;
  int n = 0;
  for (std::size_t i = 0; i < truth.time.size(); ++i)
    if (const auto v = curve.at(truth.time[i])) {
      const double off = *v - static_cast<double>(truth.channels[0].raw[i]);
      sum += off * off;
      bias += off;
      ++n;
    }
  ASSERT_GT(n, 18 * 144);
  EXPECT_LT(std::sqrt(sum / n), 2.6) << "Parton and Logan found hourly errors up to that at their stations";
  EXPECT_LT(std::abs(bias / n), 1.3) << "half of it: highs and lows are met, so it cannot be off one way throughout";
}

} // namespace
} // namespace muffle::daily_sheet_test
