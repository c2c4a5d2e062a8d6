// SPDX-License-Identifier: GPL-3.0-or-later
//
// The cautions of the table stand beside what they go with, and on paper.
#include "app/model/said.h"
#include "app/pictures/waiting.h"
#include "tests/app/window_fixture.h"

#include "app/stages/caution_label.h"
#include "app/stages/cost_stage.h"
#include "app/stages/heat_stage.h"
#include "app/stages/house_stage.h"
#include "app/stages/print.h"
#include "app/stages/store_words.h"
#include "app/stages/stores_stage.h"
#include "core/plan/cautions.h"
#include "core/plan/heaters.h"
#include "core/plan/store_list.h"

#include <QTextDocument>

namespace muffle {
namespace {

class CautionsTest : public WindowTest {
protected:
  void TearDown() override { close(); }
  /// Every caution that can be seen now.
  QString inSight() {
    QCoreApplication::processEvents();
    QString all;
    for (const QLabel* l : window->findChildren<QLabel*>(QStringLiteral("caution")))
      if (l->isVisible()) all += l->text() + QLatin1Char('\n');
    return all;
  }
  void expectInSight(const std::vector<Caution>& cautions, const std::string& of) {
    const QString seen = inSight();
    EXPECT_FALSE(cautions.empty()) << of;
    for (const Caution& c : cautions) EXPECT_TRUE(seen.contains(said(textOf(c)))) << of << ": " << c.id;
  }
};

TEST_F(CautionsTest, StandBesideEveryPartOfTheHouseAndTheHeater) {
  open();
  window->showStage(HouseStage::kId);
  for (const auto& [page, kind] : {std::pair{HouseStage::Page::shape, ThingKind::shape},
                                   {HouseStage::Page::skins, ThingKind::covers},
                                   {HouseStage::Page::floor, ThingKind::floor},
                                   {HouseStage::Page::vents, ThingKind::vents},
                                   {HouseStage::Page::rooms, ThingKind::rooms}}) {
    find<HouseStage>()->showPage(page);
    expectInSight(cautionsAbout(kind), "page " + std::to_string(static_cast<int>(page)));
  }
  window->showStage(HeatStage::kId);
  expectInSight(cautionsFor(document->plan(), {ThingKind::heater, 0}), "heat");
  for (const HeaterKindFacts& facts : heaterKinds()) { // wherever a kind is chosen, what goes with it
    if (!facts.inRooms) continue;
    ASSERT_FALSE(document->edit(QStringLiteral("kind"), [&](Plan& p) { p.heaters[0].kind = facts.kind; }));
    expectInSight(cautionsFor(document->plan(), {ThingKind::heater, 0}), facts.id);
  }
}

TEST_F(CautionsTest, StandBesideEveryStore) {
  open();
  for (const auto& addition : StoreWords::additions()) ASSERT_FALSE(document->edit(QStringLiteral("add"), addition.add));
  ASSERT_FALSE(document->edit(QStringLiteral("stove"), [](Plan& p) {
    for (std::size_t i = 0; i < p.waterLoops.size(); ++i) firstHeater(p, {HeaterPlace::Of::tank, i}).power_W = 6000.0;
  }));
  window->showStage(StoresStage::kId);
  auto* stores = find<StoresStage>();
  stores->showPage(StoresStage::Page::stores);
  for (const StoreRef& s : storesOf(document->plan())) {
    stores->choice().choose(s.id);
    expectInSight(cautionsFor(document->plan(), thingOf(s)), s.id);
  }
}

TEST_F(CautionsTest, StandUnderTheCheapestPlanAndUnderWhatMayBeAdded) {
  open();
  importDemoLog();
  document->startSizing();
  ASSERT_TRUE(waitForSizing(*document));
  window->showStage(CostStage::kId);
  const Sizing& s = *document->results().sizing();
  ASSERT_GE(s.winner, 0);
  std::vector<Measure> chosen;
  const auto& choice = s.packages[static_cast<std::size_t>(s.winner)].choice;
  for (std::size_t m = 0; m < choice.size(); ++m)
    if (choice[m] >= 0) chosen.push_back(document->results().sizedPlan().measures[m]);
  expectInSight(cautionsFor(document->plan(), chosen), "the cheapest");
  find<CostStage>()->showMeasures(true);
  const QString cards = inSight(); // on the card of each, as far as the list is scrolled
  for (const Measure& m : document->plan().measures)
    for (const Caution& c : cautionsFor(document->plan(), std::vector<Measure>{m})) EXPECT_TRUE(cards.contains(said(textOf(c)))) << m.name << ": " << c.id;
}

TEST_F(CautionsTest, ArePrintedWithThePlan) {
  open();
  for (const auto& addition : StoreWords::additions()) ASSERT_FALSE(document->edit(QStringLiteral("add"), addition.add));
  QTextDocument page;
  page.setHtml(printedCautions(document->plan()));
  const QString text = page.toPlainText();
  const auto stated = cautionsOf(document->plan());
  ASSERT_GT(stated.size(), 12U);
  for (const StatedCaution& s : stated) {
    EXPECT_TRUE(text.contains(said(textOf(s.caution)).replace(QChar(QChar::Nbsp), QLatin1Char(' ')))) << s.caution.id; // as plain text has it
    for (const Message& name : s.of) EXPECT_TRUE(text.contains(said(name))) << english(name);
  }
}

} // namespace
} // namespace muffle
