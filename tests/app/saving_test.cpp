// SPDX-License-Identifier: GPL-3.0-or-later
//
// Nothing that a grower does is lost or overwritten: saves that fail are told and kept, a second window follows the first, a damaged book is
// salvaged, earlier states come back.
#include "tests/app/edit_without_end.h"
#include "tests/app/window_fixture.h"

#include "app/stages/earlier_states.h"
#include "app/stages/notice_bar.h"
#include "app/stages/salvage_dialog.h"
#include "words/words.h"

#include <QFileDialog>
#include <QMessageBox>
#include <QTreeWidget>

#include <filesystem>

namespace muffle {
namespace {

namespace fs = std::filesystem;

/// A book whose next writes fail: another connection's lock stands for a disk that takes nothing, for as long as it is held.
class Jam {
public:
  explicit Jam(const QString& path) : m_journal(path.toStdString() + "-journal") { fs::create_directory(m_journal); }
  ~Jam() { fs::remove(m_journal); }

private:
  std::string m_journal; // a folder where SQLite would put its journal: no write can begin, whoever asks
};

class SavingTest : public WindowTest {
protected:
  [[nodiscard]] std::string stored() const { return Book::open(m_path.toStdString(), Book::Mode::existing)->plans()->front().plan.name; }
  void rename(const char* name) {
    ASSERT_FALSE(document->edit(QStringLiteral("rename"), [&](Plan& p) { p.name = name; }));
  }
  NoticeBar* notices() { return window->findChild<NoticeBar*>(); }
  QPushButton* noticeButton(const QString& text) {
    for (QPushButton* b : notices()->findChildren<QPushButton*>())
      if (b->text() == text && b->isVisibleTo(window.get())) return b;
    return nullptr;
  }
  /// Answers the file dialog that comes next.
  void chooseFile(const QString& path) {
    whenAsked<QFileDialog>([path](QFileDialog* dialog) {
      dialog->selectFile(path);
      dialog->findChild<QLineEdit*>()->setText(path);
      static_cast<QDialog*>(dialog)->accept();
    });
  }
};

TEST_F(SavingTest, AFailedSaveStaysInSightAndIsMadeGoodByItself) {
  open();
  ASSERT_TRUE(document->book().waitUntilSaved());
  {
    const Jam jam(m_path);
    rename("first");
    rename("second");
    ASSERT_TRUE(QTest::qWaitFor([&] { return notices()->isVisible(); }, 5000));
    EXPECT_TRUE(window->notice().contains(QStringLiteral("Not saved yet"))) << window->notice().toStdString();
    emit document->told(QStringLiteral("34 steps simulated"));
    QTest::qWait(300);
    EXPECT_TRUE(window->notice().contains(QStringLiteral("Not saved yet"))) << "no progress overwrites it";
    EXPECT_EQ(document->plan().name, "second") << "the edit stands in the window";
  }
  ASSERT_TRUE(QTest::qWaitFor([&] { return !document->book().whyNotSaved(); }, 10000)) << "tried again by itself";
  QCoreApplication::processEvents();
  EXPECT_TRUE(window->notice().isEmpty());
  EXPECT_EQ(stored(), "second");
}

TEST_F(SavingTest, TryAgainSavesAtOnce) {
  open();
  ASSERT_TRUE(document->book().waitUntilSaved());
  {
    const Jam jam(m_path);
    rename("mended");
    ASSERT_TRUE(QTest::qWaitFor([&] { return noticeButton(QStringLiteral("Try again")) != nullptr; }, 5000));
  }
  QTest::mouseClick(noticeButton(QStringLiteral("Try again")), Qt::LeftButton);
  EXPECT_TRUE(QTest::qWaitFor([&] { return !document->book().whyNotSaved(); }, 2000));
  EXPECT_EQ(stored(), "mended");
}

TEST_F(SavingTest, EverythingGoesElsewhereWithTheEditsThatWereNotSaved) {
  open();
  importDemoLog();
  ASSERT_TRUE(document->book().waitUntilSaved());
  const QString elsewhere = m_dir.filePath(QStringLiteral("elsewhere.muffle"));
  const Jam jam(m_path);
  rename("carried over");
  ASSERT_TRUE(QTest::qWaitFor([&] { return noticeButton(QStringLiteral("Save elsewhere…")) != nullptr; }, 5000));
  chooseFile(elsewhere);
  QTest::mouseClick(noticeButton(QStringLiteral("Save elsewhere…")), Qt::LeftButton);
  EXPECT_EQ(document->book().path(), elsewhere);
  EXPECT_TRUE(window->notice().isEmpty()) << window->notice().toStdString();
  rename("and goes on there");
  ASSERT_TRUE(document->book().waitUntilSaved());
  const auto book = Book::open(elsewhere.toStdString(), Book::Mode::existing);
  ASSERT_TRUE(book) << english(book.problem());
  EXPECT_EQ(book->plans()->front().plan.name, "and goes on there");
  EXPECT_EQ(book->logs()->front().log.time.size(), document->readings().log()->time.size());
  document->planInHand().undoStack()->undo();
  document->planInHand().undoStack()->undo();
  EXPECT_NE(document->plan().name, "carried over") << "steps can still be undone";
}

TEST_F(SavingTest, ClosingAsksWhileSomethingIsNotSaved) {
  open();
  ASSERT_TRUE(document->book().waitUntilSaved());
  const Jam jam(m_path);
  rename("nearly lost");
  ASSERT_TRUE(QTest::qWaitFor([&] { return document->book().whyNotSaved().has_value(); }, 5000));
  const auto answer = [&](const QString& with) {
    whenAsked<QMessageBox>([with](QMessageBox* box) {
      for (QAbstractButton* b : box->buttons())
        if (b->text() == with) b->click();
    });
    return window->close();
  };
  EXPECT_FALSE(answer(QStringLiteral("Stay")));
  EXPECT_TRUE(window->isVisible());
  EXPECT_TRUE(answer(QStringLiteral("Lose them")));
}

TEST_F(SavingTest, ARefusalStaysUntilSomethingGoesWell) {
  open();
  emit document->trouble(QStringLiteral("a sentence about a value"));
  emit document->told(QStringLiteral("progress"));
  EXPECT_TRUE(window->notice().contains(QStringLiteral("a sentence about a value")));
  rename("fine");
  EXPECT_TRUE(window->notice().isEmpty());
}

TEST_F(SavingTest, ASecondWindowFollowsTheFirstAndTakesOverWhenItEnds) {
  open();
  auto second = std::make_unique<Document>();
  auto secondWindow = std::make_unique<MainWindow>(*second);
  ASSERT_FALSE(second->openBook(m_path, true));
  secondWindow->show();
  EXPECT_TRUE(second->book().isFollowingWindow());
  EXPECT_TRUE(secondWindow->notice().contains(QStringLiteral("open in another window")));
  EXPECT_TRUE(second->edit(QStringLiteral("rename"), [](Plan& p) { p.name = "from the second"; })) << "refused with a reason";
  second->view().setDark(true); // a look is no change to the book
  rename("from the first");
  importDemoLog();
  ASSERT_TRUE(QTest::qWaitFor([&] { return second->plan().name == "from the first" && second->readings().log(); }, 10000))
      << "what is done there is shown here";
  EXPECT_EQ(second->readings().log()->time.size(), document->readings().log()->time.size());
  EXPECT_EQ(stored(), "from the first");
  close();
  ASSERT_TRUE(QTest::qWaitFor([&] { return !second->book().isFollowingWindow(); }, 5000));
  ASSERT_FALSE(second->edit(QStringLiteral("rename"), [](Plan& p) { p.name = "now mine"; }));
  ASSERT_TRUE(second->book().waitUntilSaved());
  EXPECT_EQ(stored(), "now mine");
  EXPECT_TRUE(secondWindow->notice().isEmpty());
  secondWindow.reset();
  second.reset();
}

TEST_F(SavingTest, ADamagedBookIsSalvagedFromTheWindow) {
  open();
  importDemoLog();
  ASSERT_TRUE(document->book().waitUntilSaved());
  document->book().keepSnapshot(QStringLiteral("by hand"), document->plan());
  ASSERT_TRUE(document->book().waitUntilSaved());
  close();
  std::string bytes = *readFile(m_path.toStdString());
  for (std::size_t i = bytes.size() / 2; i < bytes.size() / 2 + 3000; ++i) bytes[i] = 'x';
  ASSERT_TRUE(writeFile(m_path.toStdString(), bytes));
  document = std::make_unique<Document>();
  window = std::make_unique<MainWindow>(*document);
  window->show();
  EXPECT_FALSE(window->openPath(m_path, true));
  EXPECT_TRUE(window->notice().contains(QStringLiteral("is damaged"))) << window->notice().toStdString();
  const QString to = m_dir.filePath(QStringLiteral("saved.muffle"));
  chooseFile(to);
  QTimer::singleShot(0, window.get(), [&] { QTest::mouseClick(noticeButton(QStringLiteral("Save what can be saved…")), Qt::LeftButton); });
  bool told = false;
  whenAsked<SalvageDialog>([&](SalvageDialog* dialog) {
    told = dialog->findChild<QTreeWidget*>()->topLevelItemCount() >= 2;
    dialog->reject();
  });
  ASSERT_TRUE(QTest::qWaitFor([&] { return told; }, 10000));
  EXPECT_EQ(document->book().path(), to);
  EXPECT_TRUE(document->readings().log()) << "most of its columns are whole";
}

TEST_F(SavingTest, EarlierStatesComeBackWithTheirLogAndCanBeUndone) {
  open();
  importDemoLog();
  const auto rows = document->readings().log()->time.size();
  document->book().keepSnapshot(QStringLiteral("with the demo's log"), document->plan());
  const Log other = numberedLog(500);
  ASSERT_FALSE(document->readings().set(other));
  ASSERT_FALSE(document->edit(QStringLiteral("length"), [](Plan& p) { p.house.shape.length_m = 12.0; }));
  const auto states = document->book().earlierStates();
  ASSERT_GE(states.size(), 2U);
  EarlierStatesDialog dialog(*document, window.get());
  dialog.show();
  auto* list = dialog.list();
  ASSERT_EQ(list->topLevelItemCount(), static_cast<int>(states.size()));
  int row = -1;
  for (int i = 0; i < list->topLevelItemCount(); ++i)
    if (list->topLevelItem(i)->text(1) == QStringLiteral("with the demo's log")) row = i;
  ASSERT_GE(row, 0);
  list->setCurrentItem(list->topLevelItem(row));
  for (QPushButton* b : dialog.findChildren<QPushButton*>())
    if (b->text() == QStringLiteral("Bring it back")) QTest::mouseClick(b, Qt::LeftButton);
  EXPECT_EQ(document->readings().log()->time.size(), rows);
  EXPECT_NE(document->plan().house.shape.length_m, 12.0);
  document->planInHand().undoStack()->undo();
  EXPECT_EQ(document->readings().log()->time.size(), 500U);
  EXPECT_EQ(document->plan().house.shape.length_m, 12.0);
  ASSERT_TRUE(document->book().waitUntilSaved());
  EXPECT_EQ(Book::open(m_path.toStdString(), Book::Mode::existing)->logs()->front().log.time.size(), 500U);
}

} // namespace
} // namespace muffle
