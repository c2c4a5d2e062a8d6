// SPDX-License-Identifier: GPL-3.0-or-later
//
// The ladder's rungs are dragged, say what is at odds, and the tariff's dialog bills by the hour.
#include "app/pictures/waiting.h"
#include "tests/app/window_fixture.h"

#include "app/stages/heat_stage.h"
#include "app/stages/ladder.h"
#include "app/stages/tariff_dialog.h"
#include "core/plan/heaters.h"

#include <QComboBox>
#include <QLabel>

namespace muffle {
namespace {

using LadderTest = WindowTest;

TEST_F(LadderTest, AHeatersRungIsDraggedAndSaysWhenItComesTooLate) {
  open();
  ASSERT_FALSE(document->edit(QStringLiteral("two"), [](Plan& p) {
    p.setpoints.night_C = p.setpoints.hold_C + 3.0;
    p.setpoints.day_C = std::max(p.setpoints.day_C, p.setpoints.night_C);
    addHeater(p, {.id = "second", .name = "second", .power_W = 5000.0, .stage_K = 1.0});
  }));
  window->showStage(HeatStage::kId);
  auto* ladder = find<Ladder>();
  const QPointF at = ladder->rungPoint(RungOf::heater, 1);
  const int steps = document->planInHand().undoStack()->count();
  drag(ladder, at, at + QPointF(0, ladder->pixelsPerKelvin() * 1.0));
  EXPECT_NEAR(document->plan().heaters[1].stage_K, 2.0, 0.26) << "whole halves of a degree";
  EXPECT_EQ(document->planInHand().undoStack()->count(), steps + 1) << "one drag is one step";
  EXPECT_TRUE(ladder->conflicts().isEmpty());
  drag(ladder, ladder->rungPoint(RungOf::heater, 1), ladder->rungPoint(RungOf::hold) + QPointF(0, ladder->pixelsPerKelvin() * 1.0));
  ASSERT_EQ(ladder->conflicts().size(), 1);
  EXPECT_TRUE(ladder->conflicts().front().startsWith(QStringLiteral("Second begins"))) << ladder->conflicts().front().toStdString();
  EXPECT_EQ(document->plan().setpoints.night_C, document->plan().setpoints.hold_C + 3.0) << "the setpoint under it was not taken along";
}

TEST_F(LadderTest, ARungBeyondTheUsualAxisStandsOnItAndIsTakenHoldOf) {
  open();
  ASSERT_FALSE(document->edit(QStringLiteral("hardy"), [](Plan& p) { p.setpoints.hold_C = -15.0; }));
  ASSERT_FALSE(document->edit(QStringLiteral("late vents"), [](Plan& p) {
    p.house.ventFull_C = 45.0;
    p.house.ventOpens_C = 38.0;
  }));
  window->showStage(HeatStage::kId);
  auto* ladder = find<Ladder>();
  QTest::qWait(10);
  for (const RungOf of : {RungOf::hold, RungOf::vents}) EXPECT_TRUE(QRectF(ladder->rect()).contains(ladder->rungPoint(of)));
  drag(ladder, ladder->rungPoint(RungOf::hold), ladder->rungPoint(RungOf::hold) - QPointF(0, ladder->pixelsPerKelvin() * 2.0));
  EXPECT_NEAR(document->plan().setpoints.hold_C, -13.0, 0.26) << "it does not jump to where the usual axis ends";
}

TEST_F(LadderTest, ASlopeIsTakenAtEitherEndAndMovesAsItIs) {
  open();
  const std::vector<NightBand> bands{{-12.0, 2.0}, {4.0, 9.0}};
  ASSERT_FALSE(document->edit(QStringLiteral("bands"), [&](Plan& p) { p.setpoints.nightBands = bands; }));
  window->showStage(HeatStage::kId);
  auto* ladder = find<Ladder>();
  QTest::qWait(10);
  const QPointF middle = ladder->rungPoint(RungOf::night), kelvin(0, ladder->pixelsPerKelvin());
  const double slope_K = bands[1].setpoint_C - bands[0].setpoint_C;
  const QPointF coldEnd = middle + QPointF(-12.0, 0) + 0.2 * slope_K * kelvin; // of fifty-eight pixels, a fifth of the way
  drag(ladder, coldEnd, coldEnd - 2.0 * kelvin);
  const auto& now = document->plan().setpoints.nightBands;
  EXPECT_NEAR(now[0].setpoint_C, 4.0, 0.26);
  EXPECT_NEAR(now[1].setpoint_C - now[0].setpoint_C, slope_K, 1e-9);
}

TEST_F(LadderTest, ABaysLadderIsItsOwn) {
  open();
  window->showStage(HeatStage::kId);
  auto* ladder = find<Ladder>();
  auto* room = find<HeatStage>()->findChild<QComboBox*>();
  for (QComboBox* box : find<HeatStage>()->findChildren<QComboBox*>())
    if (box->accessibleName() == QStringLiteral("Whose ladder")) room = box;
  EXPECT_FALSE(room->isVisible());
  ASSERT_FALSE(document->edit(QStringLiteral("bay"), [](Plan& p) { p.house.bay = WarmBay{}; }));
  QTest::qWait(10);
  ASSERT_TRUE(room->isVisible());
  room->setCurrentIndex(1);
  const double night = document->plan().setpoints.night_C;
  drag(ladder, ladder->rungPoint(RungOf::night), ladder->rungPoint(RungOf::night) - QPointF(0, ladder->pixelsPerKelvin() * 1.0));
  EXPECT_NEAR(document->plan().house.bay->setpoints.night_C, WarmBay{}.setpoints.night_C + 1.0, 0.26);
  EXPECT_EQ(document->plan().setpoints.night_C, night);
}

TEST_F(LadderTest, ANightPriceIsWrittenDownAndBilled) {
  open();
  importDemoLog();
  const double flat = document->results().simulation()->summary.cost.energy;
  TariffDialog dialog(*document, window.get());
  dialog.show();
  for (QPushButton* b : dialog.findChildren<QPushButton*>())
    if (b->text() == QStringLiteral("Add hours")) QTest::mouseClick(b, Qt::LeftButton);
  ASSERT_EQ(document->plan().prices.electricityWindows.size(), 1U);
  ASSERT_TRUE(waitForResult(*document));
  const Summary& s = document->results().simulation()->summary;
  EXPECT_LT(s.cost.energy, flat) << "the usual night price is lower, and nights are when it is heated";
  EXPECT_EQ(s.cost.energy, s.ledger.money(document->plan(), document->plan().prices) / s.winters);
  bool said = false;
  for (QLabel* label : dialog.findChildren<QLabel*>()) said = said || label->text().contains(document->view().units().number(Quantity::money, s.cost.energy));
  EXPECT_TRUE(said) << "what it costs stands in the dialog";
  document->planInHand().undoStack()->undo();
  EXPECT_TRUE(document->plan().prices.electricityWindows.empty());
}

} // namespace
} // namespace muffle
