// SPDX-License-Identifier: GPL-3.0-or-later
//
// Where the house stands: asked in a new book, in any form people write, explained where it is no place, undone.
#include "app/stages/cost_stage.h"
#include "app/stages/house_stage.h"
#include "app/stages/outline_map.h"
#include "tests/app/window_fixture.h"

#include <QAbstractItemView>
#include <QComboBox>
#include <QCompleter>
#include <QLabel>
#include <QLineEdit>
#include <QSlider>
#include <QUndoStack>

namespace muffle {
namespace {

class PlaceTest : public WindowTest {
protected:
  QLineEdit* field(const QString& name) {
    for (auto* f : window->findChildren<QLineEdit*>())
      if (f->accessibleName() == name) return f;
    return nullptr;
  }
  QLineEdit* zone() {
    for (auto* box : window->findChildren<QComboBox*>())
      if (box->accessibleName() == QStringLiteral("Clock")) return box->lineEdit();
    return nullptr;
  }
  void write(QLineEdit* into, const QString& text) {
    into->setFocus();
    into->selectAll();
    QTest::keyClicks(into, text);
    QTest::keyClick(into, Qt::Key_Return);
  }
  bool says(const QString& words) {
    QCoreApplication::processEvents();
    for (auto* l : window->findChildren<QLabel*>())
      if (l->isVisible() && l->text().contains(words)) return true;
    return false;
  }
};

TEST_F(PlaceTest, ANewBookAsksAndSaysThatThePlaceIsAssumedUntilItIsSaid) {
  openNew();
  ASSERT_TRUE(document->plan().site.placeAssumed);
  EXPECT_TRUE(says(QStringLiteral("Where does the house stand?")));
  write(field(QStringLiteral("It stands at")), QStringLiteral("-41.3, 174.8"));
  EXPECT_FALSE(document->plan().site.placeAssumed);
  EXPECT_DOUBLE_EQ(document->plan().site.place.latitude_deg, -41.3);
  EXPECT_DOUBLE_EQ(document->plan().site.place.longitude_deg, 174.8);
  EXPECT_GT(document->plan().site.coldestDay(), 180.0) << "winter is in July there";
  ASSERT_FALSE(document->edit(QStringLiteral("clock"), [](Plan& p) { p.site.timeZone = "UTC"; }));
  EXPECT_TRUE(says(QStringLiteral("Set the clock:"))) << "by UTC the sun stands highest at midnight there";
  write(zone(), QStringLiteral("Pacific/Auckland"));
  EXPECT_EQ(document->plan().site.timeZone, "Pacific/Auckland");
  EXPECT_FALSE(says(QStringLiteral("Set the clock:")));
  document->planInHand().undoStack()->undo();
  document->planInHand().undoStack()->undo();
  document->planInHand().undoStack()->undo();
  EXPECT_TRUE(document->plan().site.placeAssumed);
}

TEST_F(PlaceTest, WhatIsNoPlaceIsExplainedAndNothingChanges) {
  openNew();
  for (const char* wrong : {"somewhere", "95, 3", "70.5 N 20 E"}) {
    write(field(QStringLiteral("It stands at")), QString::fromUtf8(wrong));
    EXPECT_TRUE(document->plan().site.placeAssumed) << wrong;
  }
  EXPECT_TRUE(says(QStringLiteral("66")));
}

TEST_F(PlaceTest, AVillageIsOfferedAsItIsTypedAndTakenByKeyboard) {
  openNew();
  QLineEdit* at = field(QStringLiteral("It stands at"));
  at->setFocus();
  QTest::keyClicks(at, QStringLiteral("el tart"));
  QAbstractItemView* list = at->completer()->popup();
  ASSERT_TRUE(QTest::qWaitFor([&] { return list->isVisible(); }));
  ASSERT_GE(list->model()->rowCount(), 1);
  EXPECT_TRUE(list->model()->index(0, 0).data().toString().startsWith(QStringLiteral("El Tarter, region of Canillo, Andorra")));
  QTest::keyClick(list, Qt::Key_Down);
  QTest::keyClick(list, Qt::Key_Return);
  EXPECT_FALSE(document->plan().site.placeAssumed);
  EXPECT_NEAR(document->plan().site.place.latitude_deg, 42.58, 0.001);
  EXPECT_EQ(document->plan().site.name, "El Tarter");
  EXPECT_EQ(document->plan().site.timeZone, "Europe/Andorra") << "the clock comes with the place";
  EXPECT_TRUE(says(QStringLiteral("Andorra")));
  document->planInHand().undoStack()->undo();
  EXPECT_TRUE(document->plan().site.placeAssumed) << "name, clock and place are one step";
}

TEST_F(PlaceTest, ANameIsTakenByReturnWhereItIsTheOnlyOneAndAskedAboutWhereItIsNot) {
  openNew();
  write(field(QStringLiteral("It stands at")), QStringLiteral("springfield"));
  EXPECT_TRUE(document->plan().site.placeAssumed);
  EXPECT_TRUE(says(QStringLiteral("choose yours from the list")));
  write(field(QStringLiteral("It stands at")), QStringLiteral("springfield, illinois"));
  EXPECT_NEAR(document->plan().site.place.latitude_deg, 39.80, 0.01);
  EXPECT_EQ(document->plan().site.timeZone, "America/Chicago");
  write(field(QStringLiteral("It stands at")), QStringLiteral("Qqqqq"));
  EXPECT_TRUE(says(QStringLiteral("No place of a thousand people")));
  EXPECT_EQ(document->plan().site.name, "Springfield");
}

TEST_F(PlaceTest, AGrowersOwnNameStaysWhereCoordinatesAreTyped) {
  openNew();
  write(field(QStringLiteral("It stands at")), QStringLiteral("48.14 N 11.58 E"));
  EXPECT_EQ(document->plan().site.name, "Munich") << "it had none";
  write(field(QStringLiteral("Called")), QStringLiteral("the long field"));
  write(field(QStringLiteral("It stands at")), QStringLiteral("48.3 N 11.7 E"));
  EXPECT_EQ(document->plan().site.name, "the long field");
  write(field(QStringLiteral("It stands at")), QStringLiteral("<b>nowhere at all</b>"));
  EXPECT_TRUE(says(QStringLiteral("<b>nowhere at all</b>"))) << "as it was typed";
}

TEST_F(PlaceTest, APinTakesTheNearestTown) {
  openNew();
  auto* map = window->findChild<OutlineMap*>();
  ASSERT_TRUE(map && map->isVisible());
  const Coordinates wanted{48.14, 11.58};
  QTest::mouseClick(map, Qt::LeftButton, {}, map->pixelOf(wanted).toPoint());
  ASSERT_FALSE(document->plan().site.placeAssumed);
  const auto placeNow = [&] { return Coordinates{document->plan().site.place.latitude_deg, document->plan().site.place.longitude_deg}; };
  EXPECT_LT(distance_km(placeNow(), wanted), 150.0) << "a pixel of the whole world is a degree";
  QTest::mouseClick(map, Qt::LeftButton, {}, map->pixelOf(wanted).toPoint()); // the map has come nearer
  EXPECT_LT(distance_km(placeNow(), wanted), 12.0);
  drag(map, {60, 60}, {120, 90});
  EXPECT_LT(distance_km(placeNow(), wanted), 12.0) << "dragging moves the map, not the pin";
  map->setFocus();
  for (int i = 0; i < 6; ++i) QTest::keyClick(map, Qt::Key_Right);
  QTest::keyClick(map, Qt::Key_Return);
  EXPECT_GT(document->plan().site.place.longitude_deg, wanted.longitude_deg + 1.0) << "by keyboard, to the east";
}

TEST_F(PlaceTest, FrostsAreTheGrowersOrTheLogs) {
  open();
  importWholeDemoLog();
  window->showStage(HouseStage::kId);
  window->findChild<HouseStage*>()->showPage(HouseStage::Page::place);
  QLineEdit* first = field(QStringLiteral("First frost"));
  ASSERT_NE(first, nullptr);
  EXPECT_TRUE(first->text().isEmpty());
  EXPECT_TRUE(first->placeholderText().contains(QStringLiteral("by the log"))) << first->placeholderText().toStdString();
  write(first, QStringLiteral("5 Oct"));
  ASSERT_TRUE(document->plan().site.firstFrost_day);
  EXPECT_DOUBLE_EQ(*document->plan().site.firstFrost_day, 278.0);
  write(first, QStringLiteral("soon"));
  EXPECT_TRUE(says(QStringLiteral("no day of the year")));
  EXPECT_DOUBLE_EQ(*document->plan().site.firstFrost_day, 278.0);
}

TEST_F(PlaceTest, APriceAboveTheSlidersUsualIsKeptWhenTheHourIsTouched) {
  open();
  importDemoLog();
  ASSERT_FALSE(document->edit(QStringLiteral("a dear winter"), [](Plan& p) { p.prices.electricity_per_kWh = 1.20; }));
  window->showStage(CostStage::kId);
  QCoreApplication::processEvents();
  QSlider *price = nullptr, *hour = nullptr;
  for (auto* s : window->findChildren<QSlider*>()) {
    if (s->accessibleName() == QStringLiteral("Price of a kWh")) price = s;
    if (s->accessibleName() == QStringLiteral("Worth of your hour")) hour = s;
  }
  ASSERT_TRUE(price && hour);
  EXPECT_EQ(price->value(), 120);
  QTest::keyClick(hour, Qt::Key_Right); // taken at once, whatever result arrives next
  EXPECT_DOUBLE_EQ(document->plan().prices.electricity_per_kWh, 1.20);
  EXPECT_DOUBLE_EQ(document->plan().prices.hour, 15.0);
}

} // namespace
} // namespace muffle
