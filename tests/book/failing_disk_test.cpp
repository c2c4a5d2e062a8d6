// SPDX-License-Identifier: GPL-3.0-or-later
//
// A disk that fails at any one call, once or from then on, under an evening's changes to a book, an export, an import, a salvage and --out:
// nothing that was taken is lost, nothing half is there, and it is always told.
#include "book/book.h"
#include "book/files.h"
#include "tests/support/folder_test.h"
#include "words/words.h"

#include <fmt/format.h>

#include <cstdlib>
#include <map>
#include <sstream>

namespace muffle {
namespace {

namespace fs = std::filesystem;

class FailingDisk : public testing::FolderTest {
protected:
  struct Ran {
    int code = 0;
    std::string out, errors;
    long calls = 0;
  };
  [[nodiscard]] std::string disk(const std::string& name = "") const { return at("disk") + (name.empty() ? "" : "/" + name); }
  /// Runs a command on a disk that fails at its Nth call (0: never).
  Ran run(const std::string& command, long failAt, bool on) const {
    const std::string line = fmt::format("FAILING_UNDER={} FAILING_AT={} {} FAILING_COUNT={} LD_PRELOAD={} {} >{} 2>{}", disk(), failAt,
                                         on ? "FAILING_ON=1" : "", at("count"), MUFFLE_FAILING_CALLS, command, at("out.txt"), at("errors.txt"));
    Ran ran;
    const int status = std::system(line.c_str());
    EXPECT_TRUE(WIFEXITED(status)) << line;
    ran.code = WEXITSTATUS(status);
    EXPECT_LT(ran.code, 128) << line << ": it crashed";
    ran.out = *readFile(at("out.txt"));
    ran.errors = *readFile(at("errors.txt"));
    ran.calls = std::atol(readFile(at("count"))->c_str());
    return ran;
  }
  /// For every call that the command makes: `before` sets the disk up, `after` looks at what is there.
  void everyCall(const std::string& command, const std::function<void()>& before, const std::function<void(const Ran&)>& after) {
    before();
    const Ran whole = run(command, 0, false);
    ASSERT_EQ(whole.code, 0) << whole.errors;
    ASSERT_GT(whole.calls, 3) << "the disk is under it";
    after(whole);
    for (const bool on : {false, true})
      for (long n = 1; n <= whole.calls; ++n) {
        SCOPED_TRACE(fmt::format("call {} of {} fails{}", n, whole.calls, on ? " and all after it" : ""));
        before();
        after(run(command, n, on));
        if (HasFailure()) return;
      }
    std::printf("%ld calls of %s each failed twice\n", whole.calls, command.substr(0, command.find(' ')).c_str());
  }
  void freshDisk() const {
    fs::remove_all(disk());
    fs::create_directories(disk());
  }
  void aBook(const std::string& path) const {
    auto book = Book::open(path, Book::Mode::create);
    ASSERT_TRUE(book);
    ASSERT_TRUE(book->addPlan(Plan{}));
    Log log;
    Channel c;
    c.role = Role::outside;
    for (int i = 0; i < 300; ++i) log.time.push_back(1'900'000'000 + 600 * i), c.raw.push_back(1.5F);
    c.flag.assign(c.raw.size(), 0);
    log.channels = {c};
    ASSERT_TRUE(book->addLog(log));
    ASSERT_TRUE(book->addSnapshot("before", 5, Plan{}));
  }
};

TEST_F(FailingDisk, ABookHoldsWhatItSaidItTook) {
  everyCall(
      fmt::format("{} {}", MUFFLE_SESSION, disk("a.muffle")), [&] { freshDisk(); },
      [&](const Ran& ran) {
        std::map<std::string, std::set<std::string>> may; // of each thing what it may be now: what was told last, and what was tried since
        bool opened = false;
        std::istringstream lines(ran.out);
        for (std::string line; std::getline(lines, line);) {
          const bool ok = line.starts_with("ok ");
          std::string step = line.substr(line.find(' ') + 1);
          if (!ok) {
            ASSERT_NE(step.find(": "), std::string::npos) << line;
            EXPECT_GT(step.size() - step.find(": "), 10U) << "with the reason";
            step = step.substr(0, step.find(": "));
          }
          if (step == "open") {
            opened = ok;
            continue;
          }
          const std::string thing = step.substr(0, step.find(' ')), value = step.substr(step.find(' ') + 1);
          if (may[thing].empty()) may[thing].insert("-");
          if (ok) may[thing].clear();
          may[thing].insert(value);
        }
        const auto book = Book::open(disk("a.muffle"), Book::Mode::existing);
        if (!book) {
          EXPECT_FALSE(opened) << english(book.problem());
          EXPECT_FALSE(fs::exists(disk("a.muffle"))) << "nothing half is there: " << english(book.problem());
          return;
        }
        const auto plans = book->plans();
        ASSERT_TRUE(plans) << english(plans.problem());
        const auto logs = book->logs();
        ASSERT_TRUE(logs) << english(logs.problem());
        auto settings = *book->settings();
        const auto is = [&](const char* thing, const std::string& value) {
          EXPECT_TRUE(!may.contains(thing) || may[thing].contains(value)) << thing << " is " << value;
        };
        is("plan", plans->empty() ? "-" : plans->front().plan.name.substr(5));
        is("log", logs->empty() ? "-" : logs->front().log.name.substr(4));
        is("setting", settings.contains("theme") ? settings["theme"] : "-");
        is("snapshot", book->snapshots()->empty() ? "-" : book->snapshots()->front().name);
        if (!logs->empty() && logs->front().log.name == "log 2") is("flags", logs->front().log.channels[1].flag[7] == 2 ? "1" : "-");
        EXPECT_LE(logs->size(), 1U);
      });
}

TEST_F(FailingDisk, AnExportIsWholeOrNotThere) {
  aBook(at("a.muffle"));
  everyCall(
      fmt::format("{} export {} {}", MUFFLE_CLI, at("a.muffle"), disk("out")), [&] { freshDisk(); },
      [&](const Ran& ran) {
        if (ran.code == 0) {
          EXPECT_TRUE(importBook(disk("out"), disk("back.muffle")));
          return;
        }
        EXPECT_NE(ran.errors.find(disk("out")), std::string::npos) << "told, with its name: " << ran.errors;
        EXPECT_FALSE(fs::exists(disk("out/book.json"))) << "without an index nothing is an export";
      });
}

TEST_F(FailingDisk, AnImportIsWholeOrNotThere) {
  aBook(at("a.muffle"));
  ASSERT_TRUE(exportBook(*Book::open(at("a.muffle"), Book::Mode::existing), at("out")));
  everyCall(
      fmt::format("{} import {} {}", MUFFLE_CLI, at("out"), disk("b.muffle")), [&] { freshDisk(); },
      [&](const Ran& ran) {
        if (ran.code == 0) {
          const auto book = Book::open(disk("b.muffle"), Book::Mode::existing);
          ASSERT_TRUE(book) << english(book.problem());
          EXPECT_EQ(book->logs()->size(), 1U);
          return;
        }
        EXPECT_NE(ran.errors.find(disk("b.muffle")), std::string::npos) << ran.errors;
        EXPECT_FALSE(fs::exists(disk("b.muffle")));
      });
}

TEST_F(FailingDisk, ASalvageIsWholeOrNotThereAndTheDamagedBookIsNotTouched) {
  aBook(at("a.muffle"));
  const std::string before = *readFile(at("a.muffle"));
  everyCall(
      fmt::format("{} salvage {} {}", MUFFLE_CLI, at("a.muffle"), disk("b.muffle")), [&] { freshDisk(); },
      [&](const Ran& ran) {
        EXPECT_EQ(*readFile(at("a.muffle")), before);
        if (ran.code == 0) {
          EXPECT_TRUE(Book::open(disk("b.muffle"), Book::Mode::existing));
          return;
        }
        EXPECT_FALSE(ran.errors.empty());
        EXPECT_FALSE(fs::exists(disk("b.muffle")));
      });
}

TEST_F(FailingDisk, AnAnswerWrittenOverAnotherIsTheOneOrTheOther) {
  ASSERT_TRUE(writeFile(at("net.json"), R"({"schema":"muffle-network-1","step_s":60,"end_s":600,"output_every_s":60,
    "nodes":[{"id":"a","capacity_J_K":5000,"initial_C":5},{"id":"o","boundary":{"constant_C":0}}],"links":[{"from":"a","to":"o","conductance_W_K":10}]})"));
  std::string whole;
  everyCall(
      fmt::format("{} network {} --out {}", MUFFLE_CLI, at("net.json"), disk("answer.csv")),
      [&] {
        freshDisk();
        ASSERT_TRUE(writeFile(disk("answer.csv"), "last year's answer\n"));
      },
      [&](const Ran& ran) {
        const std::string now = *readFile(disk("answer.csv"));
        if (whole.empty()) whole = now;
        const bool told = ran.code == 0 ? now == whole : (now == "last year's answer\n" || now == whole) && !ran.errors.empty();
        EXPECT_TRUE(told) << now.substr(0, 60) << ran.errors;
      });
}

} // namespace
} // namespace muffle
