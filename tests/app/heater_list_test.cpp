// SPDX-License-Identifier: GPL-3.0-or-later
//
// The heaters of the rooms in Heat: another is added to help the first, changed, and taken out again.
#include "app/stages/heater_list.h"

#include "app/stages/number_field.h"
#include "core/plan/heaters.h"
#include "tests/app/window_fixture.h"

#include "app/stages/heat_stage.h"
#include <QLabel>
#include <QPushButton>

namespace muffle {
namespace {

class HeaterListTest : public WindowTest {
protected:
  HeaterList& list() {
    window->showStage(HeatStage::kId);
    return *window->findChild<HeaterList*>();
  }
  NumberField* field(HeaterList& of, const QString& name) {
    for (auto* f : of.findChildren<NumberField*>())
      if (f->accessibleName() == name && f->isVisible()) return f;
    return nullptr;
  }
  QPushButton* button(HeaterList& of, const QString& text) {
    for (auto* b : of.findChildren<QPushButton*>())
      if (b->isVisible() && (b->text() == text || b->accessibleName() == text)) return b;
    return nullptr;
  }
};

TEST_F(HeaterListTest, AnotherHelpsTheFirstIsChangedAndTakenOutByUndo) {
  open();
  importDemoLog();
  HeaterList& heaters = list();
  const Plan before = document->plan();
  ASSERT_EQ(before.heaters.size(), 1U);
  heaters.addButton()->click();
  ASSERT_EQ(document->plan().heaters.size(), 2U);
  EXPECT_GT(document->plan().heaters[1].stage_K, 0.0) << "it gives when the first cannot";
  EXPECT_NE(document->plan().heaters[1].id, document->plan().heaters[0].id);
  ASSERT_TRUE(document->waitForResult());
  QCoreApplication::processEvents();
  const Simulation& run = *document->result();
  EXPECT_GE(run.summary.ledger.heat_kWh(MeterUse::heater, 0), run.summary.ledger.heat_kWh(MeterUse::heater, 1));
  QString said;
  for (auto* l : heaters.findChildren<QLabel*>()) said += l->text() + QLatin1Char('\n');
  EXPECT_TRUE(said.contains(QStringLiteral("full stretch"))) << said.toStdString();
  NumberField* begins = field(heaters, QStringLiteral("heater 2: Waits"));
  ASSERT_TRUE(begins);
  type(begins, QStringLiteral("2.5"));
  EXPECT_DOUBLE_EQ(document->plan().heaters[1].stage_K, 2.5);
  button(heaters, QStringLiteral("Take out heater 2"))->click();
  EXPECT_EQ(document->plan(), before);
  document->undoStack()->undo();
  EXPECT_EQ(document->plan().heaters.size(), 2U);
  QCoreApplication::processEvents();
  type(field(heaters, QStringLiteral("fan heater: Waits")), QStringLiteral("4")); // its row moves down while its field is in hand
  EXPECT_DOUBLE_EQ(document->plan().heaters[0].stage_K, 4.0);
  QCoreApplication::processEvents();
  EXPECT_NE(field(heaters, QStringLiteral("heater 2: Waits")), nullptr);
}

TEST_F(HeaterListTest, WhereOnlyTheBayHasOneTheUsualOneIsOfferedForTheHouse) {
  open();
  HeaterList& heaters = list();
  document->edit(QStringLiteral("bay"), [](Plan& p) {
    p.heaters.clear();
    p.house.bay = WarmBay{};
    setHeaterPower(p, {HeaterPlace::Of::bay}, 2000.0);
  });
  QCoreApplication::processEvents();
  EXPECT_EQ(heaters.findChildren<NumberField*>().empty(), false);
  EXPECT_FALSE(heaters.addButton()->isVisible());
}

TEST_F(HeaterListTest, AFieldOfAHeaterThatIsGoneChangesNothing) {
  open();
  HeaterList& heaters = list();
  document->edit(QStringLiteral("none"), [](Plan& p) { p.heaters.clear(); });
  QCoreApplication::processEvents();
  EXPECT_TRUE(heaters.findChildren<NumberField*>().empty() || !heaters.findChildren<NumberField*>().front()->isVisible());
  EXPECT_FALSE(heaters.addButton()->isVisible()) << "the usual one is offered instead";
}

} // namespace
} // namespace muffle
