// SPDX-License-Identifier: GPL-3.0-or-later
//
// The window killed at any moment, and books damaged anywhere. How often is set by MUFFLE_KILLS and MUFFLE_DAMAGED; scripts/attack asks for many.
#include "app/pictures/waiting.h"
#include "tests/app/edit_without_end.h"
#include "tests/app/window_fixture.h"
#include "tests/support/seed.h"
#include "words/words.h"

#include <cctype>
#include <cmath>
#include <csignal>
#include <cstdlib>
#include <poll.h>
#include <random>
#include <sstream>
#include <sys/wait.h>
#include <unistd.h>

namespace muffle {
namespace {

int howMany(const char* name, int usually) {
  const char* asked = std::getenv(name);
  return asked ? std::max(1, std::atoi(asked)) : usually;
}

class Attacked : public WindowTest {};

TEST_F(Attacked, KilledAtAnyMomentTheWindowLosesNothingThatItSaved) {
  const int kills = howMany("MUFFLE_KILLS", 8);
  std::mt19937 random(testing::seed(21));
  int met = 0;
  for (int i = 0; i < kills; ++i) {
    int told[2];
    std::string said;
    ASSERT_EQ(::pipe(told), 0);
    const pid_t child = ::fork();
    if (child == 0) {
      ::dup2(told[1], STDOUT_FILENO);
      ::close(told[0]);
      ::execl("/proc/self/exe", "muffle_app_tests", "--edit-without-end", m_path.toLocal8Bit().constData(), nullptr);
      ::_exit(9);
    }
    ::close(told[1]);
    while (i % 5 != 0 && said.find('\n') == std::string::npos) { // every fifth is ended while it opens, the others once an edit is saved
      pollfd waiting{told[0], POLLIN, 0};
      char c = 0;
      if (::poll(&waiting, 1, 20000) <= 0 || ::read(told[0], &c, 1) <= 0) break;
      said += c;
    }
    ::usleep(static_cast<useconds_t>(random() % 700000));
    ::kill(child, SIGKILL);
    int status = 0;
    ::waitpid(child, &status, 0);
    ASSERT_TRUE(WIFSIGNALED(status)) << "it ended by itself: " << WEXITSTATUS(status);
    char buffer[4096];
    for (ssize_t n = 0; (n = ::read(told[0], buffer, sizeof buffer)) > 0;) said.append(buffer, static_cast<std::size_t>(n));
    ::close(told[0]);
    int last = 0; // the last that was in the book for certain
    std::istringstream lines(said);
    for (std::string line; std::getline(lines, line);)
      if (!line.empty() && line.find_first_not_of("0123456789") == std::string::npos) last = std::atoi(line.c_str());
    const auto book = Book::open(m_path.toStdString(), Book::Mode::existing);
    ASSERT_TRUE(book) << "kill " << i << ": " << english(book.problem());
    const Plan plan = book->plans()->front().plan;
    const auto length = static_cast<int>(std::lround(plan.house.shape.length_m));
    if (last > 0) {
      ++met;
      EXPECT_DOUBLE_EQ(plan.house.airChanges_per_h, length / 100.0) << "kill " << i;
      const int since = (length - last + 190) % 190;
      EXPECT_LE(since, 1) << "kill " << i << ": " << last << " was saved, " << length << " is there";
    }
    const auto logs = book->logs();
    ASSERT_TRUE(logs) << english(logs.problem());
    ASSERT_LE(logs->size(), 1U);
    EXPECT_TRUE(logs->empty() || logs->front().log.name == std::to_string(logs->front().log.time.size())) << "whole";
  }
  std::printf("%d kills, %d of them after edits were saved\n", kills, met);
  EXPECT_GT(met, 0);
}

TEST_F(Attacked, ADamagedBookIsRefusedOrOpenedAndNeverEndsTheWindow) {
  {
    auto book = Book::open(m_path.toStdString(), Book::Mode::existing);
    ASSERT_TRUE(book->addLog(numberedLog(800)));
    ASSERT_TRUE(book->addSnapshot("before", 5, book->plans()->front().plan));
  }
  const std::string whole = *readFile(m_path.toStdString());
  std::mt19937 random(testing::seed(5));
  int refused = 0, opened = 0;
  Document shown;
  MainWindow above(shown);
  above.setRemembersBooks(false);
  above.show();
  const int copies = howMany("MUFFLE_DAMAGED", 30);
  for (int i = 0; i < copies; ++i) {
    std::string bytes = whole;
    switch (i % 4) {
    case 0: bytes[random() % bytes.size()] ^= static_cast<char>(1 << (random() % 8)); break;
    case 1: bytes.resize(random() % bytes.size()); break;
    case 2:
      for (std::size_t k = 0, at = random() % (bytes.size() - 600); k < 600; ++k) bytes[at + k] = static_cast<char>(random());
      break;
    default: bytes[random() % 100] = static_cast<char>(random()); break; // the heading
    }
    const QString path = m_dir.filePath(QStringLiteral("damaged-%1.muffle").arg(i));
    ASSERT_TRUE(writeFile(path.toStdString(), bytes));
    if (above.openPath(path, false)) {
      ++opened;
      waitForResult(shown, 3000);
    } else {
      ++refused;
      EXPECT_FALSE(above.notice().isEmpty()) << "with the reason";
    }
    QCoreApplication::processEvents();
    QFile::remove(path);
  }
  std::printf("%d damaged books: %d refused, %d whole where it matters\n", copies, refused, opened);
  EXPECT_GT(refused, copies / 4);
}

TEST_F(Attacked, NamesThatCannotBeOpenedAreSaid) {
  open();
  const QString loop = m_dir.filePath(QStringLiteral("loop.muffle"));
  ASSERT_EQ(::symlink(loop.toLocal8Bit().constData(), loop.toLocal8Bit().constData()), 0);
  for (const QString& name : {loop, QString(5000, QLatin1Char('n')), QStringLiteral("/proc/self/mem"), QStringLiteral("/dev/null"), m_dir.path(), QString()}) {
    EXPECT_FALSE(window->openPath(name, false)) << name.left(40).toStdString();
    EXPECT_FALSE(window->notice().isEmpty()) << name.left(40).toStdString();
    EXPECT_EQ(document->book().path(), m_path) << "the open book stays";
  }
}

} // namespace
} // namespace muffle
