// SPDX-License-Identifier: GPL-3.0-or-later
//
// What is written replaces only what it should, and leaves nothing beside it.
#include "book/book.h"
#include "book/files.h"
#include "tests/support/folder_test.h"
#include "tests/support/seed.h"
#include "words/words.h"

#include <gtest/gtest.h>

#include <fcntl.h>
#include <filesystem>
#include <limits>
#include <random>
#include <sys/stat.h>
#include <thread>
#include <unistd.h>

namespace muffle {
namespace {

namespace fs = std::filesystem;

class Files : public testing::FolderTest {
protected:
  [[nodiscard]] std::size_t inFolder() const { return static_cast<std::size_t>(std::distance(fs::directory_iterator(m_dir), fs::directory_iterator())); }
};

TEST_F(Files, AFileKeepsItsModeAndALinkStaysALink) {
  ASSERT_TRUE(writeFile(at("secret"), "old"));
  fs::permissions(at("secret"), fs::perms::owner_read | fs::perms::owner_write);
  fs::create_symlink("secret", at("link"));
  ASSERT_TRUE(writeFile(at("link"), "new"));
  EXPECT_TRUE(fs::is_symlink(at("link")));
  EXPECT_EQ(*readFile(at("secret")), "new");
  EXPECT_EQ(fs::status(at("secret")).permissions(), fs::perms::owner_read | fs::perms::owner_write);
  fs::create_symlink(at("later"), at("ahead")); // to what is not there yet
  ASSERT_TRUE(writeFile(at("ahead"), "made"));
  EXPECT_EQ(*readFile(at("later")), "made");
  EXPECT_EQ(inFolder(), 4U) << "nothing is left beside them";
}

TEST_F(Files, WhatIsNoOrdinaryFileIsWrittenToAsAStream) {
  ASSERT_TRUE(writeFile("/dev/null", "gone"));
  struct stat now {};
  ASSERT_EQ(::stat("/dev/null", &now), 0);
  EXPECT_TRUE(S_ISCHR(now.st_mode)) << "it is still what it was";
  ASSERT_EQ(::mkfifo(at("pipe").c_str(), 0600), 0);
  std::string got;
  std::thread reader([&] {
    const int pipe = ::open(at("pipe").c_str(), O_RDONLY);
    char buffer[64];
    for (ssize_t n; (n = ::read(pipe, buffer, sizeof buffer)) > 0;) got.append(buffer, static_cast<std::size_t>(n));
    ::close(pipe);
  });
  EXPECT_TRUE(writeFile(at("pipe"), "through the pipe"));
  reader.join();
  EXPECT_EQ(got, "through the pipe");
  EXPECT_TRUE(fs::is_fifo(at("pipe")));
}

TEST_F(Files, WhatCannotBeWrittenIsSaidAndLeavesNothing) {
  fs::create_symlink("two", at("one"));
  fs::create_symlink("one", at("two"));
  const std::string longName(5000, 'x');
  for (const std::string& path : {at("one"), at(longName), at("none/such"), m_dir.string(), std::string("/dev/full")}) {
    const auto written = writeFile(path, std::string(100000, 'y'));
    ASSERT_FALSE(written) << path.substr(0, 40);
    EXPECT_EQ(written.problem().kind, ProblemKind::storage);
    EXPECT_FALSE(readFile(path) && path != "/dev/full") << path.substr(0, 40);
    EXPECT_FALSE(Book::open(path, Book::Mode::create)) << path.substr(0, 40);
  }
  EXPECT_EQ(inFolder(), 2U);
}

TEST_F(Files, ATemporaryFolderGoesWithAllThatIsLeftInIt) {
  {
    auto made = TemporaryFolder::beside(at("target"));
    ASSERT_TRUE(made);
    ASSERT_TRUE(writeFile(made->path() + "/x", "y"));
    EXPECT_EQ(inFolder(), 1U);
  }
  EXPECT_EQ(inFolder(), 0U);
}

TEST_F(Files, AnEmptyFileIsNoBookAndANameIsANameWhateverItIs) {
  ASSERT_TRUE(writeFile(at("empty.muffle"), ""));
  for (const auto mode : {Book::Mode::existing, Book::Mode::create}) {
    const auto opened = Book::open(at("empty.muffle"), mode);
    ASSERT_FALSE(opened);
    EXPECT_NE(english(opened.problem().what).find("empty"), std::string::npos);
  }
  EXPECT_EQ(readFile(at("empty.muffle"))->size(), 0U) << "it was left alone";
  const fs::path before = fs::current_path();
  fs::current_path(m_dir);
  EXPECT_TRUE(Book::open(":memory:", Book::Mode::create));
  EXPECT_TRUE(fs::exists(at(":memory:")));
  fs::current_path(before);
}

class Exports : public Files {
protected:
  void SetUp() override {
    Files::SetUp();
    auto book = Book::open(at("a.muffle"), Book::Mode::create);
    Log log;
    for (int i = 0; i < 50; ++i) log.time.push_back(1'900'000'000 + 600 * i);
    log.channels.push_back({.name = "out",
                            .role = Role::outside,
                            .id = "",
                            .statistic = Statistic::moment,
                            .unitIn = "C",
                            .unitWhy = {},
                            .raw = std::vector<float>(50, 1.0F),
                            .flag = std::vector<std::uint8_t>(50, 0)});
    log.channels[0].flag[3] = log.channels[0].flag[4] = 2;
    ASSERT_TRUE(book->addLog(log));
    ASSERT_TRUE(book->addPlan(Plan{}));
    ASSERT_TRUE(book->addSnapshot("before", 5, Plan{}));
    ASSERT_TRUE(book->saveRecipe({"yard", ';', true, std::nullopt, false, Clockwork::winterTime, {}}));
    ASSERT_TRUE(book->setSetting("theme", "lamp"));
  }
  [[nodiscard]] Status exportTo(const std::string& folder) const { return exportBook(*Book::open(at("a.muffle"), Book::Mode::existing), folder); }
};

TEST_F(Exports, NothingOfAnyoneElsesIsTouched) {
  fs::create_directories(at("out.part"));
  ASSERT_TRUE(writeFile(at("out.part") + "/mine", "mine"));
  ASSERT_TRUE(writeFile(at("b.muffle.part"), "mine too"));
  ASSERT_TRUE(exportTo(at("out")));
  ASSERT_TRUE(importBook(at("out"), at("b.muffle")));
  EXPECT_EQ(*readFile(at("out.part") + "/mine"), "mine");
  EXPECT_EQ(*readFile(at("b.muffle.part")), "mine too");
  EXPECT_EQ(inFolder(), 5U) << "two books, the export, and what was there";
}

TEST_F(Exports, AFolderMayBeNamedInAnyWay) {
  ASSERT_TRUE(exportTo(at("slash/")));
  EXPECT_TRUE(fs::exists(at("slash/book.json")));
  fs::create_directories(at("there"));
  ASSERT_TRUE(exportTo(at("there")));
  EXPECT_TRUE(fs::exists(at("there/book.json")));
  fs::create_directories(at("here"));
  const fs::path before = fs::current_path();
  fs::current_path(at("here"));
  EXPECT_TRUE(exportTo("."));
  fs::current_path(before);
  EXPECT_TRUE(importBook(at("here"), at("back.muffle")));
  ASSERT_TRUE(exportTo(at("deep/er/one")));
}

TEST_F(Exports, DamagedOnesAreRefusedByNameAndLeaveNothing) {
  ASSERT_TRUE(exportTo(at("out")));
  const std::string index = *readFile(at("out/book.json"));
  const auto with = [&](const std::string& from, const std::string& to) {
    Json json = *parseJson(index);
    json["logs"][0]["channels"][0][from] = Json::parse(to);
    EXPECT_TRUE(writeFile(at("out/book.json"), json.dump()));
    const auto read = importBook(at("out"), at("c.muffle"));
    EXPECT_FALSE(read) << from << " " << to;
    EXPECT_FALSE(fs::exists(at("c.muffle")));
  };
  for (const char* flags :
       {"[[18446744073709551615,2,9]]", "[[-1,2,9]]", "[[]]", "[[3,2]]", "[[3,2,99]]", "[[49,2,2]]", "[5]", R"([["a",1,1]])", "[[1e300,1,1]]"})
    with("flags", flags);
  for (const char* role : {"-1", "11", "4000000000", "\"x\""}) with("role", role);
  with("statistic", "7");
  ASSERT_TRUE(writeFile(at("out/book.json"), index));
  const std::string table = *readFile(at("out/log-1.csv"));
  for (const std::string& rows : {std::string("utc_s,0\n"), std::string("utc_s,0\n253402300000,1\n"), std::string("utc_s,0\n-9000000000000,1\n5,2\n"),
                                  std::string("utc_s,0\n5,1\n5,2\n")}) {
    ASSERT_TRUE(writeFile(at("out/log-1.csv"), rows));
    EXPECT_FALSE(importBook(at("out"), at("c.muffle"))) << rows;
  }
  ASSERT_TRUE(writeFile(at("out/log-1.csv"), table));
  EXPECT_TRUE(importBook(at("out"), at("c.muffle")));
}

/// Changes one value somewhere in a document: another kind, another number, gone, doubled.
void alterOneValue(Json& json, std::mt19937& random) {
  Json* at = &json;
  for (int depth = 0; depth < 8 && at->is_structured() && !at->empty(); ++depth) {
    if (random() % 4 == 0 && depth > 0) break;
    const auto nth = static_cast<std::ptrdiff_t>(random() % at->size());
    if (at->is_object() && random() % 12 == 0) {
      at->erase(std::next(at->begin(), nth));
      return;
    }
    at = &*std::next(at->begin(), nth);
  }
  switch (random() % 8) {
  case 0: *at = nullptr; break;
  case 1: *at = -1; break;
  case 2: *at = 1e300; break;
  case 3: *at = "x"; break;
  case 4: *at = Json::array(); break;
  case 5: *at = Json::object(); break;
  case 6: *at = std::numeric_limits<std::uint64_t>::max(); break;
  default: *at = true; break;
  }
}

TEST_F(Exports, AnAlteredExportIsRefusedInOurOwnWordsOrMakesASoundBook) {
  ASSERT_TRUE(exportTo(at("out")));
  const std::string index = *readFile(at("out/book.json"));
  std::mt19937 random(testing::seed(8));
  int refused = 0, taken = 0;
  for (int i = 0; i < 600; ++i) {
    Json json = *parseJson(index);
    alterOneValue(json, random);
    if (json.dump() == parseJson(index)->dump()) continue;
    ASSERT_TRUE(writeFile(at("out/book.json"), json.dump()));
    const auto read = importBook(at("out"), at("c.muffle"));
    if (!read) {
      ++refused;
      EXPECT_FALSE(fs::exists(at("c.muffle")));
      for (const Problem& p : read.problems()) {
        EXPECT_EQ(english(p).find("exception"), std::string::npos) << english(p);
        EXPECT_EQ(english(p).find("[json"), std::string::npos) << english(p);
        EXPECT_FALSE(p.allowed.empty()) << english(p);
      }
      continue;
    }
    ++taken;
    const auto book = Book::open(at("c.muffle"), Book::Mode::existing);
    ASSERT_TRUE(book) << english(book.problem());
    EXPECT_TRUE(book->plans());
    EXPECT_TRUE(book->logs());
    fs::remove_all(at("again"));
    EXPECT_TRUE(exportBook(*book, at("again")));
    fs::remove(at("c.muffle"));
  }
  EXPECT_GT(refused, 200) << taken;
}

} // namespace
} // namespace muffle
