// SPDX-License-Identifier: GPL-3.0-or-later
//
// A second plan beside the one in hand: found on the picture of Cost, told apart from it, and taken.
#include "app/stages/cost_stage.h"
#include "app/stages/differences_dialog.h"
#include "app/stages/frontier_view.h"
#include "app/stages/house_stage.h"
#include "app/stages/section_view.h"
#include "core/plan/plan_differences.h"
#include "tests/app/window_fixture.h"

#include <QTableWidget>

namespace muffle {
namespace {

class CompareTest : public WindowTest {
protected:
  /// The cheapest of four plans, on the stage that draws them.
  void openAndSearch() {
    openWithAShortList({5000});
    ASSERT_TRUE(waitForResult(*document));
    window->showStage(CostStage::kId);
    document->startSizing();
    ASSERT_TRUE(waitForSizing(*document));
  }
  void askWhatDiffers() {
    for (QAction* action : window->findChildren<QAction*>())
      if (action->shortcut() == QKeySequence(QStringLiteral("Ctrl+D"))) action->trigger();
  }
};

TEST_F(CompareTest, WithoutASecondPlanWhatDiffersSaysHowToGetOne) {
  open();
  QString said;
  QObject::connect(document.get(), &Document::trouble, window.get(), [&](const QString& words) { said = words; });
  askWhatDiffers();
  EXPECT_TRUE(said.contains(QStringLiteral("No plan is compared with yours")));
}

TEST_F(CompareTest, WhatDiffersIsOutlinedInTheSectionWhileThePointerRestsOnAPlan) {
  openAndSearch();
  auto* frontier = find<FrontierView>();
  auto* section = find<SectionView>();
  QTest::qWait(20);
  const QImage before = section->grab().toImage();
  const Sizing& found = *document->results().sizing();
  for (int i = 0; i < static_cast<int>(found.packages.size()); ++i) {
    QTest::mouseMove(frontier, QPoint(3, 3));
    QTest::mouseMove(frontier, frontier->packagePoint(i).toPoint());
    ASSERT_TRUE(document->view().pointedPlan()) << i;
    const bool differs = !differences(document->plan(), *document->view().pointedPlan()).empty();
    EXPECT_EQ(section->grab().toImage() != before, differs) << i;
  }
  QTest::mouseMove(frontier, QPoint(3, 3));
  EXPECT_FALSE(document->view().pointedPlan());
  EXPECT_EQ(section->grab().toImage(), before) << "and nothing of it stays";
  QTest::mouseMove(frontier, frontier->packagePoint(0).toPoint());
  window->showStage(HouseStage::kId);
  EXPECT_FALSE(document->view().pointedPlan()) << "nor on another stage";
  EXPECT_FALSE(document->results().otherPlan()) << "pointing chooses nothing";
}

TEST_F(CompareTest, TheCheapestPlanIsFoundComparedAndTaken) {
  openAndSearch();
  ASSERT_TRUE(document->results().sizingIsCurrent());
  ASSERT_EQ(document->results().sizing()->packages.size(), 4U);
  auto* frontier = find<FrontierView>();
  QTest::qWait(20);
  QTest::mouseClick(frontier, Qt::LeftButton, {}, frontier->packagePoint(2).toPoint());
  ASSERT_TRUE(document->results().otherPlan());
  ASSERT_TRUE(waitForResult(*document));
  ASSERT_NE(document->results().other(), nullptr);
  int rows = 0;
  QString heading;
  whenAsked<DifferencesDialog>([&](DifferencesDialog* dialog) {
    rows = dialog->table()->rowCount();
    heading = dialog->table()->horizontalHeaderItem(2)->text();
    dialog->reject();
  });
  askWhatDiffers();
  EXPECT_EQ(rows, static_cast<int>(differences(document->plan(), *document->results().otherPlan()).size()));
  EXPECT_GT(rows, 0);
  EXPECT_EQ(heading, document->results().otherName());
  const std::size_t layers = document->results().otherPlan()->house.roof.layers.size();
  document->takeOther();
  EXPECT_EQ(document->plan().house.roof.layers.size(), layers);
  document->planInHand().undoStack()->undo();
  EXPECT_EQ(document->plan().house.roof.layers.size(), 1U);
}

} // namespace
} // namespace muffle
