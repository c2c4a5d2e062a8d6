// SPDX-License-Identifier: GPL-3.0-or-later
//
// The log in the window: files of several kinds, what was found in them, nights, readings by hand, a file that grows.
#include "app/pictures/waiting.h"
#include "tests/app/window_fixture.h"

#include "app/stages/hand_sheet.h"
#include "app/stages/log_stage.h"
#include "app/stages/plot.h"

#include <QAbstractItemModelTester>
#include <QComboBox>
#include <QFile>
#include <QLineEdit>
#include <QPlainTextEdit>
#include <QProcess>
#include <QTableView>
#include <QTcpServer>
#include <QTcpSocket>
#include <QTreeWidget>

namespace muffle {
namespace {

class LogTest : public WindowTest {
protected:
  QString write(const char* name, const QByteArray& text, QIODevice::OpenMode mode = QIODevice::WriteOnly) {
    QFile file(m_dir.filePath(QLatin1String(name)));
    EXPECT_TRUE(file.open(mode));
    file.write(text);
    return file.fileName();
  }
  static QByteArray rows(int from, int to) {
    QByteArray text;
    for (int i = from; i < to; ++i)
      text += QStringLiteral("2031-01-%1 %2:00,%3,%4\n")
                  .arg(5 + i / 24, 2, 10, QLatin1Char('0'))
                  .arg(i % 24, 2, 10, QLatin1Char('0'))
                  .arg(-4.0 + 0.1 * (i % 24))
                  .arg(3.5)
                  .toUtf8();
    return text;
  }
  void press(QDialog* dialog, const QString& text) {
    for (QPushButton* b : dialog->findChildren<QPushButton*>())
      if (b->text() == text) {
        ASSERT_TRUE(b->isEnabled()) << b->toolTip().toStdString();
        QTest::mouseClick(b, Qt::LeftButton);
        return;
      }
    FAIL() << "no button " << text.toStdString();
  }
  std::size_t readings() const { return document->readings().log() ? document->readings().log()->time.size() : 0; }
};

TEST_F(LogTest, WhatIsFoundCanBeAnsweredAndUndone) {
  open();
  importWholeDemoLog();
  window->showStage(LogStage::kId);
  QTest::qWait(20);
  QTreeWidget* tree = find<LogStage>()->readings().faults().tree();
  QTreeWidgetItem* sun = nullptr;
  for (int i = 0; i < tree->topLevelItemCount(); ++i)
    if (tree->topLevelItem(i)->text(0).startsWith(QStringLiteral("sun on the sensor"))) sun = tree->topLevelItem(i);
  ASSERT_NE(sun, nullptr);
  ASSERT_GE(sun->childCount(), 10) << "the generator put the sensor in the sun for twelve days";
  const auto flagged = [&] {
    int n = 0;
    for (const std::uint8_t f : document->readings().log()->find(Role::outside)->flag) n += f == static_cast<std::uint8_t>(Flag::sun) ? 1 : 0;
    return n;
  };
  const int before = flagged();
  EXPECT_GT(before, 100);
  tree->setCurrentItem(sun); // the whole kind
  QTest::mouseClick(button(QStringLiteral("Use these readings")), Qt::LeftButton);
  ASSERT_TRUE(waitForResult(*document));
  EXPECT_EQ(flagged(), 0);
  EXPECT_EQ(document->planInHand().undoStack()->undoText(), QStringLiteral("use readings after all"));
  document->planInHand().undoStack()->undo();
  ASSERT_TRUE(waitForResult(*document));
  EXPECT_EQ(flagged(), before);
  document->planInHand().undoStack()->redo();
  ASSERT_TRUE(waitForResult(*document));
  close(); // saved with the book
  open();
  ASSERT_TRUE(waitForResult(*document));
  EXPECT_EQ(flagged(), 0);
  EXPECT_GE(document->readings().log()->decisions.size(), 10U);
}

TEST_F(LogTest, TheNightsTableSortsAndPassesTheModelTester) {
  open();
  importDemoLog();
  window->showStage(LogStage::kId);
  find<LogStage>()->showPage(LogStage::Page::nights);
  QTest::qWait(20);
  QTableView* table = find<LogStage>()->nights().table();
  const QAbstractItemModelTester tester(table->model(), QAbstractItemModelTester::FailureReportingMode::Fatal);
  EXPECT_EQ(table->model()->rowCount(), static_cast<int>(document->readings().nights().size()));
  table->sortByColumn(NightsModel::outsideLow, Qt::AscendingOrder);
  double before = -1e9;
  for (int row = 0; row < table->model()->rowCount(); ++row) {
    const QVariant low = table->model()->index(row, NightsModel::outsideLow).data(NightsModel::SortRole);
    if (!low.isValid()) continue;
    ASSERT_GE(low.toDouble(), before) << "as numbers, not as text";
    before = low.toDouble();
  }
  // a click chooses the night everywhere
  const QModelIndex coldest = table->model()->index(0, NightsModel::night);
  QTest::mouseClick(table->viewport(), Qt::LeftButton, {}, table->visualRect(coldest).center());
  ASSERT_TRUE(document->view().selectedDate());
  double low = 1e9;
  Date date;
  for (const Night& n : document->readings().nights())
    if (n.outsideLow && n.outsideLow->value < low) low = n.outsideLow->value, date = n.date;
  EXPECT_EQ(*document->view().selectedDate(), date);
}

TEST_F(LogTest, ScrubbingTheClockDrawsNoChartOfTheNightsAnew) {
  open();
  importDemoLog();
  window->showStage(LogStage::kId);
  find<LogStage>()->showPage(LogStage::Page::nights);
  QTest::qWait(20);
  int drawn = 0;
  for (Plot* plot : find<LogStage>()->nights().findChildren<Plot*>()) QObject::connect(plot, &QCustomPlot::afterReplot, window.get(), [&] { ++drawn; });
  for (const double clock : {0.3, 0.4, 0.5, 0.6}) document->view().setClock(clock);
  document->view().selectNight(40);
  QCoreApplication::processEvents();
  EXPECT_EQ(drawn, 0) << "nothing of it hangs on the night in sight";
  document->view().setUnits({true, true});
  QCoreApplication::processEvents();
  EXPECT_GT(drawn, 0);
}

TEST_F(LogTest, TheCalendarIsWalkedByKeys) {
  open();
  importWholeDemoLog();
  window->showStage(LogStage::kId);
  find<LogStage>()->showPage(LogStage::Page::nights);
  find<LogStage>()->nights().show(NightsPage::View::calendar);
  QTest::qWait(20);
  auto* calendar = find<CalendarView>();
  const NightCalendar layout = calendar->layoutNow();
  QTest::mouseClick(calendar, Qt::LeftButton, {}, layout.squareOf(100).center().toPoint());
  EXPECT_EQ(*document->view().selectedDate(), document->readings().nights()[100].date);
  QTest::keyClick(calendar, Qt::Key_Right);
  EXPECT_EQ(*document->view().selectedDate(), document->readings().nights()[101].date);
  for (int i = 0; i < static_cast<int>(document->readings().nights().size()); ++i)
    ASSERT_EQ(layout.nightAt(layout.squareOf(i).center()), i) << "what is drawn is what is hit";
}

TEST_F(LogTest, TheColdestOfEachWinterGiveTheNightToDesignFor) {
  open();
  importDemoLog();
  window->showStage(LogStage::kId);
  find<LogStage>()->showPage(LogStage::Page::nights);
  find<LogStage>()->nights().show(NightsPage::View::often);
  QTest::qWait(20);
  QLineEdit* list = nullptr;
  for (QLineEdit* e : window->findChildren<QLineEdit*>())
    if (e->accessibleName() == QStringLiteral("The coldest of each winter")) list = e;
  ASSERT_NE(list, nullptr);
  list->setFocus();
  list->setText(QStringLiteral("-9 -14 -7,5 x"));
  emit list->editingFinished();
  EXPECT_TRUE(document->plan().site.annualLows_C.empty()) << "nothing is taken from a list with a mistake in it";
  list->setText(QStringLiteral("-9 -14 -7,5 -11 -16"));
  emit list->editingFinished();
  EXPECT_EQ(document->plan().site.annualLows_C, (std::vector<double>{-9.0, -14.0, -7.5, -11.0, -16.0}));
  document->planInHand().undoStack()->undo();
  EXPECT_TRUE(document->plan().site.annualLows_C.empty());
}

TEST_F(LogTest, ASecondFileAddsOnlyWhatIsNewAndUndoTakesItAway) {
  open();
  const QString first = write("first.csv", "Time,Outside C,House C\n" + rows(0, 60)), second = write("second.csv", "Time,Outside C,House C\n" + rows(40, 90));
  whenAsked<ImportDialog>([this](ImportDialog* d) { press(d, QStringLiteral("Keep this log")); });
  ASSERT_TRUE(window->importFile(first));
  ASSERT_TRUE(waitForResult(*document));
  EXPECT_EQ(readings(), 60U);
  QString said;
  QObject::connect(document.get(), &Document::told, window.get(), [&](const QString& text) { said = text; });
  whenAsked<ImportDialog>([this](ImportDialog* d) { press(d, QStringLiteral("Add to the log")); });
  ASSERT_TRUE(window->importFile(second));
  EXPECT_TRUE(said.startsWith(QStringLiteral("60 new readings; 40 were there already"))) << said.toStdString();
  ASSERT_TRUE(waitForResult(*document));
  EXPECT_EQ(readings(), 90U);
  document->planInHand().undoStack()->undo();
  ASSERT_TRUE(waitForResult(*document));
  EXPECT_EQ(readings(), 60U);
}

TEST_F(LogTest, ARecipeReadsTheNextFileOfItsKind) {
  open();
  const QString first = write("a.csv", "when,A,B\n" + rows(0, 60)), second = write("b.csv", "when,A,B\n" + rows(60, 80));
  whenAsked<ImportDialog>([this](ImportDialog* d) {
    const auto choose = [d](const QString& name, const QString& text) {
      for (QComboBox* box : d->findChildren<QComboBox*>())
        if (box->accessibleName() == name) {
          box->setCurrentText(text);
          emit box->activated(box->currentIndex());
          QTest::qWait(20); // the table is made anew
          return;
        }
      FAIL() << name.toStdString();
    };
    choose(QStringLiteral("Meaning of A"), QStringLiteral("outside"));
    choose(QStringLiteral("Meaning of B"), QStringLiteral("house air"));
    for (QLineEdit* e : d->findChildren<QLineEdit*>())
      if (e->accessibleName() == QStringLiteral("Name of the recipe")) e->setText(QStringLiteral("yard logger"));
    press(d, QStringLiteral("Keep this log"));
  });
  ASSERT_TRUE(window->importFile(first));
  ASSERT_NE(document->readings().log()->find(Role::outside), nullptr);
  ASSERT_EQ(document->book().recipes().size(), 1U);
  whenAsked<ImportDialog>([this](ImportDialog* d) {
    EXPECT_NE(d->read()->log.find(Role::outside), nullptr) << "as the recipe says, without a word";
    press(d, QStringLiteral("Add to the log"));
  });
  ASSERT_TRUE(window->importFile(second));
  EXPECT_EQ(readings(), 80U);
}

TEST_F(LogTest, ADegreeThatCouldBeEitherIsAsked) {
  open();
  QByteArray text = "Time,Outside,House\n";
  for (int i = 0; i < 40; ++i)
    text += QStringLiteral("2031-01-%1 12:00,%2,%3\n").arg(1 + i % 28, 2, 10, QLatin1Char('0')).arg(20 + i % 5).arg(28 + i % 7).toUtf8();
  const QString path = write("unmarked.csv", text);
  whenAsked<ImportDialog>([this](ImportDialog* d) {
    const auto keep = [d] {
      for (QPushButton* b : d->findChildren<QPushButton*>())
        if (b->text() == QStringLiteral("Keep this log")) return b;
      return static_cast<QPushButton*>(nullptr);
    };
    EXPECT_FALSE(keep()->isEnabled()) << "20 to 24 may be a mild day or a hard frost";
    for (QComboBox* box : d->findChildren<QComboBox*>())
      if (box->accessibleName() == QStringLiteral("Unmarked degrees")) {
        box->setCurrentIndex(2);
        emit box->activated(2);
      }
    EXPECT_TRUE(keep()->isEnabled());
    press(d, QStringLiteral("Keep this log"));
  });
  ASSERT_TRUE(window->importFile(path));
  EXPECT_NEAR(static_cast<double>(document->readings().log()->find(Role::outside)->raw[0]), -20.0 / 3.0, 0.01) << "20 °F";
}

TEST_F(LogTest, ReadingsAreTypedAndUnderstoodAsTheyAreTyped) {
  open();
  whenAsked<HandSheetDialog>([this](HandSheetDialog* d) {
    QTest::keyClicks(d->lines(), QStringLiteral("17.1.2031"));
    QTest::keyClick(d->lines(), Qt::Key_Return);
    QTest::keyClicks(d->lines(), QStringLiteral("7:10 -4 / 2.5"));
    EXPECT_EQ(d->sheet().readings.size(), 1U);
    QTest::keyClick(d->lines(), Qt::Key_Return);
    QTest::keyClicks(d->lines(), QStringLiteral("8:10 much colder"));
    EXPECT_EQ(d->sheet().problems.size(), 1U);
    press(d, QStringLiteral("Keep the 1 that are understood"));
  });
  ASSERT_TRUE(window->writeByHand());
  ASSERT_EQ(readings(), 1U);
  EXPECT_NEAR(static_cast<double>(document->readings().log()->find(Role::room)->raw[0]), 2.5, 1e-6);
  EXPECT_EQ(document->planInHand().undoStack()->undoText(), QStringLiteral("readings by hand"));
  document->planInHand().undoStack()->undo();
  EXPECT_EQ(readings(), 0U);
}

TEST_F(LogTest, AGrowingFileIsFollowedLineByWholeLine) {
  open();
  const QString path = write("live.csv", "Time,Outside C,House C\n" + rows(0, 30));
  window->followFile(path);
  const auto waitFor = [&](std::size_t n) {
    for (int i = 0; i < 400 && readings() != n; ++i) QTest::qWait(20);
    return readings();
  };
  EXPECT_EQ(waitFor(30), 30U);
  const QByteArray next = rows(30, 40);
  const auto torn = next.indexOf('\n') + 12; // a line and a half
  write("live.csv", next.left(torn), QIODevice::Append);
  EXPECT_EQ(waitFor(31), 31U) << "the half line waits for its end";
  QTest::qWait(200);
  EXPECT_EQ(readings(), 31U);
  write("live.csv", next.mid(torn), QIODevice::Append);
  EXPECT_EQ(waitFor(40), 40U);
  for (std::size_t i = 1; i < 40; ++i)
    ASSERT_EQ(document->readings().log()->time[i] - document->readings().log()->time[i - 1], 3600) << "nothing lost, nothing doubled";
  close(); // and again after the window was shut
  write("live.csv", rows(40, 50), QIODevice::Append);
  open();
  EXPECT_EQ(waitFor(50), 50U);
}

TEST_F(LogTest, AStandInLoggersTornLinesAreFollowed) {
  open();
  const QString from = write("from.csv", "Time,Outside C,House C\n" + rows(0, 40)), live = m_dir.filePath(QStringLiteral("live.csv"));
  window->followFile(live); // before it exists
  QProcess logger;
  logger.start(QStringLiteral(MUFFLE_STATION), {from, QStringLiteral("--write"), live, QStringLiteral("--pause"), QStringLiteral("20"),
                                                QStringLiteral("--torn"), QStringLiteral("--gone"), QStringLiteral("10")});
  ASSERT_TRUE(logger.waitForStarted());
  for (int i = 0; i < 900 && readings() != 36; ++i) QTest::qWait(20);
  EXPECT_EQ(readings(), 36U) << "all but every tenth";
  logger.waitForFinished();
}

} // namespace
} // namespace muffle
