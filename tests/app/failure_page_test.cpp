// SPDX-License-Identifier: GPL-3.0-or-later
//
// If it fails: what the page says is what core works out for the same plan, moment and hours.
#include "app/stages/failure_page.h"
#include "app/stages/heat_stage.h"
#include "tests/app/window_fixture.h"

#include <QComboBox>

namespace muffle {
namespace {

class FailurePageTest : public WindowTest {
protected:
  FailurePage& page() {
    window->showStage(HeatStage::kId);
    find<HeatStage>()->showPage(HeatStage::Page::failure);
    return find<HeatStage>()->failure();
  }
  bool settle(FailurePage& of) {
    return QTest::qWaitFor([&] { return of.shown() && !of.isWorking(); }, 60000);
  }
};

TEST_F(FailurePageTest, SaysWhatCoreSaysAtTheClockOfThePicture) {
  open();
  importDemoLog();
  document->view().setClock(0.5);
  FailurePage& of = page();
  ASSERT_TRUE(settle(of));
  const auto moment = document->view().moment();
  ASSERT_TRUE(moment);
  EXPECT_EQ(of.shown()->step, moment->step);
  const Scene scene = makeScene(document->readings().sharedWeather(), document->plan());
  const auto run = Failures::prepare(document->plan(), scene, {{}, 4.0, {document->plan().setpoints.hold_C}})->at(moment->winter, moment->step);
  ASSERT_TRUE(run);
  EXPECT_EQ(of.shown()->lowest_C, run->lowest_C);
  EXPECT_EQ(of.shown()->minutes[0], run->minutes[0]);
  // another night: the page follows it
  document->view().selectNight(document->view().selectedNight() - 3);
  ASSERT_TRUE(QTest::qWaitFor([&] { return of.shown() && !of.isWorking() && of.shown()->step == document->view().moment()->step; }, 60000));
}

TEST_F(FailurePageTest, FindsTheWorstMomentOfAllAndNamesWhatWouldHold) {
  open();
  importDemoLog();
  FailurePage& of = page();
  ASSERT_TRUE(settle(of));
  const double here_C = of.shown()->lowest_C;
  of.findWorst();
  ASSERT_TRUE(settle(of));
  ASSERT_TRUE(of.words().contains(QStringLiteral("The worst of"))) << of.words().toStdString();
  EXPECT_TRUE(of.words().contains(QStringLiteral("What would have held"))) << of.words().toStdString();
  EXPECT_TRUE(std::isfinite(here_C));
  EXPECT_EQ(document->view().moment()->winter, of.shown()->winter) << "the picture is of the worst moment";
  EXPECT_EQ(document->view().moment()->step, of.shown()->step);
  QTest::qWait(400);
  EXPECT_TRUE(of.words().contains(QStringLiteral("The worst of"))) << "and turning to it asked for nothing else";
  document->view().setClock(0.4); // back to the clock of the picture
  ASSERT_TRUE(QTest::qWaitFor([&] { return of.shown() && !of.isWorking() && of.shown()->step == document->view().moment()->step; }, 60000));
  EXPECT_FALSE(of.words().contains(QStringLiteral("The worst of")));
}

TEST_F(FailurePageTest, WithoutALogItAsksForOne) {
  open();
  EXPECT_TRUE(page().words().contains(QStringLiteral("Import a log")));
}

TEST_F(FailurePageTest, ClosesAtOnceWhileItSearches) {
  open();
  importDemoLog();
  FailurePage& of = page();
  of.findWorst();
  QTest::qWait(30);
  QElapsedTimer timer;
  timer.start();
  close();
  EXPECT_LT(timer.elapsed(), 2000);
}

} // namespace
} // namespace muffle
