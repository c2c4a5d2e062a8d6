// SPDX-License-Identifier: GPL-3.0-or-later
#include "book/book.h"

#include "book/files.h"
#include "core/log/merge.h"
#include "core/plan/plan_json.h"
#include "tests/support/folder_test.h"
#include "words/words.h"

#include <gtest/gtest.h>
#include <sys/wait.h>
#include <unistd.h>

#include <cmath>
#include <csignal>
#include <filesystem>

namespace muffle {
namespace {

namespace fs = std::filesystem;

class BookTest : public testing::FolderTest {
protected:
  [[nodiscard]] std::string path(const char* name) const { return at(name); }

  static Plan plan() {
    Plan p;
    p.name = "Süd \"tunnel\"";
    p.site.place = {45, 3, 700};
    p.barrels.push_back({});
    return p;
  }
  static Log log() {
    Log l;
    l.name = "one";
    Channel c{.name = "out",
              .role = Role::outside,
              .id = "",
              .statistic = Statistic::lowest,
              .unitIn = "F",
              .unitWhy = Message{"log.said-heading"},
              .raw = {1.1F, std::nanf(""), -3.3333333F},
              .flag = {0, 0, 3}};
    l.time = {1000, 1600, 2200};
    l.channels = {c};
    l.decisions = {{Verdict::dismissed, Flag::stuck, 0, 1000, 2200}, {Verdict::setAside, Flag::byHand, -1, 1600, 1600}};
    l.notes = {{"clock", "", 1000, 1600, 2, Message{"log.clock-went-back"}, Flag::clock}};
    return l;
  }
  static Recipe recipe() {
    return {"yard", ';', true, std::nullopt, false, Clockwork::winterTime, {{"A", Role::room, "house", Statistic::highest, "F", true}}};
  }
  fs::path m_dir;
};

TEST_F(BookTest, KeepsPlansLogsAndSettings) {
  RowId id = 0;
  {
    auto book = Book::open(path("a.muffle"), Book::Mode::create);
    ASSERT_TRUE(book) << english(book.problem());
    id = *book->addPlan(plan());
    ASSERT_TRUE(book->addLog(log()));
    ASSERT_TRUE(book->setSetting("theme", "lamp"));
    ASSERT_TRUE(book->setSetting("theme", "wool"));
    ASSERT_TRUE(book->addSnapshot("before", 5, plan()));
    ASSERT_TRUE(book->saveRecipe(recipe()));
    ASSERT_TRUE(book->saveRecipe(recipe())); // of one name there is one
  }
  auto book = Book::open(path("a.muffle"), Book::Mode::existing);
  ASSERT_TRUE(book);
  EXPECT_EQ(planToJson((*book->plans())[0].plan), planToJson(plan()));
  EXPECT_EQ((*book->plans())[0].id, id);
  const Log read = (*book->logs())[0].log;
  EXPECT_EQ(read.time, log().time);
  EXPECT_EQ(read.channels[0].raw[2], -3.3333333F);
  EXPECT_TRUE(std::isnan(read.channels[0].raw[1]));
  EXPECT_EQ(read.channels[0].flag, log().channels[0].flag);
  EXPECT_EQ(read.channels[0].statistic, Statistic::lowest);
  EXPECT_EQ(read.decisions, log().decisions);
  ASSERT_EQ(read.notes.size(), 1U);
  EXPECT_EQ(read.notes[0].why, log().notes[0].why);
  EXPECT_EQ(*book->recipes(), std::vector<Recipe>{recipe()});
  EXPECT_EQ((*book->settings())["theme"], "wool");
  EXPECT_EQ((*book->snapshots())[0].name, "before");
}

TEST_F(BookTest, ExportAndImportAreLossless) {
  {
    auto book = Book::open(path("a.muffle"), Book::Mode::create);
    ASSERT_TRUE(book->addPlan(plan()));
    ASSERT_TRUE(book->addLog(log()));
    ASSERT_TRUE(book->setSetting("units", "F"));
    ASSERT_TRUE(book->saveRecipe(recipe()));
    ASSERT_TRUE(book->addSnapshot("before", 5, plan()));
    ASSERT_TRUE(exportBook(*book, path("out")));
  }
  ASSERT_TRUE(importBook(path("out"), path("b.muffle")));
  auto again = Book::open(path("b.muffle"), Book::Mode::existing);
  ASSERT_TRUE(again);
  ASSERT_TRUE(exportBook(*again, path("out2")));
  for (const auto& entry : fs::directory_iterator(path("out")))
    EXPECT_EQ(*readFile(entry.path().string()), *readFile(path("out2") + "/" + entry.path().filename().string())) << entry.path();
}

TEST_F(BookTest, RefusesWhatIsNotABookAndWritesNothing) {
  ASSERT_TRUE(writeFile(path("text.muffle"), "not a database, but long enough to look like one to nobody in particular"));
  EXPECT_FALSE(Book::open(path("text.muffle"), Book::Mode::existing));
  EXPECT_FALSE(Book::open(path("missing.muffle"), Book::Mode::existing));
  EXPECT_FALSE(fs::exists(path("missing.muffle")));
  fs::create_directories(path("out"));
  ASSERT_TRUE(writeFile(path("out") + "/book.json", R"({"schema":"muffle-book-1","plans":["plan-1.json"],"logs":[],"settings":{},"snapshots":[]})"));
  EXPECT_FALSE(importBook(path("out"), path("c.muffle")));
  EXPECT_FALSE(fs::exists(path("c.muffle")));
  EXPECT_FALSE(fs::exists(path("c.muffle.part")));
}

TEST_F(BookTest, KillingTheProcessLosesAtMostTheEditInHand) {
  const std::string file = path("k.muffle");
  {
    auto book = Book::open(file, Book::Mode::create);
    Plan p = plan();
    p.house.airChanges_per_h = p.house.shape.length_m / 20.0; // true from the start: the first kill may come before any edit
    ASSERT_TRUE(book->addPlan(p));
  }
  for (int round = 0; round < 6; ++round) {
    const pid_t child = ::fork();
    if (child == 0) { // edits without end until it is killed
      auto book = Book::open(file, Book::Mode::existing);
      Plan p = plan();
      for (int i = 1;; ++i) {
        p.house.shape.length_m = 10.0 + (i % 200);
        p.house.airChanges_per_h = p.house.shape.length_m / 20.0; // two fields that must always agree
        if (!book || !book->savePlan(1, p)) ::_exit(1);
      }
    }
    ::usleep(40000 + 17000 * round);
    ::kill(child, SIGKILL);
    int status = 0;
    ::waitpid(child, &status, 0);
    ASSERT_TRUE(WIFSIGNALED(status));
    auto book = Book::open(file, Book::Mode::existing);
    ASSERT_TRUE(book) << english(book.problem());
    const auto plans = book->plans();
    ASSERT_TRUE(plans);
    ASSERT_EQ(plans->size(), 1U);
    const House& h = (*plans)[0].plan.house;
    EXPECT_DOUBLE_EQ(h.airChanges_per_h, h.shape.length_m / 20.0);
  }
}

TEST_F(BookTest, ABookOfTheFirstFormatIsBroughtUpToDateAndKeepsEverything) {
  fs::copy_file(std::string(MUFFLE_SOURCE_DIR) + "/tests/data/book-1.muffle", path("old.muffle"));
  for (int opened = 0; opened < 2; ++opened) {
    auto book = Book::open(path("old.muffle"), Book::Mode::existing);
    ASSERT_TRUE(book) << english(book.problem());
    const auto logs = book->logs();
    ASSERT_TRUE(logs) << english(logs.problem());
    ASSERT_EQ(logs->size(), 1U);
    const Log& old = logs->front().log;
    EXPECT_EQ(old.time, (std::vector<UtcSeconds>{1735000000, 1735000600, 1735001200}));
    EXPECT_EQ(old.channels[0].raw, (std::vector<float>{1.5F, 1.25F, 99.0F}));
    EXPECT_EQ(old.channels[0].flag[2], 1);
    EXPECT_EQ(old.channels[1].statistic, Statistic::moment);
    EXPECT_TRUE(old.decisions.empty());
    EXPECT_TRUE(book->recipes()->empty() || opened == 1);
    EXPECT_TRUE(book->saveRecipe(recipe())) << "the new table is there";
    EXPECT_EQ(book->plans()->size(), 1U);
  }
}

TEST_F(BookTest, AnImportKilledHalfWayLosesAndDoublesNothing) {
  const std::string file = path("i.muffle");
  const auto readings = [](int from, int to) {
    Log l;
    Channel c;
    c.role = Role::outside;
    for (int i = from; i < to; ++i) l.time.push_back(600 * i), c.raw.push_back(static_cast<float>(i % 97));
    c.flag.assign(c.raw.size(), 0);
    l.channels = {c};
    return l;
  };
  constexpr int kStep = 20000;
  {
    auto book = Book::open(file, Book::Mode::create);
    const Log first = readings(0, kStep);
    ASSERT_TRUE(book->replaceLogs(&first));
  }
  for (int round = 0; round < 6; ++round) {
    const pid_t child = ::fork();
    if (child == 0) { // one file after the other is added until it is killed
      auto book = Book::open(file, Book::Mode::existing);
      if (!book) ::_exit(1);
      for (;;) {
        const auto logs = book->logs();
        if (!logs || logs->empty()) ::_exit(2);
        const int n = static_cast<int>(logs->front().log.time.size());
        const Log merged = n >= 12 * kStep ? readings(0, kStep) : mergeLogs(logs->front().log, readings(n - 1000, n + kStep)).log;
        if (!book->replaceLogs(&merged)) ::_exit(3);
      }
    }
    ::usleep(50000 + 23000 * round);
    ::kill(child, SIGKILL);
    int status = 0;
    ::waitpid(child, &status, 0);
    ASSERT_TRUE(WIFSIGNALED(status)) << WEXITSTATUS(status);
    auto book = Book::open(file, Book::Mode::existing);
    ASSERT_TRUE(book) << english(book.problem());
    const auto logs = book->logs();
    ASSERT_TRUE(logs) << english(logs.problem());
    ASSERT_EQ(logs->size(), 1U) << "the log of before or the one of after, never both";
    const Log& l = logs->front().log;
    ASSERT_EQ(l.time.size() % kStep, 0U) << "whole files only";
    for (std::size_t i = 0; i < l.time.size(); ++i) {
      ASSERT_EQ(l.time[i], static_cast<UtcSeconds>(600 * i));
      ASSERT_EQ(l.channels[0].raw[i], static_cast<float>(i % 97));
    }
    // the same file again brings what was cut off, once
    const int n = static_cast<int>(l.time.size());
    const Merged again = mergeLogs(l, readings(n - 1000, n + kStep));
    EXPECT_EQ(again.added, kStep);
    EXPECT_EQ(again.same, 1000);
  }
}

TEST_F(BookTest, FlagsOfAnotherLogAreRefusedAndTheStoredOneStaysWhole) {
  auto book = std::move(*Book::open(path("a.muffle"), Book::Mode::create));
  const auto id = book.addLog(log());
  Log grown = log();
  grown.time.push_back(2800);
  for (Channel& c : grown.channels) c.raw.push_back(1.0F), c.flag.push_back(0);
  EXPECT_FALSE(book.saveFlags(*id, grown));
  ASSERT_TRUE(book.logs());
  EXPECT_EQ(book.logs()->front().log.time, log().time);
  EXPECT_EQ(*book.newestLog(), *id);
}

TEST_F(BookTest, OneLogGivesWayToAnotherInOneStep) {
  auto book = std::move(*Book::open(path("a.muffle"), Book::Mode::create));
  ASSERT_TRUE(book.addLog(log()));
  Log second = log();
  second.name = "two";
  ASSERT_TRUE(book.replaceLogs(&second));
  const auto logs = book.logs();
  ASSERT_EQ(logs->size(), 1U);
  EXPECT_EQ(logs->front().log.name, "two");
  EXPECT_EQ(logs->front().log.channels.front().flag, second.channels.front().flag);
  ASSERT_TRUE(book.replaceLogs(nullptr));
  EXPECT_TRUE(book.logs()->empty());
}

TEST_F(BookTest, TwoConnectionsWriteInTurn) {
  auto first = std::move(*Book::open(path("a.muffle"), Book::Mode::create));
  const auto id = first.addPlan(plan());
  auto second = std::move(*Book::open(path("a.muffle"), Book::Mode::existing));
  const Log l = log();
  for (int i = 0; i < 20; ++i) {
    Plan p = plan();
    p.name = "plan " + std::to_string(i);
    ASSERT_TRUE(first.savePlan(*id, p));
    ASSERT_TRUE(second.replaceLogs(&l));
  }
  EXPECT_EQ(second.plans()->front().plan.name, "plan 19");
  EXPECT_EQ(first.logs()->size(), 1U);
}

} // namespace
} // namespace muffle
