// SPDX-License-Identifier: GPL-3.0-or-later
//
// Setpoints that follow the weather, entered in Heat: bands by the forecast, by the clock, a limit on the swing; what it says is what the nights get.
#include "app/pictures/waiting.h"
#include "app/stages/heat_stage.h"
#include "app/stages/heater_list.h"
#include "app/stages/number_field.h"
#include "app/stages/room_choice.h"
#include "app/stages/setpoints_page.h"
#include "core/plan/heaters.h"
#include "core/results/day_swings.h"
#include "tests/app/window_fixture.h"

#include <QComboBox>
#include <QLabel>
#include <QPushButton>

#include <cmath>

namespace muffle {
namespace {

class SetpointsPageTest : public WindowTest {
protected:
  SetpointsPage& page() {
    window->showStage(HeatStage::kId);
    find<HeatStage>()->showPage(HeatStage::Page::setpoints);
    return find<HeatStage>()->setpoints();
  }
  NumberField* field(const QString& name) {
    QCoreApplication::processEvents();
    for (auto* f : window->findChildren<NumberField*>())
      if (f->accessibleName() == name && f->isVisible()) return f;
    return nullptr;
  }
  void choose(const QString& box, int at) {
    QCoreApplication::processEvents();
    for (auto* b : window->findChildren<QComboBox*>())
      if (b->accessibleName() == box && b->isVisible()) {
        b->setCurrentIndex(at);
        emit b->activated(at);
        return;
      }
    FAIL() << box.toStdString() << " is not in sight";
  }
};

TEST_F(SetpointsPageTest, BandsAreEnteredHeldAndUndone) {
  open();
  importDemoLog();
  SetpointsPage& setpoints = page();
  const Setpoints before = document->plan().setpoints;
  ASSERT_TRUE(before.nightBands.empty());
  EXPECT_TRUE(setpoints.words().contains(QStringLiteral("every night"))) << setpoints.words().toStdString();
  choose(QStringLiteral("At night"), 1);
  ASSERT_EQ(document->plan().setpoints.nightBands.size(), 2U);
  EXPECT_DOUBLE_EQ(document->plan().setpoints.nightBands[0].setpoint_C, before.night_C) << "as before on the coldest";
  type(field(QStringLiteral("At night, band 2: low")), QStringLiteral("0"));
  type(field(QStringLiteral("At night, band 2: hold")), QStringLiteral("6"));
  ASSERT_TRUE(waitForResult(*document));
  const Setpoints& now = document->plan().setpoints;
  EXPECT_DOUBLE_EQ(now.nightBands[1].setpoint_C, 6.0);
  const auto zone = TimeZone::named(document->plan().site.timeZone);
  ASSERT_TRUE(zone);
  double sum = 0.0;
  const auto nights = askedNights(now, *document->readings().weather(), *zone);
  for (const AskedSetpoint& n : nights) sum += n.setpoint_C;
  const QString mean = document->view().units().text(Quantity::temperature, sum / static_cast<double>(nights.size()));
  EXPECT_TRUE(setpoints.words().contains(mean)) << setpoints.words().toStdString() << " has not " << mean.toStdString();
  type(field(QStringLiteral("At night, band 2: low")), QStringLiteral("-55"));
  EXPECT_DOUBLE_EQ(document->plan().setpoints.nightBands[1].outside_C, 0.0) << "bands by rising low";
  EXPECT_FALSE(field(QStringLiteral("At night, band 2: low"))->errorText().isEmpty());
  for (int step = 0; step < 3; ++step) document->planInHand().undoStack()->undo();
  EXPECT_EQ(document->plan().setpoints, before);
}

TEST_F(SetpointsPageTest, ADaysBandsTheClockAndTheSwingAreEntered) {
  open();
  importDemoLog();
  page();
  choose(QStringLiteral("By day"), 1);
  ASSERT_EQ(document->plan().setpoints.dayBands.size(), 2U);
  choose(QStringLiteral("Day and night"), 1);
  type(number(QStringLiteral("Day from")), QStringLiteral("8"));
  type(number(QStringLiteral("Night from")), QStringLiteral("16.5"));
  type(number(QStringLiteral("Ramp")), QStringLiteral("1"));
  type(number(QStringLiteral("Day above night")), QStringLiteral("2"));
  const Setpoints& s = document->plan().setpoints;
  EXPECT_EQ(s.dayFrom_h, 8.0);
  EXPECT_EQ(s.nightFrom_h, 16.5);
  EXPECT_EQ(s.ramp_h, 1.0);
  EXPECT_EQ(s.swingAtMost_K, 2.0);
  ASSERT_TRUE(waitForResult(*document));
  EXPECT_TRUE(find<HeatStage>()->setpoints().words().contains(document->view().units().text(Quantity::temperature, s.night_C + 2.0)))
      << "the warmest day asked for: " << find<HeatStage>()->setpoints().words().toStdString();
  type(number(QStringLiteral("Day above night")), QStringLiteral("no limit"));
  EXPECT_FALSE(document->plan().setpoints.swingAtMost_K.has_value());
  choose(QStringLiteral("By day"), 0);
  EXPECT_TRUE(document->plan().setpoints.dayBands.empty());
  ASSERT_TRUE(waitForResult(*document));
  QCoreApplication::processEvents();
  const Simulation& run = *document->results().simulation();
  DaySwings swings;
  for (std::size_t w = 0; w < run.series.size(); ++w) swings.add(run.series[w].air_C, document->readings().weather()->winters[w].step_s);
  EXPECT_TRUE(find<HeatStage>()->setpoints().words().contains(document->view().units().text(Quantity::difference, swings.most_K())))
      << "how evenly it is kept: " << find<HeatStage>()->setpoints().words().toStdString();
}

TEST_F(SetpointsPageTest, AHouseWithoutALogAndABayHaveTheirOwn) {
  open();
  EXPECT_TRUE(page().words().contains(QStringLiteral("Import a log")));
  ASSERT_FALSE(document->edit(QStringLiteral("bay"), [](Plan& p) { p.house.bay.emplace().length_m = 4.0; }));
  QCoreApplication::processEvents();
  auto* room = find<HeatStage>()->setpoints().findChild<RoomChoice*>();
  ASSERT_TRUE(room && room->isVisible());
  room->setCurrentIndex(1);
  choose(QStringLiteral("At night"), 1);
  EXPECT_TRUE(document->plan().setpoints.nightBands.empty());
  EXPECT_EQ(document->plan().house.bay->setpoints.nightBands.size(), 2U);
  ASSERT_FALSE(document->edit(QStringLiteral("no bay"), [](Plan& p) { p.house.bay.reset(); }));
  QCoreApplication::processEvents();
  EXPECT_FALSE(room->isVisible());
  EXPECT_EQ(room->room(), HeaterPlace::Of::house);
}

TEST_F(SetpointsPageTest, AHeaterIsLitOnlyBeforeColdNights) {
  open();
  importWholeDemoLog();
  window->showStage(HeatStage::kId);
  find<HeatStage>()->showPage(HeatStage::Page::heaters);
  QCoreApplication::processEvents();
  auto* list = find<HeaterList>();
  for (auto* b : list->findChildren<QPushButton*>())
    if (b->accessibleName().startsWith(QStringLiteral("When "))) b->click();
  const QString name = QStringLiteral("fan heater: Before nights below");
  ASSERT_TRUE(field(name));
  const double all_kWh = document->results().simulation()->summary.ledger.heat_kWh(MeterUse::heater, 0);
  type(field(name), QStringLiteral("-5"));
  EXPECT_EQ(document->plan().heaters[0].beforeNightsBelow_C, -5.0);
  ASSERT_TRUE(waitForResult(*document));
  QCoreApplication::processEvents();
  EXPECT_LT(document->results().simulation()->summary.ledger.heat_kWh(MeterUse::heater, 0), 0.9 * all_kWh) << "mild nights are left alone";
  QString said;
  for (auto* l : list->findChildren<QLabel*>()) said += l->text();
  const auto zone = TimeZone::named(document->plan().site.timeZone);
  const auto nights = askedNights(document->plan().setpoints, *document->readings().weather(), *zone);
  const auto lit = std::count_if(nights.begin(), nights.end(), [](const AskedSetpoint& n) { return n.outside_C < -5.0; });
  const QString told = QStringLiteral("before %1 of %2\u00A0logged nights").arg(lit).arg(nights.size());
  EXPECT_TRUE(said.contains(told)) << said.toStdString() << " has not " << told.toStdString();
  type(field(name), QStringLiteral("every night"));
  EXPECT_FALSE(document->plan().heaters[0].beforeNightsBelow_C.has_value());
}

} // namespace
} // namespace muffle
