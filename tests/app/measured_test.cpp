// SPDX-License-Identifier: GPL-3.0-or-later
//
// The house measured in the window: from a log as it was dropped to a plan put right by it, and back.
#include "app/pictures/waiting.h"
#include "tests/app/window_fixture.h"

#include "app/stages/log_stage.h"

#include <QLabel>
#include <QTreeWidget>

namespace muffle {
namespace {

using MeasuredTest = WindowTest;

TEST_F(MeasuredTest, ALogIsCleanedTheHouseMeasuredFittedAppliedAndUndone) {
  open();
  importWholeDemoLog();
  window->showStage(LogStage::kId);
  auto* log = window->findChild<LogStage*>();
  QTest::qWait(20);
  QTreeWidget* found = log->readings().faults().tree();
  ASSERT_GT(found->topLevelItemCount(), 2);
  found->setCurrentItem(found->topLevelItem(0)); // the sun on the sensor: it is so
  QTest::mouseClick(button(QStringLiteral("It is so")), Qt::LeftButton);
  ASSERT_TRUE(waitForResult(*document));
  EXPECT_FALSE(document->readings().log()->decisions.empty());
  log->showPage(LogStage::Page::measured);
  MeasuredPage& page = log->measured();
  const auto said = [&] {
    QString all;
    for (auto* label : page.findChildren<QLabel*>()) all += label->text();
    return all;
  };
  EXPECT_TRUE(said().contains(QStringLiteral("Measured"))) << said().toStdString();
  EXPECT_EQ(button(QStringLiteral("Apply to the plan")), nullptr);
  button(QStringLiteral("Fit the model to these nights"))->click();
  EXPECT_NE(button(QStringLiteral("Stop")), nullptr);
  ASSERT_TRUE(waitUntil([&] { return !page.isWorking(); }));
  EXPECT_LT(page.fit()->lowAfter_K, 1.0) << "nights that were not fitted, of a house that another model made";
  EXPECT_LT(page.fit()->lowAfter_K, page.fit()->lowBefore_K);
  const Plan before = document->plan();
  button(QStringLiteral("Apply to the plan"))->click();
  ASSERT_TRUE(document->plan().calibration);
  EXPECT_EQ(*document->plan().calibration, page.fit()->found);
  EXPECT_FALSE(document->plan().calibration->date.empty());
  EXPECT_TRUE(document->planInHand().undoStack()->undoText().contains(QString::fromStdString(document->plan().calibration->date)));
  QCoreApplication::processEvents();
  EXPECT_EQ(button(QStringLiteral("Apply to the plan")), nullptr) << "it is in";
  ASSERT_TRUE(waitForResult(*document));
  document->planInHand().undoStack()->undo();
  EXPECT_EQ(planToJson(document->plan()), planToJson(before));
  document->planInHand().undoStack()->undo();
  ASSERT_TRUE(waitForResult(*document));
  EXPECT_TRUE(document->readings().log()->decisions.empty());
}

TEST_F(MeasuredTest, WhatIsMeasuredStaysWhileThePlanMovesTowardsIt) {
  open();
  importDemoLog();
  window->showStage(LogStage::kId);
  auto* log = window->findChild<LogStage*>();
  log->showPage(LogStage::Page::measured);
  const auto words = [&] { return log->measured().findChildren<QLabel*>().front()->text(); };
  const auto between = [&](const QString& from, const QString& to) { return words().section(from, 1).section(to, 0, 0); };
  const QString measured = between(QStringLiteral("Measured "), QStringLiteral(", calculated"));
  const QString calculated = between(QStringLiteral(", calculated "), QStringLiteral("</b>"));
  ASSERT_FALSE(measured.isEmpty() || calculated.isEmpty()) << words().toStdString();
  document->edit(QStringLiteral("leaky"), [](Plan& p) { p.house.airChanges_per_h += 3.0; });
  EXPECT_EQ(between(QStringLiteral("Measured "), QStringLiteral(", calculated")), measured);
  EXPECT_NE(between(QStringLiteral(", calculated "), QStringLiteral("</b>")), calculated);
  document->planInHand().undoStack()->undo();
  EXPECT_EQ(between(QStringLiteral(", calculated "), QStringLiteral("</b>")), calculated);
  document->edit(QStringLiteral("blower door"), [](Plan& p) { p.house.leakage = Leakage{.area_cm2 = 5.0}; });
  EXPECT_FALSE(words().contains(QStringLiteral("change"))) << "air changes are not asked for: " << words().toStdString();
  EXPECT_FALSE(words().contains(QStringLiteral("rms")) || words().contains(QStringLiteral("95 %"))) << "in words that growers use";
}

} // namespace
} // namespace muffle
