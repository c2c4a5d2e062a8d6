// SPDX-License-Identifier: GPL-3.0-or-later
//
// The real window, driven as a grower drives it.
#include "app/pictures/waiting.h"
#include "tests/app/window_fixture.h"

#include "app/stages/floor_page.h"
#include "app/stages/heat_stage.h"
#include "app/stages/house_stage.h"
#include "app/stages/ladder.h"
#include "app/stages/own_materials.h"
#include "app/stages/scarf_view.h"
#include "app/stages/section_view.h"
#include "app/stages/slip_view.h"
#include "app/stages/thread_bar.h"
#include "words/words.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDialogButtonBox>
#include <QLabel>
#include <QTableWidget>
#include <QToolButton>
#include <QTreeWidget>

namespace muffle {
namespace {

TEST_F(WindowTest, AnEditThatChangesNothingIsNoStepToUndo) {
  open();
  const int steps = document->planInHand().undoStack()->count();
  EXPECT_FALSE(document->edit(QStringLiteral("touch the ridge"), [](Plan& p) { p.house.shape.ridge_m += 0.0; }));
  EXPECT_EQ(document->planInHand().undoStack()->count(), steps);
  EXPECT_FALSE(document->edit(QStringLiteral("move the ridge"), [](Plan& p) { p.house.shape.ridge_m += 0.1; }));
  EXPECT_EQ(document->planInHand().undoStack()->count(), steps + 1);
}

TEST_F(WindowTest, AnEveningsWorkIsKept) {
  open();
  importWholeDemoLog();
  const int heldBefore = document->results().simulation()->summary.held;
  EXPECT_GT(document->results().simulation()->summary.nights, 350);

  // drag the ridge down by 30 px
  window->showStage(HouseStage::kId);
  auto* section = find<SectionView>();
  const double ridge = document->plan().house.shape.ridge_m;
  const QPointF handle = section->handlePoint(Handle::ridge);
  drag(section, handle, handle + QPointF(0, 18));
  EXPECT_LT(document->plan().house.shape.ridge_m, ridge);
  EXPECT_EQ(document->planInHand().undoStack()->undoText(), QStringLiteral("move the ridge"));
  EXPECT_EQ(document->planInHand().undoStack()->count(), 2) << "the whole drag is one step after the import";
  EXPECT_FALSE(document->results().isCurrent()) << "the old result must not pass for the new plan's";
  ASSERT_TRUE(waitForResult(*document));
  const double lowered = document->plan().house.shape.ridge_m;

  // move the night rung up by keyboard-sized mouse drag
  window->showStage(HeatStage::kId);
  QTest::qWait(20);
  auto* ladder = find<Ladder>();
  const double night = document->plan().setpoints.night_C;
  drag(ladder, ladder->rungPoint(RungOf::night), ladder->rungPoint(RungOf::night) - QPointF(0, ladder->pixelsPerKelvin() * 5));
  EXPECT_NEAR(document->plan().setpoints.night_C, night + 5.0, 0.51); // rungs stop at halves of a degree
  ASSERT_TRUE(waitForResult(*document));

  // undo it
  document->planInHand().undoStack()->undo();
  EXPECT_DOUBLE_EQ(document->plan().setpoints.night_C, night);
  ASSERT_TRUE(waitForResult(*document));

  // scrub, and walk the scarf
  const double before = document->view().clock();
  QTest::mouseClick(section, Qt::LeftButton, {},
                    QPoint(static_cast<int>(section->clockRect().left()) + 40, static_cast<int>(section->clockRect().center().y())));
  EXPECT_NE(document->view().clock(), before);
  auto* scarf = find<ScarfView>();
  QTest::mouseClick(scarf, Qt::LeftButton, {}, scarf->nightPoint(100).toPoint());
  EXPECT_EQ(document->view().selectedNight(), 100);
  QTest::keyClick(scarf, Qt::Key_Right);
  EXPECT_EQ(document->view().selectedNight(), 101);
  QTest::keyClick(scarf, Qt::Key_Right, Qt::ShiftModifier);
  EXPECT_EQ(document->view().selectedNight(), 102);
  EXPECT_EQ(document->view().spanStart(), 101);

  // units, then close and open again
  document->view().setUnits({true, true});
  close();
  open();
  ASSERT_TRUE(waitForResult(*document));
  EXPECT_DOUBLE_EQ(document->plan().house.shape.ridge_m, lowered);
  EXPECT_DOUBLE_EQ(document->plan().setpoints.night_C, night);
  EXPECT_TRUE(document->view().units().fahrenheit);
  EXPECT_TRUE(document->view().units().feet);
  ASSERT_NE(document->readings().log(), nullptr);
  EXPECT_GT(document->readings().log()->time.size(), 50000U);
  EXPECT_GT(heldBefore, 0);
}

TEST_F(WindowTest, NumbersAreTypedWithAnyUnitAndRefusalsKeepTheOldValue) {
  open();
  window->showStage(HouseStage::kId);
  window->findChild<HouseStage*>()->showPage(HouseStage::Page::shape);
  auto* width = window->findChild<NumberField*>(QStringLiteral("Width"));
  ASSERT_NE(width, nullptr);
  type(width, QStringLiteral("20 ft 6"));
  EXPECT_NEAR(document->plan().house.shape.width_m, 20.5 * 0.3048, 1e-9);
  type(width, QStringLiteral("6.5 m"));
  EXPECT_DOUBLE_EQ(document->plan().house.shape.width_m, 6.5);
  type(width, QStringLiteral("900 m"));
  EXPECT_DOUBLE_EQ(document->plan().house.shape.width_m, 6.5);
  EXPECT_TRUE(width->errorText().contains(QStringLiteral("60"))) << width->errorText().toStdString();
  type(width, QStringLiteral("wide"));
  EXPECT_DOUBLE_EQ(document->plan().house.shape.width_m, 6.5);
  EXPECT_TRUE(width->errorText().contains(QStringLiteral("cannot be read")));
  type(width, QStringLiteral("3 m")); // the arch would rise above half its width
  EXPECT_DOUBLE_EQ(document->plan().house.shape.width_m, 6.5);
  EXPECT_TRUE(width->errorText().contains(QStringLiteral("arch")));
  QTest::keyClick(width, Qt::Key_Up);
  EXPECT_NEAR(document->plan().house.shape.width_m, 6.6, 1e-9);
  EXPECT_TRUE(width->errorText().isEmpty());
}

TEST_F(WindowTest, TheFloorIsStrewnWithStrawAndItsDampnessIsTold) {
  open();
  importDemoLog();
  window->showStage(HouseStage::kId);
  auto* house = window->findChild<HouseStage*>();
  house->showPage(HouseStage::Page::floor);
  ASSERT_TRUE(waitForResult(*document));
  auto* page = house->findChild<FloorPage*>();
  const auto said = [&] {
    QString all;
    for (auto* label : page->findChildren<QLabel*>()) all += label->text();
    return all;
  };
  EXPECT_TRUE(said().contains(QStringLiteral("dew on leaves"))) << said().toStdString();
  QComboBox* cover = nullptr;
  for (auto* box : page->findChildren<QComboBox*>())
    if (box->accessibleName() == QStringLiteral("On the soil")) cover = box;
  ASSERT_NE(cover, nullptr);
  cover->setCurrentIndex(cover->findText(QStringLiteral("loose straw")));
  emit cover->activated(cover->currentIndex());
  EXPECT_EQ(document->plan().house.floor.cover, "straw");
  EXPECT_DOUBLE_EQ(document->plan().house.floor.cover_m, 0.10);
  document->planInHand().undoStack()->undo();
  EXPECT_TRUE(document->plan().house.floor.cover.empty());
}

TEST_F(WindowTest, ALimitThatNeverAppliesIsAWord) {
  open();
  window->showStage(HouseStage::kId);
  auto* house = window->findChild<HouseStage*>();
  house->showPage(HouseStage::Page::vents);
  NumberField* const wind = number(QStringLiteral("Vents shut in wind"));
  ASSERT_NE(wind, nullptr);
  QTest::mouseClick(wind, Qt::LeftButton);
  EXPECT_EQ(wind->editor()->text(), QStringLiteral("never"));
  QTest::keyClick(wind->editor(), Qt::Key_Escape);
  type(wind, QStringLiteral("12 m/s"));
  EXPECT_DOUBLE_EQ(document->plan().house.ventLock.windAbove_m_s, 12.0);
  type(wind, QStringLiteral("Never"));
  EXPECT_DOUBLE_EQ(document->plan().house.ventLock.windAbove_m_s, 60.0);
  EXPECT_TRUE(wind->errorText().isEmpty());
}

TEST_F(WindowTest, TheHouseIsSeenFromAboveAndCutThroughAgain) {
  open();
  importDemoLog();
  ASSERT_TRUE(waitForResult(*document));
  auto* section = window->findChild<SectionView*>();
  QPushButton* toggle = section->findChild<QPushButton*>();
  ASSERT_NE(toggle, nullptr);
  const QImage cut = section->grab().toImage();
  QTest::mouseClick(toggle, Qt::LeftButton);
  EXPECT_TRUE(section->isFromAbove());
  EXPECT_NE(section->grab().toImage(), cut);
  const HouseShape before = document->plan().house.shape;
  QTest::mousePress(section, Qt::LeftButton, {}, section->handlePoint(Handle::ridge).toPoint()); // nothing to drag from above
  QTest::mouseMove(section, section->handlePoint(Handle::ridge).toPoint() + QPoint(0, -30));
  QTest::mouseRelease(section, Qt::LeftButton, {}, section->handlePoint(Handle::ridge).toPoint() + QPoint(0, -30));
  EXPECT_EQ(document->plan().house.shape, before);
  QTest::mouseClick(toggle, Qt::LeftButton);
  EXPECT_FALSE(section->isFromAbove());
}

TEST_F(WindowTest, ADraughtinessSetsBothNumbersAndALobbyNeedsADoor) {
  open();
  window->showStage(HouseStage::kId);
  auto* house = window->findChild<HouseStage*>();
  house->showPage(HouseStage::Page::shape);
  QComboBox* draughty = nullptr;
  for (auto* box : house->findChildren<QComboBox*>())
    if (box->accessibleName() == QStringLiteral("How draughty")) draughty = box;
  ASSERT_NE(draughty, nullptr);
  draughty->setCurrentIndex(1);
  emit draughty->activated(1);
  EXPECT_DOUBLE_EQ(document->plan().house.airChanges_per_h, 0.25);
  EXPECT_DOUBLE_EQ(document->plan().house.windAirChanges, 0.075);
  QCheckBox* lobby = nullptr;
  for (auto* box : house->findChildren<QCheckBox*>())
    if (box->text().contains(QStringLiteral("lobby"))) lobby = box;
  ASSERT_NE(lobby, nullptr);
  EXPECT_FALSE(lobby->isEnabled());
  document->edit(QStringLiteral("door"), [](Plan& p) { p.house.door.opened = 12.0; });
  EXPECT_TRUE(lobby->isEnabled());
  lobby->click();
  EXPECT_TRUE(document->plan().house.door.lobby);
}

TEST_F(WindowTest, AShapeIsChosenByItsSilhouetteAndTheHouseStillStands) {
  open();
  importDemoLog();
  window->showStage(HouseStage::kId);
  auto* house = window->findChild<HouseStage*>();
  house->showPage(HouseStage::Page::shape);
  const HouseShape before = document->plan().house.shape;
  for (const char* name : {"gable", "pointed arch", "lean-to", "own back wall", "dome", "round arch"}) {
    QAbstractButton* button = nullptr;
    for (auto* b : house->findChildren<QAbstractButton*>())
      if (b->text() == QString::fromLatin1(name)) button = b;
    ASSERT_NE(button, nullptr) << name;
    QTest::mouseClick(button, Qt::LeftButton);
    EXPECT_TRUE(document->plan().house.shape.check().empty()) << name;
    EXPECT_TRUE(button->isChecked()) << name;
    ASSERT_TRUE(waitForResult(*document)) << name;
    EXPECT_LE(document->results().simulation()->summary.closure, 1e-6) << name;
  }
  EXPECT_EQ(document->plan().house.shape.kind, ShapeKind::arch);
  for (int i = 0; i < 6; ++i) document->planInHand().undoStack()->undo();
  EXPECT_EQ(document->plan().house.shape, before);
}

TEST_F(WindowTest, AWholeCoverIsChosenBesideTheShapeAndWhatIsTakenAsUsualIsSaid) {
  open();
  importDemoLog();
  window->showStage(HouseStage::kId);
  auto* house = window->findChild<HouseStage*>();
  house->showPage(HouseStage::Page::shape);
  QCoreApplication::processEvents();
  QComboBox* cover = nullptr;
  for (auto* b : house->findChildren<QComboBox*>())
    if (b->accessibleName() == QStringLiteral("Cover")) cover = b;
  ASSERT_NE(cover, nullptr);
  const auto said = [&](const QString& words) {
    for (auto* l : house->findChildren<QLabel*>())
      if (l->isVisible() && l->text().contains(words)) return true;
    return false;
  };
  EXPECT_EQ(cover->currentIndex(), 0) << "the demo's ends are of another make";
  EXPECT_TRUE(said(QStringLiteral("of the light lost to dirt")));
  EXPECT_FALSE(said(QStringLiteral("no heater, stores or blanket"))) << "it has them";
  const int glass = cover->findText(QStringLiteral("single glass"));
  ASSERT_GT(glass, 0);
  emit cover->activated(glass);
  for (const Skin& s : {document->plan().house.roof, document->plan().house.sides, document->plan().house.ends})
    EXPECT_EQ(s.layers.front().material, "glass-4mm");
  EXPECT_EQ(cover->currentIndex(), glass);
  ASSERT_FALSE(document->edit(QStringLiteral("a wooden end"), [](Plan& p) {
    p.house.ends.layers = {{"timber-25", 0.05}};
    p.house.light.dirt = 0.2;
    p.heaters.clear();
    p.barrels.clear();
  }));
  QCoreApplication::processEvents();
  EXPECT_EQ(cover->currentIndex(), 0) << "as under Skins";
  EXPECT_TRUE(said(QStringLiteral("no heater, stores or blanket")));
  EXPECT_FALSE(said(QStringLiteral("of the light lost to dirt")));
  emit cover->activated(0);
  EXPECT_EQ(document->plan().house.ends.layers.front().material, "timber-25") << "choosing that changes nothing";
  document->planInHand().undoStack()->undo();
  document->planInHand().undoStack()->undo();
  EXPECT_NE(document->plan().house.roof.layers.front().material, "glass-4mm");
}

TEST_F(WindowTest, LayersAreInsertedReorderedAndRemovedEachAStepToUndo) {
  open();
  window->showStage(HouseStage::kId);
  auto* house = window->findChild<HouseStage*>();
  house->showPage(HouseStage::Page::skins);
  SkinEditor& skins = house->skins();
  const Skin before = document->plan().house.roof;
  const auto box = [&](const QString& name) {
    for (auto* b : skins.findChildren<QComboBox*>())
      if (b->accessibleName() == name && b->isVisibleTo(&skins)) return b;
    return static_cast<QComboBox*>(nullptr);
  };
  const auto press = [&](const QString& name) {
    QCoreApplication::processEvents(); // new rows are shown, old ones go
    QToolButton* last = nullptr;
    for (auto* b : skins.findChildren<QToolButton*>())
      if (b->accessibleName() == name && b->isVisibleTo(&skins) && b->isEnabled()) last = b;
    ASSERT_NE(last, nullptr) << name.toStdString();
    last->click();
  };
  QComboBox* insert = box(QStringLiteral("Add a layer inside"));
  ASSERT_NE(insert, nullptr);
  emit insert->activated(insert->findData(QStringLiteral("bubble-wrap")));
  ASSERT_EQ(document->plan().house.roof.layers.size(), before.layers.size() + 1);
  EXPECT_EQ(document->plan().house.roof.layers.back().material, "bubble-wrap");
  press(QStringLiteral("move outwards"));
  EXPECT_EQ(document->plan().house.roof.layers.front().material, "bubble-wrap");
  press(QStringLiteral("remove this layer"));
  EXPECT_EQ(document->plan().house.roof.layers.size(), before.layers.size());
  for (int i = 0; i < 3; ++i) document->planInHand().undoStack()->undo();
  EXPECT_EQ(document->plan().house.roof, before);
  QTest::mouseClick(number(QStringLiteral("price")), Qt::LeftButton);
  EXPECT_EQ(number(QStringLiteral("price"))->editor()->text(), QStringLiteral("not known"));
  QTest::keyClick(number(QStringLiteral("price"))->editor(), Qt::Key_Escape);
  type(number(QStringLiteral("price")), QStringLiteral("2"));
  ASSERT_EQ(document->plan().prices.materials.size(), 1U);
  EXPECT_EQ(document->plan().prices.materials[0].material, before.layers.front().material);
  const QString face = document->view().units().number(Quantity::money, 2.0 * document->plan().house.shape.area_m2(FaceGroup::roof));
  bool said = false;
  for (auto* l : skins.findChildren<QLabel*>()) said = said || (l->text().contains(QStringLiteral("Bought anew")) && l->text().contains(face));
  EXPECT_TRUE(said) << "two a square metre of the roof";
  document->planInHand().undoStack()->undo();
  EXPECT_TRUE(document->plan().prices.materials.empty());
  QComboBox* blanket = box(QStringLiteral("Night blanket"));
  ASSERT_NE(blanket, nullptr);
  emit blanket->activated(blanket->findData(QStringLiteral("aluminised-screen")));
  ASSERT_TRUE(document->plan().house.blanket);
  QCoreApplication::processEvents();
  QComboBox* rule = box(QStringLiteral("When the blanket is drawn"));
  ASSERT_NE(rule, nullptr);
  emit rule->activated(2);
  EXPECT_EQ(document->plan().house.blanket->rule, BlanketRule::dark);
  emit rule->activated(3);
  EXPECT_EQ(document->plan().house.blanket->rule, BlanketRule::clock);
  type(number(QStringLiteral("Closed at")), QStringLiteral("18.5"));
  EXPECT_DOUBLE_EQ(document->plan().house.blanket->closesAt_h, 18.5);
  type(number(QStringLiteral("Opened at")), QStringLiteral("18.5"));
  EXPECT_DOUBLE_EQ(document->plan().house.blanket->opensAt_h, 8.0) << "the two hours must differ";
  type(number(QStringLiteral("Work each time")), QStringLiteral("0.2"));
  EXPECT_DOUBLE_EQ(document->plan().house.blanket->hoursPerDraw, 0.2);
  emit rule->activated(0);
  EXPECT_EQ(number(QStringLiteral("Closed at")), nullptr) << "shown with its rule only";
  emit blanket->activated(0);
  EXPECT_FALSE(document->plan().house.blanket);
  for (std::size_t i = before.layers.size(); i < 6; ++i) emit insert->activated(insert->findData(QStringLiteral("pe-film")));
  EXPECT_EQ(document->plan().house.roof.layers.size(), 6U);
  emit insert->activated(insert->findData(QStringLiteral("pe-film")));
  EXPECT_EQ(document->plan().house.roof.layers.size(), 6U) << "a seventh layer is refused";
}

TEST_F(WindowTest, OneChangeIsTriedListedBuiltInAndUndone) {
  open();
  importDemoLog();
  ASSERT_TRUE(waitForResult(*document));
  window->showStage(HouseStage::kId);
  auto* house = window->findChild<HouseStage*>();
  house->showPage(HouseStage::Page::change);
  ASSERT_TRUE(waitUntil([&] { return house->changes().isCurrent(); }));
  EXPECT_EQ(house->changes().list()->packages.front().held, document->results().simulation()->summary.held) << "the first line is the house as it is";
  const std::size_t layers = document->plan().house.roof.layers.size();
  auto* list = house->changes().findChild<QTreeWidget*>();
  const auto wrap = list->findItems(QStringLiteral("bubble wrap"), Qt::MatchContains);
  ASSERT_FALSE(wrap.empty());
  const SizedPackage* promised = nullptr;
  for (const SizedPackage& p : house->changes().list()->packages)
    if (english(p.label) == "bubble wrap lining") promised = &p;
  ASSERT_NE(promised, nullptr);
  const SizedPackage promise = *promised;
  list->setCurrentItem(wrap.front());
  QTest::mouseClick(button(QStringLiteral("Build it in")), Qt::LeftButton);
  ASSERT_EQ(document->plan().house.roof.layers.size(), layers + 1);
  ASSERT_TRUE(waitForResult(*document));
  EXPECT_EQ(document->results().simulation()->summary.held, promise.held) << "what was promised is what it then does";
  EXPECT_DOUBLE_EQ(document->results().simulation()->summary.cost.total(), promise.cost.total()) << "its price is kept with the plan";
  document->planInHand().undoStack()->undo();
  EXPECT_EQ(document->plan().house.roof.layers.size(), layers);
}

TEST_F(WindowTest, AWarmBayIsPartitionedOffSetAndTakenAway) {
  open();
  importDemoLog();
  window->showStage(HouseStage::kId);
  auto* house = window->findChild<HouseStage*>();
  house->showPage(HouseStage::Page::rooms);
  button(QStringLiteral("Partition off a warm bay"))->click();
  ASSERT_TRUE(document->plan().house.bay);
  QCoreApplication::processEvents();
  auto* length = window->findChild<NumberField*>(QStringLiteral("Bay length"));
  ASSERT_NE(length, nullptr);
  QTest::mouseClick(length, Qt::LeftButton);
  length->editor()->selectAll();
  QTest::keyClicks(length->editor(), QStringLiteral("13 ft"));
  QTest::keyClick(length->editor(), Qt::Key_Return);
  EXPECT_NEAR(document->plan().house.bay->length_m, 13 * 0.3048, 1e-9);
  QTest::mouseClick(length, Qt::LeftButton);
  length->editor()->selectAll();
  QTest::keyClicks(length->editor(), QStringLiteral("40 m"));
  QTest::keyClick(length->editor(), Qt::Key_Return);
  EXPECT_NEAR(document->plan().house.bay->length_m, 13 * 0.3048, 1e-9) << "longer than nine tenths of the house";
  EXPECT_FALSE(length->errorText().isEmpty());
  ASSERT_TRUE(waitForResult(*document));
  ASSERT_EQ(document->results().simulation()->summary.rooms.size(), 1U);
  EXPECT_GT(document->results().simulation()->summary.rooms[0].coldest_C, document->results().simulation()->summary.coldest_C);
  button(QStringLiteral("Take the bay away"))->click();
  EXPECT_FALSE(document->plan().house.bay);
  document->planInHand().undoStack()->undo();
  EXPECT_TRUE(document->plan().house.bay);
}

TEST_F(WindowTest, ALobbyACeilingAndABedInTheBayAreBuiltAndUndone) {
  open();
  importDemoLog();
  window->showStage(HouseStage::kId);
  window->findChild<HouseStage*>()->showPage(HouseStage::Page::rooms);
  ASSERT_TRUE(document->edit(QStringLiteral("eaves"), [](Plan& p) { p.house.shape.eave_m = 1.2, p.house.shape.ridge_m = 3.6; }) == std::nullopt);
  for (const char* what : {"Build a lobby", "Hang a ceiling at the eaves", "Partition off a warm bay", "Cover a bed"}) {
    auto* b = button(QString::fromLatin1(what));
    ASSERT_NE(b, nullptr) << what;
    b->click();
    QCoreApplication::processEvents();
  }
  ASSERT_TRUE(document->plan().house.lobby && document->plan().house.roofVoid && document->plan().house.bay);
  type(number(QStringLiteral("Lobby length")), QStringLiteral("2 m"));
  EXPECT_DOUBLE_EQ(document->plan().house.lobby->length_m, 2.0);
  ASSERT_TRUE(waitForResult(*document));
  ASSERT_EQ(document->results().simulation()->summary.rooms.size(), 4U);
  const auto rooms = otherRooms(document->plan());
  for (std::size_t r = 0; r < rooms.size(); ++r) {
    bool told = false; // each card tells its own coldest
    const QString coldest = document->view().units().text(Quantity::temperature, document->results().simulation()->summary.rooms[r].coldest_C);
    for (auto* label : window->findChildren<QLabel*>()) told = told || label->text().contains(coldest);
    EXPECT_TRUE(told) << rooms[r].id;
  }
  QCheckBox* inBay = nullptr;
  for (auto* box : window->findChildren<QCheckBox*>())
    if (box->text() == QStringLiteral("in the bay")) inBay = box;
  ASSERT_NE(inBay, nullptr);
  const bool fits = document->plan().house.bedCovers[0].length_m < document->plan().house.bay->length_m;
  inBay->click();
  EXPECT_TRUE(fits ? document->plan().house.bedCovers[0].inBay : true);
  while (document->plan().house.lobby) document->planInHand().undoStack()->undo();
  EXPECT_TRUE(otherRooms(document->plan()).empty());
}

TEST_F(WindowTest, WhatMayOpenIsBuiltInAndAFightWithTheHeaterIsRefusedInPlace) {
  open();
  importDemoLog();
  window->showStage(HouseStage::kId);
  window->findChild<HouseStage*>()->showPage(HouseStage::Page::vents);
  const auto box = [&](const char* text) {
    for (auto* b : window->findChildren<QCheckBox*>())
      if (b->text() == QString::fromLatin1(text)) return b;
    return static_cast<QCheckBox*>(nullptr);
  };
  EXPECT_EQ(number(QStringLiteral("It moves")), nullptr) << "shown with its fan only";
  box("A fan that blows out")->click();
  ASSERT_TRUE(document->plan().house.extractFan);
  type(number(QStringLiteral("It moves")), QStringLiteral("4500"));
  EXPECT_DOUBLE_EQ(document->plan().house.extractFan->flow_m3_h, 4500.0);
  NumberField* const runs = number(QStringLiteral("Runs above"));
  type(runs, QStringLiteral("1 C"));
  EXPECT_DOUBLE_EQ(document->plan().house.extractFan->above_C, 26.0) << "below the setpoint";
  EXPECT_TRUE(runs->errorText().contains(QStringLiteral("fight"))) << runs->errorText().toStdString();
  box("Sides that roll up")->click();
  EXPECT_TRUE(document->plan().house.rollUp);
  box("Draughts by a pressure test")->click();
  type(number(QStringLiteral("Leaks")), QStringLiteral("350"));
  EXPECT_DOUBLE_EQ(document->plan().house.leakage->area_cm2, 350.0);
  window->findChild<HouseStage*>()->showPage(HouseStage::Page::shape);
  EXPECT_EQ(number(QStringLiteral("Air changes")), nullptr) << "of no account beside a measured leakage";
  EXPECT_EQ(number(QStringLiteral("Wind adds")), nullptr);
  for (int i = 0; i < 5; ++i) document->planInHand().undoStack()->undo();
  EXPECT_NE(number(QStringLiteral("Air changes")), nullptr);
  EXPECT_FALSE(document->plan().house.extractFan || document->plan().house.rollUp || document->plan().house.leakage);
}

TEST_F(WindowTest, AMaterialOfYourOwnIsMadeUsedAndNotTakenAwayWhileInUse) {
  open();
  OwnMaterialsDialog dialog(*document);
  dialog.show();
  QComboBox* from = dialog.findChild<QComboBox*>();
  ASSERT_NE(from, nullptr);
  emit from->activated(from->findText(QStringLiteral("bubble wrap, large bubble")));
  ASSERT_EQ(document->plan().materials.size(), 1U);
  EXPECT_EQ(document->plan().materials[0].id, "own-1");
  QCoreApplication::processEvents();
  NumberField* light = dialog.findChild<NumberField*>(QStringLiteral("Light through"));
  type(light, QStringLiteral("60 %"));
  EXPECT_DOUBLE_EQ(document->plan().materials[0].solarTransmittance, 0.6);
  type(light, QStringLiteral("95 %"));
  EXPECT_DOUBLE_EQ(document->plan().materials[0].solarTransmittance, 0.6) << "with what is sent back it would be more than all";
  EXPECT_FALSE(light->errorText().isEmpty());
  ASSERT_FALSE(document->edit(QStringLiteral("line the roof"), [](Plan& p) { p.house.roof.layers.push_back({"own-1", 0.05}); }));
  QPushButton* away = nullptr;
  for (auto* b : dialog.findChildren<QPushButton*>())
    if (b->text() == QStringLiteral("Take away") && b->isVisible()) away = b;
  ASSERT_NE(away, nullptr);
  away->click();
  EXPECT_EQ(document->plan().materials.size(), 1U) << "the roof has it";
  bool said = false;
  for (auto* l : dialog.findChildren<QLabel*>()) said = said || l->text().contains(QStringLiteral("own-1"));
  EXPECT_TRUE(said);
}

TEST_F(WindowTest, AFieldWhosePlaceIsGoneReadsNothingAndChangesNothing) {
  open();
  const Find<double> find = [](Plan& p) { return p.heaters.empty() ? nullptr : &p.heaters.front().power_W; };
  const auto spec = NumberField::Spec::at(QStringLiteral("Watts"), Quantity::power, find, 0.0, 1e5, 100.0, {});
  Plan plan;
  plan.heaters = {{.id = "heater", .power_W = 1500.0}};
  EXPECT_DOUBLE_EQ(spec.get(plan), 1500.0);
  spec.set(plan, 2500.0);
  EXPECT_DOUBLE_EQ(plan.heaters.front().power_W, 2500.0);
  plan.heaters.clear();
  EXPECT_DOUBLE_EQ(spec.get(plan), 0.0);
  spec.set(plan, 900.0);
  EXPECT_TRUE(plan.heaters.empty());
}

TEST_F(WindowTest, AFileThatIsNoLogChangesNothing) {
  open();
  const QString bad = m_dir.filePath(QStringLiteral("bad.csv"));
  ASSERT_TRUE(writeFile(bad.toStdString(), std::string("\0\1\2 not a table", 15)));
  whenAsked([](ImportDialog* dialog) {
    EXPECT_FALSE(dialog->read());
    dialog->reject();
  });
  EXPECT_FALSE(window->importFile(bad));
  EXPECT_EQ(document->readings().log(), nullptr);
  EXPECT_FALSE(window->importFile(m_dir.filePath(QStringLiteral("missing.csv"))));
}

TEST_F(WindowTest, TheWindowStaysLiveWhileAWinterIsWorkedOut) {
  open();
  ASSERT_TRUE(window->importFileUnasked(twoMonths()));
  ASSERT_TRUE(waitForResult(*document));
  for (int i = 0; i < 8; ++i) {
    const Simulation* shown = document->results().simulation();
    ASSERT_FALSE(document->edit(QStringLiteral("change"), [&](Plan& p) { p.house.airChanges_per_h = 0.5 + 0.05 * i; }));
    EXPECT_FALSE(document->results().isCurrent()) << "an edit returns before the winter is worked out again";
    EXPECT_EQ(document->results().simulation(), shown) << "until then the old result stays, marked as old";
  }
  ASSERT_TRUE(waitForResult(*document));
  EXPECT_TRUE(document->results().isCurrent());
}

/// Counts how often a widget is dressed anew.
class Dressings : public QObject {
public:
  int count = 0;

protected:
  bool eventFilter(QObject* of, QEvent* event) override {
    if (event->type() == QEvent::StyleChange) ++count;
    return QObject::eventFilter(of, event);
  }
};

TEST_F(WindowTest, IsDressedAnewForAnotherLightAloneAndNotForAnotherUnit) {
  open();
  Dressings dressings;
  window->installEventFilter(&dressings);
  Units units = document->view().units();
  units.fahrenheit = !units.fahrenheit;
  document->view().setUnits(units);
  EXPECT_EQ(dressings.count, 0);
  document->view().setDark(!document->view().isDark());
  EXPECT_GE(dressings.count, 1);
}

TEST_F(WindowTest, EveryStagePaintsInBothThemesWithAndWithoutALog) {
  open();
  for (const bool withLog : {false, true}) {
    if (withLog) {
      ASSERT_TRUE(window->importFileUnasked(twoMonths()));
      ASSERT_TRUE(waitForResult(*document));
    }
    for (const bool dark : {false, true}) {
      document->view().setDark(dark);
      for (const StageRow& row : stages()) {
        window->showStage(row.id);
        const QImage image = window->grab().toImage();
        QSet<QRgb> colours;
        for (int x = 0; x < image.width(); x += 9)
          for (int y = 0; y < image.height(); y += 7) colours.insert(image.pixel(x, y));
        EXPECT_GT(colours.size(), 12) << row.id;
      }
    }
  }
}

} // namespace
} // namespace muffle
