// SPDX-License-Identifier: GPL-3.0-or-later
//
// Earlier states: the last ten are there, older ones thin out, and what they hold comes back whole.
#include "book/snapshots.h"

#include "book/lock.h"
#include "core/plan/plan_json.h"
#include "tests/support/folder_test.h"
#include "words/words.h"

#include <csignal>
#include <sys/wait.h>
#include <unistd.h>

namespace muffle {
namespace {

constexpr UtcSeconds kOneDay_s = 86400;

std::vector<Snapshot> statesEvery(UtcSeconds step_s, int count, bool byHand = false) {
  std::vector<Snapshot> all;
  for (int i = 0; i < count; ++i) all.push_back({.id = i + 1, .name = "", .at = 1'700'000'000 + i * step_s, .planJson = "", .byHand = byHand});
  return all;
}

TEST(Snapshots, TheLastTenStatesStayWhateverTheirAge) {
  const auto tenOld = statesEvery(60, 10);
  EXPECT_TRUE(outdatedSnapshots(tenOld, tenOld.back().at + 3000 * kOneDay_s).empty());
  const auto busy = statesEvery(60, 200); // one evening
  const auto gone = outdatedSnapshots(busy, busy.back().at);
  for (const RowId id : gone) EXPECT_LE(id, 190);
  EXPECT_GE(gone.size(), 188U) << "of one evening little more than the last ten is kept";
}

TEST(Snapshots, OfEachDayAndMonthBeforeTheLastIsKept) {
  const auto all = statesEvery(kOneDay_s / 4, 4 * 500);
  const UtcSeconds now = all.back().at;
  const auto gone = outdatedSnapshots(all, now);
  std::set<UtcSeconds> days, months;
  std::size_t kept = 0;
  for (const Snapshot& s : all) {
    if (std::find(gone.begin(), gone.end(), s.id) != gone.end()) continue;
    ++kept;
    if (now - s.at < 14 * kOneDay_s) days.insert(s.at / kOneDay_s);
    months.insert(s.at / (30 * kOneDay_s));
  }
  EXPECT_GE(days.size(), 14U);
  EXPECT_GE(months.size(), 12U);
  EXPECT_LE(kept, 40U);
}

TEST(Snapshots, ThoseAskedForByHandAreCountedByThemselves) {
  const auto all = statesEvery(60, 130, true);
  const auto gone = outdatedSnapshots(all, all.back().at);
  EXPECT_EQ(gone.size(), 30U);
  for (const RowId id : gone) EXPECT_LE(id, 30);
}

TEST(Snapshots, HeldLogsAreBoundByNumberAndSize) {
  std::vector<HeldLog> small, large;
  for (int i = 1; i <= 14; ++i) small.push_back({i, 1000}), small.push_back({i, 1000}), large.push_back({i, 20LL << 20});
  EXPECT_EQ(outdatedLogs(small), (std::set<RowId>{11, 12, 13, 14}));
  EXPECT_EQ(outdatedLogs(large).size(), 11U) << "three times 20 MiB go into 64";
}

class StatesTest : public testing::FolderTest {
protected:
  static Plan plan(const std::string& name) {
    Plan p;
    p.name = name;
    return p;
  }
  static Log log(const std::string& name, int rows) {
    Log l;
    l.name = name;
    Channel c;
    c.role = Role::outside;
    for (int i = 0; i < rows; ++i) l.time.push_back(600 * i), c.raw.push_back(static_cast<float>(i % 97));
    c.flag.assign(c.raw.size(), 0);
    l.channels = {c};
    return l;
  }
};

TEST_F(StatesTest, AStateBringsBackPlanLogAndDecisions) {
  auto book = std::move(*Book::open(at("a.muffle"), Book::Mode::create));
  Log first = log("first", 50);
  first.decisions = {{Verdict::setAside, Flag::byHand, 0, 0, 600}};
  ASSERT_TRUE(book.replaceLogs(&first));
  ASSERT_GT(*book.keepState("opened", 1000, plan("a")), 0);
  EXPECT_EQ(*book.keepState("opened", 1001, plan("a")), 0) << "nothing has changed";
  Log decided = first;
  decided.decisions.clear();
  ASSERT_TRUE(book.saveFlags(*book.newestLog(), decided));
  ASSERT_GT(*book.keepState("opened", 1002, plan("a")), 0) << "another word on the log is another state";
  const Log second = log("second", 70);
  ASSERT_TRUE(book.replaceLogs(&second));
  EXPECT_EQ(book.logs()->size(), 1U);
  EXPECT_EQ(book.logs()->front().log.name, "second");
  const auto states = *book.snapshots();
  ASSERT_EQ(states.size(), 2U);
  const auto back = book.logOf(states[0]);
  ASSERT_TRUE(back) << english(back.problem());
  EXPECT_EQ(back->name, "first");
  EXPECT_EQ(back->channels[0].raw, first.channels[0].raw);
  EXPECT_EQ(back->decisions, first.decisions);
  EXPECT_TRUE(book.logOf(states[1])->decisions.empty());
  // and by way of an export
  ASSERT_TRUE(exportBook(book, at("out")));
  ASSERT_TRUE(importBook(at("out"), at("b.muffle")));
  const auto other = Book::open(at("b.muffle"), Book::Mode::existing);
  ASSERT_TRUE(other) << english(other.problem());
  ASSERT_EQ(other->logs()->size(), 1U);
  EXPECT_EQ(other->logs()->front().log.name, "second");
  EXPECT_EQ(other->logOf((*other->snapshots())[0])->decisions, first.decisions);
}

TEST_F(StatesTest, TheFirstStatesLogGivesWayAndItsPlanStays) {
  auto book = std::move(*Book::open(at("a.muffle"), Book::Mode::create));
  for (int i = 0; i < 13; ++i) {
    const Log l = log("log " + std::to_string(i), 20 + i);
    ASSERT_TRUE(book.replaceLogs(&l));
    ASSERT_TRUE(book.keepState("import", 1'700'000'000 + i * 30 * kOneDay_s, plan("plan " + std::to_string(i))));
  }
  const auto states = *book.snapshots();
  ASSERT_GE(states.size(), 12U);
  const auto& oldest = states.front();
  EXPECT_EQ(oldest.log, 0);
  EXPECT_FALSE(oldest.logName.empty());
  EXPECT_FALSE(book.logOf(oldest));
  EXPECT_TRUE(planFromJson(*parseJson(oldest.planJson)));
  EXPECT_TRUE(book.logOf(states[states.size() - 5]));
  EXPECT_EQ(book.keptLogs()->size(), 10U);
}

TEST_F(StatesTest, OneWindowHoldsABookUntilItEndsHoweverItEnds) {
  ASSERT_TRUE(Book::open(at("a.muffle"), Book::Mode::create));
  {
    const auto mine = BookLock::take(at("a.muffle"));
    ASSERT_TRUE(mine);
    EXPECT_FALSE(BookLock::take(at("a.muffle")));
    auto book = Book::open(at("a.muffle"), Book::Mode::existing);
    ASSERT_TRUE(book) << "reading and our own writing go on";
    EXPECT_TRUE(book->setSetting("x", "y"));
  }
  EXPECT_TRUE(BookLock::take(at("a.muffle")));
  int ready[2];
  ASSERT_EQ(::pipe(ready), 0);
  const pid_t child = ::fork();
  if (child == 0) {
    const auto held = BookLock::take(at("a.muffle"));
    (void)!::write(ready[1], held ? "y" : "n", 1);
    ::pause();
    ::_exit(0);
  }
  char answer = 0;
  ASSERT_EQ(::read(ready[0], &answer, 1), 1);
  EXPECT_EQ(answer, 'y');
  EXPECT_FALSE(BookLock::take(at("a.muffle")));
  ::kill(child, SIGKILL);
  ::waitpid(child, nullptr, 0);
  EXPECT_TRUE(BookLock::take(at("a.muffle"))) << "a crash leaves nothing behind";
  ::close(ready[0]);
  ::close(ready[1]);
}

} // namespace
} // namespace muffle
