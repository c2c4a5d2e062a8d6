// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/calendar.h"
#include "words/words.h"

#include <gtest/gtest.h>

#include <random>

namespace muffle {
namespace {

TEST(Calendar, DaysComeBack) {
  for (std::int64_t d = -40000; d < 60000; d += 97) EXPECT_EQ(daysSinceEpoch(dateFromDays(d)), d);
  EXPECT_EQ(daysSinceEpoch({1970, 1, 1}), 0);
  EXPECT_EQ(daysSinceEpoch({2000, 3, 1}), 11017);
}

TEST(Calendar, KnowsLeapYears) {
  EXPECT_TRUE(isValid({2024, 2, 29}));
  EXPECT_FALSE(isValid({2023, 2, 29}));
  EXPECT_TRUE(isValid({2000, 2, 29}));
  EXPECT_FALSE(isValid({1900, 2, 29}));
  EXPECT_EQ(dayOfYear({2024, 12, 31}), 366);
  EXPECT_EQ(dayOfYear({2023, 12, 31}), 365);
  EXPECT_FALSE(isValid({2023, 13, 1}));
  EXPECT_FALSE(isValid({2023, 4, 31}));
}

TEST(Calendar, WritesAndReadsIso) {
  EXPECT_EQ(isoDate({2031, 1, 7}), "2031-01-07");
  EXPECT_EQ(parseIsoDate("2031-01-07"), (Date{2031, 1, 7}));
  for (const char* bad : {"2031-1-7", "2031-02-30", "07.01.2031", "", "2031-01-07x"}) EXPECT_FALSE(parseIsoDate(bad)) << bad;
}

TEST(TimeZone, KnowsDaylightSaving) {
  const auto paris = TimeZone::named("Europe/Paris");
  ASSERT_TRUE(paris);
  EXPECT_EQ(paris->offset_s(daysSinceEpoch({2031, 1, 15}) * 86400), 3600);
  EXPECT_EQ(paris->offset_s(daysSinceEpoch({2031, 7, 15}) * 86400), 7200);
  const std::int64_t autumn = daysSinceEpoch({2031, 10, 26}) * 86400 + 2 * 3600 + 1800; // 02:30 came twice
  EXPECT_TRUE(paris->isAmbiguous(autumn));
  EXPECT_EQ(paris->fromLocal(autumn, true) - paris->fromLocal(autumn, false), 3600);
  const std::int64_t spring = daysSinceEpoch({2031, 3, 30}) * 86400 + 2 * 3600 + 1800; // 02:30 never came
  EXPECT_FALSE(paris->isAmbiguous(spring));
  EXPECT_EQ(paris->iso(paris->fromLocal(spring)), "2031-03-30T03:00:00+02:00") << "the change itself";
}

TEST(TimeZone, TakesFixedOffsetsAndRefusesTheUnknown) {
  const auto east = TimeZone::named("+05:30");
  ASSERT_TRUE(east);
  EXPECT_EQ(east->offset_s(0), 19800);
  EXPECT_EQ(east->iso(0), "1970-01-01T05:30:00+05:30");
  const auto nowhere = TimeZone::named("Europe/Nowhere");
  ASSERT_FALSE(nowhere);
  EXPECT_NE(english(nowhere.problem()).find("Europe/Nowhere"), std::string::npos);
}

TEST(TimeZone, LocalDateTurnsAtLocalMidnight) {
  const auto zone = *TimeZone::named("Europe/Paris");
  const UtcSeconds lateEvening = daysSinceEpoch({2031, 1, 15}) * 86400 + 23 * 3600 + 30 * 60; // 00:30 on the 16th there
  EXPECT_EQ(zone.localDate(lateEvening), (Date{2031, 1, 16}));
  EXPECT_NEAR(zone.localHour(lateEvening), 0.5, 1e-9);
}

TEST(LocalClock, SaysWhatTheZoneSaysAtWhateverMomentInWhateverOrder) {
  std::mt19937_64 random(3);
  for (const char* name : {"Europe/Paris", "Pacific/Auckland", "America/St_Johns", "Australia/Lord_Howe", "UTC", "-03:30"}) {
    const auto zone = TimeZone::named(name);
    ASSERT_TRUE(zone) << name;
    LocalClock clock(*zone);
    UtcSeconds at = daysSinceEpoch({2024, 1, 1}) * 86400;
    for (int k = 0; k < 200000; ++k) { // on by ten minutes over nearly four years, and sometimes anywhere
      at += 600;
      EXPECT_EQ(clock.hour(at), zone->localHour(at)) << name;
      if (k % 1000 == 0) {
        const auto elsewhere = static_cast<UtcSeconds>(random() % 2000000000);
        EXPECT_EQ(clock.hour(elsewhere), zone->localHour(elsewhere)) << name;
        const auto days = daysSinceEpoch(zone->localDate(elsewhere)) - daysSinceEpoch({2024, 1, 1}); // a Monday
        EXPECT_EQ(clock.hourOfWeek(elsewhere), 24 * ((days % 7 + 7) % 7) + static_cast<int>(zone->localHour(elsewhere))) << name;
      }
      if (HasFailure()) return;
    }
  }
}

} // namespace
} // namespace muffle
