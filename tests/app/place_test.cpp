// SPDX-License-Identifier: GPL-3.0-or-later
//
// Where the house stands: asked in a new book, in any form people write, explained where it is no place, undone.
#include "app/stages/cost_stage.h"
#include "app/stages/house_stage.h"
#include "tests/app/window_fixture.h"

#include <QComboBox>
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
  document->undoStack()->undo();
  document->undoStack()->undo();
  document->undoStack()->undo();
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

TEST_F(PlaceTest, APriceAboveTheSlidersUsualIsKeptWhenTheHourIsTouched) {
  open();
  importDemoLog();
  ASSERT_FALSE(document->edit(QStringLiteral("a dear winter"), [](Plan& p) { p.prices.electricity_per_kWh = 1.20; }));
  window->showStage(Document::Stage::cost);
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
