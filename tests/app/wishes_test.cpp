// SPDX-License-Identifier: GPL-3.0-or-later
//
// What counts as holding, what is ruled out, and what is one's own, in the window.
#include "app/pictures/waiting.h"
#include "app/stages/cost_stage.h"
#include "app/stages/frontier_view.h"
#include "app/stages/heat_stage.h"
#include "app/stages/sizing_words.h"
#include "app/stages/wishes_card.h"
#include "core/plan/heaters.h"
#include "core/plan/measure_table.h"
#include "core/sizing/how_sure.h"
#include "core/sizing/why_not.h"
#include "tests/app/window_fixture.h"

#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QPushButton>

namespace muffle {
namespace {

class WishesTest : public WindowTest {
protected:
  template <class T> T* called(const QString& accessible) {
    for (T* w : window->findChildren<T*>())
      if (w->accessibleName() == accessible && w->isVisible()) return w;
    return nullptr;
  }
  void openWithLog() {
    openWithAShortList({5000, 12000});
    window->showStage(CostStage::kId);
  }
  const Sizing& searched() {
    document->startSizing();
    EXPECT_TRUE(waitForSizing(*document));
    return *document->results().sizing();
  }
};

TEST_F(WishesTest, AWishIsAnEditAndTheListMakesRoomForThem) {
  openWithLog();
  find<CostStage>()->showMeasures(true);
  QTest::qWait(10);
  auto* card = find<WishesCard>();
  QPushButton* more = card->findChild<QPushButton*>();
  QTest::mouseClick(more, Qt::LeftButton);
  EXPECT_EQ(called<QComboBox>(QStringLiteral("Add a measure")), nullptr) << "the list makes room";
  for (QCheckBox* box : card->findChildren<QCheckBox*>()) {
    ASSERT_TRUE(box->isVisible());
    box->click();
  }
  EXPECT_TRUE(document->plan().ask.anyHeaterOut);
  EXPECT_TRUE(document->plan().ask.noFireAsleep);
  document->planInHand().undoStack()->undo();
  document->planInHand().undoStack()->undo();
  EXPECT_FALSE(document->plan().ask.anyHeaterOut);
  for (QCheckBox* box : card->findChildren<QCheckBox*>()) EXPECT_FALSE(box->isChecked()) << "the boxes follow";
  QTest::mouseClick(more, Qt::LeftButton);
  EXPECT_NE(called<QComboBox>(QStringLiteral("Add a measure")), nullptr);
}

TEST_F(WishesTest, WhatIsRuledOutIsNotInAnyPlan) {
  openWithLog();
  find<CostStage>()->showMeasures(true);
  QTest::qWait(10);
  auto* offer = called<QComboBox>(QStringLiteral("second film: how it is offered"));
  ASSERT_NE(offer, nullptr);
  offer->setCurrentIndex(2);
  emit offer->activated(2);
  ASSERT_EQ(document->plan().measures[0].offer, Offer::ruledOut);
  for (const SizedPackage& p : searched().packages) EXPECT_LT(p.choice[0], 0);
  emit offer->activated(1);
  for (const SizedPackage& p : searched().packages) EXPECT_GE(p.choice[0], 0);
  EXPECT_FALSE(SizingWords(*document).bill().contains(QStringLiteral("spend nothing")));
}

TEST_F(WishesTest, WhatGoesWithWhatIsTickedAndGoesWithWhatIsTakenOff) {
  openWithLog();
  find<CostStage>()->showMeasures(true);
  QTest::qWait(10);
  auto* button = called<QPushButton>(QStringLiteral("second film: what it goes with"));
  ASSERT_NE(button, nullptr);
  const auto tick = [&](const QString& words) {
    emit button->menu()->aboutToShow();
    for (QAction* action : button->menu()->actions())
      if (action->text() == words) return action->trigger(), true;
    return false;
  };
  ASSERT_TRUE(tick(QStringLiteral("not with fan heater")));
  ASSERT_EQ(document->plan().measures[0].excludes.size(), 1U);
  EXPECT_EQ(document->plan().measures[0].excludes[0], document->plan().measures[1].id);
  for (const SizedPackage& p : searched().packages) EXPECT_TRUE(p.choice[0] < 0 || p.choice[1] < 0);
  ASSERT_TRUE(tick(QStringLiteral("not with fan heater")));
  EXPECT_TRUE(document->plan().measures[0].excludes.empty()) << "ticked again it is gone";
  ASSERT_TRUE(tick(QStringLiteral("only with fan heater")));
  auto* drop = called<QPushButton>(QStringLiteral("Take fan heater off the list"));
  ASSERT_NE(drop, nullptr);
  drop->click();
  ASSERT_EQ(document->plan().measures.size(), 1U);
  EXPECT_TRUE(document->plan().measures[0].needs.empty()) << "nothing speaks of what is not there";
}

TEST_F(WishesTest, WhatWasChangedSinceTheSearchBecomesSomethingToChoose) {
  openWithLog();
  auto* add = [&] {
    find<CostStage>()->showMeasures(true);
    QTest::qWait(10);
    return called<QComboBox>(QStringLiteral("Add a measure"));
  }();
  ASSERT_NE(add, nullptr);
  emit add->activated(kMeasureKindCount); // of your own, and nothing was searched
  EXPECT_EQ(document->plan().measures.size(), 2U);
  searched();
  const double night_C = document->plan().setpoints.night_C;
  ASSERT_FALSE(document->edit(QStringLiteral("cooler"), [](Plan& p) {
    p.setpoints.shift(-0.5);
    p.site.name = "a valley"; // no part of what may be chosen
  }));
  emit add->activated(kMeasureKindCount);
  ASSERT_EQ(document->plan().measures.size(), 3U);
  EXPECT_EQ(document->plan().setpoints.night_C, night_C) << "the house is as it was";
  EXPECT_EQ(document->plan().site.name, "a valley") << "and what is no choice stays";
  const Measure& own = document->plan().measures.back();
  EXPECT_EQ(own.kind, MeasureKind::own);
  EXPECT_FALSE(own.sets.empty());
  const Sizing& s = searched();
  EXPECT_EQ(s.packages.size(), 2U * 3U * 2U);
  document->planInHand().undoStack()->undo();
  EXPECT_EQ(document->plan().setpoints.night_C, night_C - 0.5);
}

TEST_F(WishesTest, TheWinnerIsAlsoRunInColderWinters) {
  openWithLog();
  const Sizing& s = searched();
  ASSERT_GE(s.winner, 0);
  ASSERT_EQ(s.colder.size(), 3U);
  const ColderWinter& c = s.colder.front();
  document->view().setUnits({.fahrenheit = true});
  const Units& u = document->view().units();
  const QString words = SizingWords(*document).argument(), kelvin = u.text(Quantity::difference, 1.0);
  EXPECT_TRUE(kelvin.startsWith(QStringLiteral("1.8")));
  EXPECT_TRUE(words.contains(QStringLiteral("In winters like these, but %1 colder").arg(kelvin))) << words.toStdString();
  ASSERT_TRUE(c.holds && c.extra);
  EXPECT_TRUE(words.contains(QStringLiteral("held for %1").arg(u.number(Quantity::money, *c.extra)))) << words.toStdString();
  ASSERT_FALSE(document->edit(QStringLiteral("dearer"), [](Plan& p) { p.prices.electricity_per_kWh *= 1.0001; }));
  EXPECT_FALSE(SizingWords(*document).argument().contains(QStringLiteral("colder: held for"))) << "at other prices it is other money";
}

TEST_F(WishesTest, AFittedHouseIsAlsoTriedAsTheReadingsLeaveItOpen) {
  openWithAShortList({5000, 15000});
  ASSERT_FALSE(document->edit(QStringLiteral("fitted"), [](Plan& p) {
    p.calibration = Calibration{};
    for (int row = 0; row < 5; ++row)
      for (int column = 0; column <= row; ++column) p.calibration->logCovariance.push_back(row == column ? 0.04 : 0.0);
  }));
  ASSERT_TRUE(waitForResult(*document));
  window->showStage(CostStage::kId);
  document->startSizing();
  ASSERT_TRUE(waitForSizing(*document));
  const Sizing& found = *document->results().sizing();
  ASSERT_GE(found.winner, 0);
  ASSERT_EQ(found.likely.size(), 10U);
  QString said;
  for (const QLabel* label : window->findChildren<QLabel*>())
    if (label->text().contains(QStringLiteral("Your readings leave the house open: of 10 that they allow alike"))) said = label->text();
  EXPECT_FALSE(said.isEmpty());
  EXPECT_TRUE(said.contains(inShort(found).held == 10 ? QStringLiteral("it holds in all") : QStringLiteral("it holds in %1").arg(inShort(found).held)));
}

TEST_F(WishesTest, WhereNothingHoldsTheWishThatStandsInTheWayIsSaid) {
  openWithLog();
  ASSERT_FALSE(document->edit(QStringLiteral("poor"), [](Plan& p) {
    p.ask.supply_kW = 0.5;
    setHeaterPower(p, {HeaterPlace::Of::house}, 0.0);
  }));
  const Sizing& s = searched();
  ASSERT_LT(s.winner, 0);
  const QString bill = SizingWords(*document).bill();
  EXPECT_TRUE(bill.contains(QStringLiteral("None of these holds")));
  EXPECT_TRUE(bill.contains(QStringLiteral("with a supply of"))) << bill.toStdString();
}

TEST_F(WishesTest, ASearchThatIsStoppedKeepsTheBestSoFar) {
  openWithLog();
  ASSERT_FALSE(document->edit(QStringLiteral("more"), [](Plan& p) {
    p.measures.push_back({.kind = MeasureKind::barrels, .levels = {2, 4, 6, 8, 10, 12, 14, 16, 18, 20, 22, 24}, .material = {}, .price = 15.0});
    p.measures.push_back({.kind = MeasureKind::sealing, .levels = {0.5, 0.4, 0.3}, .material = {}, .price = 80.0});
  }));
  std::size_t done = 0;
  QObject::connect(document.get(), &Document::sizingProgress, window.get(), [&](const SizingProgress& so) {
    done = so.done;
    if (so.done > 12) document->results().cancelSizing();
  });
  const Sizing& s = searched();
  EXPECT_TRUE(s.isStopped);
  EXPECT_GT(s.packages.size(), 4U);
  EXPECT_LT(s.packages.size(), packageCount(document->plan()));
  if (s.winner >= 0) {
    EXPECT_TRUE(SizingWords(*document).bill().contains(QStringLiteral("Stopped before its end"))) << SizingWords(*document).bill().toStdString();
  }
}

TEST_F(WishesTest, WhoTendsAStoveIsKeptAndTheirHoursAreSaid) {
  open();
  ASSERT_TRUE(window->importFileUnasked(twoMonths()));
  ASSERT_FALSE(document->edit(QStringLiteral("stove"), [](Plan& p) {
    p.heaters.clear();
    addHeater(p, {.kind = HeaterKind::woodStove, .power_W = 7000.0});
  }));
  ASSERT_TRUE(waitForResult(*document));
  window->showStage(HeatStage::kId);
  find<HeatStage>()->showPage(HeatStage::Page::heaters);
  QTest::qWait(10);
  for (QPushButton* b : window->findChildren<QPushButton*>())
    if (b->isVisible() && b->text() == QStringLiteral("when and how it gives")) b->click();
  auto* whose = called<QLineEdit>(QStringLiteral("wood stove, fed by hand: tended by"));
  ASSERT_NE(whose, nullptr);
  whose->setFocus();
  QTest::keyClicks(whose, QStringLiteral("a neighbour"));
  QTest::keyClick(whose, Qt::Key_Return);
  EXPECT_EQ(document->plan().heaters[0].tendedBy, "a neighbour");
  ASSERT_TRUE(waitForResult(*document));
  QTest::qWait(10);
  const auto labels = window->findChildren<QLabel*>();
  EXPECT_TRUE(std::any_of(labels.begin(), labels.end(), [](QLabel* l) { return l->text().contains(QStringLiteral("of tending by a neighbour")); }));
}

TEST_F(WishesTest, WhatWasFoundIsThereWhenTheBookIsOpenedAnotherDay) {
  openWithLog();
  const Sizing found = searched();
  ASSERT_GE(found.winner, 0);
  const auto again = [&] {
    ASSERT_TRUE(document->book().waitUntilSaved());
    close();
    open();
    ASSERT_TRUE(waitForResult(*document));
  };
  const auto comesBack = [&](int wait_ms) { return QTest::qWaitFor([&] { return document->results().sizing() != nullptr; }, wait_ms); };
  again();
  ASSERT_TRUE(comesBack(20000));
  EXPECT_TRUE(document->results().sizingIsCurrent());
  const Sizing& back = *document->results().sizing();
  EXPECT_EQ(back.winner, found.winner);
  ASSERT_EQ(back.packages.size(), found.packages.size());
  for (std::size_t i = 0; i < back.packages.size(); ++i) EXPECT_EQ(back.packages[i].cost.total(), found.packages[i].cost.total());
  EXPECT_EQ(back.colder.size(), found.colder.size());
  ASSERT_FALSE(found.thumb.empty());
  ASSERT_EQ(back.thumb.size(), found.thumb.size());
  for (std::size_t i = 0; i < found.thumb.size(); ++i) EXPECT_EQ(back.thumb[i].package.cost.total(), found.thumb[i].package.cost.total());
  window->showStage(CostStage::kId);
  EXPECT_NE(button(QStringLiteral("Search again")), nullptr);
  // what a rule of thumb would build is there to compare with, and dearer too where a kWh is
  auto* picture = find<FrontierView>();
  QTest::mouseClick(picture, Qt::LeftButton, {}, picture->thumbPoint(back.thumb.front()).toPoint());
  ASSERT_TRUE(document->results().otherPlan());
  EXPECT_EQ(document->results().otherPlan()->heaters.front().power_W, back.thumb.front().plan.measures.front().levels.front());
  const double byThumb = back.thumb.front().package.cost.total();
  // at another price it is ranked anew, another day too
  ASSERT_FALSE(document->edit(QStringLiteral("dearer"), [](Plan& p) { p.prices.electricity_per_kWh *= 2.0; }));
  EXPECT_GT(document->results().sizing()->thumb.front().package.cost.total(), byThumb);
  const double dearer = document->results().sizing()->packages[0].cost.total();
  again();
  ASSERT_TRUE(comesBack(20000));
  EXPECT_EQ(document->results().sizing()->packages[0].cost.total(), dearer);
  // of another house it says nothing
  ASSERT_FALSE(document->edit(QStringLiteral("leaky"), [](Plan& p) { p.house.airChanges_per_h += 0.5; }));
  again();
  EXPECT_FALSE(comesBack(1500));
}

TEST_F(WishesTest, ASearchThatWasStoppedGoesOnWhereItWas) {
  open();
  ASSERT_TRUE(window->importFileUnasked(twoMonths()));
  ASSERT_TRUE(waitForResult(*document));
  window->showStage(CostStage::kId);
  std::size_t runs = 0;
  const auto stopAt = QObject::connect(document.get(), &Document::sizingProgress, [&](const SizingProgress& so) {
    runs = std::max(runs, so.done);
    if (so.done >= 40) document->results().cancelSizing();
  });
  const Sizing& part = searched();
  ASSERT_TRUE(part.isStopped);
  QObject::disconnect(stopAt);
  auto* goOn = button(QStringLiteral("Go on searching"));
  ASSERT_NE(goOn, nullptr);
  EXPECT_TRUE(document->results().canGoOnSearching(document->plan()));
  QTest::mouseClick(goOn, Qt::LeftButton);
  ASSERT_TRUE(waitForSizing(*document));
  EXPECT_TRUE(document->results().sizing()->provedLeast);
  EXPECT_GE(document->results().sizing()->runs, runs);
  EXPECT_FALSE(document->results().canGoOnSearching(document->plan()));
  EXPECT_NE(button(QStringLiteral("Search again")), nullptr);
}

} // namespace
} // namespace muffle
