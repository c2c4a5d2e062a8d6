// SPDX-License-Identifier: GPL-3.0-or-later
//
// What goes on side by side: writing, working out, hearing and searching. Built without Qt, so that the thread sanitizer (preset `thread`)
// sees all of it.
#include "app/model/background.h"
#include "app/model/incoming.h"
#include "app/model/outbox.h"
#include "core/sizing/sizing.h"
#include "core/weather/weather.h"
#include "tests/support/folder_test.h"
#include "words/words.h"

#include <atomic>
#include <chrono>
#include <cmath>
#include <thread>

namespace muffle {
namespace {

class Threads : public testing::FolderTest {
protected:
  /// A job that a full disk refuses and that tells when it was done.
  Outbox::Job job(const std::string& name) {
    return [this, name](Book&) -> Status {
      if (full) return Problem{ProblemKind::storage, "disk", Message::verbatim("full"), {}};
      done.push_back(name);
      return Done{};
    };
  }
  std::atomic<bool> full{true};
  std::vector<std::string> done;
};

TEST_F(Threads, TheOutboxKeepsTheNewestOfAKeyAndTheOrderOfTheRest) {
  const std::string path = at("a.muffle");
  {
    Outbox outbox(std::move(*Book::open(path, Book::Mode::create)), [] {});
    outbox.put("plan", job("plan 1"));
    EXPECT_FALSE(outbox.waitUntilWritten(2000));
    outbox.put("flags", job("flags 1"));
    outbox.put("plan", job("plan 2"));
    outbox.put("log", job("log"), {"flags"});
    outbox.put("wrong", [](Book&) -> Status { return Problem{ProblemKind::badInput, "x", Message{"book.decisions-cannot-read"}, {}}; });
    outbox.put("last", job("last"));
    EXPECT_TRUE(outbox.state().stopped);
    EXPECT_EQ(outbox.state().waiting, 4U);
    full = false;
    outbox.tryAgain();
    EXPECT_TRUE(outbox.waitUntilWritten(2000));
    EXPECT_EQ(done, (std::vector<std::string>{"plan 2", "log", "last"}));
    EXPECT_FALSE(outbox.state().stopped);
    const auto refused = outbox.takeRefused();
    ASSERT_TRUE(refused);
    EXPECT_EQ(refused->what.code, "book.decisions-cannot-read") << "it does not hold up the others";
    EXPECT_FALSE(outbox.takeRefused()) << "told once";
    full = true;
    outbox.put("plan", job("plan 3"));
    EXPECT_FALSE(outbox.waitUntilWritten(2000));
    full = false;
  }
  EXPECT_EQ(done.back(), "plan 3") << "once more at the end";
}

TEST_F(Threads, WhatAKeptStateBuildsOnIsNotOvertaken) {
  Outbox outbox(std::move(*Book::open(at("a.muffle"), Book::Mode::create)), [] {});
  outbox.put("log", job("log 1"));
  outbox.putToStay(job("state of log 1"));
  outbox.put("log", job("log 2"));
  outbox.put("log", job("log 3"));
  outbox.putToStay(job("state of log 3"));
  full = false;
  outbox.tryAgain();
  EXPECT_TRUE(outbox.waitUntilWritten(10000));
  EXPECT_EQ(done, (std::vector<std::string>{"log 1", "state of log 1", "log 3", "state of log 3"}));
}

TEST_F(Threads, TheOutboxTakesJobsFromAllSidesAndWritesEachThingsLast) {
  std::atomic<int> changes{0};
  {
    Outbox outbox(std::move(*Book::open(at("a.muffle"), Book::Mode::create)), [&] { ++changes; });
    std::vector<std::jthread> sides;
    for (int side = 0; side < 4; ++side)
      sides.emplace_back([&, side] {
        for (int i = 0; i < 60; ++i) {
          const std::string key = "k" + std::to_string(side);
          outbox.put(key, [key, i](Book& b) { return b.setSetting(key, std::to_string(i)); });
          if (i % 16 == 0) outbox.tryAgain();
          (void)outbox.state();
        }
      });
    sides.clear();
    EXPECT_TRUE(outbox.waitUntilWritten(20000));
  }
  EXPECT_GT(changes, 3);
  const auto settings = *Book::open(at("a.muffle"), Book::Mode::existing)->settings();
  for (int side = 0; side < 4; ++side) EXPECT_EQ(settings.at("k" + std::to_string(side)), "59");
}

TEST_F(Threads, WhatIsHeardOnOneThreadIsTakenOnAnotherOnce) {
  Incoming incoming;
  std::atomic<bool> over{false};
  std::jthread hears([&] {
    for (int i = 0; i < 2000; ++i) {
      Log log;
      log.time = {i};
      incoming.put(std::move(log));
    }
    over = true;
  });
  std::vector<UtcSeconds> taken;
  while (!over || taken.size() < 2000)
    for (const Log& log : incoming.takeAll()) taken.push_back(log.time.front());
  ASSERT_EQ(taken.size(), 2000U);
  for (std::size_t i = 0; i < taken.size(); ++i) ASSERT_EQ(taken[i], static_cast<UtcSeconds>(i));
}

TEST_F(Threads, WorkInTheBackgroundIsDroppedAtTheEndAndToldToStop) {
  std::atomic<int> began{0}, stopped{0};
  {
    Background background;
    for (int i = 0; i < 50; ++i)
      background.post([&](const std::stop_token& stop) {
        ++began;
        for (int k = 0; k < 2000 && !stop.stop_requested(); ++k) std::this_thread::sleep_for(std::chrono::milliseconds(1));
        if (stop.stop_requested()) ++stopped;
      });
    while (began == 0) std::this_thread::yield();
  }
  EXPECT_EQ(began, 1);
  EXPECT_EQ(stopped, 1);
}

/// Two weeks of a cold spell.
std::shared_ptr<const Weather> spell(const Plan& plan) {
  Log log;
  Channel c;
  c.role = Role::outside;
  for (int i = 0; i < 14 * 48; ++i) {
    log.time.push_back(1'767'225'600 + 1800 * i);
    c.raw.push_back(static_cast<float>(-3.0 + 5.0 * std::sin(i * 2.0 * 3.14159265 / 48.0 - 2.0)));
  }
  c.flag.assign(c.raw.size(), 0);
  log.channels = {c};
  return std::make_shared<const Weather>(std::move(*weatherFromLog(log, plan.site)));
}

TEST_F(Threads, ASearchAndAListSideBySideAgreeWithASearchAlone) {
  Plan plan;
  plan.heaters = {{.id = "heater"}};
  for (const auto& [kind, levels] :
       {std::pair{MeasureKind::sealing, std::vector<double>{0.4, 0.2}}, {MeasureKind::barrels, {6.0, 12.0}}, {MeasureKind::heater, {2000.0, 6000.0}}}) {
    Measure m;
    m.kind = kind;
    m.name = "m" + std::to_string(static_cast<int>(kind));
    m.levels = levels;
    plan.measures.push_back(m);
  }
  const auto weather = spell(plan);
  const auto alone = size(plan, weather, {.threads = 1, .progress = {}});
  ASSERT_TRUE(alone) << english(alone.problem());
  std::optional<Result<Sizing>> searched, listed;
  {
    std::jthread search([&] { searched.emplace(size(plan, weather, {.threads = 4, .progress = {}})); });
    std::jthread list([&] { listed.emplace(oneChangeEach(plan, weather, {.threads = 2, .progress = {}})); });
  }
  ASSERT_TRUE(*searched && *listed);
  ASSERT_EQ((*searched)->packages.size(), alone->packages.size());
  for (std::size_t i = 0; i < alone->packages.size(); ++i) {
    EXPECT_EQ((*searched)->packages[i].heater_kWh, alone->packages[i].heater_kWh) << i;
    EXPECT_EQ((*searched)->packages[i].held, alone->packages[i].held) << i;
  }
  EXPECT_EQ((*listed)->packages.front().heater_kWh, alone->packages.front().heater_kWh);
}

} // namespace
} // namespace muffle
