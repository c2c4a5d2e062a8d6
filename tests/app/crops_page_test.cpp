// SPDX-License-Identifier: GPL-3.0-or-later
//
// Crops are set down in Heat, held against the logged nights, given figures of one's own; and what heaters can do there since.
#include "app/stages/crops_page.h"

#include "app/stages/heat_stage.h"
#include "app/stages/heater_list.h"
#include "app/stages/ladder.h"
#include "app/stages/own_crops.h"
#include "core/plan/heaters.h"
#include "core/simulate/crop_harm.h"
#include "tests/app/window_fixture.h"

#include <QComboBox>
#include <QLabel>

namespace muffle {
namespace {

class CropsPageTest : public WindowTest {
protected:
  CropsPage& page() {
    window->showStage(HeatStage::kId);
    window->findChild<HeatStage*>()->showPage(HeatStage::Page::crops);
    return *window->findChild<CropsPage*>();
  }
  QComboBox* combo(const QString& name) {
    QCoreApplication::processEvents();
    for (auto* c : window->findChildren<QComboBox*>())
      if (c->accessibleName() == name && c->isVisible()) return c;
    return nullptr;
  }
  NumberField* field(const QString& name) {
    QCoreApplication::processEvents();
    for (auto* f : window->findChildren<NumberField*>())
      if (f->accessibleName() == name && f->isVisible()) return f;
    return nullptr;
  }
  void choose(const QString& name, const QString& text) {
    QComboBox* c = combo(name);
    ASSERT_NE(c, nullptr) << name.toStdString();
    const int at = c->findText(text);
    ASSERT_GE(at, 0) << text.toStdString();
    c->setCurrentIndex(at);
    emit c->activated(at);
    QCoreApplication::processEvents();
  }
};

TEST_F(CropsPageTest, ACropIsSetDownJudgedAndItsLineTaken) {
  open();
  importDemoLog();
  CropsPage& crops = page();
  EXPECT_TRUE(crops.words().contains(QStringLiteral("Say what stands here")));
  button(QStringLiteral("Add a crop"))->click();
  choose(QStringLiteral("Crop 1"), QStringLiteral("tomatoes"));
  ASSERT_EQ(document->plan().crops.size(), 1U);
  EXPECT_EQ(document->plan().crops[0].crop, "tomato");
  ASSERT_TRUE(waitForResult(*document));
  QCoreApplication::processEvents();
  const auto fates = cropFates(document->plan(), *document->readings().weather(), *document->results().simulation());
  ASSERT_EQ(fates.size(), 1U);
  EXPECT_TRUE(crops.words().contains(fates[0].times() > 0 ? QStringLiteral("would have been harmed") : QStringLiteral("None"))) << crops.words().toStdString();
  EXPECT_TRUE(crops.words(0).startsWith(QStringLiteral("leaf: harmed by 30"))) << crops.words(0).toStdString();
  QPushButton* line = nullptr;
  for (auto* b : crops.findChildren<QPushButton*>())
    if (b->text().startsWith(QStringLiteral("Hold "))) line = b;
  ASSERT_NE(line, nullptr);
  ASSERT_TRUE(line->isVisible());
  const double before = document->plan().setpoints.hold_C;
  line->click();
  EXPECT_NE(document->plan().setpoints.hold_C, before);
  EXPECT_GE(document->plan().setpoints.hold_C, -0.5) << "never below what it bears";
  for (const NightResult& night : document->results().simulation()->nights) { // every night that held the new line spared it
    if (!night.assessable || night.coldest_C < document->plan().setpoints.hold_C) continue;
    const auto& leaf = document->results().simulation()->series[night.winter].leaf_C;
    for (const Exposure& e : Crops().find("tomato")->of(CropPart::leaf))
      if (const auto worst = exposed(std::span(leaf).subspan(night.from, night.to + 1 - night.from), 600.0, e, false); worst && e.for_h < 3.0) {
        EXPECT_EQ(worst->times, 0);
      }
  }
  ASSERT_TRUE(waitForResult(*document));
  QCoreApplication::processEvents();
  EXPECT_FALSE(line->isVisible()) << "it is held now";
  auto* ladder = window->findChild<Ladder*>();
  bool isThere = false;
  for (const SpokenLine& spoken : ladder->spoken()) isThere = isThere || spoken.name.contains(QStringLiteral("harms tomatoes"));
  EXPECT_TRUE(isThere);
  for (auto* b : crops.findChildren<QPushButton*>())
    if (b->accessibleName() == QStringLiteral("Take out crop 1")) {
      b->click();
      break;
    }
  EXPECT_TRUE(document->plan().crops.empty());
  document->planInHand().undoStack()->undo();
  EXPECT_EQ(document->plan().crops.size(), 1U);
}

TEST_F(CropsPageTest, RootsStandInPotsUnderACoverAndGoWithIt) {
  open();
  importDemoLog();
  ASSERT_FALSE(document->edit(QStringLiteral("a bed"), [](Plan& p) { p.house.bedCovers.push_back({}); }));
  CropsPage& crops = page();
  button(QStringLiteral("Add a crop"))->click();
  choose(QStringLiteral("Crop 1"), QStringLiteral("shrubs with tender roots"));
  choose(QStringLiteral("Crop 1: where it stands"), QStringLiteral("under bed cover"));
  choose(QStringLiteral("Crop 1: its roots"), QStringLiteral("roots in pots"));
  EXPECT_TRUE(document->plan().crops[0].inPots);
  EXPECT_EQ(document->plan().crops[0].in, CropStand::In::bed);
  NumberField* pot = field(QStringLiteral("Crop 1: a pot"));
  ASSERT_NE(pot, nullptr);
  type(pot, QStringLiteral("12"));
  EXPECT_DOUBLE_EQ(document->plan().crops[0].pot_litres, 12.0);
  ASSERT_TRUE(waitForResult(*document));
  QCoreApplication::processEvents();
  EXPECT_TRUE(crops.words(0).contains(QStringLiteral("roots: harmed by"))) << crops.words(0).toStdString();
}

TEST_F(CropsPageTest, OnesOwnIsSetOutFromTheTableAndUsed) {
  open();
  importDemoLog();
  page();
  OwnCropsDialog own(*document, window.get());
  own.show();
  auto* from = own.findChild<QComboBox*>();
  const int peas = from->findText(QStringLiteral("peas"));
  ASSERT_GE(peas, 0);
  emit from->activated(peas);
  QCoreApplication::processEvents();
  ASSERT_EQ(document->plan().ownCrops.size(), 1U);
  EXPECT_EQ(document->plan().ownCrops[0].leaf_C, -7.0);
  EXPECT_EQ(document->plan().ownCrops[0].name, "peas, own");
  for (auto* f : own.findChildren<NumberField*>())
    if (f->accessibleName().contains(QStringLiteral("Leaf harmed at")) || f->objectName() == QStringLiteral("Leaf harmed at")) {
      type(f, QStringLiteral("-4"));
      break;
    }
  EXPECT_EQ(document->plan().ownCrops[0].leaf_C, -4.0);
  own.close();
  button(QStringLiteral("Add a crop"))->click();
  choose(QStringLiteral("Crop 1"), QStringLiteral("peas, own"));
  EXPECT_EQ(document->plan().crops[0].crop, "own-1");
  ASSERT_TRUE(waitForResult(*document));
  QCoreApplication::processEvents();
  EXPECT_TRUE(window->findChild<CropsPage*>()->words(0).contains(QStringLiteral("at −4")));
}

TEST_F(CropsPageTest, AHeaterGoesUnderACoverAndAFlueThroughABench) {
  open();
  importDemoLog();
  ASSERT_FALSE(document->edit(QStringLiteral("a bed and a bench"), [](Plan& p) {
    p.house.bedCovers.push_back({});
    p.mass.push_back({.kind = MassKind::bench, .material = MassMaterial::earth, .area_m2 = 4.0, .thickness_m = 0.5, .width_m = 0.7});
    addHeater(p, {.kind = HeaterKind::massStove, .power_W = 8000.0});
  }));
  window->showStage(HeatStage::kId);
  window->findChild<HeatStage*>()->showPage(HeatStage::Page::heaters);
  choose(QStringLiteral("mass stove, fed by hand: where its flue leads"), QStringLiteral("flue through heavy bench"));
  EXPECT_EQ(document->plan().heaters[1].through, 1);
  ASSERT_NE(field(QStringLiteral("mass stove, fed by hand: into it")), nullptr);
  type(field(QStringLiteral("mass stove, fed by hand: into it")), QStringLiteral("80"));
  EXPECT_DOUBLE_EQ(document->plan().heaters[1].massShare, 0.8);
  choose(QStringLiteral("fan heater: where it stands"), QStringLiteral("under bed cover"));
  EXPECT_EQ(document->plan().heaters[0].place, (HeaterPlace{HeaterPlace::Of::bed, 0}));
  NumberField* holds = field(QStringLiteral("fan heater: holds"));
  ASSERT_NE(holds, nullptr);
  type(holds, QStringLiteral("7"));
  EXPECT_DOUBLE_EQ(document->plan().heaters[0].holds_C, 7.0);
  choose(QStringLiteral("fan heater: where it stands"), QStringLiteral("within heavy bench"));
  EXPECT_EQ(document->plan().heaters[0].place, (HeaterPlace{HeaterPlace::Of::mass, 0}));
  ASSERT_TRUE(waitForResult(*document));
}

TEST_F(CropsPageTest, ABandIsGivenAndItsStartsAreSaid) {
  open();
  importDemoLog();
  window->showStage(HeatStage::kId);
  window->findChild<HeatStage*>()->showPage(HeatStage::Page::heaters);
  QCoreApplication::processEvents();
  auto* list = window->findChild<HeaterList*>();
  for (auto* b : list->findChildren<QPushButton*>())
    if (b->accessibleName().startsWith(QStringLiteral("When and how "))) b->click();
  const double exact_C = document->results().simulation()->summary.coldest_C;
  type(field(QStringLiteral("fan heater: On to off")), QStringLiteral("2"));
  EXPECT_EQ(document->plan().heaters[0].band_K, 2.0);
  ASSERT_TRUE(waitForResult(*document));
  QCoreApplication::processEvents();
  EXPECT_LE(document->results().simulation()->summary.coldest_C, exact_C);
  QString said;
  for (auto* l : list->findChildren<QLabel*>()) said += l->text() + QLatin1Char('\n');
  EXPECT_TRUE(said.contains(QStringLiteral("it goes on about"))) << said.toStdString();
  EXPECT_TRUE(said.contains(QStringLiteral("below its setpoint"))) << said.toStdString();
  type(field(QStringLiteral("fan heater: On to off")), QStringLiteral("exact"));
  EXPECT_FALSE(document->plan().heaters[0].band_K);
}

} // namespace
} // namespace muffle
