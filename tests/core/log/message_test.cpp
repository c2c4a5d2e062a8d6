// SPDX-License-Identifier: GPL-3.0-or-later
//
// Readings as stations publish them.
#include "core/log/message.h"

#include "tests/support/near.h"

namespace muffle {
namespace {

constexpr UtcSeconds kNow = 1926393000;

TEST(Message, ANumberIsTheTopicsSensorNow) {
  const auto log = readMessage("yard/outside", "-4.2", kNow);
  ASSERT_TRUE(log);
  EXPECT_EQ(log->time.front(), kNow);
  EXPECT_CLOSE(static_cast<double>(log->find(Role::outside)->raw[0]), -4.2, 1e-6, "a float");
}

TEST(Message, CarriesItsTimeAndItsUnit) {
  const auto log = readMessage("yard/tunnel air", "2031-01-17T06:10:00+01:00 41 F", 5);
  ASSERT_TRUE(log);
  EXPECT_EQ(log->time.front(), kNow);
  EXPECT_CLOSE(static_cast<double>(log->find(Role::room)->raw[0]), 5.0, 1e-5, "a float");
}

TEST(Message, AnObjectHoldsSeveralSensors) {
  const auto log = readMessage("yard/state", R"({"time": 1926393000, "outside [C]": -4.5, "house [C]": 3, "heater [kW]": 2.5, "ok": true})", 5);
  ASSERT_TRUE(log);
  EXPECT_EQ(log->time.front(), kNow);
  EXPECT_EQ(log->channels.size(), 3U);
  EXPECT_CLOSE(static_cast<double>(log->find(Role::heater)->raw[0]), 2500.0, 1e-3, "a float");
}

TEST(Message, SaysWhatAMessageMayBe) {
  for (const char* text : {"", "cold", "{", "[1]", "{\"time\":\"never\",\"outside\":1}", "{\"ok\":true}"}) {
    const auto log = readMessage("yard/outside", text, kNow);
    ASSERT_FALSE(log) << text;
    EXPECT_EQ(log.problem().where, "yard/outside");
  }
}

} // namespace
} // namespace muffle
