// SPDX-License-Identifier: GPL-3.0-or-later
//
// Three hundred hostile texts for every reader: each is taken or refused with what is wrong and what is allowed, soon, and without a fault
// that the sanitizers would find.
#include "core/calc/quantity.h"
#include "core/log/by_hand.h"
#include "core/log/flags.h"
#include "core/log/message.h"
#include "core/log/read.h"
#include "core/log/recipe.h"
#include "core/network/network_json.h"
#include "core/plan/plan_json.h"
#include "core/plan/plan_notes.h"
#include "tests/support/hostile.h"
#include "tests/support/logger_files.h"
#include "words/words.h"

#include <gtest/gtest.h>

#include <chrono>

namespace muffle {
namespace {

constexpr int kTexts = 300;

/// Each within a second, most in a thousandth of one: sanitized builds are ten times slower and run beside others.
void readEach(const std::vector<std::string>& sound, const std::function<Problems(const std::string&)>& read) {
  int refused = 0;
  for (const std::string& text : hostileTexts(sound, kTexts)) {
    const auto from = std::chrono::steady_clock::now();
    const Problems problems = read(text);
    const double took_s = std::chrono::duration<double>(std::chrono::steady_clock::now() - from).count();
    EXPECT_LT(took_s, 5.0) << text.substr(0, 80);
    refused += problems.empty() ? 0 : 1;
    for (const Problem& p : problems) {
      EXPECT_FALSE(p.what.empty());
      EXPECT_FALSE(p.allowed.empty()) << english(p.what);
      EXPECT_EQ(english(p).find("exception"), std::string::npos) << english(p);
    }
  }
  EXPECT_GT(refused, 0);
}

TEST(Hostile, Tables) {
  std::vector<std::string> sound;
  for (const auto& file : loggerFiles()) sound.push_back(file.text.substr(0, 1500));
  readEach(sound, [](const std::string& text) -> Problems {
    auto read = readLog(text, {});
    if (!read) return read.problems();
    for (std::size_t i = 1; i < read->log.time.size(); ++i) EXPECT_GT(read->log.time[i], read->log.time[i - 1]);
    flagProblems(read->log, {46.0, 8.0, 500.0});
    return read->firstProblems;
  });
}

TEST(Hostile, ReadingsByHand) {
  readEach({"17.1.2031\n7:10 -4 / 2.5\n18/1 min -6 / 1.2 wet\n2031-01-19 6:00 pm 3,5/8\n17 Jan\nmax 4 / 19\n"}, [](const std::string& text) {
    return readByHand(text, {2031, 1, 17}, TimeZone::utc(), text.size() % 2 == 0).problems;
  });
}

TEST(Hostile, Plans) {
  Plan full;
  full.heaters = {{.id = "heater"}};
  full.house.bay.emplace();
  full.house.bedCovers.emplace_back();
  full.compost.emplace_back().recipe.emplace_back();
  full.waterLoops.emplace_back();
  readEach({planToJson(Plan{}).dump(), planToJson(full).dump()}, [](const std::string& text) -> Problems {
    const auto json = parseJson(text);
    if (!json) return json.problems();
    const auto plan = planFromJson(*json);
    if (!plan) return plan.problems();
    EXPECT_TRUE(planFromJson(planToJson(*plan)));
    (void)planNotes(*plan);
    return {};
  });
}

TEST(Hostile, Networks) {
  readEach(
      {R"({"schema":"muffle-network-1","step_s":60,"end_s":600,"output_every_s":60,"nodes":[{"id":"a","capacity_J_K":5000,"initial_C":5},{"id":"o","boundary":{"constant_C":0}}],
    "links":[{"from":"a","to":"o","conductance_W_K":10}],"thermostats":[{"id":"t","sensor":"a","heats":"a","power_W":500,"mode":"ideal","setpoint_C":4}]})"},
      [](const std::string& text) -> Problems {
        const auto json = parseJson(text);
        if (!json) return json.problems();
        const auto network = networkFromJson(*json);
        if (!network) return network.problems();
        if (network->end_s / network->step_s > 1e5) return {};
        const auto run = runNetwork(*network);
        return run ? Problems{} : run.problems();
      });
}

TEST(Hostile, Recipes) {
  readEach({recipeToJson({"yard", ';', true, std::nullopt, false, Clockwork::winterTime, {{"A", Role::room, "house", Statistic::highest, "F", true}}}).dump()},
           [](const std::string& text) -> Problems {
             const auto json = parseJson(text);
             if (!json) return json.problems();
             const auto recipe = recipeFromJson(*json);
             return recipe ? Problems{} : recipe.problems();
           });
}

TEST(Hostile, MessagesAndNumbers) {
  readEach({"-4.2", "2031-01-17T06:10:00+01:00 41 F", R"({"time":1926393000,"outside [C]":-4.5,"house [C]":3})"}, [](const std::string& text) {
    const auto read = readMessage("yard/outside", text, 1'900'000'000);
    return read ? Problems{} : read.problems();
  });
  readEach({"-4.2 C", "12 kBTU/h", "5 +- 0.2 m", "7 1/2 in"}, [](const std::string& text) {
    for (int kind = 0; kind <= static_cast<int>(QuantityKind::number); ++kind)
      if (const auto read = readMeasured(text, static_cast<QuantityKind>(kind)); !read) return read.problems();
    return Problems{};
  });
}

} // namespace
} // namespace muffle
