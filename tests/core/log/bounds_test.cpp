// SPDX-License-Identifier: GPL-3.0-or-later
//
// Every reader refuses what is past its bound and names it, and takes no longer than its share below it.
#include "core/bounds.h"

#include "core/json/fields.h"
#include "core/log/by_hand.h"
#include "core/log/message.h"
#include "core/log/read.h"
#include "core/network/network_json.h"
#include "words/words.h"

#include <gtest/gtest.h>

#include <chrono>

namespace muffle {
namespace {

double secondsOf(const std::function<void()>& work) {
  const auto from = std::chrono::steady_clock::now();
  work();
  return std::chrono::duration<double>(std::chrono::steady_clock::now() - from).count();
}

std::string wideTable(std::size_t columns, int rows) {
  std::string csv = "time";
  for (std::size_t c = 1; c < columns; ++c) csv += ",t" + std::to_string(c);
  csv += '\n';
  for (int r = 0; r < rows; ++r) {
    csv += "2031-01-17 05:" + std::to_string(10 + r);
    for (std::size_t c = 1; c < columns; ++c) csv += ",1.5";
    csv += '\n';
  }
  return csv;
}

void refusesNaming(const Problems& problems, const std::string& bound) {
  ASSERT_FALSE(problems.empty());
  EXPECT_NE(english(problems.front()).find(bound), std::string::npos) << english(problems.front());
}

// every one of these took from half a minute to for ever; a second is a hundred times what they need
constexpr double kSoon_s = 3.0;

TEST(Bounds, ATableHasSoManyColumns) {
  const auto allowed = readLog(wideTable(bounds::kTableColumns, 20), {});
  ASSERT_TRUE(allowed) << english(allowed.problem());
  EXPECT_EQ(allowed->log.channels.size(), bounds::kTableColumns - 1);
  const std::string million = wideTable(1'000'000, 5);
  EXPECT_LT(secondsOf([&] {
              const auto wide = readLog(million, {});
              ASSERT_FALSE(wide);
              refusesNaming(wide.problems(), "256");
            }),
            kSoon_s);
}

TEST(Bounds, ATableWideningLaterIsRefusedToo) {
  std::string csv = wideTable(4, 40);
  for (int r = 0; r < 1000; ++r) csv += "2031-01-18 05:10,1,2,3\n";
  csv += "2031-01-19 05:10" + std::string(5000, ',') + "\n";
  const auto read = readLog(csv, {});
  ASSERT_FALSE(read);
  refusesNaming(read.problems(), "256");
}

TEST(Bounds, AnOpenQuotationMarkDoesNotSwallowTheFile) {
  std::string csv = "time,outside C\n2031-01-17 05:10,\"1.5\n";
  csv += std::string(8U << 20, 'x');
  EXPECT_LT(secondsOf([&] {
              const auto read = readLog(csv, {});
              ASSERT_FALSE(read);
              refusesNaming(read.problems(), std::to_string(bounds::kTableRowBytes));
            }),
            kSoon_s);
}

TEST(Bounds, ReadingsByHandAreLinesOfSoManyCharactersAndSoMany) {
  EXPECT_LT(secondsOf([] {
              const HandSheet sheet = readByHand(std::string(2'000'000, '7'), {2031, 1, 17}, TimeZone::utc(), false);
              refusesNaming(sheet.problems, "400");
            }),
            kSoon_s);
  std::string many;
  for (int i = 0; i < 100'000; ++i) many += "7:10 -4 / 2.5\n";
  const HandSheet sheet = readByHand(many, {2031, 1, 17}, TimeZone::utc(), false);
  EXPECT_EQ(sheet.readings.size(), bounds::kHandLines);
  refusesNaming(sheet.problems, "2000");
}

TEST(Bounds, AMessageIsNoFile) {
  std::string keys = "{";
  for (int i = 0; i < 400; ++i) keys += (i ? ",\"t" : "\"t") + std::to_string(i) + "\":1";
  keys += "}";
  refusesNaming(readMessage("yard/x", keys, 5).problems(), "256");
  const std::string braces(50'000'000, '{');
  EXPECT_LT(secondsOf([&] { refusesNaming(readMessage("yard/x", braces, 5).problems(), "65536"); }), kSoon_s);
}

TEST(Bounds, ANetworkTakesSoManyStepsRowsAndNodes) {
  const auto run = [](const std::string& more) -> Problems {
    const auto json = parseJson(R"({"schema":"muffle-network-1","nodes":[{"id":"a","capacity_J_K":1000,"initial_C":5},{"id":"o","boundary":{"constant_C":0}}],
      "links":[{"from":"a","to":"o","conductance_W_K":1}],)" +
                                more + "}");
    EXPECT_TRUE(json);
    const auto network = networkFromJson(*json);
    if (!network) return network.problems();
    const auto ran = runNetwork(*network);
    return ran ? Problems{} : ran.problems();
  };
  EXPECT_TRUE(run(R"("step_s":60,"end_s":3600,"output_every_s":600)").empty());
  refusesNaming(run(R"("step_s":0.001,"end_s":1e8,"output_every_s":1e6)"), "50000000");
  refusesNaming(run(R"("step_s":60,"end_s":3e8,"output_every_s":1)"), "20000000");
  std::string nodes = R"({"schema":"muffle-network-1","step_s":60,"end_s":60,"output_every_s":60,"links":[],"nodes":[)";
  for (int i = 0; i < 3000; ++i) nodes += (i ? "," : "") + std::string(R"({"id":"n)") + std::to_string(i) + R"(","capacity_J_K":1,"initial_C":1})";
  const auto json = parseJson(nodes + "]}");
  ASSERT_TRUE(json);
  refusesNaming(networkFromJson(*json).problems(), "2000");
}

} // namespace
} // namespace muffle
