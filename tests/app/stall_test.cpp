// SPDX-License-Identifier: GPL-3.0-or-later
//
// The window answers while it works: no single stretch in which nothing is drawn or taken is longer than a glance.
#include "app/pictures/waiting.h"
#include "tests/app/window_fixture.h"

#include "app/stages/change_page.h"
#include "app/stages/hand_sheet.h"
#include "app/stages/house_stage.h"
#include "app/stages/log_stage.h"
#include "app/stages/measured_page.h"
#include "core/bounds.h"

#include <QClipboard>
#include <QComboBox>
#include <QElapsedTimer>
#include <QLabel>
#include <QPlainTextEdit>
#include <QTreeWidget>

namespace muffle {
namespace {

/// The longest time between two beats of the interface thread.
class Heartbeat : public QObject {
public:
  Heartbeat() {
    m_timer.setInterval(1);
    connect(&m_timer, &QTimer::timeout, this, [this] {
      m_longest = std::max(m_longest, m_since.elapsed());
      m_since.restart();
    });
    m_since.start();
    m_timer.start();
  }
  /// And begins anew.
  qint64 longest_ms() {
    QCoreApplication::processEvents();
    const qint64 longest = std::max(m_longest, m_since.elapsed());
    m_longest = 0;
    m_since.restart();
    return longest;
  }

private:
  QTimer m_timer;
  QElapsedTimer m_since;
  qint64 m_longest = 0;
};

// 100 ms is what is promised on a machine of the grower's own; tests run beside one another on two cores, where a thread may wait as long
// again for its turn
constexpr qint64 kGlance_ms = 400;

/// MUFFLE_LOG_MB, or a quick one.
std::size_t logMegabytes() {
  const int asked = qEnvironmentVariableIntValue("MUFFLE_LOG_MB");
  return asked > 0 ? static_cast<std::size_t>(asked) : 24;
}

class StallTest : public WindowTest {
protected:
  void TearDown() override { close(); }
};

TEST_F(StallTest, AMonthsWorthOfSecondsIsImportedBesideTheWindow) {
  open();
  std::string csv = "time,outside C,house C,soil C,humidity house %\n";
  const auto zone = TimeZone::utc();
  for (UtcSeconds t = 1'900'000'000; csv.size() < (logMegabytes() << 20); t += 5) csv += zone.iso(t) + ",-4.25,3.5,5.125,88\n";
  const QString path = m_dir.filePath(QStringLiteral("seconds.csv"));
  ASSERT_TRUE(writeFile(path.toStdString(), csv));
  csv = {};
  Heartbeat heart;
  whenAsked([](ImportDialog* dialog) {
    for (QPushButton* b : dialog->findChildren<QPushButton*>())
      if (b->text() == QStringLiteral("Keep this log")) QTest::mouseClick(b, Qt::LeftButton);
  });
  ASSERT_TRUE(window->importFile(path));
  const qint64 reading = heart.longest_ms();
  ASSERT_TRUE(QTest::qWaitFor([&] { return !document->readings().isPreparing(); }, 300000));
  QTest::qWait(200);
  const qint64 preparing = heart.longest_ms();
  RecordProperty("reading_ms", std::to_string(reading));
  RecordProperty("preparing_ms", std::to_string(preparing));
  std::printf("longest stretch while reading %lld ms, while it is prepared %lld ms\n", static_cast<long long>(reading), static_cast<long long>(preparing));
  EXPECT_LT(reading, kGlance_ms);
  EXPECT_LT(preparing, kGlance_ms);
  QElapsedTimer timer;
  timer.start();
  close();
  EXPECT_LT(timer.elapsed(), 2000) << "closing waits for what must be written and for nothing else";
}

TEST_F(StallTest, ClosingIsQuickWithASearchAFitAndOneChangeAtWork) {
  open();
  importDemoLog();
  window->showStage(LogStage::kId);
  auto* log = find<LogStage>();
  log->showPage(LogStage::Page::measured);
  QTest::qWait(100);
  log->measured().startFit();
  window->showStage(HouseStage::kId);
  find<HouseStage>()->showPage(HouseStage::Page::change);
  document->startSizing();
  ASSERT_TRUE(document->results().isSizing());
  QTest::qWait(50); // under way
  ASSERT_TRUE(document->results().isSizing()) << "a search of every combination takes longer than a glance";
  QElapsedTimer timer;
  timer.start();
  close();
  EXPECT_LT(timer.elapsed(), 2000);
}

TEST_F(StallTest, ReorderingOneChangeIsAtOnce) {
  open();
  importDemoLog();
  auto* house = find<HouseStage>();
  window->showStage(HouseStage::kId);
  house->showPage(HouseStage::Page::change);
  ASSERT_TRUE(waitUntil([&] { return house->changes().isCurrent(); }));
  QTest::qWait(200);
  auto* order = house->changes().findChild<QComboBox*>();
  ASSERT_NE(order, nullptr);
  auto* tree = house->changes().findChild<QTreeWidget*>();
  ASSERT_GT(tree->topLevelItemCount(), 8);
  const auto lines = [&] {
    QStringList all;
    for (int i = 0; i < tree->topLevelItemCount(); ++i) all << tree->topLevelItem(i)->text(0);
    return all;
  };
  const QStringList first = lines();
  bool moved = false;
  Heartbeat heart;
  for (int i = 1; i < 7; ++i) {
    order->setCurrentIndex(i % order->count());
    emit order->activated(order->currentIndex());
    QTest::qWait(60);
    moved = moved || lines() != first;
  }
  const qint64 longest = heart.longest_ms();
  std::printf("longest stretch while the order changes %lld ms\n", static_cast<long long>(longest));
  EXPECT_LT(longest, kGlance_ms);
  EXPECT_TRUE(moved);
  // by keyboard: a line is chosen and built in, in one step
  tree->setFocus();
  tree->setCurrentItem(tree->topLevelItem(1));
  const int steps = document->planInHand().undoStack()->index();
  for (QPushButton* b : house->changes().findChildren<QPushButton*>()) QTest::keyClick(b, Qt::Key_Space);
  EXPECT_EQ(document->planInHand().undoStack()->index(), steps + 1);
}

TEST_F(StallTest, WhatIsTooMuchToPasteIsRefusedAtOnce) {
  open();
  HandSheetDialog sheet(*document, window.get());
  sheet.show();
  const auto paste = [&](const QString& text) {
    QApplication::clipboard()->setText(text);
    Heartbeat heart;
    sheet.lines()->paste();
    return heart.longest_ms();
  };
  EXPECT_LT(paste(QString(2'000'000, QLatin1Char('7'))), kGlance_ms);
  EXPECT_TRUE(sheet.lines()->toPlainText().isEmpty());
  bool said = false;
  for (const QLabel* label : sheet.findChildren<QLabel*>()) said = said || label->text().contains(QString::number(bounds::kHandLineBytes));
  EXPECT_TRUE(said) << "with what is allowed";
  EXPECT_LT(paste(QStringLiteral("7:10 -4 / 2.5\n").repeated(100'000)), kGlance_ms);
  EXPECT_TRUE(sheet.lines()->toPlainText().isEmpty());
  paste(QStringLiteral("7:10 -4 / 2.5\n8:10 -3 / 3\n"));
  EXPECT_EQ(sheet.sheet().readings.size(), 2U);
}

} // namespace
} // namespace muffle
