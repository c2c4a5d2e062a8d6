// SPDX-License-Identifier: GPL-3.0-or-later
//
// A fresh start, books from before, the log worked out beside the window, and the page on paper.
#include "app/pictures/waiting.h"
#include "app/stages/house_stage.h"
#include "app/stages/log_stage.h"
#include "app/stages/print.h"
#include "app/stages/scarf_view.h"
#include "app/stages/section_view.h"
#include "app/stages/slip_view.h"
#include "app/stages/start_page.h"
#include "tests/app/window_fixture.h"

#include <QAbstractButton>
#include <QElapsedTimer>
#include <QFileInfo>
#include <QLabel>
#include <QLineEdit>
#include <QMenuBar>
#include <QPrinter>
#include <QSettings>

#include <qcustomplot.h>

#include <cmath>

namespace muffle {
namespace {

class StartTest : public WindowTest {};

TEST_F(StartTest, AFreshBookOffersWaysToBegin) {
  open();
  EXPECT_TRUE(find<StartPage>()->isVisible());
  auto* house = button(QStringLiteral("Describe your house"));
  ASSERT_NE(house, nullptr);
  QTest::mouseClick(house, Qt::LeftButton);
  EXPECT_FALSE(find<StartPage>()->isVisible());
}

TEST_F(StartTest, FromAnEmptyBookToAFleecedBedInAnUnheatedTunnelAndBothTemperatures) {
  // the steps of the guide, "A fleece over one bed"
  openNew();
  auto* house = find<HouseStage>();
  ASSERT_TRUE(house->isVisible());
  auto* at = qobject_cast<QLineEdit*>(window->focusWidget());
  ASSERT_TRUE(at) << "it waits for the answer";
  ASSERT_EQ(at->accessibleName(), QStringLiteral("It stands at"));
  ASSERT_TRUE(at->isVisible()) << "where it stands is asked first";
  QTest::keyClicks(at, QStringLiteral("45.2 N 3.1 E"));
  QTest::keyClick(at, Qt::Key_Return);
  ASSERT_FALSE(document->plan().site.placeAssumed);
  house->showPage(HouseStage::Page::shape);
  const auto press = [&](const QString& name) {
    QCoreApplication::processEvents();
    for (auto* b : window->findChildren<QAbstractButton*>())
      if (b->isVisible() && (b->text() == name || b->accessibleName() == name)) {
        b->click();
        return true;
      }
    return false;
  };
  ASSERT_TRUE(press(QStringLiteral("round arch")));
  type(number(QStringLiteral("Width")), QStringLiteral("6 m"));
  type(number(QStringLiteral("Length")), QStringLiteral("15 m"));
  type(number(QStringLiteral("Ridge")), QStringLiteral("2.8 m"));
  importDemoLog();
  window->showStage(HouseStage::kId);
  house->showPage(HouseStage::Page::rooms);
  ASSERT_TRUE(press(QStringLiteral("Cover a bed")));
  type(number(QStringLiteral("Bed length")), QStringLiteral("10 m"));
  ASSERT_TRUE(waitForResult(*document));
  ASSERT_EQ(document->plan().house.bedCovers.size(), 1U);
  EXPECT_EQ(document->plan().house.bedCovers[0].material, "fleece");
  EXPECT_DOUBLE_EQ(document->plan().house.bedCovers[0].length_m, 10.0);
  EXPECT_TRUE(document->plan().heaters.empty()) << "a new house has no heater";
  const NightResult& night = document->results().simulation()->nights[static_cast<std::size_t>(document->view().selectedNight())];
  EXPECT_DOUBLE_EQ(night.coldest_C, document->results().simulation()->summary.coldest_C) << "the coldest logged night is in sight";
  QCoreApplication::processEvents();
  bool both = false;
  for (auto* l : house->findChildren<QLabel*>())
    both = both || (l->isVisible() && l->text().contains(document->view().units().text(Quantity::temperature, night.coldest_C)) &&
                    l->text().contains(document->view().units().text(Quantity::temperature, night.roomColdest_C.at(0))));
  EXPECT_TRUE(both);
  EXPECT_GT(night.roomColdest_C.at(0), night.coldest_C);
  const double owed_K_h = document->results().simulation()->summary.degreeHours_K_h;
  ASSERT_TRUE(press(QStringLiteral("Bed 1 has a line of its own")));
  EXPECT_EQ(document->plan().house.bedCovers[0].hold_C, document->plan().setpoints.hold_C) << "the house's, to begin from";
  QCoreApplication::processEvents();
  type(number(QStringLiteral("Line under it")), QStringLiteral("20"));
  ASSERT_EQ(document->plan().house.bedCovers[0].hold_C, 20.0);
  ASSERT_TRUE(waitForResult(*document));
  EXPECT_GT(document->results().simulation()->summary.degreeHours_K_h, owed_K_h) << "what the bed is short of is owed beside";
  ASSERT_TRUE(press(QStringLiteral("Bed 1 has a line of its own")));
  EXPECT_FALSE(document->plan().house.bedCovers[0].hold_C);
  ASSERT_TRUE(press(QStringLiteral("Take away bed cover 1")));
  EXPECT_TRUE(document->plan().house.bedCovers.empty());
}

TEST_F(StartTest, TheDemoOpensInABookOfItsOwn) {
  open();
  auto* demo = button(QStringLiteral("Look round the demo"));
  ASSERT_NE(demo, nullptr);
  ASSERT_TRUE(demo->isEnabled());
  QTest::mouseClick(demo, Qt::LeftButton);
  EXPECT_NE(document->book().path(), m_path);
  ASSERT_TRUE(waitForResult(*document));
  EXPECT_GT(document->results().simulation()->summary.nights, 350);
  const auto mine = Book::open(m_path.toStdString(), Book::Mode::existing);
  EXPECT_TRUE(mine->logs()->empty()) << "the grower's book stays as it was";
}

TEST_F(StartTest, BooksOpenedBeforeAreOfferedNewestFirst) {
  open();
  const QString second = m_dir.filePath(QStringLiteral("lower field.muffle"));
  ASSERT_FALSE(document->openBook(second, true));
  const QStringList recent = QSettings(QStringLiteral("muffle"), QStringLiteral("muffle")).value(QStringLiteral("books")).toStringList();
  ASSERT_GE(recent.size(), 2);
  EXPECT_EQ(recent[0], second);
  EXPECT_EQ(recent[1], m_path);
  QTest::qWait(10); // the offers are laid out
  auto* again = button(QStringLiteral("Open \"yard\" again"));
  ASSERT_NE(again, nullptr);
  QTest::mouseClick(again, Qt::LeftButton);
  EXPECT_EQ(document->book().path(), m_path);
}

TEST_F(StartTest, ALogIsWorkedOutBesideTheWindow) {
  open();
  const auto read = readLog(*readFile((kDemo + QStringLiteral("/log.csv")).toStdString()), {});
  ASSERT_TRUE(read);
  QElapsedTimer timer;
  timer.start();
  ASSERT_FALSE(document->readings().set(read->log));
  EXPECT_TRUE(document->readings().isPreparing());
  EXPECT_EQ(document->readings().weather(), nullptr) << "no weather of another log is shown meanwhile";
  ASSERT_TRUE(waitForResult(*document));
  EXPECT_FALSE(document->readings().isPreparing());
  EXPECT_FALSE(document->readings().problems().empty());
  EXPECT_GT(document->readings().nights().size(), 300U);
  document->planInHand().undoStack()->undo();
  EXPECT_EQ(document->readings().log(), nullptr);
  EXPECT_EQ(document->results().simulation(), nullptr);
  document->planInHand().undoStack()->redo();
  ASSERT_TRUE(waitForResult(*document));
}

TEST_F(StartTest, ALogIsInTheBookOnceTheWindowIsGone) {
  open();
  const auto read = readLog(*readFile((kDemo + QStringLiteral("/log.csv")).toStdString()), {});
  ASSERT_FALSE(document->readings().set(read->log));
  close(); // at once: what was waiting to be saved is saved first
  const auto book = Book::open(m_path.toStdString(), Book::Mode::existing);
  const auto logs = book->logs();
  ASSERT_TRUE(logs);
  ASSERT_EQ(logs->size(), 1U);
  EXPECT_EQ(logs->front().log.time.size(), read->log.time.size());
  open(); // its flags, which the window had no time for, are made good
  ASSERT_TRUE(waitForResult(*document));
  close();
  bool anyFlag = false;
  const auto flagged = Book::open(m_path.toStdString(), Book::Mode::existing)->logs();
  for (const Channel& c : flagged->front().log.channels)
    for (const auto f : c.flag) anyFlag = anyFlag || f != 0;
  EXPECT_TRUE(anyFlag) << "flags are kept beside the raw readings";
}

TEST_F(StartTest, MovingTheSiteWorksTheWeatherOutAgain) {
  open();
  ASSERT_TRUE(window->importFileUnasked(twoMonths()));
  ASSERT_TRUE(waitForResult(*document));
  const Weather* before = document->readings().weather();
  ASSERT_FALSE(document->edit(QStringLiteral("move"), [](Plan& p) { p.site.place.latitude_deg += 2.0; }));
  EXPECT_FALSE(document->results().isCurrent());
  ASSERT_TRUE(waitForResult(*document));
  EXPECT_NE(document->readings().weather(), before);
}

TEST_F(StartTest, ThePageGoesOnPaper) {
  open();
  ASSERT_TRUE(window->importFileUnasked(twoMonths()));
  ASSERT_TRUE(waitForResult(*document));
  window->showStage(HouseStage::kId);
  QPrinter printer(QPrinter::HighResolution);
  printer.setPageOrientation(QPageLayout::Landscape);
  printer.setOutputFormat(QPrinter::PdfFormat);
  const QString path = m_dir.filePath(QStringLiteral("page.pdf"));
  printer.setOutputFileName(path);
  printPage(printer, *document, {find<SectionView>(), find<LogStage>(), find<SlipView>(), find<ScarfView>()});
  QFile pdf(path);
  ASSERT_TRUE(pdf.open(QIODevice::ReadOnly));
  EXPECT_TRUE(pdf.read(5) == QByteArray("%PDF-"));
  EXPECT_GT(pdf.size(), 20000);
}

TEST_F(StartTest, ALongLogIsDrawnWithoutAPointForEveryReading) {
  open();
  Log log;
  log.name = "every ten seconds";
  Channel outside;
  outside.name = "outside";
  outside.role = Role::outside;
  for (int i = 0; i < 400000; ++i) {
    log.time.push_back(1700000000 + 10 * i);
    outside.raw.push_back(static_cast<float>(5.0 * std::sin(i / 1375.0)));
  }
  outside.raw[200000] = -30.0F; // a single low that must not be thinned away
  outside.flag.assign(outside.raw.size(), 0);
  log.channels.push_back(outside);
  ASSERT_FALSE(document->readings().set(log));
  window->showStage(LogStage::kId);
  auto* plot = find<LogStage>()->findChild<QCustomPlot*>(QStringLiteral("readings"));
  plot->xAxis->setRange(1700000000.0, 1700000000.0 + 4e6);
  const QCPGraph* line = plot->graph(0);
  EXPECT_LT(line->dataCount(), 20000);
  double lowest = 1e9;
  for (int i = 0; i < line->dataCount(); ++i) lowest = std::min(lowest, line->dataMainValue(i));
  EXPECT_NEAR(lowest, -30.0, 1e-6);
  ASSERT_TRUE(waitForResult(*document));
}

TEST_F(StartTest, TheNightInSightComesBeforeTheRest) {
  open();
  ASSERT_TRUE(window->importFileUnasked(twoMonths()));
  ASSERT_TRUE(waitForResult(*document));
  document->view().selectNight(40); // in the first winter
  const double before = document->results().simulation()->nights[40].coldest_C;
  QStringList order;
  QObject::connect(document.get(), &Document::winterChanged, document.get(), [&] {
    order << QStringLiteral("night");
    EXPECT_TRUE(document->isCurrentInSight());
    EXPECT_FALSE(document->results().isCurrent()) << "the sums over all winters are not in yet";
    EXPECT_NE(document->results().simulation()->nights[40].coldest_C, before);
  });
  QObject::connect(document.get(), &Document::resultChanged, document.get(), [&] { order << QStringLiteral("all"); });
  ASSERT_FALSE(document->edit(QStringLiteral("draughtier"), [](Plan& p) { p.house.airChanges_per_h += 1.5; }));
  EXPECT_FALSE(document->isCurrentInSight());
  double early = 0.0;
  QObject::connect(document.get(), &Document::winterChanged, document.get(), [&] { early = document->results().simulation()->nights[40].coldest_C; });
  ASSERT_TRUE(waitForResult(*document));
  EXPECT_EQ(order, (QStringList{QStringLiteral("night"), QStringLiteral("all")}));
  EXPECT_DOUBLE_EQ(document->results().simulation()->nights[40].coldest_C, early) << "what was shown first is what the whole run says";
}

} // namespace
} // namespace muffle
