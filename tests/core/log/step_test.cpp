// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/log/log.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <random>

namespace muffle {
namespace {

TEST(LogStep, IsTheMedianOfTheTimesBetweenReadingsHoweverLong) {
  std::mt19937 random(7);
  for (int round = 0; round < 200; ++round) {
    // from loggers that write every few seconds to sheets with a row a week
    std::uniform_int_distribution<UtcSeconds> between(1, std::uniform_int_distribution<UtcSeconds>(2, round % 2 ? 20'000 : 600'000)(random));
    Log log;
    log.time.push_back(1'900'000'000);
    std::vector<UtcSeconds> steps;
    const int readings = std::uniform_int_distribution<int>(1, 60)(random);
    for (int i = 0; i < readings; ++i) {
      steps.push_back(between(random));
      log.time.push_back(log.time.back() + steps.back());
    }
    std::sort(steps.begin(), steps.end());
    EXPECT_EQ(log.step_s(), static_cast<double>(steps[steps.size() / 2]));
  }
  EXPECT_EQ(Log{}.step_s(), 0.0);
}

} // namespace
} // namespace muffle
