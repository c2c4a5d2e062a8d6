// SPDX-License-Identifier: GPL-3.0-or-later
//
// muffle-session BOOK: an evening's changes to a book, one after the other, each told on standard output once it is made: "ok STEP" or "failed
// STEP: why". What fails is not tried again; the rest goes on. For tests that pull the disk away from under it.
#include "book/book.h"
#include "words/words.h"

#include <cstdio>

using namespace muffle;

namespace {

Plan planNamed(const char* name) {
  Plan plan;
  plan.name = name;
  return plan;
}

Log logNamed(const char* name, int rows) {
  Log log;
  log.name = name;
  Channel c;
  c.role = Role::outside;
  for (int i = 0; i < rows; ++i) log.time.push_back(1'900'000'000 + 600 * i), c.raw.push_back(static_cast<float>(i % 41));
  c.flag.assign(c.raw.size(), 0);
  log.channels = {c, c};
  return log;
}

template <class Outcome> bool told(const char* step, const Outcome& outcome) {
  if (outcome)
    std::printf("ok %s\n", step);
  else
    std::printf("failed %s: %s\n", step, english(outcome.problem()).c_str());
  std::fflush(stdout);
  return static_cast<bool>(outcome);
}

} // namespace

int main(int argc, char** argv) {
  if (argc != 2) return 2;
  auto book = Book::open(argv[1], Book::Mode::create);
  if (!told("open", book)) return 3;
  book->setPatience(100);
  const auto id = book->addPlan(planNamed("plan 0"));
  if (!told("plan 0", id)) return 3;
  told("plan 1", book->savePlan(*id, planNamed("plan 1")));
  const Log first = logNamed("log 1", 400);
  told("log 1", book->replaceLogs(&first));
  told("setting 1", book->setSetting("theme", "1"));
  told("snapshot 1", book->addSnapshot("1", 1'900'000'000, planNamed("plan 1")));
  const Log second = logNamed("log 2", 900);
  told("log 2", book->replaceLogs(&second));
  if (const auto newest = book->newestLog(); newest && *newest > 0) {
    Log flagged = second;
    flagged.channels[1].flag[7] = 2;
    told("flags 1", book->saveFlags(*newest, flagged));
  }
  told("plan 2", book->savePlan(*id, planNamed("plan 2")));
  told("setting 2", book->setSetting("theme", "2"));
  return 0;
}
